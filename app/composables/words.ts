/** Words and dates as the screens say them. */
import { clockNow } from './clock';
import { PART_WORDS, PARTS, type Part } from '#core/facts/parts';
import type { Finding, Outcome } from '#core/facts/finding';
import type { Stage } from '#core/facts/situation';
import { quantity } from '#core/text/quantity';

export type OutcomeSign = Outcome | 'accepted';
export const OUTCOME_WORDS: Record<OutcomeSign, string> = {
  passed: 'passed',
  failed: 'failed',
  cantTell: 'can’t tell',
  untested: 'untested',
  inapplicable: 'not applicable',
  accepted: 'accepted',
};

export function outcomeSign(f: Pick<Finding, 'outcome' | 'accepted'>): OutcomeSign {
  return f.accepted ? 'accepted' : f.outcome;
}

const DAY = 86_400_000;

/** "today", "3 days ago", "in 9 days". */
export function daysFrom(date: string, now = new Date(clockNow())): string {
  const days = Math.round((Date.parse(date.slice(0, 10)) - Date.parse(now.toISOString().slice(0, 10))) / DAY);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** "4 min ago", then hours, then days. */
export function ago(iso: string, now = clockNow()): string {
  const minutes = Math.floor((now - Date.parse(iso)) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h ago`;
  return `${Math.floor(minutes / 1440)} days ago`;
}

/** "12 minutes", then hours, then days. @param ms milliseconds */
export function spanText(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes < 120) return quantity(minutes, 'minute');
  return minutes < 48 * 60
    ? quantity(Math.round(minutes / 60), 'hour')
    : quantity(Math.round(minutes / 1440), 'day');
}

/** Nine in the morning of the launch day where that is to come, else now: what a launch is planned for at first. */
export function likelyMoment(launchDate: string | null, now = clockNow()): string {
  const nine = launchDate ? new Date(`${launchDate.slice(0, 10)}T09:00`).getTime() : 0;
  return new Date(Math.max(nine, now)).toISOString();
}

const MOMENT = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const DATE = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: 'UTC' });

/** A moment in the reader's locale and time zone. */
export function moment(iso: string): string {
  return MOMENT.format(new Date(iso));
}

/** The same to the minute in UTC, for those who compare. */
export function momentUtc(iso: string): string {
  return `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC`;
}

/** A day in the reader's locale. */
export function dayText(date: string): string {
  return DATE.format(new Date(`${date.slice(0, 10)}T00:00:00Z`));
}

/** Stage with the days to launch: "pre-launch, in 9 days". */
export function stageWords(site: StageTimes): string {
  const when = launchWords(site);
  return when ? `${site.stage}${site.stage === 'launched' ? ' ' : ', '}${when}` : site.stage;
}

/** Days to the launch as planned, or since it really was; nothing where neither is known. */
export function launchWords({ stage, launchDate, launchedAt }: StageTimes): string {
  if (stage === 'launched') {
    if (launchedAt) return daysFrom(launchedAt);
    // a day that is still to come is no day on which it was launched
    return launchDate && Date.parse(launchDate) <= clockNow() ? daysFrom(launchDate) : '';
  }
  return launchDate && stage !== 'retired' ? `launch ${daysFrom(launchDate)}` : '';
}

export interface StageTimes {
  stage: Stage;
  /** The day that is planned. */
  launchDate: string | null;
  /** When it was set to launched. */
  launchedAt?: string | null;
}

/** How old each part of the evidence is, the newest first, those of one age together. */
export function agesText(times: Readonly<Record<Part, string>>): string {
  const byAge = new Map<string, Part[]>();
  for (const part of PARTS) byAge.set(times[part], [...(byAge.get(times[part]) ?? []), part]);
  return [...byAge]
    .sort(([a], [b]) => (a < b ? 1 : -1))
    .map(([at, parts]) => `${parts.map((p) => PART_WORDS[p]).join(', ')} ${ago(at)}`)
    .join('; ');
}
