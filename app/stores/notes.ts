/** Short messages at the foot of the screen. */
export const useNotes = defineStore('notes', () => {
  const list = ref<{ id: number; text: string; bad: boolean }[]>([]);
  let next = 1;
  function say(text: string, bad = false): void {
    const id = next++;
    list.value = [...list.value.slice(-2), { id, text, bad }];
    setTimeout(() => drop(id), bad ? 9000 : 5000);
  }
  function drop(id: number): void {
    list.value = list.value.filter((n) => n.id !== id);
  }
  return { list, say, drop };
});
