/** DNS values in presentation form (RFC 1035 5.1). */

/**
 * The text of a TXT value: its strings joined without anything between (RFC 7208 3.3), escapes undone. A
 * value without quotes is taken as it stands.
 */
export function joinedText(value: string): string {
  // one string without escapes: nearly all of them
  if (
    value.length > 1 &&
    value.startsWith('"') &&
    value.indexOf('"', 1) === value.length - 1 &&
    !value.includes('\\')
  )
    return value.slice(1, -1);
  const strings = [...value.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map((m) =>
    m[1]!.replace(/\\(\d{3})/g, (_, d: string) => String.fromCharCode(Number(d))).replace(/\\(.)/g, '$1'),
  );
  return strings.length ? strings.join('') : value;
}
