/** Whether a page asks search engines to leave it out: robots metas and X-Robots-Tag headers together, the strictest counting. */
import { headerValues, lastAnswer, type PageEvidence } from '#core/facts/evidence';

export interface NoIndex { agent: string; raw: string; from: 'meta' | 'header' }

const FORBIDS = new Set(['noindex', 'none']);
/** Directive names of X-Robots-Tag that contain no agent before their colon (common practice of the large crawlers, from memory). */
const VALUED = /^(unavailable_after|max-snippet|max-image-preview|max-video-preview)$/;

/** A statement that holds a listing back without keeping the page out of it. */
export interface Limit { agent: string; directive: string; raw: string; from: 'meta' | 'header' }

/** Directives of the large search engines (common practice, from memory). */
const HOLDS_BACK = /(?:^|[\s,:])(nofollow|nosnippet|noimageindex|max-snippet\s*:\s*0(?!\d)|max-image-preview\s*:\s*none)(?=$|[\s,])/i;
const UNTIL = /unavailable_after\s*:\s*(.+?)(?=\s*,\s*(?:all|none|no|index|follow|max-|unavailable)|$)/i;

/** @returns every statement that cuts short how the page is listed, or that ends its listing in the past */
export function limitsOf(page: PageEvidence, at: Date): Limit[] {
  const found: Limit[] = [];
  const look = (agent: string, text: string, raw: string, from: Limit['from']): void => {
    const held = HOLDS_BACK.exec(text)?.[1];
    if (held) found.push({ agent, directive: held.toLowerCase(), raw, from });
    const until = UNTIL.exec(text)?.[1];
    if (until && Date.parse(until) < at.getTime()) found.push({ agent, directive: `unavailable_after ${until}`, raw, from });
  };
  for (const meta of page.facts?.metas ?? []) if (meta.name && isForCrawlers(meta.name)) look(meta.name === 'robots' ? '*' : meta.name, meta.content, meta.raw, 'meta');
  for (const value of headerValues(lastAnswer(page.chain), 'x-robots-tag')) {
    const named = /^\s*([a-z0-9_*-]+)\s*:\s*(.*)$/i.exec(value);
    const agent = named && !VALUED.test(named[1]!.toLowerCase()) ? named[1]!.toLowerCase() : '*';
    look(agent, value, `X-Robots-Tag: ${value}`, 'header');
  }
  return found;
}

const isForCrawlers = (name: string): boolean => name === 'robots' || name.endsWith('bot') || name === 'slurp' || name === 'crawler';

/** @returns every statement that keeps the page out; agent `*` is everyone. */
export function noIndexOf(page: PageEvidence): NoIndex[] {
  const found: NoIndex[] = [];
  for (const meta of page.facts?.metas ?? []) {
    if (!meta.name || !isForCrawlers(meta.name)) continue;
    if (meta.content.toLowerCase().split(/[\s,]+/).some(d => FORBIDS.has(d))) found.push({ agent: meta.name === 'robots' ? '*' : meta.name, raw: meta.raw, from: 'meta' });
  }
  for (const value of headerValues(lastAnswer(page.chain), 'x-robots-tag')) {
    let agent = '*';
    for (const part of value.split(',')) {
      const text = part.trim().toLowerCase();
      const named = /^([a-z0-9_*-]+)\s*:\s*(.*)$/.exec(text);
      let directive = text;
      if (named && !VALUED.test(named[1]!)) { agent = named[1]!; directive = named[2]!; }
      if (FORBIDS.has(directive)) found.push({ agent, raw: `X-Robots-Tag: ${value}`, from: 'header' });
    }
  }
  return found;
}
