/** Short messages at the foot of the screen, one after the other. */
export const useNotes = defineStore('notes', () => {
  const list = ref<{ text: string; timeout: number; color: string }[]>([]);
  function say(text: string, bad = false): void {
    list.value = [...list.value, { text, timeout: bad ? 9000 : 5000, color: bad ? 'error' : 'surface' }];
  }
  return { list, say };
});
