/** Host names of a brief in the one form in which hosts are compared (rule 6 of the catalogue). */
import { asciiHost } from '#core/extract/address';
import type { Brief, ExpectedRecord } from './brief';

/** A host name as A-labels; what is no host name stays as it is. */
const host = (name: string): string => asciiHost(name) ?? name;
const hosts = (names: string[] | undefined): string[] | undefined => names?.map(host);
// names of records are compared without case elsewhere, and may be "@" or "*": only letters beyond ASCII need
// another form
const records = (list: ExpectedRecord[] | undefined): ExpectedRecord[] | undefined =>
  list?.map((r) => (/[^\0-\x7f]/.test(r.name) ? { ...r, name: host(r.name) } : r));

/**
 * The brief with its hosts, mail domains, name servers and names of records as A-labels, as evidence has
 * them.
 */
export function withALabels(brief: Brief): Brief {
  return {
    ...brief,
    preferredHost: brief.preferredHost && host(brief.preferredHost),
    otherHosts: hosts(brief.otherHosts),
    stagingHosts: hosts(brief.stagingHosts),
    knownSubdomains: hosts(brief.knownSubdomains),
    allowedEmailDomains: hosts(brief.allowedEmailDomains),
    nameServers: hosts(brief.nameServers),
    records: records(brief.records),
    currentRecords: records(brief.currentRecords),
  };
}
