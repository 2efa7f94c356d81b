/** Who is signed in, and who else is there. */
import type { Answer } from '~/composables/api';

export const useSession = defineStore('session', () => {
  const me = ref<Answer<'/api/me'> | null>(null);
  const people = ref<Answer<'/api/people'>>([]);
  async function load(): Promise<void> {
    if (me.value) return;
    me.value = await api('/api/me');
    people.value = await api('/api/people');
  }
  async function signOut(): Promise<void> {
    await api('/api/sign-out', { method: 'POST', body: {} });
    me.value = null;
    await navigateTo('/sign-in');
  }
  return { me, people, load, signOut };
});
