/** One reading of the evidence that all checks share: which pages can be judged, what was refused, and the root cause when nothing can be. */
import { hostOf, insideBase, normaliseUrl } from '#core/extract/address';
import type { Anchor, PageFacts } from '#core/extract/html';
import type { Brief } from '#core/facts/brief';
import { finalStatus, lastAnswer, type Evidence, type HostEvidence, type PageEvidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { foldLetters, foldLoosely } from '#core/text/fold';
import { refusalOf, type RefusalKind } from '#core/extract/refusal';
import { noIndexOf, type NoIndex } from './index-directives';

/** A page that answered with HTML that can be judged. */
export interface ReadPage {
  url: string;
  evidence: PageEvidence;
  facts: PageFacts;
  noIndex: NoIndex[];
  /** Rule 5: a body without text that scripts are to fill. */
  shell: boolean;
}

/** Common marks beside those of the host profile. Common practice: phrases met on such pages, folded; short pages only. */
const COMMON = {
  parking: ['domain is parked', 'this domain is parked', 'domain is for sale', 'buy this domain', 'parked free of charge'],
  unknownName: ['no site is configured', 'there is no site here', 'unknown site', 'site is not known here', 'no such site on this server', 'domain is not connected'],
  holding: ['coming soon', 'under construction', 'launching soon', 'opening soon', 'our new site is on its way'],
  samplePage: ['sample page', 'your new site is ready', 'welcome to your new site', 'this is an example page', 'just another site'],
  signIn: ['sign in to continue', 'log in to your site', 'please log in'],
  postList: ['hello world', 'my first post'],
};
const SHORT = 900;
export type MarkKind = keyof typeof COMMON;

export class SiteView {
  /** HTML pages within the site that answered 2xx. */
  readonly pages: ReadPage[] = [];
  readonly home?: ReadPage;
  /** Answers that refuse the visitor (rule 4). */
  readonly refusals: { url: string; status: number; kind: RefusalKind; evidence: PageEvidence }[] = [];
  private readonly base: URL;
  readonly hosts: HostEvidence[];
  readonly siteHosts: Set<string>;
  /** The page that stands for the home address, whatever it answered. */
  readonly homeEvidence?: PageEvidence;

  constructor(readonly evidence: Evidence, readonly brief: Brief, readonly profile: HostProfile, readonly situation: Situation) {
    this.base = new URL(evidence.target.url);
    // staging hosts are looked at beside the live one, and are no hosts of it
    this.hosts = evidence.hosts.filter(h => h.role !== 'staging');
    this.siteHosts = new Set(evidence.target.hosts);
    this.homeEvidence = evidence.pages.find(p => p.via === 'home');
    const seen = new Set<string>();
    for (const page of evidence.pages) {
      const status = finalStatus(page.chain);
      if (status === undefined) continue;
      const kind = refusalOf({ status, headers: lastAnswer(page.chain)?.headers ?? [], facts: page.facts });
      if (kind && !(status === 503 && situation === 'holding')) { this.refusals.push({ url: page.url, status, kind, evidence: page }); continue; }
      const ok = (status >= 200 && status < 300) || (status === 503 && situation === 'holding');
      if (!ok || !page.facts || seen.has(page.url) || !this.within(page.url)) continue;
      seen.add(page.url);
      const f = page.facts;
      const shell = f.textLength < 40 && f.scripts.some(s => s.src) && f.anchors.length === 0;
      const read = { url: page.url, evidence: page, facts: f, noIndex: noIndexOf(page), shell };
      this.pages.push(read);
      if (page.via === 'home' && !this.home) this.home = read;
    }
  }

  /** Whether an address belongs to this environment: one of its hosts, and below the base path. */
  within(url: string): boolean {
    if (!this.siteHosts.has(hostOf(url) ?? '')) return false;
    const base = this.base;
    if (base.pathname === '/') return true;
    const u = new URL(url);
    if (u.hostname !== base.hostname) return true;
    return insideBase(`${base.origin}${u.pathname}`, base.href);
  }

  /** The marks of a kind, the profile's own first. */
  private marksOf(kind: MarkKind): { own: string[]; common: string[] } {
    const own = [...(this.profile.marks?.[kind] ?? [])];
    if (kind === 'holding' && this.brief.holding?.mark) own.push(this.brief.holding.mark);
    return { own, common: COMMON[kind] };
  }

  /** @returns the mark of that kind which a page carries, or undefined. Common phrases count on short pages only. */
  markOn(page: ReadPage | undefined, kind: MarkKind): string | undefined {
    if (!page) return undefined;
    const { own, common } = this.marksOf(kind);
    const hit = own.find(m => carries(page.facts, m));
    if (hit) return hit;
    if (page.facts.textLength > SHORT) return undefined;
    return common.find(m => carries(page.facts, m));
  }

  /** Whether a host shows a parking or unknown-name page instead of the site. */
  isAstray(host: HostEvidence | undefined): boolean {
    if (!host?.landing || this.situation === 'staging') return false;
    let astray = this.astray.get(host);
    if (astray === undefined) this.astray.set(host, astray = this.looksAstray(host.landing));
    return astray;
  }
  private readonly astray = new Map<HostEvidence, boolean>();

  private looksAstray(landing: NonNullable<HostEvidence['landing']>): boolean {
    const page = { facts: landing.facts } as ReadPage;
    return Boolean(this.markOn(page, 'parking') ?? this.markOn(page, 'unknownName'));
  }

  /** Why pages cannot be judged at all: the first root cause, which its own check is charged with (rule 3). */
  rootCause(): { check: string; reason: string } | null {
    // asked for by most checks
    return this.cause === undefined ? this.cause = this.findRootCause() : this.cause;
  }
  private cause: { check: string; reason: string } | null | undefined;

  private findRootCause(): { check: string; reason: string } | null {
    const { evidence } = this;
    const home = this.homeEvidence;
    if (this.isAstray(evidence.hosts[0])) return { check: 'domain.connected', reason: 'the host serves a parking or unknown-name page' };
    if (this.home) {
      const notTheSite = this.situation === 'live' || this.situation === 'staging' ? this.markOn(this.home, 'samplePage') ?? this.markOn(this.home, 'signIn') : undefined;
      if (notTheSite) return { check: 'identity.home-page', reason: `the home page is not the site’s (“${notTheSite}”)` };
      if (this.situation === 'live' && this.markOn(this.home, 'holding')) return { check: 'indexing.no-holding-page', reason: 'the home page is the holding page' };
      return null;
    }
    if (this.pages.length) return null;
    const main = evidence.hosts[0];
    const error = home?.chain.error ?? main?.https.error;
    if (error?.code === 'no-name' || error?.code === 'no-address') return { check: 'domain.resolves', reason: error.message };
    const refused = this.refusals[0];
    if (refused) return { check: 'https.answers', reason: refused.kind === 'challenge' ? `the server wants proof of a person (${refused.status})` : `the server refused the visitor (${refused.status})` };
    if (error) return { check: 'https.answers', reason: error.message };
    const status = home ? finalStatus(home.chain) : undefined;
    if (status !== undefined && status >= 500) return { check: 'delivery.no-server-errors', reason: `the home page answered ${status}` };
    if (status !== undefined && home && this.situation !== 'staging' && !this.within(home.url)) return { check: 'domain.preferred-host', reason: `the home page leads away to ${home.url}` };
    return { check: 'identity.home-page', reason: status === undefined ? 'no page was read' : `the home page answered ${status}` };
  }

  /** How a way in that is a secret proves itself: what a visitor without it gets at the door; undefined where the door stands open. */
  get shutDoor(): string | undefined {
    const { wayIn } = this.evidence.target;
    if (wayIn !== 'credentials' && wayIn !== 'parameter' && wayIn !== 'cookie') return undefined;
    const status = this.hosts[0] && finalStatus(this.hosts[0].https);
    if (status === 401 || status === 407) return 'needs credentials';
    return status === 403 || status === 503 ? `answers ${status} without the key` : undefined;
  }

  /** Pages a search engine may list, once the site is live: before that, noindex is as it should be and says nothing. */
  get indexable(): ReadPage[] { return this.indexed ??= this.situation === 'live' ? this.pages.filter(p => !p.noIndex.some(n => n.agent === '*')) : this.pages; }
  private indexed: ReadPage[] | undefined;

  /** The page's first canonical, if any, as an absolute address. */
  canonicalOf(page: ReadPage): string | undefined {
    // asked for by a dozen checks
    let known = this.canonicals.get(page);
    if (known === undefined) { const link = page.facts.links.find(l => l.rel.includes('canonical')); this.canonicals.set(page, known = (link && normaliseUrl(link.href, page.url)) ?? null); }
    return known ?? undefined;
  }
  private readonly canonicals = new Map<ReadPage, string | null>();

  /** Indexable pages that are their own canonical (or name none): the ones that count for uniqueness (rule 8). */
  get countable(): ReadPage[] {
    return this.counted ??= this.indexable.filter(p => { const c = this.canonicalOf(p); return !c || c === p.url; });
  }
  private counted: ReadPage[] | undefined;

  /** The preferred host: the brief's, else the target's. */
  get preferredHost(): string { return this.evidence.target.hosts[0]!; }

  hostEvidence(host: string): HostEvidence | undefined { return this.hosts.find(h => h.host === host); }
}

/** Whether a page carries a mark: `#id` or `.class` of an element, else words in its title or text, loosely folded. */
export function carries(facts: PageFacts, mark: string): boolean {
  if (/^[#.][A-Za-z_][\w-]*$/.test(mark)) return facts.marks.includes(mark);
  let wanted = foldedMarks.get(mark);
  if (wanted === undefined) { wanted = foldLoosely(mark); if (foldedMarks.size < 2000) foldedMarks.set(mark, wanted); }
  if (!wanted) return false;
  return foldedTitles(facts).includes(wanted) || folded(facts).includes(wanted);
}

const foldedMarks = new Map<string, string>();
/** The page's text in lower case, once: same length and places as the text but for a few letters that change theirs. */
export const lowered = once(facts => facts.text.toLowerCase());
/** The page's links as normalised addresses, with their hosts, once; what is no web address is left out. */
export const linksOf = once((facts) => {
  const out: { url: string; host: string; anchor: Anchor }[] = [];
  for (const anchor of facts.anchors) { const known = addressOf(anchor.href); if (known) out.push({ url: known.url, host: known.host, anchor }); }
  return out;
});

/** The pages of a site link to the same few addresses. */
const addresses = new Map<string, { url: string; host: string } | null>();
function addressOf(href: string): { url: string; host: string } | null {
  let known = addresses.get(href);
  if (known === undefined) {
    if (addresses.size > 20_000) addresses.clear();
    const url = normaliseUrl(href);
    addresses.set(href, known = url === undefined ? null : { url, host: hostOf(url)! });
  }
  return known;
}
/** The page's titles loosely folded, once, one a line. */
export const foldedTitles = once(facts => facts.titles.map(t => foldLoosely(t.text)).join('\n'));
/** The page's text loosely folded, once. */
export const folded = once(facts => foldLetters(facts.text));

function once<T extends object | string>(make: (facts: PageFacts) => T): (facts: PageFacts) => T {
  const made = new WeakMap<PageFacts, T>();
  return (facts) => {
    let known = made.get(facts);
    if (known === undefined) made.set(facts, known = make(facts));
    return known;
  };
}
