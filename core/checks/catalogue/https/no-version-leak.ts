import { headerValues, lastAnswer, type Exchange } from '#core/facts/evidence';
import { BEFORE_BLOCK } from '#core/recipes/conditional-header';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

/** Headers that name software. */
const HEADERS = ['Server', 'X-Powered-By', 'X-AspNet-Version', 'X-AspNetMvc-Version', 'X-Generator'];
/** A number with parts, or behind a slash: "PHP/8", "nginx 1.24". */
const VERSION = /\d+\.\d+|\/v?\d/;
/** Generators are named with their version: "Some Builder 10 (https://…)". */
/** A product and its version in a comment of Via; the version of the protocol before it is none (RFC 9110 7.6.3). */
const VIA = /\(([^)]*\/v?\d[^)]*)\)|^(?:[\w-]+\/)?\d+(?:\.\d+)?\s+([\w.-]+\/v?\d\S*)/;
const GENERATOR = /\d+\.\d+|\/v?\d|\s[vV]?\d+(?=$|[\s;,()])/;

/** The first header of an answer that gives a version. */
function leakIn(answer: Exchange): { name: string; value: string } | undefined {
  const via = headerValues(answer, 'via')
    .flatMap((value) => value.split(','))
    .map((entry) => entry.trim())
    .find((entry) => VIA.test(entry));
  if (via) return { name: 'Via', value: via };
  for (const name of HEADERS)
    for (const value of headerValues(answer, name))
      if ((name === 'X-Generator' ? GENERATOR : VERSION).test(value)) return { name, value };
  return undefined;
}

export const noVersionLeak = defineCheck({
  id: 'https.no-version-leak',
  title: 'Server headers and generator give no version',
  fault: 'Server header or generator gives a version',
  severity: 'minor',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'Lists of hosts by version are what attackers begin with on the day a hole is known.',
  source: 'common practice',
  messages: { expected: 'no version number in Server, X-Powered-By, Via or meta generator' },
  judge(context) {
    const { view } = context;
    return overHosts(context, (h) => {
      const answers = [...h.https.hops, ...h.http.hops].filter(
        (x) => x.status !== undefined && new URL(x.url).hostname === h.host,
      );
      if (!answers.length)
        return unsure(h.host, verbatim(h.https.error?.message) ?? commonMessage('no-answer'));
      for (const answer of answers) {
        const leak = leakIn(answer);
        if (leak) return failed(h.host, { found: verbatim(leak.value), raw: `${leak.name}: ${leak.value}` });
      }
      const page =
        view.home && new URL(lastAnswer(view.home.evidence.chain)?.url ?? view.home.url).hostname === h.host
          ? view.home
          : undefined;
      const generator = page?.facts.metas.find((m) => m.name === 'generator' && GENERATOR.test(m.content));
      return generator
        ? failed(h.host, { found: verbatim(generator.content), raw: generator.raw })
        : passed(h.host, { found: verbatim(headerValues(answers[0], 'server')[0]) });
    });
  },
  recipe: () => ({
    steps:
      'Switch the number off in the server or the cache before it, and the generator tag in the product or theme.',
    paste: [
      {
        label: BEFORE_BLOCK,
        text: 'server_tokens off;\nfastcgi_hide_header X-Powered-By;\nproxy_hide_header X-Powered-By;',
      },
      {
        label: 'Apache, in the main configuration',
        text: 'ServerTokens Prod\nHeader unset X-Powered-By\nHeader always unset X-Powered-By',
      },
      { label: 'PHP', text: 'expose_php = Off' },
    ],
  }),
});
