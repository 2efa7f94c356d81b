/** Tags that stand where they do not count: in comments, templates and noscript elements. */

const TELLING = /<(title|meta|link|script|h1)\b[^<>]{0,400}>?/gi;

/** @returns the telling tags within a text, with their offset in it (capped). */
export function hiddenIn(text: string): { tag: string; raw: string; offset: number }[] {
  const out: { tag: string; raw: string; offset: number }[] = [];
  for (const m of text.slice(0, 50_000).matchAll(TELLING)) {
    if (out.push({ tag: m[1]!.toLowerCase(), raw: m[0].slice(0, 300), offset: m.index }) >= 20) break;
  }
  return out;
}
