/** Who is signed in. */
export interface Me {
  id: number;
  name: string;
  email: string;
  demo: boolean;
}

export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null);
  const people = ref<{ id: number; name: string }[]>([]);
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
