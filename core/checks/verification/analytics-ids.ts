/** Analytics IDs that a page's scripts carry. */
import type { PageFacts, ScriptTag } from '#core/extract/html';

/** Scripts that mention an ID, in their address, their attributes or their text. */
export function scriptsWith(facts: PageFacts, id: string): ScriptTag[] {
  return facts.scripts.filter(s => s.raw.includes(id) || s.src?.includes(id) || s.inline?.includes(id));
}

/** Shapes of IDs in use (common practice, from memory): a short prefix, a dash and a code. */
const SHAPE = /\b(?:G-[A-Z0-9]{6,12}|UA-\d{4,10}-\d{1,4}|GTM-[A-Z0-9]{5,8})\b/;
const ATTRIBUTE = /\bdata-(?:site|website|domain)(?:-id)?=["']?([\w-]{4,60})/;

/** The analytics ID that a script carries in its address, its text or an attribute, if any. */
export function analyticsIdIn(script: ScriptTag): string | undefined {
  return SHAPE.exec(`${script.src ?? ''} ${script.inline ?? ''}`)?.[0] ?? ATTRIBUTE.exec(script.raw)?.[1];
}
