import fc from '../../../tests/property';
import { describe, expect, it } from 'vitest';
import { dnsAnswer, evidence } from '#core/checks/example-evidence';
import { answersFromZone } from '#core/formats/zone-file/answers';
import { dnsToZoneFile, toZoneFile, zoneLine } from '#core/formats/zone-file/write';
import { readTtl, readZoneFile } from '#core/formats/zone-file/read';

/** RFC 1035 5.3, its example zone, word for word. */
const RFC_1035 = `
@   IN  SOA     VENERA      Action\\.domains (
                                 20     ; SERIAL
                                 7200   ; REFRESH
                                 600    ; RETRY
                                 3600000; EXPIRE
                                 60)    ; MINIMUM

        NS      A.ISI.EDU.
        NS      VENERA
        NS      VAXA
        MX      10      VENERA
        MX      20      VAXA

A       A       26.3.0.103

VENERA  A       10.1.0.52
        A       128.9.0.32

VAXA    A       10.2.0.27
        A       128.9.0.33
`;

describe('a zone file', () => {
  it('RFC 1035 5.3: the example of the standard', () => {
    const { records, errors } = readZoneFile(RFC_1035, 'isi.edu');
    expect(errors).toEqual([]);
    expect(records.map((r) => `${r.name} ${r.type} ${r.value}`)).toEqual([
      'isi.edu SOA venera.isi.edu action\\.domains.isi.edu 20 7200 600 3600000 60',
      'isi.edu NS a.isi.edu',
      'isi.edu NS venera.isi.edu',
      'isi.edu NS vaxa.isi.edu',
      'isi.edu MX 10 venera.isi.edu',
      'isi.edu MX 20 vaxa.isi.edu',
      'a.isi.edu A 26.3.0.103',
      'venera.isi.edu A 10.1.0.52',
      'venera.isi.edu A 128.9.0.32',
      'vaxa.isi.edu A 10.2.0.27',
      'vaxa.isi.edu A 128.9.0.33',
    ]);
  });
  it('$ORIGIN and $TTL, TTL and class in either order, units, comments in quotes kept', () => {
    const { records, errors } = readZoneFile(
      '$ORIGIN a.example.\n$TTL 1h\n@ IN 300 A 192.0.2.1\nwww 5m IN CNAME @\nt TXT "v=spf1; not a comment" "two" ; a comment\nm MX 0 .\n',
    );
    expect(errors).toEqual([]);
    expect(records).toEqual([
      { name: 'a.example', type: 'A', ttl: 300, value: '192.0.2.1' },
      { name: 'www.a.example', type: 'CNAME', ttl: 300, value: 'a.example' },
      { name: 't.a.example', type: 'TXT', ttl: 3600, value: '"v=spf1; not a comment" "two"' },
      { name: 'm.a.example', type: 'MX', ttl: 3600, value: '0 .' },
    ]);
  });
  it.each([
    ['x A', 'without data'],
    ['$INCLUDE /etc/passwd', 'not followed'],
    ['x CH TXT a', 'class IN'],
    ['x IN 7-up y', 'no type'],
    ['x TXT "open', 'without an end'],
    ['x A (1', 'not closed'],
    [' A 192.0.2.1', 'without a name'],
    ['$TTL soon', 'no time to live'],
  ])('%s is said to be wrong, and the rest is read', (line, why) => {
    const { records, errors } = readZoneFile(
      `${line}\n`.includes('(') || line.includes('"')
        ? `b.example. A 192.0.2.2\n${line}\n`
        : `${line}\nb.example. A 192.0.2.2\n`,
    );
    expect(errors[0]?.message).toContain(why);
    expect(records.some((r) => r.name === 'b.example')).toBe(true);
  });
  it.each([
    ['3600', 3600],
    ['1h30m', 5400],
    ['2D', 172_800],
    ['', undefined],
    ['1x', undefined],
    ['99999999999', undefined],
  ])('the time to live %s is %s', (text, seconds) => {
    expect(readTtl(text)).toBe(seconds);
  });
  it('what is written is read as it was', () => {
    const label = fc.stringMatching(/^[a-z]([a-z0-9-]{0,8}[a-z0-9])?$/);
    const name = fc.array(label, { minLength: 2, maxLength: 4 }).map((l) => l.join('.'));
    const data = fc.oneof(
      fc.tuple(fc.constant('A'), fc.ipV4()),
      fc.tuple(fc.constant('AAAA'), fc.ipV6()),
      fc.tuple(fc.constantFrom('CNAME', 'NS'), name),
      fc.tuple(
        fc.constant('MX'),
        fc.tuple(fc.nat(100), name).map(([p, n]) => `${p} ${n}`),
      ),
      fc.tuple(
        fc.constant('TXT'),
        fc.stringMatching(/^[ -~]{0,60}$/).map((t) => `"${t.replace(/["\\]/g, '\\$&')}"`),
      ),
      fc.tuple(
        fc.constant('CAA'),
        name.map((n) => `0 issue "${n}"`),
      ),
    );
    fc.assert(
      fc.property(
        fc.array(
          fc
            .tuple(name, fc.nat(100_000), data)
            .map(([n, ttl, [type, value]]) => ({ name: n, type, ttl, value })),
        ),
        (records) => {
          expect(readZoneFile(toZoneFile(records))).toEqual({ records, errors: [] });
        },
      ),
    );
  });
  it('never throws and never hangs', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom(
            'a',
            '(',
            ')',
            '"',
            '\\',
            ';',
            '\n',
            ' ',
            '$',
            '@',
            '.',
            '1',
            'IN',
            ' A ',
            '$TTL ',
          ),
          maxLength: 400,
        }),
        (text) => {
          readZoneFile(text, 'a.example');
        },
      ),
      { numRuns: 500 },
    );
  });
  it('hostile data cannot end a line or start a record of its own', () => {
    const text = toZoneFile([
      { name: 'a.example\nevil.example. A 6.6.6.6', type: 'TXT', value: 'x"\nevil.example. IN A 6.6.6.6' },
    ]);
    expect(text.trim().split('\n')).toHaveLength(1);
    expect(readZoneFile(text).records.map((r) => r.type)).toEqual(['TXT']);
  });
});

describe('the DNS part of evidence', () => {
  it('is a zone file with one block a server, and what was not there as comments', () => {
    const e = evidence();
    e.dns.answers.push(
      dnsAnswer('gone.marsh-choir.example', 'A', [], { rcode: 'NXDOMAIN' }),
      dnsAnswer('marsh-choir.example', 'AAAA', []),
      dnsAnswer('marsh-choir.example', 'MX', [], { rcode: 'NONE', error: 'no answer in time' }),
    );
    const text = dnsToZoneFile(e.dns);
    expect(text).toContain(
      '; Server of the zone ns1.registry.example (203.0.113.53:53)\nmarsh-choir.example. 3600 IN A 192.0.2.10',
    );
    expect(text).toContain('; gone.marsh-choir.example A: NXDOMAIN');
    expect(text).toContain('; marsh-choir.example AAAA: no such record');
    expect(text).toContain('; marsh-choir.example MX: no answer in time');
    expect(readZoneFile(text).errors).toEqual([]);
  });
  it('records come back as answers, one a name and type', () => {
    expect(
      answersFromZone(readZoneFile('a.example. A 192.0.2.1\na.example. A 192.0.2.2\n').records, 'file'),
    ).toMatchObject([
      { name: 'a.example', type: 'A', records: [{ value: '192.0.2.1' }, { value: '192.0.2.2' }] },
    ]);
  });
  it('aliases are followed, as a resolver would', () => {
    expect(
      answersFromZone(
        readZoneFile(
          'www.a.example. CNAME a.example.\na.example. A 192.0.2.1\nx.a.example. CNAME x.a.example.\n',
        ).records,
        'file',
      )
        .find((a) => a.name === 'www.a.example' && a.type === 'A')
        ?.records.map((r) => r.value),
    ).toEqual(['a.example', '192.0.2.1']);
  });
  it('names are dotted, also inside data', () => {
    expect(zoneLine({ name: 'a.example', type: 'MX', ttl: 60, value: '10 mail.a.example' })).toBe(
      'a.example. 60 IN MX 10 mail.a.example.',
    );
  });
});
