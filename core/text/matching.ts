/** Finding by words: what is typed, as a question to a text. Every word must stand in it, in any case. */
export function matching(typed: string): (text: string) => boolean {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return (text) => {
    const lowered = text.toLowerCase();
    return words.every((w) => lowered.includes(w));
  };
}
