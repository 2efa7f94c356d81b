/** Starting and stopping audits. The live store knows their progress. */
import type { Part } from '#core/facts/parts';
import type { Answer } from './api';

type Started = Answer<'/api/audits', 'post'>;
/** What is audited, where not everything is. */
interface Scope {
  parts?: Part[];
  checks?: string[];
  pages?: string[];
}

export function useAudits() {
  /** Starts audits and says what was refused. */
  async function start(environmentIds: number[], scope?: Scope): Promise<void> {
    await reportStart(() => api('/api/audits', { method: 'POST', body: { environmentIds, scope } }));
  }
  /** Collects only what the checks of these fixes need. */
  async function checkAgain(ids: readonly number[]): Promise<void> {
    await reportStart(() => api('/api/fixes/look', { method: 'POST', body: { ids } }));
  }
  async function reportStart(begin: () => Promise<Started>): Promise<void> {
    const notes = useNotes();
    try {
      const { started, refused } = await begin();
      for (const r of refused.slice(0, 3)) notes.say(r.reason);
      if (started.length > 1) notes.say(`${started.length} audits started.`);
    } catch (error) {
      notes.say((error as Error).message, true);
    }
  }
  async function stop(id: number): Promise<void> {
    try {
      await api('/api/audits/:id/stop', { params: { id }, method: 'POST', body: {} });
    } catch (error) {
      useNotes().say((error as Error).message, true);
    }
  }
  return { start, checkAgain, stop };
}
