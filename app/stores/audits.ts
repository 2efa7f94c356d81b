/** Starting and stopping audits; how far they are tells the live store. */
export const useAudits = defineStore('audits', () => {
  /** Starts audits and tells what was refused. */
  async function start(environmentIds: number[]): Promise<void> {
    const notes = useNotes();
    try {
      const answer = await api('/api/audits', { method: 'POST', body: { environmentIds } });
      for (const r of answer.refused.slice(0, 3)) notes.say(r.reason);
      if (answer.started.length > 1) notes.say(`${answer.started.length} audits started.`);
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
  return { start, stop };
});
