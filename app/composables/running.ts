/** The audit of an environment that runs or waits for its turn. */
import type { RunningAudit } from '~/types';

/** What is known of an environment's audit while it is not told how far it is. */
interface Watched {
  id: number;
  name: string;
  runningId: number | null;
}

/** @returns undefined where nothing runs */
export function useRunning(environment: MaybeRefOrGetter<Watched | null | undefined>) {
  const live = useLive();
  return computed((): RunningAudit | undefined => {
    const of = toValue(environment);
    if (!of) return undefined;
    const told = live.running.get(of.id);
    if (told || !of.runningId) return told;
    const waiting = { phase: 'Waiting', done: 0, total: 0, status: 'queued' };
    return { id: of.runningId, environmentId: of.id, environment: of.name, siteId: 0, site: '', ...waiting };
  });
}
