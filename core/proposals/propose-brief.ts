/**
 * A first brief from what a running site says of itself: proposals, each with where it was seen, to be
 * confirmed by a person.
 */
import { e164 } from '#core/checks/catalogue/identity/phone';
import { addressesOn } from '#core/checks/view/mail-addresses';
import { analyticsIdIn } from '#core/checks/view/analytics-ids';
import { namesToken } from '#core/checks/catalogue/verification/tokens-known';
import { decodeSafely } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';
import type { Evidence, PageEvidence } from '#core/facts/evidence';

export interface Proposal {
  field: string;
  value: unknown;
  shown: string;
  from: string;
}

/** Proposals by field; the first one for a field stands. */
class Proposals {
  readonly all: Proposal[] = [];

  put(field: string, value: unknown, shown: string, from: string): void {
    if (!shown || this.shown(field) !== undefined) return;
    this.all.push({ field, value, shown: shown.slice(0, 300), from: from.slice(0, 300) });
  }

  shown(field: string): string | undefined {
    return this.all.find((p) => p.field === field)?.shown;
  }
}

/** Name and tagline, from what the home page says of itself. */
function proposeName({ metas, jsonLd, titles }: PageFacts, to: Proposals): void {
  const siteName = metas.find((m) => m.property === 'og:site_name');
  const organisation = jsonLd
    .flatMap((b) => b.nodes)
    .find((n) => n.name && n.types.some((t) => /Organization|LocalBusiness|WebSite|Museum|Store/i.test(t)));
  const title = titles[0];
  const parts = (title?.text ?? '').split(/\s+[–—|·:-]\s+/);
  const tag = title ? `${title.raw}${title.text}` : '';
  if (siteName?.content) to.put('name', siteName.content, siteName.content, siteName.raw);
  else if (organisation?.name) to.put('name', organisation.name, organisation.name, 'JSON-LD name');
  else if (parts[0]) to.put('name', parts[0], parts[0], tag);
  const tagline = parts.find((p) => p && p !== to.shown('name'));
  if (tagline && parts.length > 1) to.put('tagline', tagline, tagline, tag);
}

/** Mail address and telephone number, from any page. */
function proposeContact(facts: PageFacts, url: string, to: Proposals): void {
  const mail = addressesOn(facts).find((a) => !a.address.endsWith('.png'));
  if (mail) to.put('contactEmail', mail.address, mail.address, `${mail.raw} on ${url}`);
  const link = facts.anchors.find((a) => a.href.startsWith('tel:'));
  const linked = link && e164(decodeSafely(link.href.slice(4)));
  const stated = facts.jsonLd
    .flatMap((b) => b.nodes)
    .map((n) => n.telephone && e164(n.telephone))
    .find(Boolean);
  const number = linked ?? stated;
  if (number) to.put('phone', number, number, `${link ? link.href : 'JSON-LD telephone'} on ${url}`);
}

/** Ownership tokens and analytics IDs of the home page. */
function proposeTokens({ metas, scripts }: PageFacts, to: Proposals): void {
  const tokens = metas
    .filter((m) => m.name && namesToken(m.name) && m.content)
    .map((m) => ({ kind: m.name!, value: m.content, place: 'meta' as const }));
  if (tokens.length) {
    const tag = metas.find((m) => m.content === tokens[0]!.value)!.raw;
    to.put('tokens', tokens, tokens.map((t) => `${t.kind} ${t.value}`).join(', '), tag);
  }
  const ids = [...new Set(scripts.map(analyticsIdIn).filter((x): x is string => x !== undefined))];
  if (ids.length) {
    const script = scripts.find((s) => `${s.raw}${s.inline ?? ''}`.includes(ids[0]!))!;
    to.put('analyticsIds', ids, ids.join(', '), script.raw);
  }
}

function pageProposals(pages: PageEvidence[], home: PageEvidence): Proposal[] {
  const out = new Proposals();
  const facts = home.facts!;
  proposeName(facts, out);
  if (facts.lang?.value) out.put('languages', [facts.lang.value], facts.lang.value, facts.lang.raw);
  for (const page of pages) if (page.facts) proposeContact(page.facts, page.url, out);
  proposeTokens(facts, out);
  return out.all;
}

function hostProposals(evidence: Evidence, home: PageEvidence): Proposal[] {
  const host = new URL(home.url).hostname;
  const out: Proposal[] = [
    { field: 'preferredHost', value: host, shown: host, from: `where ${home.requested} ends` },
  ];
  const hosts = new Set(evidence.target.hosts);
  const records = evidence.dns.answers
    .filter((a) => a.role === 'resolver' && (a.type === 'A' || a.type === 'AAAA'))
    .flatMap((a) => a.records)
    .filter((r) => ['A', 'AAAA', 'CNAME'].includes(r.type) && hosts.has(r.name))
    .map((r) => ({ name: r.name, type: r.type, value: r.value, ttl: r.ttl }));
  const unique = [...new Map(records.map((r) => [`${r.name} ${r.type} ${r.value}`, r])).values()];
  if (unique.length)
    out.push({
      field: 'records',
      value: unique,
      shown: unique.map((r) => `${r.name} ${r.type} ${r.value}`).join('; '),
      from: `as the resolver ${evidence.dns.resolvers[0]} answers now`,
    });
  return out;
}

/** @returns nothing when the home page could not be read */
export function proposeBrief(evidence: Evidence): Proposal[] {
  const home = evidence.pages.find((p) => p.via === 'home');
  return home?.facts ? [...pageProposals(evidence.pages, home), ...hostProposals(evidence, home)] : [];
}
