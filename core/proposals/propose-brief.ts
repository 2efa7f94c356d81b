/**
 * A first brief from what a running site says of itself: proposals, each with where it was seen, to be
 * confirmed by a person.
 */
import { e164 } from '#core/checks/catalogue/identity/phone';
import { addressesOn } from '#core/checks/view/mail-addresses';
import { analyticsIdIn } from '#core/checks/view/analytics-ids';
import { namesToken } from '#core/checks/catalogue/verification/tokens-known';
import { isNullMx } from '#core/checks/catalogue/domain/mail-exchanger';
import { isOrganisation } from '#core/checks/catalogue/identity/structured-nodes';
import { validLanguageTag } from '#core/checks/kit/language-tag';
import { FOLDED_DEFAULTS } from '#core/checks/kit/page-titles';
import { decodeSafely, registrableDomain } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';
import type { Evidence, PageEvidence } from '#core/facts/evidence';
import { foldLoosely, foldSpace } from '#core/text/fold';

/** `sure`: it says all there is to say, or several things agree; `likely`: one says so plainly; `guess`: nothing better was found. */
export type Confidence = 'sure' | 'likely' | 'guess';

export interface Proposal {
  field: string;
  value: unknown;
  shown: string;
  from: string;
  sure: Confidence;
}

/** Proposals by field; the first one for a field stands. */
class Proposals {
  readonly all: Proposal[] = [];

  put(
    field: string,
    value: unknown,
    { shown, from, sure = 'likely' }: Omit<Proposal, 'field' | 'value' | 'sure'> & { sure?: Confidence },
  ): void {
    if (!shown || this.shown(field) !== undefined) return;
    this.all.push({ field, value, shown: shown.slice(0, 300), from: from.slice(0, 300), sure });
  }

  shown(field: string): string | undefined {
    return this.all.find((p) => p.field === field)?.shown;
  }
}

const titleParts = (title: string): string[] =>
  title
    .split(/\s+[–—|·:•-]\s+|\s*[|·•]\s*/)
    .map((part) => part.trim())
    .filter(Boolean);

/** Letters and digits alone, to hold a name against a domain. */
const bareLetters = (text: string): string => foldLoosely(text).replace(/[^a-z0-9]+/g, '');

/** What is no name, whoever says it: defaults, filler, refusals. */
const NO_NAME =
  /^(?:lorem ipsum|your (?:site|company|name)|my (?:site|website|blog)|example|(?:site|company|business) name|just another|access denied|forbidden|unauthori[sz]ed|sign in|log in|login|error|not found|under construction|coming soon|untitled|test)\b|\[|^\d{3}\b/;
function isName(text: string): boolean {
  const folded = foldLoosely(text);
  return (
    folded.length > 1 && folded.length <= 80 && !FOLDED_DEFAULTS.includes(folded) && !NO_NAME.test(folded)
  );
}

/** Names with what speaks for each. */
class Names {
  private readonly found = new Map<string, { text: string; weight: number; from: string[] }>();

  add(text: string | undefined, weight: number, from: string): void {
    const plain = foldSpace(text ?? '');
    if (!isName(plain)) return;
    const key = foldLoosely(plain);
    const known = this.found.get(key) ?? { text: plain, weight: 0, from: [] };
    if (known.from.includes(from)) return;
    known.weight += weight;
    known.from.push(from);
    this.found.set(key, known);
  }

  /** The one that most speaks for. */
  best(): { text: string; weight: number; from: string[] } | undefined {
    return [...this.found.values()].sort((x, y) => y.weight - x.weight || x.text.length - y.text.length)[0];
  }

  all(): string[] {
    return [...this.found.values()].map((n) => n.text);
  }
}

/** What two thirds of the titles share, where there are several. */
function sharedParts(pages: readonly PageEvidence[]): string[] {
  const titles = pages.flatMap((p) => p.facts?.titles[0]?.text ?? []);
  if (titles.length < 2) return [];
  const counts = new Map<string, { text: string; count: number }>();
  for (const title of titles)
    for (const part of new Set(titleParts(title))) {
      const key = foldLoosely(part);
      const known = counts.get(key) ?? { text: part, count: 0 };
      known.count++;
      counts.set(key, known);
    }
  return [...counts.values()]
    .filter((c) => c.count > 1 && c.count * 3 >= titles.length * 2)
    .map((c) => c.text);
}

/** The domain's own label: tarn-planetarium of www.tarn-planetarium.example. */
const ownLabel = (url: string): string =>
  (registrableDomain(new URL(url).hostname) ?? '').split('.')[0] ?? '';

/** The names that pages and domain give, each with what speaks for it. */
function namesOf(pages: readonly PageEvidence[], home: PageEvidence): Names {
  const { metas, jsonLd, titles } = home.facts!;
  const names = new Names();
  const siteName = metas.find((m) => m.property === 'og:site_name' || m.name === 'og:site_name');
  names.add(siteName?.content, 3, 'og:site_name');
  names.add(metas.find((m) => m.name === 'application-name')?.content, 2, 'application-name');
  for (const node of jsonLd.flatMap((b) => b.nodes))
    if (isOrganisation(node) || node.types.some((t) => /WebSite$/.test(t)))
      names.add(node.name, node.nested ? 1 : 3, 'JSON-LD');
  for (const part of sharedParts(pages)) names.add(part, 3, 'what the titles share');
  for (const part of titleParts(titles[0]?.text ?? '')) names.add(part, 1, 'the title');
  const label = bareLetters(ownLabel(home.url));
  for (const name of names.all()) if (label && bareLetters(name) === label) names.add(name, 2, 'the domain');
  return names;
}

/** The name by what agrees: what the page says of itself, what titles share, and the domain. */
function proposeName(pages: readonly PageEvidence[], home: PageEvidence, to: Proposals): void {
  const label = ownLabel(home.url);
  const best = namesOf(pages, home).best();
  if (best) {
    const sure: Confidence = best.from.length > 1 ? 'sure' : best.weight > 1 ? 'likely' : 'guess';
    to.put('name', best.text, { shown: best.text, from: best.from.join(', '), sure });
  } else if (label) {
    const text = label
      .split('-')
      .map((w) => w.charAt(0).toUpperCase() + w.slice(1))
      .join(' ');
    to.put('name', text, { shown: text, from: 'the domain alone', sure: 'guess' });
  }
  if (best) proposeTagline(home.facts!, best.text, to);
}

/** What the title says beside the name. */
function proposeTagline({ titles }: PageFacts, name: string, to: Proposals): void {
  const parts = titleParts(titles[0]?.text ?? '');
  const rest = parts.find((p) => isName(p) && foldLoosely(p) !== foldLoosely(name));
  if (rest && parts.length > 1)
    to.put('tagline', rest, { shown: rest, from: titles[0]!.raw + titles[0]!.text, sure: 'guess' });
}

/** Pages that most sites must have, by their address or the text of the link (common practice). */
const NEEDED =
  /\b(?:imprint|impressum|legal(?: notice)?|privacy|datenschutz(?:erklarung)?|mentions legales|confidentialite|contact(?:ez)?|kontakt|terms|agb|cookies?|accessibility)\b/;
const MOST_NEEDED = 12;

function proposePages(home: PageEvidence, to: Proposals): void {
  const { origin } = new URL(home.url);
  const paths = new Set<string>();
  for (const { href, text } of home.facts!.anchors) {
    if (!href.startsWith(`${origin}/`)) continue;
    const { pathname } = new URL(href);
    const words = foldLoosely(`${pathname.replace(/[/_-]+/g, ' ')} ${text}`);
    if (pathname !== '/' && NEEDED.test(words)) paths.add(pathname);
  }
  const found = [...paths].slice(0, MOST_NEEDED);
  if (found.length)
    to.put('requiredPages', found, { shown: found.join(', '), from: 'links of the home page' });
}

/** The page's own language, and those of its alternates. */
function proposeLanguages({ lang, links }: PageFacts, to: Proposals): void {
  const alternates = links
    .filter((l) => l.rel.includes('alternate') && l.hreflang && l.hreflang.toLowerCase() !== 'x-default')
    .map((l) => l.hreflang!);
  const tags = [lang?.value, ...alternates].filter(
    (t): t is string => t !== undefined && validLanguageTag(t),
  );
  const seen = new Map(tags.map((t) => [t.toLowerCase(), t]));
  const found = [...seen.values()].slice(0, 20);
  if (found.length)
    to.put('languages', found, {
      shown: found.join(', '),
      from: found.length > 1 ? `${lang?.raw ?? ''} and its alternates` : (lang?.raw ?? 'hreflang'),
    });
}

/** Mail address and telephone number, from any page. */
function proposeContact(facts: PageFacts, url: string, to: Proposals): void {
  const mail = addressesOn(facts).find((a) => !a.address.endsWith('.png'));
  if (mail) to.put('contactEmail', mail.address, { shown: mail.address, from: `${mail.raw} on ${url}` });
  const link = facts.anchors.find((a) => a.href.startsWith('tel:'));
  const linked = link && e164(decodeSafely(link.href.slice(4)));
  const stated = facts.jsonLd
    .flatMap((b) => b.nodes)
    .map((n) => n.telephone && e164(n.telephone))
    .find(Boolean);
  const number = linked ?? stated;
  if (number)
    to.put('phone', number, {
      shown: number,
      from: `${link ? link.href : 'JSON-LD telephone'} on ${url}`,
    });
}

/** Ownership tokens and analytics IDs of the home page. */
function proposeTokens({ metas, scripts }: PageFacts, to: Proposals): void {
  const tokens = metas
    .filter((m) => m.name && namesToken(m.name) && m.content)
    .map((m) => ({ kind: m.name!, value: m.content, place: 'meta' as const }));
  if (tokens.length) {
    const tag = metas.find((m) => m.content === tokens[0]!.value)!.raw;
    to.put('tokens', tokens, {
      shown: tokens.map((t) => `${t.kind} ${t.value}`).join(', '),
      from: tag,
    });
  }
  const ids = [...new Set(scripts.map(analyticsIdIn).filter((x): x is string => x !== undefined))];
  if (ids.length) {
    const script = scripts.find((s) => `${s.raw}${s.inline ?? ''}`.includes(ids[0]!))!;
    to.put('analyticsIds', ids, { shown: ids.join(', '), from: script.raw });
  }
}

/** What pages say of the site itself; the same on staging as live. */
function proposeFromPages(pages: readonly PageEvidence[], home: PageEvidence, to: Proposals): void {
  proposeName(pages, home, to);
  proposeLanguages(home.facts!, to);
  for (const page of pages) if (page.facts) proposeContact(page.facts, page.url, to);
  proposePages(home, to);
  proposeTokens(home.facts!, to);
}

/** What the network says of the live host. */
function proposeFromNetwork(evidence: Evidence, home: PageEvidence, to: Proposals): void {
  const { dns, hosts } = evidence;
  const host = new URL(home.url).hostname;
  to.put('preferredHost', host, { shown: host, from: `where ${home.requested} ends` });
  const others = hosts
    .filter(
      (h) =>
        h.host !== host &&
        h.role !== 'staging' &&
        [h.https, h.http].some((c) => c.hops[0]?.status !== undefined),
    )
    .map((h) => h.host);
  if (others.length) to.put('otherHosts', others, { shown: others.join(', '), from: 'it answers too' });
  const known = new Set([...evidence.target.hosts, ...others]);
  const records = dns.answers
    .filter((a) => a.role === 'resolver' && (a.type === 'A' || a.type === 'AAAA'))
    .flatMap((a) => a.records)
    .filter((r) => ['A', 'AAAA', 'CNAME'].includes(r.type) && known.has(r.name))
    .map((r) => ({ name: r.name, type: r.type, value: r.value, ttl: r.ttl }));
  const unique = [...new Map(records.map((r) => [`${r.name} ${r.type} ${r.value}`, r])).values()];
  if (unique.length)
    to.put('records', unique, {
      shown: unique.map((r) => `${r.name} ${r.type} ${r.value}`).join('; '),
      from: `as the resolver ${dns.resolvers[0]} answers now`,
    });
  const servers = dns.nameServers.map((s) => s.name);
  if (servers.length)
    to.put('nameServers', servers, { shown: servers.join(', '), from: `the name servers of ${dns.zone}` });
  proposeMail(evidence, to);
}

function proposeMail({ dns }: Evidence, to: Proposals): void {
  const answer = dns.answers.find((a) => a.type === 'MX' && a.name === dns.zone && a.rcode === 'NOERROR');
  const exchangers = answer?.records.filter((r) => r.type === 'MX').map((r) => r.value) ?? [];
  if (exchangers.some(isNullMx)) to.put('mail', 'none', { shown: 'none', from: 'a null MX', sure: 'sure' });
  else if (exchangers.length)
    to.put('mail', 'yes', { shown: 'yes', from: `MX ${exchangers.join(', ')}`, sure: 'sure' });
}

/**
 * What the live host and its records are is proposed from the live address alone.
 * @returns nothing when the home page could not be read
 */
export function proposeBrief(evidence: Evidence): Proposal[] {
  const home = evidence.pages.find((p) => p.via === 'home');
  if (!home?.facts) return [];
  const out = new Proposals();
  proposeFromPages(evidence.pages, home, out);
  if (evidence.target.kind === 'live') proposeFromNetwork(evidence, home, out);
  return out.all;
}
