/**
 * Characters that end a line, control what reads it, or turn the direction of what follows (Unicode: Cc, Zl, Zp, and
 * the bidirectional controls of UAX #9). In a name they make two names look alike, or a line of their own.
 */
export const hasControls = (text: string): boolean =>
  /[\p{Cc}\p{Zl}\p{Zp}\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]/u.test(text);

/** The same text without line ends and controls, for formats in which a line is a statement. */
export const inOneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ');
