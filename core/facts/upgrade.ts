/** Evidence of earlier versions, as this version reads it. */
import { EVIDENCE_VERSION, type Evidence, type HostEvidence, type NameServer } from './evidence';

/** What version 1 lacked, in its shape. */
type Older = Partial<Evidence> & Pick<Evidence, 'version' | 'target' | 'dns' | 'hosts' | 'pages'>;

/**
 * Brings evidence up to the present version; what was not collected then is left empty and never made up, so
 * that its checks cannot tell.
 * @throws RangeError when it is of a later version, or no evidence
 */
export function upgradeEvidence(data: unknown): Evidence {
  const old = data as Older | null;
  if (
    typeof old !== 'object' ||
    old === null ||
    typeof old.version !== 'number' ||
    !old.target ||
    !Array.isArray(old.pages) ||
    !Array.isArray(old.hosts)
  )
    throw new RangeError('this is no evidence');
  if (old.version > EVIDENCE_VERSION)
    throw new RangeError(
      `this is evidence of version ${old.version}; this Armband reads up to ${EVIDENCE_VERSION}`,
    );
  if (old.version === EVIDENCE_VERSION) return old as Evidence;
  const nameServers = old.dns.nameServers.map((s): NameServer => ({
    ...s,
    namedBy: (s as Partial<NameServer>).namedBy ?? ['parent'],
  }));
  const hosts = old.hosts.map((h): HostEvidence => ({
    ...h,
    addresses: (h as Partial<HostEvidence>).addresses ?? [],
    tls: {
      ...h.tls,
      chain: h.tls.chain.map((c) => ({ ...c, signature: (c as Partial<typeof c>).signature ?? '' })),
    },
  }));
  const pages = old.pages.map((p) =>
    p.facts
      ? {
          ...p,
          facts: {
            ...p.facts,
            bylines: p.facts.bylines ?? [],
            unnamed: p.facts.unnamed ?? [],
            hidden: p.facts.hidden ?? [],
          },
        }
      : p,
  );
  return {
    ...(old as Evidence),
    version: EVIDENCE_VERSION,
    dns: { ...old.dns, nameServers, parent: old.dns.parent ?? null, randomLabel: old.dns.randomLabel ?? '' },
    hosts,
    pages,
    subdomains: old.subdomains ?? [],
    links: old.links ?? [],
    folders: old.folders ?? [],
    former: old.former ?? [],
    variants: old.variants ?? [],
    freshness: old.freshness ?? [],
    manifest: old.manifest ?? null,
    bypass: old.bypass ?? null,
  };
}
