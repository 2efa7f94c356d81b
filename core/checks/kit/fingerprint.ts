/**
 * A fingerprint in a file's name, which changes with its contents: eight or more hexadecimal digits or mixed letters
 * beside digits, set off by a mark (common practice). As the source of a regular expression, which servers read too.
 */
export const FINGERPRINT = String.raw`(?=[A-Za-z]*\d)(?=\d*[A-Za-z])[A-Za-z0-9_]{8,}`;
