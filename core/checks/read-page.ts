/** A page that answered with HTML that can be judged, and what several checks ask of it, found once when it is first asked for. */
import { hostOf, normaliseUrl, splitAddress } from '#core/extract/address';
import type { Anchor, LinkTag, MetaTag, PageFacts, Resource, ScriptTag } from '#core/extract/html';
import { lastAnswer, type Exchange, type PageEvidence } from '#core/facts/evidence';
import { noIndexOf, type NoIndex } from './index-directives';
import { addressesOn, type MailAddress } from './identity/mail-addresses';
import type { PageText } from './page-text';
import { analyticsIdIn } from './verification/analytics-ids';
import { webAddress, type WebAddress } from './web-address';

/** A link to a web address. */
export interface WebLink { url: string; host: string; anchor: Anchor }
/** Something that a page loads from a web address. */
export interface Load { url: string; host: string; resource: Resource }

export class ReadPage {
  readonly url: string;
  /** The answer that brought it. */
  readonly answer: Exchange | undefined;
  readonly noIndex: NoIndex[];
  /** What keeps every search engine out, if anything does. */
  readonly keptOut: NoIndex | undefined;
  /** Rule 5: a body without text that scripts are to fill. */
  readonly shell: boolean;
  /** Link elements that name a canonical address, in the order of the source. */
  readonly canonicals: LinkTag[];
  /** The first canonical as an absolute address. */
  readonly canonical: string | undefined;
  readonly description: MetaTag | undefined;
  /** Scheme, host and port, with the slash that follows. */
  private readonly origin: string;
  private readonly host: string;
  // set at once, so that all pages have one shape; filled when first asked for
  private knownAddresses: MailAddress[] | undefined = undefined;
  private knownPath: string | undefined = undefined;
  private knownLinks: WebLink[] | undefined = undefined;
  private knownLoads: Load[] | undefined = undefined;
  private knownMeasuring: { script: ScriptTag; id: string }[] | undefined = undefined;

  constructor(readonly evidence: PageEvidence, readonly facts: PageFacts, readonly words: PageText) {
    this.url = evidence.url;
    this.origin = this.url.slice(0, this.url.indexOf('/', 8) + 1);
    this.host = hostOf(this.url) ?? '';
    this.answer = lastAnswer(evidence.chain);
    this.noIndex = noIndexOf(evidence);
    this.keptOut = this.noIndex.find(n => n.agent === '*');
    this.shell = facts.textLength < 40 && facts.anchors.length === 0 && facts.scripts.some(s => s.src);
    this.canonicals = facts.links.filter(l => l.rel.includes('canonical'));
    this.canonical = this.canonicals[0] && normaliseUrl(this.canonicals[0].href, this.url);
    this.description = facts.metas.find(m => m.name === 'description');
  }

  /** Path of the page's address, as it stands there. */
  get path(): string { return this.knownPath ??= splitAddress(this.url).path; }

  /** Mail addresses that the page shows. */
  get mailAddresses(): MailAddress[] { return this.knownAddresses ??= addressesOn(this.facts); }

  /** The links that lead to web addresses. */
  get links(): WebLink[] {
    if (!this.knownLinks) {
      this.knownLinks = [];
      for (const anchor of this.facts.anchors) { const to = this.ownOr(anchor.href); if (to) this.knownLinks.push({ url: to.url, host: to.host, anchor }); }
    }
    return this.knownLinks;
  }

  /** An address of the page's own host stands in the facts as the URL standard has it; only its fragment is to be taken off. */
  private ownOr(href: string): WebAddress | null {
    if (!href.startsWith(this.origin) || href.includes('#')) return webAddress(href);
    return { url: href, host: this.host };
  }

  /** The host of an address that the page's facts name; nothing for what is no web address. */
  hostIn(href: string): string { return href.startsWith(this.origin) ? this.host : webAddress(href)?.host ?? ''; }

  /** What the page loads. */
  get loads(): Load[] {
    if (!this.knownLoads) {
      this.knownLoads = [];
      for (const resource of this.facts.resources) { const from = this.ownOr(resource.url); if (from) this.knownLoads.push({ url: from.url, host: from.host, resource }); }
    }
    return this.knownLoads;
  }

  /** Scripts that carry an analytics ID, each with its first one. */
  get measuring(): { script: ScriptTag; id: string }[] {
    return this.knownMeasuring ??= this.facts.scripts.flatMap((script) => { const id = analyticsIdIn(script); return id === undefined ? [] : [{ script, id }]; });
  }
}
