import type { Chain } from '#core/facts/evidence';
import { chainText } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('https.few-hops', {
  'too-many': '{redirects} redirects from {start}',
  counts: '{hopsCount} from http, {hopsCount2} from https',
});

const LANGUAGE = /^\/[a-z]{2,3}(?:-[a-z0-9]{2,8})?\/?$/i;
/** Redirects of a chain, and whether the last one chose a language. */
function hopsOf(chain: Chain): { redirects: number; language: boolean } {
  const last = chain.hops.at(-1);
  return {
    redirects: chain.hops.length - 1,
    language: chain.hops.length > 1 && last !== undefined && LANGUAGE.test(new URL(last.url).pathname),
  };
}

export const fewHops = defineCheck({
  id: 'https.few-hops',
  title: 'Redirects take few hops and do not loop',
  fault: 'Redirects take too many hops or loop',
  severity: 'minor',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'Each redirect costs a round trip, on phones often half a second.',
  source: 'common practice',
  parameters: {
    http: { default: 2, min: 1, max: 10, unit: 'redirects', meaning: 'most redirects from http' },
    https: { default: 1, min: 0, max: 10, unit: 'redirects', meaning: 'most redirects from https' },
    language: {
      default: 1,
      min: 0,
      max: 3,
      unit: 'redirects',
      meaning: 'one more where the last chooses a language',
    },
  },
  judge(context) {
    const { http, https, language } = context.parameters;
    return overHosts(
      context,
      (h) => {
        for (const [chain, most] of [
          [h.http, http!],
          [h.https, https!],
        ] as const) {
          const raw = chainText(chain);
          if (chain.error?.code === 'redirect-loop' || chain.error?.code === 'too-many-redirects')
            return failed(h.host, { found: verbatim(chain.error.message), raw });
          if (chain.end === 'error') continue;
          const { redirects, language: chose } = hopsOf(chain);
          if (redirects > most + (chose ? language! : 0))
            return failed(h.host, {
              found: msg('too-many', { redirects, start: chain.start }),
              expected: `${most + (chose ? language! : 0)}`,
              raw,
            });
        }
        if (h.http.end === 'error' && h.https.end === 'error')
          return unsure(h.host, verbatim(h.https.error?.message) ?? commonMessage('no-answer'));
        return passed(h.host, {
          found: msg('counts', { hopsCount: h.http.hops.length - 1, hopsCount2: h.https.hops.length - 1 }),
        });
      },
      { expected: `at most ${http} redirects from http, ${https} from https` },
    );
  },
  recipe: ({ brief, view }) => ({
    steps: `Let every first address lead straight to https://${brief.preferredHost ?? view.preferredHost}/ in one step each: http to https on the same host, then the host.`,
  }),
});
