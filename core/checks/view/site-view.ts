/**
 * One reading of the evidence that all checks share: which pages can be judged, what was refused, and the
 * root cause when nothing can be.
 */
import { hostOf, insideBase, normaliseUrl } from '#core/extract/address';
import { isShell } from '#core/extract/shell';
import type { Anchor, PageFacts } from '#core/extract/html';
import type { Brief } from '#core/facts/brief';
import {
  finalStatus,
  lastAnswer,
  type Chain,
  type Evidence,
  type HostEvidence,
  type NetworkErrorCode,
  type PageEvidence,
} from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { refusalOf, type RefusalKind } from '#core/extract/refusal';
import { commonMark, type Marked, type MarkKind, serverPage } from './page-marks';
import { PageText } from './page-text';
import { isBogus } from './signed-zone';
import { ReadPage } from './read-page';
import { memoize } from '#core/remembering';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('view.site-view', {
  parked: 'the host serves a parking or unknown-name page',
  'sample-page': 'the home page is not the site’s (“{mark}”)',
  'holding-page': 'the home page is the holding page',
  'answers-503-everybody': 'it answers 503 to everybody',
  'home-page-answered': 'the home page answered {status}',
  'home-page-leads-away': 'the home page leads away to {url}',
});

/** A link inside the site that was followed, with where it stands first. */
export interface FollowedLink {
  url: string;
  chain: Chain;
  page: ReadPage;
  anchor: Anchor;
}

/** Redirects that never arrive, though every server on the way answers. */
export const LEADS_NOWHERE: ReadonlySet<NetworkErrorCode> = new Set([
  'redirect-loop',
  'too-many-redirects',
  'bad-url',
]);

/** The check that is charged with what keeps all pages from being judged (rule 3). */
export interface RootCause {
  check: string;
  reason: Message;
}

/** Whether a host's name led to an address. */
function hasAddress({ https, http, tls }: HostEvidence): boolean {
  const nameless = new Set<NetworkErrorCode | undefined>(['no-name', 'no-address', 'dns']);
  return ![https.error, http.error, tls.error].some((e) => nameless.has(e?.code));
}

export class SiteView {
  /** HTML pages within the site that answered 2xx. */
  readonly pages: ReadPage[] = [];
  readonly home?: ReadPage;
  /** Answers that refuse the visitor (rule 4). */
  readonly refusals: { url: string; status: number; kind: RefusalKind; evidence: PageEvidence }[] = [];
  private readonly base: URL;
  /** What every address of the environment's own host begins with, where the whole host is its own. */
  private readonly origin: string | undefined;
  readonly hosts: HostEvidence[];
  readonly siteHosts: Set<string>;
  /** Hosts that came into the brief after the audit, so that nothing is known of them. */
  readonly unasked: readonly string[];
  /** The page that stands for the home address, whatever it answered. */
  readonly homeEvidence?: PageEvidence;

  constructor(
    readonly evidence: Evidence,
    readonly brief: Brief,
    readonly profile: HostProfile,
    readonly situation: Situation,
  ) {
    this.base = new URL(evidence.target.url);
    // staging hosts are looked at beside the live one, and are no hosts of it
    // and the other form of the live host is one once it has an address
    this.hosts = evidence.hosts.filter(
      (h) => h.role !== 'staging' && (h.role !== 'implied' || hasAddress(h)),
    );
    const implied = this.hosts.filter((h) => h.role === 'implied').map((h) => h.host);
    this.siteHosts = new Set([...evidence.target.hosts, ...implied]);
    this.unasked =
      evidence.target.kind === 'live' && evidence.hosts.length
        ? [brief.preferredHost, ...(brief.otherHosts ?? [])].filter(
            (h): h is string => h !== undefined && !this.siteHosts.has(h),
          )
        : [];
    this.origin =
      this.base.pathname === '/' && this.siteHosts.has(this.base.hostname)
        ? `${this.base.origin}/`
        : undefined;
    this.homeEvidence = evidence.pages.find((p) => p.via === 'home');
    const seen = new Set<string>();
    for (const page of evidence.pages) {
      const read = this.read(page);
      if (!read || seen.has(page.url)) continue;
      seen.add(page.url);
      this.pages.push(read);
      if (page.via === 'home' && !this.home) this.home = read;
    }
  }

  /** A page that can be judged; one that refuses the visitor is noted as such. */
  private read(page: PageEvidence): ReadPage | undefined {
    const status = finalStatus(page.chain);
    if (status === undefined) return undefined;
    const words = page.facts && new PageText(page.facts);
    // a holding page says 503, and is a page all the same
    const isHolding = status === 503 && this.situation === 'holding';
    const headers = lastAnswer(page.chain)?.headers ?? [];
    const kind = refusalOf({ status, headers, facts: page.facts, lowered: words?.lowered });
    if (kind && !isHolding) {
      this.refusals.push({ url: page.url, status, kind, evidence: page });
      return undefined;
    }
    const isGood = isHolding || (status >= 200 && status < 300);
    return isGood && words && this.within(page.url) ? this.readable(page, page.facts!, words) : undefined;
  }

  /** A page by its own facts, or, where scripts build it, by those of what a browser showed. */
  private readable(page: PageEvidence, facts: PageFacts, words: PageText): ReadPage {
    const built = isShell(facts) ? (this.renderedFacts(page.url) ?? page.rendered?.facts) : undefined;
    return built ? new ReadPage(page, built, new PageText(built), true) : new ReadPage(page, facts, words);
  }

  /** The facts of a page as a browser made it. */
  private renderedFacts(url: string): PageFacts | undefined {
    const view = this.evidence.rendered?.pages.find((p) => p.url === url)?.views[0];
    return view && view.failure === undefined && view.facts && !isShell(view.facts) ? view.facts : undefined;
  }

  /** Whether an address belongs to this environment: one of its hosts, and below the base path. */
  within(url: string): boolean {
    // most addresses asked about are
    if (this.origin && url.startsWith(this.origin)) return true;
    if (!this.siteHosts.has(hostOf(url) ?? '')) return false;
    const base = this.base;
    if (base.pathname === '/') return true;
    const u = new URL(url);
    if (u.hostname !== base.hostname) return true;
    return insideBase(`${base.origin}${u.pathname}`, base.href);
  }

  /** The marks of a kind that profile and brief name. */
  private ownMarks(kind: MarkKind): string[] {
    const own = this.profile.marks?.[kind] ?? [];
    return kind === 'holding' && this.brief.holding?.mark ? [...own, this.brief.holding.mark] : own;
  }

  /** @returns the mark of that kind which a page carries, or undefined */
  markOn(page: (Marked & { words: PageText }) | undefined, kind: MarkKind): string | undefined {
    if (!page) return undefined;
    return this.ownMarks(kind).find((m) => page.words.carries(m)) ?? commonMark(page, kind, this.brief.name);
  }

  /** Whether a host shows a parking, unknown-name or server's default page instead of the site. */
  showsForeignPage(host: HostEvidence | undefined): boolean {
    if (!host?.landing || this.situation === 'staging') return false;
    return this.astray(host);
  }
  private readonly astray = memoize((host: HostEvidence) =>
    Boolean(
      this.markOn(this.landing(host), 'parking') ??
      this.markOn(this.landing(host), 'unknownName') ??
      serverPage(this.landing(host)!),
    ),
  );

  /** The words a visitor of a host's own address meets. */
  readonly landing = memoize(
    (host: HostEvidence) =>
      host.landing && {
        url: host.landing.url,
        facts: host.landing.facts,
        words: new PageText(host.landing.facts),
      },
  );

  /** How a host's own address refuses the visitor, if it does (rule 4). */
  readonly refusedAt = memoize((host: HostEvidence): RefusalKind | null => {
    const chain = [host.https, host.http].find((c) => c.end === 'answer');
    const answer = chain && lastAnswer(chain);
    return answer?.status === undefined
      ? null
      : refusalOf({ status: answer.status, headers: answer.headers, facts: host.landing?.facts });
  });

  /** Whether the signatures of the zone do not hold. */
  get isBogus(): boolean {
    return (this.knownBogus ??= isBogus(this.evidence));
  }
  private knownBogus: boolean | undefined = undefined;

  /** The mark by which a live site's 503 gives itself away as the holding page; undefined where it is a fault. */
  get heldBack(): string | undefined {
    // asked for each page that answers 503
    this.knownHeldBack ??= { mark: this.findHeldBack() };
    return this.knownHeldBack.mark;
  }
  private knownHeldBack: { mark: string | undefined } | undefined = undefined;

  private findHeldBack(): string | undefined {
    const home = this.homeEvidence;
    if (this.situation !== 'live' || !home?.facts || finalStatus(home.chain) !== 503 || this.refusals.length)
      return undefined;
    return this.markOn({ url: home.url, facts: home.facts, words: new PageText(home.facts) }, 'holding');
  }

  /** Whether a holding host answers 503 without a page: search engines are kept out all the same. */
  get isBarred(): boolean {
    const home = this.homeEvidence;
    return (
      this.situation === 'holding' && !this.home && home !== undefined && finalStatus(home.chain) === 503
    );
  }

  /** Whether an environment before the live one answers 503 to everybody, which keeps it closed. */
  get isShut(): boolean {
    if (this.situation !== 'staging' || !this.homeEvidence) return false;
    return this.pages.length === 0 && finalStatus(this.homeEvidence.chain) === 503 && !this.refusals.length;
  }

  /**
   * Why pages cannot be judged at all: the first root cause, which its own check is charged with (rule 3).
   */
  rootCause(): RootCause | null {
    // asked for by most checks
    return this.cause === undefined ? (this.cause = this.findRootCause()) : this.cause;
  }
  private cause: RootCause | null | undefined = undefined;

  private findRootCause(): RootCause | null {
    if (this.showsForeignPage(this.evidence.hosts[0]))
      return { check: 'domain.connected', reason: msg('parked') };
    if (this.home) return this.wrongHome(this.home);
    return this.pages.length ? null : (this.unreached() ?? this.notServed());
  }

  /** The home page was read, and is another one. */
  private wrongHome(home: ReadPage): RootCause | null {
    if (this.situation === 'holding' || this.situation === 'former') return null;
    const mark = this.markOn(home, 'samplePage') ?? this.markOn(home, 'signIn');
    if (mark) return { check: 'identity.home-page', reason: msg('sample-page', { mark }) };
    return this.situation === 'live' && this.markOn(home, 'holding')
      ? { check: 'indexing.no-holding-page', reason: msg('holding-page') }
      : null;
  }

  /** No page was read, since nothing answered or the visitor was refused. */
  private unreached(): RootCause | undefined {
    const error = this.homeEvidence?.chain.error ?? this.evidence.hosts[0]?.https.error;
    const check = error && this.charged(error.code);
    if (check) return { check, reason: verbatim(error.message) };
    const [refused] = this.refusals;
    if (refused) {
      const { kind, status } = refused;
      return { check: 'https.answers', reason: commonMessage('server-refused', { what: kind, status }) };
    }
    return error && { check: 'https.answers', reason: verbatim(error.message) };
  }

  /** The check that is charged with an error of the way to the home page, where that is not the server. */
  private charged(code: NetworkErrorCode): string | undefined {
    if (code === 'no-name' || code === 'no-address') return 'domain.resolves';
    const isLive = this.situation === 'live';
    if (code === 'dns')
      return this.isBogus && (isLive || this.situation === 'holding') ? 'domain.signed' : 'domain.resolves';
    if (!LEADS_NOWHERE.has(code)) return undefined;
    return isLive && this.brief.preferredHost ? 'domain.preferred-host' : 'identity.home-page';
  }

  /** No page was read, though the server answered. */
  private notServed(): RootCause {
    const home = this.homeEvidence;
    const status = home && finalStatus(home.chain);
    if (status === undefined) return { check: 'identity.home-page', reason: commonMessage('no-page-read') };
    if (this.isShut) return { check: 'delivery.no-server-errors', reason: msg('answers-503-everybody') };
    const mark = this.heldBack;
    if (mark) return { check: 'indexing.no-holding-page', reason: msg('holding-page') };
    if (status >= 500)
      return { check: 'delivery.no-server-errors', reason: msg('home-page-answered', { status }) };
    if (this.situation !== 'staging' && !this.within(home!.url))
      return { check: 'domain.preferred-host', reason: msg('home-page-leads-away', { url: home!.url }) };
    return { check: 'identity.home-page', reason: msg('home-page-answered', { status }) };
  }

  /**
   * Whether the server answers addresses that do not exist as if they did: then an answer alone proves no page
   * (indexing.not-found-status).
   */
  get answersAnything(): boolean {
    const { notFound } = this.evidence;
    return Boolean(notFound && finalStatus(notFound) === 200);
  }

  /**
   * Whether a page is the one that the server gives for addresses that do not exist. An application's shell is the same
   * for those that do.
   */
  isStandIn({ facts, url }: Pick<PageEvidence, 'facts' | 'url'>): boolean {
    const { notFoundTitle } = this.evidence;
    if (!this.answersAnything || notFoundTitle === undefined || url === this.home?.url) return false;
    return facts?.titles[0]?.text === notFoundTitle && !isShell(facts);
  }

  /**
   * How an access that is a secret proves itself: what a visitor without it gets at the door; undefined where
   * the door stands open.
   */
  get shutDoor(): Message | undefined {
    const { wayIn } = this.evidence.target;
    if (wayIn !== 'credentials' && wayIn !== 'parameter' && wayIn !== 'cookie') return undefined;
    const status = this.hosts[0] && finalStatus(this.hosts[0].https);
    if (status === 401 || status === 407) return commonMessage('needs-credentials');
    return status === 403 || status === 503 ? commonMessage('answers-without-key', { status }) : undefined;
  }

  /**
   * Pages a search engine may list, once the site is live: before that, noindex is as it should be and says
   * nothing.
   */
  get indexable(): ReadPage[] {
    return (this.indexed ??= this.situation === 'live' ? this.pages.filter((p) => !p.keptOut) : this.pages);
  }
  private indexed: ReadPage[] | undefined = undefined;

  /** The pages by their address. */
  get byUrl(): ReadonlyMap<string, ReadPage> {
    return (this.knownByUrl ??= new Map(this.pages.map((p) => [p.url, p])));
  }
  private knownByUrl: Map<string, ReadPage> | undefined = undefined;

  /** Everything the crawl asked for, by the address it asked for and by the one it came to. */
  get asked(): ReadonlyMap<string, PageEvidence> {
    if (!this.knownAsked) {
      this.knownAsked = new Map();
      for (const p of this.evidence.pages) this.knownAsked.set(p.requested, p).set(p.url, p);
      // addresses that led to a page already read
      for (const { url, own, chain } of this.evidence.links) {
        const end = own && chain.hops.length > 1 && finalStatus(chain) === 200 && lastAnswer(chain)?.url;
        const page = end && !this.knownAsked.has(url) && this.knownAsked.get(normaliseUrl(end) ?? end);
        if (page) this.knownAsked.set(url, { ...page, requested: url, chain });
      }
    }
    return this.knownAsked;
  }
  private knownAsked: Map<string, PageEvidence> | undefined = undefined;

  /** Where each address that pages link to is linked first. */
  get linked(): ReadonlyMap<string, { page: ReadPage; anchor: Anchor }> {
    if (!this.knownLinked) {
      this.knownLinked = new Map();
      for (const page of this.pages)
        for (const anchor of page.facts.anchors) {
          const url = page.target(anchor.href);
          if (url !== undefined && !this.knownLinked.has(url)) this.knownLinked.set(url, { page, anchor });
        }
    }
    return this.knownLinked;
  }
  private knownLinked: Map<string, { page: ReadPage; anchor: Anchor }> | undefined = undefined;

  /** What the links inside the site were answered, each with the place where it is linked first. */
  get followed(): readonly FollowedLink[] {
    if (!this.knownFollowed) {
      this.knownFollowed = [];
      const add = (url: string, chain: Chain): void => {
        const link = this.linked.get(url);
        if (link) this.knownFollowed!.push({ url, chain, page: link.page, anchor: link.anchor });
      };
      for (const p of this.evidence.pages) add(p.requested, p.chain);
      for (const l of this.evidence.links) if (l.own) add(l.url, l.chain);
    }
    return this.knownFollowed;
  }
  private knownFollowed: FollowedLink[] | undefined = undefined;

  /** Addresses that the sitemaps name, normalised. */
  get inSitemap(): ReadonlySet<string> {
    if (!this.listed) {
      this.listed = new Set();
      for (const map of this.evidence.sitemaps) {
        if (map.facts?.kind === 'index') continue;
        for (const { loc } of map.facts?.urls ?? []) {
          const url = normaliseUrl(loc);
          if (url) this.listed.add(url);
        }
      }
    }
    return this.listed;
  }
  private listed: Set<string> | undefined = undefined;

  /**
   * Indexable pages that are their own canonical (or name none): the ones that count for uniqueness (rule 8).
   */
  get countable(): ReadPage[] {
    return (this.counted ??= this.indexable.filter((p) => !p.canonical || p.canonical === p.url));
  }
  private counted: ReadPage[] | undefined = undefined;

  /** The preferred host: the brief's, else the target's. */
  get preferredHost(): string {
    return this.evidence.target.hosts[0]!;
  }

  hostEvidence(host: string): HostEvidence | undefined {
    return this.hosts.find((h) => h.host === host);
  }
}
