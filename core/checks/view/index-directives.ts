/**
 * What a page tells search engines of itself: robots metas and X-Robots-Tag headers together, the strictest
 * counting.
 */
import { headerValues, lastAnswer, type PageEvidence } from '#core/facts/evidence';

/** One tag, or what a header says to one crawler. `agent` is `*` for everyone, `text` in small letters. */
export interface Statement {
  agent: string;
  text: string;
  raw: string;
  from: 'meta' | 'header';
}
/** A directive that counts. */
export interface Directive {
  agent: string;
  directive: string;
  raw: string;
  from: 'meta' | 'header';
}

/**
 * Directive names of X-Robots-Tag that contain no agent before their colon (common practice of the large
 * crawlers, from memory).
 */
const VALUED = /^(?:unavailable_after|max-[a-z-]+|indexifembedded|noindex|none|nofollow)$/;
const isForCrawlers = (name: string): boolean =>
  name === 'robots' || name.endsWith('bot') || name === 'slurp' || name === 'crawler';

/** What is longer says nothing sensible, and costs time. */
const LONGEST = 2000;

/** @returns all statements, in the order of the page and then of its headers */
export function statementsOf(page: PageEvidence): Statement[] {
  const found: Statement[] = [];
  for (const meta of page.facts?.metas ?? [])
    if (meta.name && isForCrawlers(meta.name))
      found.push({
        agent: meta.name === 'robots' ? '*' : meta.name,
        text: meta.content.slice(0, LONGEST).toLowerCase(),
        raw: meta.raw,
        from: 'meta',
      });
  for (const value of headerValues(lastAnswer(page.chain), 'x-robots-tag')) {
    const raw = `X-Robots-Tag: ${value.slice(0, 300)}`;
    let said: Statement | undefined;
    for (const part of value.slice(0, LONGEST).toLowerCase().split(',')) {
      const named = /^\s*([a-z0-9_*-]+)\s*:\s*(.*)$/.exec(part);
      if (named && !VALUED.test(named[1]!))
        found.push((said = { agent: named[1]!, text: named[2]!, raw, from: 'header' }));
      else if (said) said.text += `,${part}`;
      else found.push((said = { agent: '*', text: part, raw, from: 'header' }));
    }
  }
  return found;
}

/** One directive of a statement; the value belongs to its name (`max-image-preview: none` keeps nothing out). */
interface Said {
  name: string;
  value?: string;
}

/** Directives that take a value. Dates hold commas and spaces, so theirs is all that follows. */
const TAKES_VALUE = /^\s*([a-z_-]+)\s*:\s*(.*)$/;
const DATED = 'unavailable_after';

/** The directives of a statement: commas separate them, and white space as some write it. */
function directivesOf(text: string): Said[] {
  const found: Said[] = [];
  for (const part of text.split(',')) {
    const last = found.at(-1);
    const [, name, rest = ''] = TAKES_VALUE.exec(part) ?? [];
    if (name === undefined) {
      // "Tuesday, 25-Jun-30 15:00:00 GMT" (RFC 9110 5.6.7): the rest of a date, and no directive
      const isRestOfDate = last?.name === DATED && /\d/.test(part);
      if (isRestOfDate) last.value = `${last.value},${part}`;
      else
        found.push(
          ...part
            .split(/\s+/)
            .filter(Boolean)
            .map((word) => ({ name: word })),
        );
      continue;
    }
    if (name === DATED) {
      found.push({ name, value: rest.trim() });
      continue;
    }
    // names before one with a value: "noindex max-snippet: -1"
    const before = part.slice(0, part.indexOf(':')).trim().split(/\s+/);
    const own = before.pop()!;
    for (const word of before) found.push({ name: word });
    const [value = '', ...after] = rest.split(/\s+/).filter(Boolean);
    found.push({ name: own, value });
    for (const word of after) found.push({ name: word });
  }
  return found;
}

/** @returns every statement that keeps the page out */
export function noIndexOf(statements: readonly Statement[]): Directive[] {
  return statements.flatMap(({ agent, text, raw, from }) => {
    const said = directivesOf(text).find(
      (d) => d.value === undefined && (d.name === 'noindex' || d.name === 'none'),
    );
    return said ? [{ agent, directive: said.name, raw, from }] : [];
  });
}

/** Directives of the large search engines that hold a page back (common practice, from memory). */
function holdsBack({ name, value }: Said, at: Date): string | undefined {
  if (value === undefined) return ['nofollow', 'nosnippet', 'noimageindex'].includes(name) ? name : undefined;
  if (name === 'max-snippet' && /^0+$/.test(value)) return `${name}:${value}`;
  if (name === 'max-image-preview' && value === 'none') return `${name}:${value}`;
  return name === DATED && Date.parse(value) < at.getTime() ? `${name} ${value}` : undefined;
}

/** @returns every statement that cuts short how the page is listed, or that ended its listing in the past */
export function limitsOf(statements: readonly Statement[], at: Date): Directive[] {
  return statements.flatMap(({ agent, text, raw, from }) =>
    directivesOf(text).flatMap((said) => {
      const directive = holdsBack(said, at);
      return directive === undefined ? [] : [{ agent, directive, raw, from }];
    }),
  );
}
