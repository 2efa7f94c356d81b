/** Host names of a brief in the one form in which hosts are compared (rule 6 of the catalogue). */
import { asciiHost } from '#core/extract/address';
import type { Brief, ExpectedRecord } from './brief';

/** A host name as A-labels; what is no host name stays as it is. */
const host = (name: string): string => asciiHost(name) ?? name;

// names of records are compared without case elsewhere, and may be "@" or "*": only letters beyond ASCII need
// another form
const record = (r: ExpectedRecord): ExpectedRecord =>
  /[^\0-\x7f]/.test(r.name) ? { ...r, name: host(r.name) } : r;

const HOST_LISTS = [
  'otherHosts',
  'unusedHosts',
  'stagingHosts',
  'knownSubdomains',
  'allowedEmailDomains',
  'allowedScriptHosts',
  'nameServers',
] as const;
const RECORD_LISTS = ['records', 'currentRecords'] as const;

/**
 * The brief, or a change of one, with its hosts, mail domains, name servers and names of records as A-labels,
 * as evidence has them.
 */
export function withALabels<B extends Partial<Brief>>(brief: B): B {
  const out = { ...brief };
  if (out.preferredHost) out.preferredHost = host(out.preferredHost);
  for (const field of HOST_LISTS) if (out[field]) out[field] = out[field].map(host);
  for (const field of RECORD_LISTS) if (out[field]) out[field] = out[field].map(record);
  return out;
}
