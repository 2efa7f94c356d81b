/** Starting and stopping audits; how far they are tells the live store. */
import type { Part } from '#core/facts/parts';
import type { Answer } from '~/composables/api';

type Started = Answer<'/api/audits', 'post'>;
/** What is looked at, where not everything is. */
interface Scope {
  parts?: Part[];
  checks?: string[];
  pages?: string[];
}

export const useAudits = defineStore('audits', () => {
  /** Starts audits and tells what was refused. */
  async function start(environmentIds: number[], scope?: Scope): Promise<void> {
    await told(() => api('/api/audits', { method: 'POST', body: { environmentIds, scope } }));
  }
  /** Looks at what the checks of these fixes rest on, and at nothing else. */
  async function lookWhetherGone(ids: readonly number[]): Promise<void> {
    await told(() => api('/api/fixes/look', { method: 'POST', body: { ids } }));
  }
  async function told(begin: () => Promise<Started>): Promise<void> {
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
  return { start, lookWhetherGone, stop };
});
