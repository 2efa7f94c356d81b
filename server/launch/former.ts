/** Former addresses of a site: harvested from what the former site answered, mapped onto the new pages. */
import { pathBelow } from '#core/compare/sites/page-face';
import { parseUrl } from '#core/extract/address';
import { shownFacts } from '#core/extract/shell';
import { finalStatus, type Evidence } from '#core/facts/evidence';
import { proposeTargets, type KnownPage, type ProposedTarget } from '#core/launch/former';
import { hostsOf } from '#probe/plan';
import { lastAuditAs, findEvidence, type Audit } from '#server/audits';
import { readEvidence } from '#server/platform/packed';
import type { Environment } from '#server/sites';
import { launchedFrom } from './cut-over';
import { countingOf } from './standing';

/** So many addresses are mapped at most. */
const MOST = 2000;

const GOOD = 200;

/** Pages that answered, by where they came to rest, and addresses of sitemaps that were not read. */
function pagesOf(evidence: Evidence | null, base: string): KnownPage[] {
  if (!evidence) return [];
  const pages = evidence.pages
    .filter((p) => finalStatus(p.chain) === GOOD && p.facts)
    .map((p) => ({
      path: pathBelow(p.url, base),
      title: shownFacts(p)!.titles[0]?.text,
      text: shownFacts(p)!.text,
    }));
  const listed = [
    ...evidence.sitemaps
      .flatMap((m) => (m.facts && m.facts.kind !== 'index' ? m.facts.urls : []))
      .map((u) => u.loc),
    ...evidence.unread,
  ].flatMap((url) => (parseUrl(url) ? [{ path: pathBelow(url, base) }] : []));
  const byPath = new Map<string, KnownPage>();
  for (const page of [...pages, ...listed]) if (!byPath.has(page.path)) byPath.set(page.path, page);
  return [...byPath.values()].slice(0, MOST);
}

async function evidenceOf(auditId: number | null | undefined): Promise<Evidence | null> {
  const stored = auditId ? await findEvidence(auditId) : null;
  return stored ? readEvidence(stored.data) : null;
}

/** The newest look at the live address while the former site ran there, of which the evidence is kept. */
async function formerAudit(live: Environment): Promise<Audit | null> {
  return lastAuditAs(live.id, 'former');
}

export interface FormerAddresses {
  /** When the former site was looked at; nothing where it never was. */
  at: string | null;
  list: ProposedTarget[];
  /** Pages of the new site that an address can lead to. */
  pages: { path: string; title: string | null }[];
  /** The hosts of the live site. */
  hosts: string[];
  /** What the brief has. */
  kept: { from: string; to: string }[];
}

/** @throws NotFound */
export async function formerAddresses(siteId: number): Promise<FormerAddresses> {
  const { live, brief } = await launchedFrom(siteId);
  const before = (await countingOf(siteId)).find((e) => e.kind === 'before');
  const audit = live && (await formerAudit(live));
  const [former, fresh] = await Promise.all([evidenceOf(audit?.id), evidenceOf(before?.lastAuditId)]);
  const harvested = live ? pagesOf(former, new URL('/', live.url).href) : [];
  const pages = before ? pagesOf(fresh, before.url) : [];
  return {
    at: audit ? (audit.finishedAt ?? audit.startedAt).toISOString() : null,
    list: proposeTargets(harvested, pages),
    pages: pages.map(({ path, title }) => ({ path, title: title ?? null })),
    hosts: live ? hostsOf(live.url, 'live', brief) : [],
    kept: brief.formerAddresses ?? [],
  };
}
