import { quantity } from '#core/text/quantity';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';

export const responseTime: Check = {
  id: 'delivery.response-time',
  section: 'delivery',
  title: 'The server answers quickly',
  severity: 'minor',
  situations: where('L'),
  scope: 'site',
  needs: 'pages',
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
  judge({ view, parameters }) {
    const expected = `a median of at most ${parameters.milliseconds} ms to the first byte`;
    const times = view.pages
      .map((p) => p.answer?.timing.firstByte)
      .filter((t): t is number => t !== undefined)
      .sort((a, b) => a - b);
    if (!times.length) return cantTell('no timing was taken', { expected });
    const middle = times.length >> 1;
    const median = times.length % 2 ? times[middle]! : (times[middle - 1]! + times[middle]!) / 2;
    return overSite(
      (median <= parameters.milliseconds! ? passed : failed)(view.evidence.target.url, {
        found: `${Math.round(median)} ms over ${quantity(times.length, 'page')}`,
      }),
      { expected },
    );
  },
  recipe: () => ({
    steps:
      'Switch on the host’s page cache, look which plug-ins or queries are slow, and ask whether the plan is too small.',
  }),
};
