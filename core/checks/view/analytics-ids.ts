/** Analytics IDs that a page's scripts carry. */
import { ID_SHAPE, namesId } from '#core/extract/analytics-id';
import type { ScriptTag } from '#core/extract/html';

/** Whether a script mentions an ID, in its address, its attributes or its text. */
export const carriesId = (s: ScriptTag, id: string): boolean =>
  namesId(s.raw, id) || namesId(s.src, id) || namesId(s.inline, id) || Boolean(s.later?.includes(id));

const ATTRIBUTE = /\bdata-(?:site|website|domain)(?:-id)?=["']?([\w-]{4,60})/;

/** Looked for by its dash first: most scripts have none of these. */
const shapeIn = (text: string | undefined): string | undefined =>
  text && (text.includes('G-') || text.includes('UA-') || text.includes('GTM-'))
    ? ID_SHAPE.exec(text)?.[0]
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
