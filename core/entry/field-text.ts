/** Values of a form's fields as text, the way people type and paste them, and back. */
import type { ExpectedRecord, ExpectedToken } from '#core/facts/brief';
import {
  readList,
  readRecordLines,
  readTokenLines,
  writeRecordLines,
  writeTokenLines,
} from '#core/formats/brief-lines';

/**
 * How a field is typed. `list` is comma or line separated, `lines` one a line; the others are lines of
 * several words.
 */
export type FieldKind =
  | 'text'
  | 'long'
  | 'number'
  | 'numbers'
  | 'date'
  | 'choice'
  | 'list'
  | 'lines'
  | 'records'
  | 'tokens'
  | 'moves'
  | 'colours'
  | 'scripts'
  | 'plans';

export interface FieldSpec {
  /** Where the value stands, with dots into an object: "marks.parking". */
  field: string;
  label: string;
  kind: FieldKind;
  hint?: string;
  placeholder?: string;
  choices?: readonly { value: string; title: string }[];
  /** Takes the whole width of the form. */
  wide?: boolean;
}
export interface FieldGroup {
  title: string;
  fields: readonly FieldSpec[];
}

interface Read {
  value: unknown;
  faults: string[];
}
const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean);

/** Reads each line; what a line reader gives back as text is a fault. */
function eachLine<T>(text: string, read: (line: string) => T | string): Read {
  const faults: string[] = [];
  const value: T[] = [];
  text.split('\n').forEach((line, i) => {
    if (!line.trim()) return;
    const got = read(line.trim());
    if (typeof got === 'string') faults.push(`Line ${i + 1}: ${got}`);
    else value.push(got);
  });
  return { value, faults };
}

const move = (line: string) => {
  const parts = line.split(/\s*(?:->|→|\t|\s)\s*/).filter(Boolean);
  return parts.length === 2
    ? { from: parts[0]!, to: parts[1]! }
    : 'write the old address, an arrow and the new one, such as “/old/ -> /new/”';
};
const colour = (line: string) => {
  const m = /^(.*?)[\s:]*(#\S+)$/.exec(line);
  return m
    ? { role: m[1]!.trim() || 'main', value: m[2]! }
    : 'write what it is for and the colour, such as “main #233a5e”';
};
function script(line: string) {
  const [at, match, ...pages] = line.split(/\s+/);
  if ((at !== 'head' && at !== 'body-end') || !match)
    return 'write head or body-end, then a part of the script’s address, then perhaps which pages, such as “head tidemark.example/count.js”';
  return { match, where: at, ...(pages.length ? { pages: pages.join(' ') } : {}) };
}
const plan = (line: string) => {
  const at = line.indexOf(':');
  return at > 0
    ? { name: line.slice(0, at).trim(), features: readList(line.slice(at + 1)) }
    : 'write the plan’s name, a colon, and its features with commas between';
};

/** Reads what was typed into a field. An empty text is no value: `undefined`. */
export function readFieldText(kind: FieldKind, text: string): Read {
  if (!text.trim()) return { value: undefined, faults: [] };
  switch (kind) {
    case 'number': {
      const n = Number(text.replace(/[\s,_']/g, ''));
      return Number.isFinite(n)
        ? { value: n, faults: [] }
        : { value: undefined, faults: ['must be a number'] };
    }
    case 'numbers': {
      const all = readList(text.replace(/\bpx\b/g, ''))
        .flatMap((t) => t.split(/\s+/))
        .map(Number);
      return all.every(Number.isFinite)
        ? { value: all, faults: [] }
        : { value: undefined, faults: ['must be numbers with commas between'] };
    }
    case 'list':
      return { value: readList(text), faults: [] };
    case 'lines':
      return { value: [...new Set(linesOf(text))], faults: [] };
    case 'records': {
      const r = readRecordLines(text);
      return { value: r.values, faults: r.faults };
    }
    case 'tokens': {
      const t = readTokenLines(text);
      return { value: t.values, faults: t.faults };
    }
    case 'moves':
      return eachLine(text, move);
    case 'colours':
      return eachLine(text, colour);
    case 'scripts':
      return eachLine(text, script);
    case 'plans':
      return eachLine(text, plan);
    default:
      return { value: text.trim(), faults: [] };
  }
}

/**
 * A value as text for its field. What does not fit the kind is written as JSON, so that nothing is lost from
 * sight.
 */
export function writeFieldText(kind: FieldKind, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (!Array.isArray(value))
    return typeof value === 'object' ? JSON.stringify(value) : String(value as string | number);
  switch (kind) {
    case 'list':
    case 'numbers':
      return value.join(', ');
    case 'records':
      return writeRecordLines(value as ExpectedRecord[]);
    case 'tokens':
      return writeTokenLines(value as ExpectedToken[]);
    case 'moves':
      return (value as { from: string; to: string }[]).map((m) => `${m.from} -> ${m.to}`).join('\n');
    case 'colours':
      return (value as { role: string; value: string }[]).map((c) => `${c.role} ${c.value}`).join('\n');
    case 'scripts':
      return (value as { match: string; where: string; pages?: string }[])
        .map((s) => [s.where, s.match, s.pages].filter(Boolean).join(' '))
        .join('\n');
    case 'plans':
      return (value as { name: string; features: string[] }[])
        .map((p) => `${p.name}: ${p.features.join(', ')}`)
        .join('\n');
    default:
      return value.map((v) => (typeof v === 'object' ? JSON.stringify(v) : String(v))).join('\n');
  }
}

/** The value at a dotted path. */
export function valueAt(data: object, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      data,
    );
}

/** A draft: each field's text by its path. */
export type Draft = Record<string, string>;

export function draftFrom(groups: readonly FieldGroup[], data: object): Draft {
  return Object.fromEntries(
    groups.flatMap((g) => g.fields).map((f) => [f.field, writeFieldText(f.kind, valueAt(data, f.field))]),
  );
}

/** The draft as data. Fields left blank are left out; objects that would be empty too. */
export function dataFrom(
  groups: readonly FieldGroup[],
  draft: Draft,
): { data: Record<string, unknown>; faults: { path: string; message: string }[] } {
  const data: Record<string, unknown> = {};
  const faults: { path: string; message: string }[] = [];
  for (const f of groups.flatMap((g) => g.fields)) {
    const read = readFieldText(f.kind, draft[f.field] ?? '');
    faults.push(...read.faults.map((message) => ({ path: f.field, message: `${f.label}: ${message}` })));
    if (read.value === undefined) continue;
    const keys = f.field.split('.');
    const last = keys.pop()!;
    let at = data;
    for (const key of keys) at = (at[key] ??= {}) as Record<string, unknown>;
    at[last] = read.value;
  }
  return { data, faults };
}
