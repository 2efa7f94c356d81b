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
const VALUED = /^(unavailable_after|max-snippet|max-image-preview|max-video-preview)$/;
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

/** @returns every statement that keeps the page out */
export function noIndexOf(statements: readonly Statement[]): Directive[] {
  return statements.flatMap(({ agent, text, raw, from }) => {
    const directive = /(?:^|[\s,])(noindex|none)(?=$|[\s,])/.exec(text)?.[1];
    return directive ? [{ agent, directive, raw, from }] : [];
  });
}

/** Directives of the large search engines (common practice, from memory). */
const HOLDS_BACK =
  /(?:^|[\s,])(nofollow|nosnippet|noimageindex|max-snippet\s*:\s*0(?!\d)|max-image-preview\s*:\s*none)(?=$|[\s,])/;
const UNTIL = /unavailable_after\s*:\s*(.+?)(?=\s*,\s*(?:all|none|no|index|follow|max-|unavailable)|$)/;

/** @returns every statement that cuts short how the page is listed, or that ended its listing in the past */
export function limitsOf(statements: readonly Statement[], at: Date): Directive[] {
  return statements.flatMap(({ agent, text, raw, from }) => {
    const held = HOLDS_BACK.exec(text)?.[1],
      until = UNTIL.exec(text)?.[1];
    return [
      ...(held ? [{ agent, directive: held, raw, from }] : []),
      ...(until && Date.parse(until) < at.getTime()
        ? [{ agent, directive: `unavailable_after ${until}`, raw, from }]
        : []),
    ];
  });
}
