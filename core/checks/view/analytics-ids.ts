/** Analytics IDs that a page's scripts carry. */
import type { ScriptTag } from '#core/extract/html';

/** Whether a text names an ID, and not a longer one that begins or ends like it. */
function names(text: string | undefined, id: string): boolean {
  for (let at = text?.indexOf(id) ?? -1; at >= 0; at = text!.indexOf(id, at + 1))
    if (!/[A-Za-z0-9]/.test(text![at - 1] ?? '') && !/[A-Za-z0-9]/.test(text![at + id.length] ?? ''))
      return true;
  return false;
}

/** Whether a script mentions an ID, in its address, its attributes or its text. */
export const carriesId = (s: ScriptTag, id: string): boolean =>
  names(s.raw, id) || names(s.src, id) || names(s.inline, id) || Boolean(s.later?.includes(id));

/** Shapes of IDs in use (common practice, from memory): a short prefix, a dash and a code. */
const SHAPE = /\b(?:G-[A-Z0-9]{6,12}|UA-\d{4,10}-\d{1,4}|GTM-[A-Z0-9]{5,8})\b/;
const ATTRIBUTE = /\bdata-(?:site|website|domain)(?:-id)?=["']?([\w-]{4,60})/;

/** Looked for by its dash first: most scripts have none of these. */
const shapeIn = (text: string | undefined): string | undefined =>
  text && (text.includes('G-') || text.includes('UA-') || text.includes('GTM-'))
    ? SHAPE.exec(text)?.[0]
    : undefined;

/** The analytics ID that a script carries in its address, its text or an attribute, if any. */
export function analyticsIdIn(script: ScriptTag): string | undefined {
  return (
    shapeIn(script.src) ??
    shapeIn(script.inline) ??
    shapeIn(script.later?.join(' ')) ??
    (script.raw.includes('data-') ? ATTRIBUTE.exec(script.raw)?.[1] : undefined)
  );
}
