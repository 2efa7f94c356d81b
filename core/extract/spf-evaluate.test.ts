/** What SPF says of an address. Zone and examples of RFC 7208, appendix A; addresses are those of its PTR records. */
import { describe, expect, it } from 'vitest';
import { evaluateSpf, type SpfZone } from './spf-evaluate';

/** RFC 7208 A.1. */
const ADDRESSES: Record<string, string[]> = {
  'example.com': ['192.0.2.10', '192.0.2.11'],
  'amy.example.com': ['192.0.2.65'],
  'bob.example.com': ['192.0.2.66'],
  'mail-a.example.com': ['192.0.2.129'],
  'mail-b.example.com': ['192.0.2.130'],
  'mail-c.example.org': ['192.0.2.140'],
  'example.org': [],
};
const EXCHANGERS: Record<string, string[]> = {
  'example.com': ['mail-a.example.com', 'mail-b.example.com'],
  'example.org': ['mail-c.example.org'],
};
const zone = (texts: Record<string, string>): SpfZone => ({
  texts: (name) => (name in texts ? [texts[name]!] : name in ADDRESSES ? [] : undefined),
  addresses: (name) => ADDRESSES[name],
  exchangers: (name) => EXCHANGERS[name],
});
const says = (record: string, address: string, more: Record<string, string> = {}) =>
  evaluateSpf('example.com', address, zone({ 'example.com': record, ...more })).result;

it.each<[string, string, string]>([
  ['v=spf1 +all', '203.0.113.9', 'pass'],
  // A.1: hosts 192.0.2.10 and 192.0.2.11 pass
  ['v=spf1 a -all', '192.0.2.10', 'pass'],
  ['v=spf1 a -all', '192.0.2.11', 'pass'],
  ['v=spf1 a -all', '192.0.2.65', 'fail'],
  // no sending hosts pass since example.org has no A records
  ['v=spf1 a:example.org -all', '192.0.2.10', 'fail'],
  // 192.0.2.129 and 192.0.2.130 pass
  ['v=spf1 mx -all', '192.0.2.129', 'pass'],
  ['v=spf1 mx -all', '192.0.2.130', 'pass'],
  ['v=spf1 mx -all', '192.0.2.10', 'fail'],
  // 192.0.2.140 passes
  ['v=spf1 mx:example.org -all', '192.0.2.140', 'pass'],
  ['v=spf1 mx mx:example.org -all', '192.0.2.140', 'pass'],
  // any sending host in 192.0.2.128/30 or 192.0.2.140/30 passes
  ['v=spf1 mx/30 mx:example.org/30 -all', '192.0.2.131', 'pass'],
  ['v=spf1 mx/30 mx:example.org/30 -all', '192.0.2.143', 'pass'],
  ['v=spf1 mx/30 mx:example.org/30 -all', '192.0.2.132', 'fail'],
  // 192.0.2.65 fails and 192.0.2.129 passes
  ['v=spf1 ip4:192.0.2.128/28 -all', '192.0.2.65', 'fail'],
  ['v=spf1 ip4:192.0.2.128/28 -all', '192.0.2.129', 'pass'],
])('%s for %s: %s', (record, address, result) => {
  expect(says(record, address)).toBe(result);
});

describe('what leads elsewhere', () => {
  const OTHER = { 'example.org': 'v=spf1 mx -all' };
  it.each<[string, string, Record<string, string>, string]>([
    // A.2: include:example.com include:example.net and redirect
    ['v=spf1 include:example.org -all', '192.0.2.140', OTHER, 'pass'],
    ['v=spf1 include:example.org ~all', '192.0.2.10', OTHER, 'softfail'],
    ['v=spf1 redirect=example.org', '192.0.2.140', OTHER, 'pass'],
    ['v=spf1 redirect=example.org', '192.0.2.10', OTHER, 'fail'],
    // RFC 7208 5.2: an include without a record is an error, and so is a redirect (6.1)
    ['v=spf1 include:example.org -all', '192.0.2.1', {}, 'permerror'],
    ['v=spf1 redirect=example.org', '192.0.2.1', {}, 'permerror'],
    ['v=spf1 include:unasked.example -all', '192.0.2.1', {}, 'unknown'],
    ['v=spf1 include:example.com -all', '192.0.2.1', {}, 'permerror'],
    ['v=spf1 exists:%{i}.spf.example.com -all', '192.0.2.1', {}, 'unknown'],
    ['v=spf1 ip6:2001:db8::/32 -all', '2001:db8::25', {}, 'pass'],
    ['v=spf1 ?a', '192.0.2.10', {}, 'neutral'],
    ['v=spf1', '192.0.2.10', {}, 'neutral'],
    ['something else', '192.0.2.10', {}, 'none'],
    ['v=spf1 a:', '192.0.2.10', {}, 'permerror'],
  ])('%s for %s', (record, address, more, result) => {
    expect(says(record, address, more)).toBe(result);
  });
  it('the term that decides is named, with those that led to it', () => {
    const verdict = evaluateSpf(
      'example.com',
      '192.0.2.140',
      zone({ ...OTHER, 'example.com': 'v=spf1 include:example.org -all' }),
    );
    expect(verdict).toEqual({ result: 'pass', by: 'include:example.org (mx)' });
  });
});
