/**
 * SPF, DMARC and DKIM: the examples of the standards, and reference readers of the registry over generated
 * records.
 */
import dmarcParse from 'dmarc-parse';
import fc from '../property';
import spfParse from 'spf-parse';
import { describe, expect, it } from 'vitest';
import { isDmarc, parseDkim, parseDmarc } from '#core/extract/dmarc';
import { countSpf, isSpf, ofDomain, parseSpf, spfTargets, type SpfTree } from '#core/extract/spf';

describe('RFC 7208', () => {
  // appendix A.1 to A.4 and sections 3 to 7, as printed there
  it.each([
    'v=spf1 +all',
    'v=spf1 a -all',
    'v=spf1 a:example.org -all',
    'v=spf1 mx -all',
    'v=spf1 mx:example.org -all',
    'v=spf1 mx mx:example.org -all',
    'v=spf1 mx/30 mx:example.org/30 -all',
    'v=spf1 ptr -all',
    'v=spf1 ip4:192.0.2.128/28 -all',
    'v=spf1 include:example.com include:example.net -all',
    'v=spf1 -ptr:example.com a:mail-%{d1r}.example.net -all',
    'v=spf1 mx -all',
    'v=spf1 redirect=_spf.example.com',
    'v=spf1 a mx -all',
    'v=spf1 -exists:%(ir).sbl.example.org'.replace('%(ir)', '%{ir}'),
    'v=spf1 ip4:192.0.2.1 ip4:192.0.2.129 -all',
    'v=spf1 a:authorized-spf.example.com -all',
    'v=spf1 mx:example.com -all',
    'v=spf1 ip6:2001:db8::/32 -all',
    'v=spf1 include:_spf.example.com ?all',
    'v=spf1 mx -all exp=explain._spf.%{d}',
  ])('%s is well formed', (text) => {
    expect(isSpf(text)).toBe(true);
    expect(parseSpf(text).errors).toEqual([]);
  });
  it.each([
    'v=spf1 a:',
    'v=spf1 include',
    'v=spf1 ip4:192.0.2.256 -all',
    'v=spf1 ip4:1.2.3.4/33',
    'v=spf1 ip6:1.2.3.4',
    'v=spf1 -foo',
    'v=spf1 mx/40 -all',
    'v=spf1 redirect=a.example redirect=b.example',
    'v=spf1 a//129',
    'v=spf1 %{z} -all',
  ])('%s is not (4.6.1, 5)', (text) => {
    expect(parseSpf(text).errors.length).toBeGreaterThan(0);
  });
  it.each(['v=spf10 -all', 'v=spf1-all', 'spf2.0/pra -all', 'V = SPF1'])(
    '%s is no SPF record (4.5)',
    (text) => {
      expect(isSpf(text)).toBe(false);
    },
  );

  // 4.6.4: include, a, mx, ptr, exists and redirect count; all, ip4 and ip6 do not; more than ten is a fault,
  // and so are more than two void ones
  const world = (records: Record<string, string[]>, missing: string[] = []) => ({
    txt: (d: string) => ({ values: records[d] ?? [] }),
    exists: (n: string) => !missing.includes(n),
  });
  it('4.6.4: lookups are counted through includes and redirects', () => {
    const dns = world({
      'a.example': ['v=spf1 include:b.example mx ip4:192.0.2.1 redirect=c.example'],
      'b.example': ['v=spf1 a a:x.example -all'],
      'c.example': ['v=spf1 exists:%{i}.y.example -all'],
    });
    expect(countSpf('a.example', dns)).toMatchObject({ lookups: 6, voids: 0, errors: [] });
  });
  it.each([1, 10, 11])('4.6.4: %i lookups are counted', (n) => {
    expect(
      countSpf(
        'a.example',
        world({
          'a.example': [`v=spf1 ${Array.from({ length: n }, (_, i) => `a:h${i}.example`).join(' ')} -all`],
        }),
      ).lookups,
    ).toBe(n);
  });
  it.each([0, 2, 3])('4.6.4: %i void lookups are counted', (n) => {
    const names = Array.from({ length: n }, (_, i) => `h${i}.example`);
    const r = countSpf(
      'a.example',
      world({ 'a.example': [`v=spf1 ${names.map((x) => `a:${x}`).join(' ')} -all`] }, names),
    );
    expect(r.voids).toBe(n);
  });
  it('a circle of includes ends', () => {
    expect(
      countSpf(
        'a.example',
        world({
          'a.example': ['v=spf1 include:b.example -all'],
          'b.example': ['v=spf1 include:a.example -all'],
        }),
      ).errors.length,
    ).toBeGreaterThan(0);
  });

  // 7.4: the examples of macros that rest on the domain alone
  it.each([
    ['%{d}', 'email.example.com'],
    ['%{d4}', 'email.example.com'],
    ['%{d3}', 'email.example.com'],
    ['%{d2}', 'example.com'],
    ['%{d1}', 'com'],
    ['%{dr}', 'com.example.email'],
    ['%{d2r}', 'example.email'],
    ['%{d2}.trusted-domains.example.net', 'example.com.trusted-domains.example.net'],
    ['%%.%_.%-', '%. .%20'],
    ['%{s}', undefined],
    ['%{ir}.%{v}._spf.%{d2}', undefined],
  ])('7.4: %s of email.example.com is %s', (spec, own) => {
    expect(ofDomain(spec, 'email.example.com')).toBe(own);
  });

  // appendix A, with the records that are printed there (A.2 and A.4), and its zone
  const APPENDIX: Record<string, string[]> = {
    'example.com': ['v=spf1 -include:ip4._spf.%{d} -include:ptr._spf.%{d} +all'],
    'ip4._spf.example.com': ['v=spf1 -ip4:192.0.2.0/24 +all'],
    'ptr._spf.example.com': ['v=spf1 -ptr:example.com +all'],
    'example.org': ['v=spf1 include:example.com include:example.net -all'],
    'example.net': ['v=spf1 mx -all'],
    'la.example.org': ['v=spf1 redirect=example.org'],
    'mobile-users.example.org': ['v=spf1 exists:%{l1r+}.%{d}'],
    'remote-users.example.org': ['v=spf1 exists:%{ir}.%{l1r+}.%{d}'],
  };
  const outline = ({ domain, children }: SpfTree): unknown[] => [domain, ...children.map(outline)];
  const TWO_NEEDS = ['example.com', ['ip4._spf.example.com'], ['ptr._spf.example.com']];
  it.each([
    ['A.4: multiple requirements', 'example.com', TWO_NEEDS, 3],
    ['A.2: multiple domains', 'example.org', ['example.org', TWO_NEEDS, ['example.net']], 6],
    [
      'A.2: a domain that redirects',
      'la.example.org',
      ['la.example.org', ['example.org', TWO_NEEDS, ['example.net']]],
      7,
    ],
    ['A.3: DNS blacklist style', 'mobile-users.example.org', ['mobile-users.example.org'], 1],
  ])('appendix %s', (_, domain, tree, lookups) => {
    const count = countSpf(domain, world(APPENDIX));
    expect(outline(count.tree)).toEqual(tree);
    expect(count).toMatchObject({ lookups, errors: [], unknown: [] });
  });

  it('what a record leads to is collected with its own domain put in, and without names of senders', () => {
    expect(
      spfTargets('v=spf1 include:a.%{d} include:%{i}.b.example a mx:%{d2} redirect=c.example', 'x.y.example'),
    ).toEqual({
      follow: ['a.x.y.example', 'c.example'],
      ask: [
        { name: 'x.y.example', type: 'A' },
        { name: 'y.example', type: 'MX' },
      ],
    });
  });

  const mechanism = fc.oneof(
    fc.constantFrom(
      'a',
      'mx',
      'a:b.example',
      'mx:b.example',
      'include:c.example',
      'exists:d.example',
      'ptr',
      'ip4:192.0.2.1',
      'ip4:192.0.2.0/24',
      'ip6:2001:db8::1',
      'ip6:2001:db8::/32',
      'a/24',
      'mx:b.example/30',
    ),
  );
  it('spf-parse (npm) finds the same mechanisms in the same order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('', '+', '-', '~', '?'), mechanism), { maxLength: 6 }),
        fc.constantFrom('-all', '~all', '?all', '+all'),
        (terms, all) => {
          const text = `v=spf1 ${[...terms.map((t) => t.join('')), all].join(' ')}`;
          const theirs = spfParse(text)
            .mechanisms!.filter((m) => m.type !== 'version')
            .map((m) => `${m.prefix || '+'}${m.type}`);
          expect(parseSpf(text).mechanisms.map((m) => `${m.qualifier}${m.name}`)).toEqual(theirs);
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe('RFC 7489', () => {
  // appendix B.2, the records printed there
  it.each([
    ['v=DMARC1; p=none; rua=mailto:dmarc-feedback@example.com', 'none', 1, 0],
    [
      'v=DMARC1; p=none; rua=mailto:dmarc-feedback@example.com; ruf=mailto:auth-reports@example.com',
      'none',
      1,
      1,
    ],
    [
      'v=DMARC1; p=none; rua=mailto:dmarc-feedback@example.com; ruf=mailto:auth-reports@thirdparty.example.net',
      'none',
      1,
      1,
    ],
    [
      'v=DMARC1; p=quarantine; rua=mailto:dmarc-feedback@example.com,mailto:tld-test@thirdparty.example.net!10m; pct=25',
      'quarantine',
      2,
      0,
    ],
  ])('%s', (text, policy, rua, ruf) => {
    expect(isDmarc(text)).toBe(true);
    const r = parseDmarc(text);
    expect(r.errors).toEqual([]);
    expect([r.policy, r.aggregate.length, r.failure.length]).toEqual([policy, rua, ruf]);
  });
  it('6.6.3: without p= but with a valid rua it counts as none, and that is said', () => {
    const r = parseDmarc('v=DMARC1; rua=mailto:a@b.example');
    expect(r.policy).toBe('none');
    expect(r.notes.length).toBeGreaterThan(0);
  });
  it.each(['v=DMARC1', 'v=DMARC1; p=block', 'v=DMARC1; p=none; pct=101', 'v=DMARC1; sp=none'])(
    '%s is not valid (6.3)',
    (text) => {
      expect(parseDmarc(text).errors.length).toBeGreaterThan(0);
    },
  );
  it.each(['v=dmarc1; p=none', 'p=none; v=DMARC1', 'v=DMARC10; p=none'])(
    '%s is no DMARC record (6.3: v comes first, its case counts)',
    (text) => {
      expect(isDmarc(text)).toBe(false);
    },
  );
  it('dmarc-parse (npm) reads the same tags', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('none', 'quarantine', 'reject'),
        fc.constantFrom(undefined, 'none', 'reject'),
        fc.option(fc.nat(100)),
        (p, sp, pct) => {
          const text = [
            'v=DMARC1',
            `p=${p}`,
            ...(sp ? [`sp=${sp}`] : []),
            ...(pct === null ? [] : [`pct=${pct}`]),
            'rua=mailto:a@b.example',
          ].join('; ');
          const theirs = dmarcParse(text).tags;
          const ours = parseDmarc(text);
          expect(Object.fromEntries(Object.entries(ours.tags).filter(([k]) => k !== 'v'))).toEqual(
            Object.fromEntries(
              Object.entries(theirs)
                .filter(([k]) => k !== 'v')
                .map(([k, v]) => [k, v.value]),
            ),
          );
          expect(ours.errors).toEqual([]);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('RFC 6376', () => {
  // 3.6.1: an empty p means the key is revoked; the example key of appendix C (1024 bits, as printed there)
  const C =
    'v=DKIM1; p=MIGfMA0GCSqGSIb3DQEBAQUAA4GNADCBiQKBgQDwIRP/UC3SBsEmGqZ9ZJW3/DkMoGeLnQg1fWn7/zYtIxN2SnFCjxOCKG9v3b4jYfcTNh5ijSsq631uBItLa7od+v/RtdC2UzJ1lWT947qR+Rcac2gbto/NMqJ0fzfVjH4OuKhitdY9tf6mcwGjaNBcWToIMmPSPDdQPNUYckcQ2QIDAQAB';
  it('the key of appendix C is read', () => {
    expect(parseDkim(C)).toMatchObject({ type: 'rsa', revoked: false, errors: [] });
    expect(parseDkim(C).bits).toBe(1024);
  });
  it('an empty key is revoked (3.6.1)', () => {
    expect(parseDkim('v=DKIM1; p=')).toMatchObject({ revoked: true });
  });
  it.each([
    ['h=sha256', true],
    ['h=sha1:sha256', true],
    ['h=sha1', false],
    ['s=email', true],
    ['s=*', true],
    ['s=other:email', true],
    ['s=tlsrpt', false],
  ])('%s allows mail to be signed: %s (RFC 6376 3.6.1; RFC 8301 3.1)', (tag, isSound) => {
    expect(parseDkim(`v=DKIM1; ${tag}; ${C.slice(9)}`).errors.length === 0).toBe(isSound);
  });
  it('a key that is none is a fault', () => {
    expect(parseDkim('v=DKIM1; p=!!!').errors.length).toBeGreaterThan(0);
    expect(parseDkim('v=DKIM1; k=rsa').errors.length).toBeGreaterThan(0);
  });
});
