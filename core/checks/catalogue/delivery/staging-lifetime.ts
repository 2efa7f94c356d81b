import type { HostProfile } from '#core/facts/host-profile';
import type { EnvironmentDates } from '#core/facts/environment';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overSite, passed, untested } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.staging-lifetime', {
  'no-known-end': 'the host profile knows no end for such environments',
  'start-unknown': 'it is not said when this environment was set up',
  lapsed: 'it lapsed on {day}',
  'days-left': '{left, plural, one {{left} day} other {{left} days}} left, until {day}',
});

const DAY = 86_400_000;

/**
 * When an environment lapses: the host's word, else its first span, prolonged by each change, never beyond the cap.
 * @returns milliseconds, or undefined where nothing is known
 */
export function lapseOf(
  span: NonNullable<HostProfile['stagingLifetime']>,
  dates: EnvironmentDates,
): number | undefined {
  if (dates.endsOn) return Date.parse(dates.endsOn);
  if (!dates.setUp) return undefined;
  const begin = Date.parse(dates.setUp);
  let end = begin + span.firstDays * DAY;
  if (dates.changed && span.renewalDays !== undefined)
    end = Math.max(end, Date.parse(dates.changed) + span.renewalDays * DAY);
  return span.capDays === undefined ? end : Math.min(end, begin + span.capDays * DAY);
}

export const stagingLifetime = defineCheck({
  id: 'delivery.staging-lifetime',
  title: 'Staging does not lapse soon',
  fault: 'Staging lapses soon',
  severity: 'major',
  situations: ['staging'],
  scope: 'site',
  why: 'A draft that lapses in the night before the launch takes the work along.',
  source: 'common practice',
  parameters: { days: { default: 7, min: 1, max: 90, unit: 'days', meaning: 'fewest days left' } },
  messages: { expected: ({ parameters }) => `at least ${parameters.days} days` },
  judge(context) {
    const { profile, environment, at, parameters, evidence } = context;
    const span = profile.stagingLifetime;
    if (!span && !environment?.endsOn) return inapplicable(msg('no-known-end'));
    const end = lapseOf(span ?? { firstDays: 0 }, environment ?? {});
    if (end === undefined || Number.isNaN(end)) return untested(msg('start-unknown'));
    const left = Math.floor((end - at.getTime()) / DAY);
    const day = new Date(end).toISOString().slice(0, 10);
    return overSite(
      context,
      (left >= parameters.days ? passed : failed)(evidence.target.url, {
        found: left < 0 ? msg('lapsed', { day }) : msg('days-left', { left, day }),
      }),
    );
  },
  recipe: ({ profile }) => ({
    steps: profile.stagingLifetime?.renewalDays
      ? `Publish a change there: each gives it ${profile.stagingLifetime.renewalDays} days more${profile.stagingLifetime.capDays ? `, up to ${profile.stagingLifetime.capDays} in all` : ''}. Keep a backup.`
      : 'Ask the host for more time, or copy the environment to another one, and keep a backup.',
  }),
});
