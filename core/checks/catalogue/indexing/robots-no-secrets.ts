import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, untested } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.robots-no-secrets', {
  'brief-names-no-staging-host': 'the brief names no staging host and no private path',
  lines: '{linesCount, plural, one {{linesCount} line} other {{linesCount} lines}}',
});

export const robotsNoSecrets = defineCheck({
  id: 'indexing.robots-no-secrets',
  title: 'robots.txt names no staging host or private path',
  fault: 'robots.txt names a staging host or private path',
  severity: 'minor',
  situations: ['live'],
  scope: 'line',
  facts: ['robots'],
  reads: ['files'],
  why: 'Everyone may read robots.txt; what it hides is what curious people open first.',
  source: 'common practice; RFC 9309 3',
  messages: { expected: 'no staging host and no private path' },
  judge(context) {
    const { evidence, brief } = context;
    const { text, facts } = evidence.robots;
    if (text === undefined || !facts) return inapplicable(commonMessage('no-robots-file'));
    const secrets = [...(brief.stagingHosts ?? []), ...(brief.hiddenPaths ?? [])]
      .map((s) => s.toLowerCase())
      .filter((s) => s.replace(/\W/g, '').length > 2);
    if (!secrets.length) return untested(msg('brief-names-no-staging-host'));
    const lines = text.split(/\r\n?|\n/);
    const places = lines.flatMap((raw, i) => {
      const hit = secrets.find((s) => raw.toLowerCase().includes(s));
      return hit ? [failed(`line ${i + 1}`, { found: verbatim(hit), raw: raw.slice(0, 300) })] : [];
    });
    return overPlaces(
      context,
      places.length
        ? places
        : [passed(evidence.robots.chain.start, { found: msg('lines', { linesCount: lines.length }) })],
    );
  },
  recipe: () => ({
    steps: 'Take the line out. Protect a private path by signing in, and keep it out of listings by noindex.',
  }),
});
