/** CAA records (RFC 8659): which issuers may issue for a name. */
import type { Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';
import { andList } from '#core/text/common-messages';

const msg = defineMessages('caa', {
  'unknown-critical': 'the critical tag “{tag}” is none that issuers know, so nobody may issue',
  'only-for-wildcard': 'issuewild lets only {who} issue for the wildcard',
  nobody: 'nobody',
  only: 'only {who} may issue',
});

export interface CaaRecord {
  critical: boolean;
  tag: string;
  issuer: string;
  parameters: Record<string, string>;
  value: string;
}

/** Reads the presentation form: flags tag "value". @returns null when it is none */
export function parseCaa(presentation: string): CaaRecord | null {
  const m = /^(\d{1,3})\s+([a-z0-9]+)\s+(?:"((?:[^"\\]|\\.)*)"|(\S*))$/i.exec(presentation.trim());
  if (!m || Number(m[1]) > 255) return null;
  const value = (m[3] ?? m[4] ?? '').replace(/\\(.)/g, '$1');
  const [issuer = '', ...rest] = value.split(';').map((p) => p.trim());
  const parameters = Object.fromEntries(
    rest.filter(Boolean).map((p) => {
      const at = p.indexOf('=');
      return at < 0 ? [p, ''] : [p.slice(0, at).trim(), p.slice(at + 1).trim()];
    }),
  );
  return {
    critical: (Number(m[1]) & 128) !== 0,
    tag: m[2]!.toLowerCase(),
    issuer: issuer.toLowerCase(),
    parameters,
    value,
  };
}

/** More labels than a name can have (RFC 1035 2.3.4). */
const LABELS = 128;

/** The names whose CAA set is looked for, from the name itself up to the top level (RFC 8659 3). */
export function caaClimb(host: string): string[] {
  const labels = host.toLowerCase().replace(/^\*\./, '').replace(/\.$/, '').split('.').slice(-LABELS);
  return labels.map((_, i) => labels.slice(i).join('.'));
}

/** Why an issuer may not issue; undefined where it may. */
export function whyNot(set: readonly CaaRecord[], issuer: string, wildcard = false): Message | undefined {
  if (mayIssue(set, issuer, wildcard)) return undefined;
  const critical = set.find(isUnknownCritical);
  if (critical) return msg('unknown-critical', { tag: critical.tag });
  const wild = wildcard && set.some((r) => r.tag === 'issuewild');
  const bound = set.filter((r) => r.tag === (wild ? 'issuewild' : 'issue'));
  const who = andList(bound.map((r) => r.issuer || msg('nobody')));
  return msg(wild ? 'only-for-wildcard' : 'only', { who });
}

const isUnknownCritical = (r: CaaRecord): boolean =>
  r.critical && !['issue', 'issuewild', 'iodef'].includes(r.tag);

/**
 * Whether an issuer may issue for a name under a record set (RFC 8659 4.2, 4.3): issuewild alone counts for
 * wildcards where it stands;
 * a set without issue properties forbids nobody; an unknown critical property forbids everybody.
 * @param issuer the issuer's own domain, e.g. "ca.example"
 */
export function mayIssue(set: readonly CaaRecord[], issuer: string, wildcard = false): boolean {
  if (set.some(isUnknownCritical)) return false;
  const wild = wildcard ? set.filter((r) => r.tag === 'issuewild') : [];
  const bound = wild.length ? wild : set.filter((r) => r.tag === 'issue');
  return !bound.length || bound.some((r) => r.issuer === issuer.toLowerCase());
}
