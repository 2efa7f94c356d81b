/** Which of two states of a site carries the newer change, and how that is known. */
import {
  finalStatus,
  headerValues,
  lastAnswer,
  type Evidence,
  type PageEvidence,
} from '#core/facts/evidence';
import { share } from '#core/text/quantity';
import { baseOf, COMPARED, pathBelow, type Compared, type Ground } from './page-face';

export interface Ahead {
  /** `both`: each has changes that the other lacks. */
  side: 'first' | 'second' | 'both' | 'neither' | 'unknown';
  reason: string;
}

/** One side, with what was seen of it before that, where that is known. */
export interface Side {
  evidence: Evidence;
  /** Of the same environment, the newest first. */
  earlier?: readonly Evidence[];
}

const SAID: readonly Compared[] = ['title', 'description', 'headings', 'text'];

/** What a page says, in one text, to tell whether it is the same. */
function wordsOf(page: PageEvidence, ground: Ground): string {
  const standing = { ...ground, url: page.url };
  return SAID.map((what) => COMPARED[what](page.facts!, standing).join('\n')).join('\n\n');
}

/** Pages of some evidence by their paths. */
function pagesByPath(
  evidence: Evidence,
  hosts: ReadonlySet<string>,
): Map<string, { page: PageEvidence; words: string }> {
  const base = baseOf(evidence);
  const ground = { base, hosts };
  return new Map(
    evidence.pages
      .filter((p) => p.facts && (finalStatus(p.chain) ?? 500) < 400)
      .map((page) => [pathBelow(page.url, base), { page, words: wordsOf(page, ground) }]),
  );
}

const timeOf = (text: string | undefined): number | undefined => {
  const ms = text === undefined ? NaN : Date.parse(text);
  return Number.isNaN(ms) ? undefined : ms;
};

function lastModified({ chain }: PageEvidence): number | undefined {
  return timeOf(headerValues(lastAnswer(chain), 'last-modified')[0]);
}

function sitemapDates({ sitemaps }: Evidence): Map<string, number> {
  const out = new Map<string, number>();
  for (const { facts } of sitemaps)
    if (facts && facts.kind !== 'index')
      for (const { loc, lastmod } of facts.urls) {
        const at = timeOf(lastmod);
        if (at !== undefined) out.set(loc, at);
      }
  return out;
}

type Vote = { side: 'first' | 'second'; why: string };

/** The later of two times, where both are known and differ. */
function later(first: number | undefined, second: number | undefined, what: string): Vote | undefined {
  if (first === undefined || second === undefined || first === second) return undefined;
  const [side, at] = first > second ? (['first', first] as const) : (['second', second] as const);
  return { side, why: `${what} of ${new Date(at).toISOString().slice(0, 10)} is the later one` };
}

type Pages = ReturnType<typeof pagesByPath>;

/** What is known of both sides beside their pages. */
interface Known {
  earlier: { first: Pages[]; second: Pages[] };
  dates: { first: Map<string, number>; second: Map<string, number> };
}

/** Which side of a changed page is the newer: by earlier audits, Last-Modified (RFC 9110 8.8.2), sitemap dates. */
function voteOn(
  path: string,
  first: { page: PageEvidence; words: string },
  second: { page: PageEvidence; words: string },
  { earlier, dates }: Known,
): Vote | undefined {
  if (earlier.second.some((e) => e.get(path)?.words === first.words))
    return { side: 'second', why: 'an earlier audit saw it as the first has it still' };
  if (earlier.first.some((e) => e.get(path)?.words === second.words))
    return { side: 'first', why: 'an earlier audit saw it as the second has it still' };
  return (
    later(lastModified(first.page), lastModified(second.page), 'Last-Modified') ??
    later(dates.first.get(first.page.url), dates.second.get(second.page.url), 'the sitemap’s date')
  );
}

/** What the votes on all changed pages come to. */
function counted(votes: readonly Vote[], changed: number): Ahead {
  if (!changed) return { side: 'neither', reason: 'both say the same on all pages that both have' };
  const [vote] = votes;
  if (!vote)
    return { side: 'unknown', reason: 'neither earlier audits nor dates tell which of the two is the newer' };
  const known = share(votes.length, changed, 'changed page');
  return votes.some((v) => v.side !== vote.side)
    ? { side: 'both', reason: `each has changes that the other lacks (told from ${known})` }
    : { side: vote.side, reason: `${known}: ${vote.why}` };
}

/** Which side is ahead, over all pages that both have. */
export function aheadOf(first: Side, second: Side, hosts: ReadonlySet<string>): Ahead {
  const [here, there] = [pagesByPath(first.evidence, hosts), pagesByPath(second.evidence, hosts)];
  const known: Known = {
    earlier: {
      first: (first.earlier ?? []).map((e) => pagesByPath(e, hosts)),
      second: (second.earlier ?? []).map((e) => pagesByPath(e, hosts)),
    },
    dates: { first: sitemapDates(first.evidence), second: sitemapDates(second.evidence) },
  };
  const votes: Vote[] = [];
  let changed = 0;
  for (const [path, a] of here) {
    const b = there.get(path);
    if (!b || a.words === b.words) continue;
    changed++;
    const vote = voteOn(path, a, b, known);
    if (vote) votes.push(vote);
  }
  return counted(votes, changed);
}
