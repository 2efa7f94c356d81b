/**
 * What a browser is told while it looks: how far long work is, and what has changed. One clock for all streams; it
 * runs only while somebody listens and something moves.
 */
import type { DomainEvent } from '#core/facts/domain-events';
import { auditJob, auditProgress } from '#server/audits';
import { pollOtherProcesses, stopPolling } from '#server/platform/change-feed';
import { onChange } from '#server/platform/events';
import { runningJobs, type Job } from '#server/platform/jobs/queue';

/** What changes after a quiet while is told so soon: what belongs to one act goes together. */
const SOON_MS = 40;
/** Nothing is told more often. */
const EVERY_MS = 400;

interface Progress {
  audits: Awaited<ReturnType<typeof auditProgress>>;
  jobs: Job[];
}
type LiveEvent =
  { event: 'progress'; data: Progress } | { event: 'changed'; data: { events: DomainEvent[] } };

export interface Listener {
  personId: number;
  send(event: LiveEvent): void;
}

const listeners = new Set<Listener>();
let told = '';
let toldAt = 0;
/** What changed since it was told last, by whom it concerns; undefined is everybody. */
const changed = new Map<number | undefined, Map<string, DomainEvent>>();
let timer: NodeJS.Timeout | undefined;

async function progressNow(): Promise<Progress> {
  const jobs = await runningJobs();
  return {
    audits: await auditProgress(jobs),
    jobs: jobs.filter((j) => j.name !== auditJob.name && j.total > 0),
  };
}

function eventsFor(personId: number): DomainEvent[] {
  const events = [...(changed.get(undefined)?.entries() ?? []), ...(changed.get(personId)?.entries() ?? [])];
  return [...new Map(events).values()];
}

async function tell(): Promise<void> {
  toldAt = Date.now();
  const eventsOf = new Map([...listeners].map((l) => [l, eventsFor(l.personId)]));
  changed.clear();
  const progress = await progressNow().catch(() => undefined);
  const text = JSON.stringify(progress);
  const isNew = progress !== undefined && text !== told;
  if (isNew) told = text;
  for (const listener of listeners) {
    const events = eventsOf.get(listener) ?? [];
    if (isNew) listener.send({ event: 'progress', data: progress });
    if (events.length) listener.send({ event: 'changed', data: { events } });
  }
  timer = undefined;
  // where the database is away for a moment, the next time says it
  if (
    !progress ||
    progress.audits.running + progress.audits.waiting > 0 ||
    progress.jobs.length ||
    changed.size
  )
    wake();
}

function wake(): void {
  if (listeners.size)
    timer ??= setTimeout(() => void tell(), Math.max(SOON_MS, toldAt + EVERY_MS - Date.now()));
}

onChange(({ name, data, personId }) => {
  if (!listeners.size) return;
  const known = changed.get(personId) ?? new Map<string, DomainEvent>();
  const event = { name, data } as DomainEvent;
  known.set(JSON.stringify(event), event);
  changed.set(personId, known);
  wake();
});

/** Tells a browser from now on, first how far things are. @returns how to stop */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  pollOtherProcesses();
  void progressNow().then(
    (data) => {
      if (listeners.has(listener)) listener.send({ event: 'progress', data });
      wake();
    },
    () => wake(),
  );
  return () => {
    listeners.delete(listener);
    if (!listeners.size) stopPolling();
  };
}
