/** Who is signed in. */
import type { Answer } from '~/composables/api';

export const useSession = defineStore('session', () => {
  const me = ref<Answer<'/api/me'> | null>(null);
  async function load(): Promise<void> {
    me.value ??= await api('/api/me');
  }
  async function signOut(): Promise<void> {
    await api('/api/sign-out', { method: 'POST', body: {} });
    me.value = null;
    useLive().halt();
    useNuxtApp().$queryClient.clear();
    await navigateTo('/sign-in');
  }
  return { me, load, signOut };
});
