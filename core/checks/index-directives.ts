/** Whether a page asks search engines to leave it out: robots metas and X-Robots-Tag headers together, the strictest counting. */
import { headerValues, lastAnswer, type PageEvidence } from '#core/facts/evidence';

export interface NoIndex { agent: string; raw: string; from: 'meta' | 'header' }

const FORBIDS = new Set(['noindex', 'none']);
/** Directive names of X-Robots-Tag that contain no agent before their colon (common practice of the large crawlers, from memory). */
const VALUED = /^(unavailable_after|max-snippet|max-image-preview|max-video-preview)$/;

/** @returns every statement that keeps the page out; agent `*` is everyone. */
export function noIndexOf(page: PageEvidence): NoIndex[] {
  const found: NoIndex[] = [];
  for (const meta of page.facts?.metas ?? []) {
    if (!meta.name || !(meta.name === 'robots' || meta.name.endsWith('bot') || meta.name === 'slurp' || meta.name === 'crawler')) continue;
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
