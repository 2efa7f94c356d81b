/** Fewer characters than this are too easily guessed (NIST SP 800-63B 5.1.1.2 asks for eight at least). */
export const SHORTEST_PASSWORD = 12;

/** @returns what is wrong with a password that somebody wants to have */
export function passwordFault(password: string): string | undefined {
  // characters, not UTF-16 units
  return [...password].length < SHORTEST_PASSWORD
    ? `A password has at least ${SHORTEST_PASSWORD} characters.`
    : undefined;
}
