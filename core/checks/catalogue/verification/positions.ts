/** Order of tags in a page's source. */
import type { PageFacts, ScriptTag, Spot } from '#core/extract/html';

export const isBefore = (a: Spot, b: Spot): boolean =>
  a.line < b.line || (a.line === b.line && a.column < b.column);

/** Scripts that a word of the brief names: a part of their address, tag or text. */
export function scriptsMatching(facts: PageFacts, match: string): ScriptTag[] {
  return facts.scripts.filter(
    (s) => s.src?.includes(match) || s.raw.includes(match) || s.inline?.includes(match),
  );
}

/**
 * Whether what readers see ends before a script: no heading, link, picture or form comes after it.
 * @param badges marks of a badge that the host puts behind all that the site has written
 */
export function isAtEnd(facts: PageFacts, script: ScriptTag, badges: readonly string[] = []): boolean {
  const own = facts.anchors.filter(({ text }) => !badges.some((mark) => text.includes(mark)));
  return (
    script.where === 'body' &&
    ![...facts.headings, ...own, ...facts.images, ...facts.forms].some((s) => isBefore(script, s))
  );
}

/**
 * Whether a path is one of a comma list with stars, e.g. "/", "/shop/*". Everything matches an empty list.
 */
export function pathsOf(list: string | undefined): (path: string) => boolean {
  const patterns = (list ?? '')
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean)
    .map((p) => ({ whole: p, parts: p.split('*') }));
  if (!patterns.length || patterns.some((p) => p.whole === '*')) return () => true;
  return (path) =>
    patterns.some(({ whole, parts: [start = '', ...rest] }) =>
      rest.length
        ? path.startsWith(start) && rest.every((part) => path.includes(part))
        : path === whole || path === `${whole}/`,
    );
}
