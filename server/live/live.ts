/**
 * What a browser is told while it looks: how far long work is, and what has changed. One clock for all streams; it
 * runs only while somebody listens and something moves.
 */
import { auditProgress } from '../audits/audits';
import { onChange, type Key } from '../platform/events';
import { runningJobs } from '../platform/jobs/jobs';

/** What changes after a quiet while is told so soon: what belongs to one act goes together. */
const SOON_MS = 40;
/** Nothing is told more often. */
const EVERY_MS = 400;

interface Progress {
  audits: ReturnType<typeof auditProgress>;
  jobs: ReturnType<typeof runningJobs>;
}
export type LiveEvent = { event: 'progress'; data: Progress } | { event: 'changed'; data: { keys: Key[] } };

export interface Listener {
  personId: number;
  send(event: LiveEvent): void;
}

const listeners = new Set<Listener>();
let told = '';
let toldAt = 0;
/** What changed since it was told last, by whom it concerns; undefined is everybody. */
const changed = new Map<number | undefined, Map<string, Key>>();
let timer: NodeJS.Timeout | undefined;

const progressNow = (): Progress => ({ audits: auditProgress(), jobs: runningJobs() });

function keysFor(personId: number): Key[] {
  const keys = [...(changed.get(undefined)?.entries() ?? []), ...(changed.get(personId)?.entries() ?? [])];
  return [...new Map(keys).values()];
}

function tell(): void {
  timer = undefined;
  toldAt = Date.now();
  const progress = progressNow();
  const text = JSON.stringify(progress);
  const isNew = text !== told;
  told = text;
  for (const listener of listeners) {
    const keys = keysFor(listener.personId);
    if (isNew) listener.send({ event: 'progress', data: progress });
    if (keys.length) listener.send({ event: 'changed', data: { keys } });
  }
  changed.clear();
  if (progress.audits.count || progress.jobs.length) wake();
}

function wake(): void {
  if (listeners.size) timer ??= setTimeout(tell, Math.max(SOON_MS, toldAt + EVERY_MS - Date.now()));
}

onChange(({ keys, personId }) => {
  if (!listeners.size) return;
  const known = changed.get(personId) ?? new Map<string, Key>();
  for (const key of keys) known.set(JSON.stringify(key), key);
  changed.set(personId, known);
  wake();
});

/** Tells a browser from now on, first how far things are. @returns how to stop */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  listener.send({ event: 'progress', data: progressNow() });
  wake();
  return () => {
    listeners.delete(listener);
  };
}
