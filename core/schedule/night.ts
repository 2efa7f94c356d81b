/** When scheduled audits run: windows in a site's own time zone, and times spread over them. */
import { Cron } from 'croner';

export const EVERY = ['day', 'week'] as const;
export type Every = (typeof EVERY)[number];

/** Clock times as HH:MM in the site's time zone. */
export interface ScheduleRule {
  every: Every;
  /** 1 is Monday, 7 Sunday (ISO 8601); only for `week`. */
  weekday: number;
  from: string;
  /** Before `from`: on the next day. */
  to: string;
  /** Hours in which nothing is asked. */
  blackout?: { from: string; to: string };
}

export interface Span {
  from: Date;
  to: Date;
}

/** The next moment at which a clock in that zone shows a time. @throws RangeError for what is no time or no zone */
function nextAt(time: string, timeZone: string, after: Date, weekday = '*'): Date {
  const [, hour, minute] = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(time) ?? [];
  if (hour === undefined) throw new RangeError(`“${time}” is no time of day`);
  const next = new Cron(`${Number(minute)} ${Number(hour)} * * ${weekday}`, {
    timezone: timeZone,
    paused: true,
  }).nextRun(after);
  if (!next) throw new RangeError(`${time} never comes`);
  return next;
}

const DAY_MS = 86_400_000;

/** The window of a rule that is open at a moment, or opens next after it. */
export function windowOf({ every, weekday, from, to }: ScheduleRule, timeZone: string, at: Date): Span {
  // one that opened in the last day may be open still
  for (let after = new Date(at.getTime() - DAY_MS); ;) {
    const opens = nextAt(from, timeZone, after, every === 'week' ? String(weekday % 7) : '*');
    const closes = nextAt(to, timeZone, opens);
    if (closes > at) return { from: opens, to: closes };
    after = opens;
  }
}

/** A window without its hours of blackout. */
export function openSpans(span: Span, blackout: ScheduleRule['blackout'], timeZone: string): Span[] {
  if (!blackout) return [span];
  const out: Span[] = [];
  let { from } = span;
  for (let shut = new Date(from.getTime() - DAY_MS); ;) {
    shut = nextAt(blackout.from, timeZone, shut);
    if (shut >= span.to) break;
    const opens = nextAt(blackout.to, timeZone, shut);
    if (shut > from) out.push({ from, to: shut });
    if (opens > from) from = opens;
  }
  if (from < span.to) out.push({ from, to: span.to });
  return out;
}

export interface ToSpread {
  key: number;
  /** Where it is hosted: those of one host come far apart. */
  host: string;
}

/**
 * Gives each a time of its own, evenly over the spans, those of one host as far apart as they can be.
 * @returns in the order of time; all at the end of nothing where there is no span
 */
export function spread(items: readonly ToSpread[], spans: readonly Span[]): { key: number; at: Date }[] {
  const total = spans.reduce((sum, s) => sum + (s.to.getTime() - s.from.getTime()), 0);
  if (!total) return [];
  const sizes = new Map<string, number>();
  for (const { host } of items) sizes.set(host, (sizes.get(host) ?? 0) + 1);
  const seen = new Map<string, number>();
  const placed = items.map((item) => {
    const nth = seen.get(item.host) ?? 0;
    seen.set(item.host, nth + 1);
    // where it would stand if its host had all the time to itself
    return { ...item, share: (nth + 0.5) / sizes.get(item.host)! };
  });
  placed.sort((a, b) => a.share - b.share || (a.host < b.host ? -1 : a.host > b.host ? 1 : a.key - b.key));
  return placed.map(({ key }, i) => ({ key, at: momentOf(((i + 0.5) / placed.length) * total, spans) }));
}

/** The moment that lies so many milliseconds into the spans. */
function momentOf(ms: number, spans: readonly Span[]): Date {
  let left = ms;
  for (const { from, to } of spans) {
    const length = to.getTime() - from.getTime();
    if (left < length) return new Date(from.getTime() + left);
    left -= length;
  }
  return spans.at(-1)!.to;
}

/** The date on which a night begins, in its zone, as YYYY-MM-DD. */
export const nightOf = ({ from }: Span, timeZone: string): string =>
  new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(from);
