/**
 * What a host profile tells of a site's hosts: its records with the site's names filled in, and whether a
 * host is one of its staging places.
 */
import { getDomain } from 'tldts';
import type { Brief, ExpectedRecord } from './brief';
import type { HostProfile } from './host-profile';

/**
 * The host's records for a site. `{domain}` is the registrable domain, `{host}` the preferred host, `{www}`
 * the domain with www.
 */
export function hostRecords(profile: HostProfile | undefined, preferredHost: string): ExpectedRecord[] {
  const domain =
    getDomain(preferredHost, { allowPrivateDomains: true, validHosts: ['localhost'] }) ?? preferredHost;
  const fill = (text: string): string =>
    text
      .replaceAll('{domain}', domain)
      .replaceAll('{host}', preferredHost)
      .replaceAll('{www}', `www.${domain}`);
  return (profile?.records ?? []).map((r) => ({ ...r, name: fill(r.name), value: fill(r.value) }));
}

/** The brief with the host's records where it says nothing of its own. */
export function withHostRecords(brief: Brief, profile: HostProfile | undefined, host: string): Brief {
  if (
    brief.records?.length ||
    brief.notWanted?.records !== undefined ||
    brief.reachedBy === 'forwarding' ||
    !profile?.records?.length
  )
    return brief;
  return { ...brief, records: hostRecords(profile, brief.preferredHost ?? host) };
}

/**
 * Whether a host fits a pattern such as `*.draft.host.example`; the star stands for one or more labels or a
 * part of one.
 */
export function fitsHostPattern(pattern: string, host: string): boolean {
  const source = pattern
    .toLowerCase()
    .split('*')
    .map((part) => part.replace(/[.+?^${}()|[\]\\]/g, '\\$&'))
    .join('[a-z0-9-]+(?:\\.[a-z0-9-]+)*');
  return new RegExp(`^${source}$`).test(host.toLowerCase());
}
