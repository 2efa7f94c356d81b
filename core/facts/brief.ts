/**
 * The brief: what is officially so about one site. Every field may be unfilled, filled, or not wanted with a
 * reason.
 */

/** A DNS record in presentation form (RFC 1035 section 5), as a host tells an agency to set it. */
export interface ExpectedRecord {
  name: string;
  type: string;
  value: string;
  ttl?: number;
}

/** The types of record that a brief may expect. */
export const RECORD_TYPES: readonly string[] = [
  'A',
  'AAAA',
  'CNAME',
  'NS',
  'MX',
  'TXT',
  'CAA',
  'SRV',
  'HTTPS',
  'SOA',
];

/** An ownership token: `kind` names the provider's meta name, TXT prefix or file name. */
export interface ExpectedToken {
  kind: string;
  value: string;
  place: 'meta' | 'txt' | 'file';
}

export interface Brief {
  name?: string;
  tagline?: string;
  /** What pages show in search and when shared where they have no text of their own. */
  defaultTitle?: string;
  defaultDescription?: string;
  languages?: string[];
  timeZone?: string;
  contactEmail?: string;
  privateEmails?: string[];
  allowedEmailDomains?: string[];
  phone?: string;
  colours?: { role: string; value: string }[];
  preferredHost?: string;
  otherHosts?: string[];
  /** With or without www, where it is deliberately not used. */
  unusedHosts?: string[];
  stagingHosts?: string[];
  knownSubdomains?: string[];
  homeMark?: string;
  requiredPages?: string[];
  hiddenPaths?: string[];
  /** Where each leads; `410` for one that is gone on purpose. */
  formerAddresses?: { from: string; to: string }[];
  keyPhrases?: string[];
  profileLinks?: string[];
  reachedBy?: 'records' | 'forwarding';
  forwardTo?: string;
  records?: ExpectedRecord[];
  currentRecords?: ExpectedRecord[];
  nameServers?: string[];
  registrar?: string;
  registrationPlan?: string;
  mail?: 'yes' | 'none';
  dkimSelectors?: string[];
  tokens?: ExpectedToken[];
  analyticsIds?: string[];
  scripts?: { match: string; where: 'head' | 'body-end'; pages?: string }[];
  allowedScriptHosts?: string[];
  consentScript?: string;
  /** What a visitor clicks to consent: a selector, or the words on it. */
  consentClick?: string;
  /** Names of cookies that are there before anybody consents; `*` stands for any letters. */
  necessaryCookies?: string[];
  crawlers?: string[];
  holding?: { mark?: string; bypass?: string };
  badge?: 'wanted' | 'unwanted';
  comments?: 'wanted' | 'unwanted';
  features?: string[];
  budgetBytes?: number;
  launchDate?: string;
  /** Fields left blank on purpose, each with its reason. */
  notWanted?: Record<string, string>;
}

export type BriefField = Exclude<keyof Brief, 'notWanted'>;

/** The three states of a field. */
export type FieldState<K extends BriefField> =
  | { state: 'filled'; value: NonNullable<Brief[K]> }
  | { state: 'unfilled' }
  | { state: 'notWanted'; reason: string };

/**
 * Reads one field of a brief.
 * @returns its value, or that nobody has filled it in, or the reason why none is wanted.
 */
export function readField<K extends BriefField>(brief: Brief, field: K): FieldState<K> {
  const reason = brief.notWanted?.[field];
  if (reason !== undefined) return { state: 'notWanted', reason };
  const value = brief[field];
  const empty =
    value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);
  return empty ? { state: 'unfilled' } : { state: 'filled', value: value as NonNullable<Brief[K]> };
}
