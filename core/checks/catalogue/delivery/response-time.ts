import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.response-time', {
  'no-timing-taken': 'no timing was taken',
  median: '{median} ms over {timesCount, plural, one {{timesCount} page} other {{timesCount} pages}}',
});

export const responseTime = defineCheck({
  id: 'delivery.response-time',
  title: 'Time to first byte is short',
  fault: 'Time to first byte is long',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  needs: { pages: true },
  why: 'Nothing shows before the first byte has come.',
  source: 'common practice; the value is from memory',
  parameters: {
    milliseconds: {
      default: 800,
      min: 50,
      max: 10_000,
      unit: 'ms',
      meaning: 'longest median time to first byte',
    },
  },
  messages: {
    expected: ({ parameters }) => `a median of at most ${parameters.milliseconds} ms to the first byte`,
  },
  judge(context) {
    const { view, parameters } = context;
    const { expected } = context.words;
    const times = view.pages
      .map((p) => p.answer?.timing.firstByte)
      .filter((t): t is number => t !== undefined)
      .sort((a, b) => a - b);
    if (!times.length) return cantTell(msg('no-timing-taken'), { expected });
    const middle = times.length >> 1;
    const median = times.length % 2 ? times[middle]! : (times[middle - 1]! + times[middle]!) / 2;
    return overSite(
      context,
      (median <= parameters.milliseconds ? passed : failed)(view.evidence.target.url, {
        found: msg('median', { median: Math.round(median), timesCount: times.length }),
      }),
    );
  },
  recipe: () => ({
    steps:
      'Switch on the host’s page cache, look which plug-ins or queries are slow, and ask whether the plan is too small.',
  }),
});
