/** DMARC policy records (RFC 7489 6.3, 6.4) and DKIM key records (RFC 6376 3.6.1). */

export interface DmarcRecord {
  policy?: 'none' | 'quarantine' | 'reject';
  subdomains?: 'none' | 'quarantine' | 'reject';
  percent: number;
  aggregate: string[];
  failure: string[];
  tags: Record<string, string>;
  errors: string[];
  notes: string[];
}

/** Splits a tag list: name=value, semicolons between, white space around ignored. */
function tagsOf(text: string): [string, string][] {
  return text
    .split(';')
    .map((t) => t.trim())
    .filter(Boolean)
    .map((t): [string, string] => {
      const at = t.indexOf('=');
      return at < 0 ? [t, ''] : [t.slice(0, at).trim(), t.slice(at + 1).trim()];
    });
}

/** Whether a TXT value is a DMARC record: "v=DMARC1" must come first, exactly (RFC 7489 6.3). */
export function isDmarc(text: string): boolean {
  return /^v[ \t]*=[ \t]*DMARC1[ \t]*(?:;|$)/.test(text);
}

const POLICIES = ['none', 'quarantine', 'reject'] as const;
const asPolicy = (v: string | undefined): (typeof POLICIES)[number] | undefined =>
  POLICIES.find((p) => p === v?.toLowerCase());
const mails = (v: string | undefined): string[] =>
  (v ?? '')
    .split(',')
    .map((u) => u.trim())
    .filter(Boolean);
const isMailUri = (u: string): boolean =>
  /^mailto:[^@\s!]+@[^@\s!]+(?:![0-9]+[kmgt]?)?$/i.test(u) || /^https?:\/\/\S+$/i.test(u);

/** The policy of a record; a missing or unknown one counts as "none" where a valid rua stands beside it. */
function readPolicy(record: DmarcRecord): void {
  const { p } = record.tags;
  record.policy = asPolicy(p);
  if (record.policy) return;
  const missing = p === undefined;
  if (record.aggregate.length) {
    record.policy = 'none';
    record.notes.push(
      `${missing ? 'p= is missing' : `p=${p} is unknown`}; with a valid rua= it counts as none`,
    );
  } else record.errors.push(missing ? 'p= is missing' : `p=${p} is no policy`);
}

/** Tags whose values have a form and nothing else: what it is, and the words for another. */
const FORMS: [tag: string, form: RegExp, wrong: string][] = [
  ['adkim', /^[rs]$/i, 'is neither r nor s'],
  ['aspf', /^[rs]$/i, 'is neither r nor s'],
  ['ri', /^\d+$/, 'is no number of seconds'],
  ['fo', /^[01ds](?::[01ds])*$/i, 'is none of 0, 1, d, s'],
];

/**
 * Reads a record. A missing or unknown policy with a valid rua counts as "none" (RFC 7489 6.6.3), and is said
 * in the notes.
 */
export function parseDmarc(text: string): DmarcRecord {
  const list = tagsOf(text);
  const tags: Record<string, string> = Object.create(null) as Record<string, string>;
  const record: DmarcRecord = { percent: 100, aggregate: [], failure: [], tags, errors: [], notes: [] };
  for (const [name, value] of list) {
    if (name in tags) record.errors.push(`“${name}=” stands there twice`);
    tags[name.toLowerCase()] = value;
  }
  record.aggregate = mails(tags.rua).filter(isMailUri);
  record.failure = mails(tags.ruf).filter(isMailUri);
  for (const name of ['rua', 'ruf'] as const)
    for (const u of mails(tags[name]).filter((x) => !isMailUri(x)))
      record.errors.push(`“${name}=”: “${u}” is no address for reports (mailto: is missing?)`);
  readPolicy(record);
  if (tags.sp !== undefined) {
    record.subdomains = asPolicy(tags.sp);
    if (!record.subdomains) record.errors.push(`sp=${tags.sp} is no policy`);
  }
  if (tags.pct !== undefined) {
    if (/^\d{1,3}$/.test(tags.pct) && Number(tags.pct) <= 100) record.percent = Number(tags.pct);
    else record.errors.push(`pct=${tags.pct} is no number from 0 to 100`);
  }
  for (const [tag, form, wrong] of FORMS)
    if (tags[tag] !== undefined && !form.test(tags[tag])) record.errors.push(`${tag}=${tags[tag]} ${wrong}`);
  return record;
}

export interface DkimKey {
  type: string;
  revoked: boolean;
  bits: number | null;
  testing: boolean;
  errors: string[];
}

/** What keeps a key from being used for mail. */
function usageFaults({ h, s }: Record<string, string>): string[] {
  const listed = (value: string): string[] => value.split(':').map((v) => v.trim().toLowerCase());
  return [
    // unknown algorithms are passed over, and sha1 is not to be used any more (RFC 6376 3.6.1; RFC 8301 3.1)
    ...(h === undefined || listed(h).includes('sha256') ? [] : [`h=${h} does not allow sha256`]),
    ...(s === undefined || listed(s).some((v) => v === 'email' || v === '*')
      ? []
      : [`s=${s} is not for mail`]),
  ];
}

/** Reads a key record; an empty p= means the key was withdrawn (RFC 6376 3.6.1). */
export function parseDkim(text: string): DkimKey {
  const tags = Object.fromEntries(tagsOf(text)) as Record<string, string>;
  const key: DkimKey = {
    type: tags.k ?? 'rsa',
    revoked: false,
    bits: null,
    testing: (tags.t ?? '')
      .split(':')
      .map((f) => f.trim())
      .includes('y'),
    errors: [],
  };
  if (tags.v !== undefined && tags.v !== 'DKIM1') key.errors.push(`v=${tags.v} is not DKIM1`);
  key.errors.push(...usageFaults(tags));
  if (tags.p === undefined) {
    key.errors.push('p= is missing');
    return key;
  }
  const bytes = tags.p.replace(/\s+/g, '');
  if (!bytes) {
    key.revoked = true;
    return key;
  }
  if (!/^[A-Za-z0-9+/]+={0,2}$/.test(bytes) || bytes.length % 4 !== 0) {
    key.errors.push('p= is no base64');
    return key;
  }
  const length = (bytes.length / 4) * 3 - (bytes.endsWith('==') ? 2 : bytes.endsWith('=') ? 1 : 0);
  // an RSA SubjectPublicKeyInfo holds about 38 bytes beside the modulus; Ed25519 keys are 32 bytes (RFC 8463
  // 3)
  key.bits = key.type === 'ed25519' ? length * 8 : Math.round((length - 38) / 64) * 512;
  return key;
}
