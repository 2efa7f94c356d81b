/** What may import what, as the drawings in CONTRIBUTING.md say. */
import { readFileSync } from 'node:fs';

const TEXT = readFileSync(new URL('../CONTRIBUTING.md', import.meta.url), 'utf8');
const DRAWING = /```mermaid\n([\s\S]*?)```/g;
const ARROW = /^\s*(\w+)(?: --> (\w+))?$/gm;

/** By name, what each may import, itself included. */
function readDrawing(text) {
  const direct = new Map();
  for (const [, from, to] of text.matchAll(ARROW)) {
    direct.set(from, [...(direct.get(from) ?? []), ...(to ? [to] : [])]);
    if (to && !direct.has(to)) direct.set(to, []);
  }
  const reach = (name, seen = new Set()) => {
    if (seen.has(name)) return seen;
    seen.add(name);
    for (const next of direct.get(name)) reach(next, seen);
    return seen;
  };
  return new Map([...direct.keys()].map((name) => [name, reach(name)]));
}

const [rooms, subjects] = [...TEXT.matchAll(DRAWING)].map(([, text]) => readDrawing(text));

/** The rooms at the top of the project. */
export const ROOMS = rooms;
/** The folders of `server`. */
export const SUBJECTS = subjects;
