/**
 * A first brief from what a running site says of itself: proposals, each with where it was seen, to be
 * confirmed by a person.
 */
import { e164 } from '#core/checks/catalogue/identity/phone';
import { addressesOn } from '#core/checks/view/mail-addresses';
import { analyticsIdIn } from '#core/checks/view/analytics-ids';
import { namesToken } from '#core/checks/catalogue/verification/tokens-known';
import { decodeSafely } from '#core/extract/address';
import type { Evidence, PageEvidence } from '#core/facts/evidence';

export interface Proposal {
  field: string;
  value: unknown;
  shown: string;
  from: string;
}

function pageProposals(pages: PageEvidence[], home: PageEvidence): Proposal[] {
  const out: Proposal[] = [];
  const f = home.facts!;
  const put = (field: string, value: unknown, shown: string, from: string) => {
    if (shown && !out.some((p) => p.field === field))
      out.push({ field, value, shown: shown.slice(0, 300), from: from.slice(0, 300) });
  };
  const siteName = f.metas.find((m) => m.property === 'og:site_name');
  const organisation = f.jsonLd
    .flatMap((b) => b.nodes)
    .find((n) => n.name && n.types.some((t) => /Organization|LocalBusiness|WebSite|Museum|Store/i.test(t)));
  const title = f.titles[0];
  const parts = (title?.text ?? '').split(/\s+[–—|·:-]\s+/);
  if (siteName?.content) put('name', siteName.content, siteName.content, siteName.raw);
  else if (organisation?.name) put('name', organisation.name, organisation.name, 'JSON-LD name');
  else if (parts[0]) put('name', parts[0], parts[0], `${title!.raw}${title!.text}`);
  const name = out.find((p) => p.field === 'name')?.shown;
  const tagline = parts.find((p) => p && p !== name);
  if (tagline && parts.length > 1) put('tagline', tagline, tagline, `${title!.raw}${title!.text}`);
  if (f.lang?.value) put('languages', [f.lang.value], f.lang.value, f.lang.raw);
  for (const page of pages) {
    if (!page.facts) continue;
    const mail = addressesOn(page.facts).find((a) => !a.address.endsWith('.png'));
    if (mail) put('contactEmail', mail.address, mail.address, `${mail.raw} on ${page.url}`);
    const tel = page.facts.anchors.find((a) => a.href.startsWith('tel:'));
    const number =
      (tel && e164(decodeSafely(tel.href.slice(4)))) ??
      page.facts.jsonLd
        .flatMap((b) => b.nodes)
        .map((n) => n.telephone && e164(n.telephone))
        .find(Boolean);
    if (number)
      put('phone', number, number, tel ? `${tel.href} on ${page.url}` : `JSON-LD telephone on ${page.url}`);
  }
  const tokens = f.metas
    .filter((m) => m.name && namesToken(m.name) && m.content)
    .map((m) => ({ kind: m.name!, value: m.content, place: 'meta' as const }));
  if (tokens.length)
    put(
      'tokens',
      tokens,
      tokens.map((t) => `${t.kind} ${t.value}`).join(', '),
      f.metas.find((m) => m.content === tokens[0]!.value)!.raw,
    );
  const ids = [...new Set(f.scripts.map(analyticsIdIn).filter((x): x is string => x !== undefined))];
  if (ids.length)
    put(
      'analyticsIds',
      ids,
      ids.join(', '),
      f.scripts.find((s) => `${s.raw}${s.inline ?? ''}`.includes(ids[0]!))!.raw,
    );
  return out;
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
