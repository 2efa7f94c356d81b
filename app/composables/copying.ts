/** Puts text onto the clipboard, and says whether it worked. */
export function useCopying(): (text: string) => Promise<void> {
  const notes = useNotes();
  return async (text) => {
    try {
      await navigator.clipboard.writeText(text);
      notes.say('Copied.');
    } catch {
      notes.say('The browser did not allow copying. Mark the text and copy it by hand.', true);
    }
  };
}
