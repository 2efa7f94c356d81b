/** One question at a time that waits for yes or no, in place of the browser's own. */
export interface Question {
  title: string;
  text?: string;
  /** The word on the button that says yes. */
  yes: string;
  /** And on the one that says no. */
  no: string;
}

export const useQuestion = defineStore('question', () => {
  const asked = ref<Question | null>(null);
  let settle: ((yes: boolean) => void) | undefined;
  /** @returns whether it was answered with yes; closing it is no */
  function ask(question: Question): Promise<boolean> {
    answer(false);
    asked.value = question;
    return new Promise((resolve) => {
      settle = resolve;
    });
  }
  function answer(yes: boolean): void {
    asked.value = null;
    settle?.(yes);
    settle = undefined;
  }
  /** For leaving a form. */
  const leave = (what: string): Promise<boolean> =>
    ask({ title: `Leave ${what}?`, text: 'It has changes that are not saved.', yes: 'Leave', no: 'Stay' });
  /** Before something is deleted for good. */
  const remove = (name: string, goesWith: string): Promise<boolean> =>
    ask({ title: `Delete ${name}?`, text: `${goesWith} This cannot be undone.`, yes: 'Delete', no: 'Keep' });
  return { asked, answer, ask, leave, remove };
});
