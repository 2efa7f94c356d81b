/** Running audits: asked for while there are any, so that a reload finds them again. */
import type { RunningAudit } from '~/types';

export const useAudits = defineStore('audits', () => {
  const running = ref<RunningAudit[]>([]);
  /** Rises whenever an audit has ended, so that screens know to read again. */
  const ended = ref(0);
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function poll(): Promise<void> {
    clearTimeout(timer);
    try {
      const before = running.value.map((a) => a.id);
      running.value = await api('/api/audits/running');
      const now = new Set(running.value.map((a) => a.id));
      const gone = before.filter((id) => !now.has(id));
      if (gone.length) ended.value++;
    } catch {
      /* said by the screen that asks next; polling goes on */
    }
    timer = setTimeout(() => void poll(), running.value.length ? 700 : 5000);
  }

  /** Starts audits and tells what was refused. */
  async function start(environmentIds: number[]): Promise<void> {
    const notes = useNotes();
    try {
      const answer = await api('/api/audits', { method: 'POST', body: { environmentIds } });
      const known = new Set(running.value.map((a) => a.id));
      // counted as running at once, so that an audit quicker than the next question is noticed too
      running.value = [
        ...running.value,
        ...answer.started
          .filter((s) => !known.has(s.auditId))
          .map((s) => ({
            id: s.auditId,
            environmentId: 0,
            siteId: 0,
            site: '',
            environment: '',
            status: 'queued',
            phase: 'Waiting',
            done: 0,
            total: 0,
          })),
      ];
      for (const r of answer.refused.slice(0, 3)) notes.say(r.reason);
      if (answer.started.length > 1) notes.say(`${answer.started.length} audits started.`);
    } catch (error) {
      notes.say((error as Error).message, true);
    }
    await poll();
  }

  async function stop(id: number): Promise<void> {
    try {
      await api('/api/audits/:id/stop', { params: { id }, method: 'POST', body: {} });
    } catch (error) {
      useNotes().say((error as Error).message, true);
    }
    await poll();
  }
  const halt = (): void => {
    clearTimeout(timer);
  };
  return { running, ended, poll, start, stop, halt };
});
