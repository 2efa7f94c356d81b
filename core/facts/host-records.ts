/**
 * What a host profile tells of a site's hosts: its records with the site's names filled in, and whether a
 * host is one of its staging places.
 */
import { registrableDomain } from '#core/extract/address';
import { withALabels } from './a-labels';
import type { Brief, ExpectedRecord } from './brief';
import type { HostProfile } from './host-profile';

/**
 * A site's names filled in: `{domain}` is the registrable domain, `{host}` the preferred host, `{www}` the
 * domain with www.
 */
export function fillNames(text: string, preferredHost: string): string {
  const domain = registrableDomain(preferredHost) ?? preferredHost;
  return text
    .replaceAll('{domain}', domain)
    .replaceAll('{host}', preferredHost)
    .replaceAll('{www}', `www.${domain}`);
}

/** The host's records for a site. */
export function hostRecords(profile: HostProfile | undefined, preferredHost: string): ExpectedRecord[] {
  return (profile?.records ?? []).map((r) => ({
    ...r,
    name: fillNames(r.name, preferredHost),
    value: fillNames(r.value, preferredHost),
  }));
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
 * The brief as audits take it, when they collect and when they judge: hosts as A-labels, and the host's
 * records where it names none.
 * @param host the preferred host, where the brief does not say
 */
export const completeBrief = (brief: Brief, profile: HostProfile | undefined, host: string): Brief =>
  withHostRecords(withALabels(brief), profile, host);

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
