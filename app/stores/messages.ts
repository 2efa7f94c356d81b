/** Messages to the person who is signed in, and long work that is running. */
import type { Job, Message } from '~/types';

export const useMessages = defineStore('messages', () => {
  const list = ref<Message[]>([]);
  const jobs = ref<Omit<Job, 'results'>[]>([]);
  const unread = computed(() => list.value.filter((m) => !m.read).length);
  let timer: ReturnType<typeof setTimeout> | undefined;
  async function poll(): Promise<void> {
    clearTimeout(timer);
    try {
      [list.value, jobs.value] = await Promise.all([api('/api/messages'), api('/api/jobs')]);
    } catch {
      /* said by the screen that asks next; polling goes on */
    }
    timer = setTimeout(() => void poll(), jobs.value.length ? 1000 : 20_000);
  }
  /** All that is shown counts as read. */
  async function read(): Promise<void> {
    const newest = list.value[0];
    if (!newest || !unread.value) return;
    await api('/api/messages', { method: 'POST', body: { upTo: newest.id } }).catch(() => {});
    list.value = list.value.map((m) => ({ ...m, read: true }));
  }
  async function stop(id: string): Promise<void> {
    try {
      await api('/api/jobs/:job/stop', { params: { job: id }, method: 'POST', body: {} });
    } catch (error) {
      useNotes().say((error as Error).message, true);
    }
    await poll();
  }
  const halt = (): void => {
    clearTimeout(timer);
  };
  return { list, jobs, unread, poll, read, stop, halt };
});
