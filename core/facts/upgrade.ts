/** Evidence of earlier versions, as this version reads it. */
import type { SiteFact } from './fact-names';
import {
  EVIDENCE_VERSION,
  type Evidence,
  type HostEvidence,
  type NameServer,
  type PageEvidence,
} from './evidence';

/** What version 1 lacked, in its shape. */
type Older = Partial<Evidence> & Pick<Evidence, 'version' | 'target' | 'dns' | 'hosts' | 'pages'>;

/**
 * Brings evidence up to the present version; what was not collected then is left empty and never made up, so
 * that its checks cannot tell.
 * @throws RangeError when it is of a later version, or no evidence
 */
export function upgradeEvidence(data: unknown): Evidence {
  if (!isEvidence(data)) throw new RangeError('this is no evidence');
  const old = data;
  if (old.version > EVIDENCE_VERSION)
    throw new RangeError(
      `this is evidence of version ${old.version}; this Armband reads up to ${EVIDENCE_VERSION}`,
    );
  if (old.version === EVIDENCE_VERSION) return withLater(old as Evidence);
  const lacks = notCollectedIn(old);
  return {
    ...EMPTY,
    ...(old as Evidence),
    version: EVIDENCE_VERSION,
    ...(lacks.length ? { lacks } : {}),
    dns: {
      ...old.dns,
      nameServers: old.dns.nameServers.map(upgradeNameServer),
      parent: old.dns.parent ?? null,
      randomLabel: old.dns.randomLabel ?? '',
    },
    hosts: old.hosts.map(upgradeHost),
    pages: old.pages.map(upgradePage),
  };
}

/** Facts that came into this version later: evidence that was kept before says that it lacks them. */
function withLater(evidence: Evidence): Evidence {
  if (evidence.mtaSts !== undefined || evidence.lacks?.includes('mtaSts')) return evidence;
  return { ...evidence, lacks: [...(evidence.lacks ?? []), 'mtaSts'] };
}

/** What was not collected. */
const EMPTY = {
  subdomains: [],
  links: [],
  folders: [],
  former: [],
  variants: [],
  freshness: [],
  manifest: null,
  bypass: null,
} satisfies Partial<Evidence>;

/** What evidence of version 1 does not say. */
function notCollectedIn(old: Older): SiteFact[] {
  const { dns, hosts } = old;
  const isThere = {
    addresses: hosts.every((h) => 'addresses' in h),
    signature: hosts.every((h) => h.tls.chain.every((c) => 'signature' in c)),
    namedBy: dns.nameServers.every((s) => 'namedBy' in s),
    parent: 'parent' in dns,
    randomLabel: 'randomLabel' in dns,
    subdomains: 'subdomains' in old,
    otherLinks: 'links' in old,
    folders: 'folders' in old,
    former: 'former' in old,
    variants: 'variants' in old,
    freshness: 'freshness' in old,
    manifest: 'manifest' in old,
    mtaSts: 'mtaSts' in old,
  } satisfies Partial<Record<SiteFact, boolean>>;
  return (Object.keys(isThere) as (keyof typeof isThere)[]).filter((fact) => !isThere[fact]);
}

function isEvidence(data: unknown): data is Older {
  const old = data as Partial<Older> | null;
  return (
    typeof old === 'object' &&
    old !== null &&
    typeof old.version === 'number' &&
    Boolean(old.target) &&
    Array.isArray(old.pages) &&
    Array.isArray(old.hosts)
  );
}

const upgradeNameServer = (s: Omit<NameServer, 'namedBy'> & Partial<NameServer>): NameServer => ({
  ...s,
  namedBy: s.namedBy ?? ['parent'],
});

function upgradeHost(host: HostEvidence): HostEvidence {
  const chain = host.tls.chain.map((c) => ({ ...c, signature: (c as Partial<typeof c>).signature ?? '' }));
  return {
    ...host,
    addresses: (host as Partial<HostEvidence>).addresses ?? [],
    tls: { ...host.tls, chain },
  };
}

/** Facts of pages that came after the first audits were kept. */
const LATER_PAGE_FACTS = ['bylines', 'unnamed', 'hidden'] as const;

function upgradePage(page: PageEvidence): PageEvidence {
  const { facts } = page;
  if (!facts) return page;
  const { bylines = [], unnamed = [], hidden = [] } = facts as Partial<typeof facts>;
  const lacks = LATER_PAGE_FACTS.filter((fact) => !(fact in facts));
  return { ...page, facts: { ...facts, bylines, unnamed, hidden }, ...(lacks.length ? { lacks } : {}) };
}
