/** What shares an address that moves: found by following names, asked about, and turned into records. */
import { describe, expect, it } from 'vitest';
import { planCutOver } from './cut-over';
import { recordsOfShares, sharesOf, type ShareInput } from './shared-address';

const D = 'ferry.example';
const OLD = '192.0.2.7';
const NEW = '203.0.113.9';
const r = (name: string, type: string, value: string) => ({ name, type, value, ttl: 3600 });

const NOERROR = { rcode: 'NOERROR', role: 'resolver' as const, records: [] };

function shares(
  records: ReturnType<typeof r>[],
  answers: ShareInput['answers'] = {},
  more: typeof records = [],
  none: ShareInput['answered'] = [],
) {
  const served = [r(D, 'A', OLD), r(`www.${D}`, 'CNAME', D), ...records];
  const { lines } = planCutOver({ served, wanted: [{ name: D, type: 'A', value: NEW }], negativeTtl: 60 });
  const answered = [...served, ...more].map((record) => ({
    ...NOERROR,
    name: record.name,
    type: record.type,
    records: [record],
  }));
  const input = {
    lines,
    answered: [...answered, ...none],
    zone: D,
    hosts: [D, `www.${D}`],
    answers,
  };
  const found = sharesOf(input);
  return { found, records: recordsOfShares(found, input) };
}

it('a site alone at its address shares it with nothing', () => {
  expect(
    shares([r(D, 'MX', '10 mx.other.example'), r('mx.other.example', 'A', '198.51.100.1')]).found,
  ).toEqual([]);
});

describe('is found and asked about', () => {
  it.each<[string, ReturnType<typeof r>[], string, RegExp]>([
    [
      'mail on the old web server',
      [r(D, 'MX', `10 mail.${D}`), r(`mail.${D}`, 'A', OLD)],
      `mail mail.${D}`,
      /^Mail of ferry\.example is delivered to mail\.ferry\.example, which leads to 192\.0\.2\.7 too .*stays there/,
    ],
    [
      'mail at the very name that moves',
      [r(D, 'MX', `10 ${D}`)],
      `mail ${D}`,
      /^Mail of ferry\.example is delivered to ferry\.example, whose address changes/,
    ],
    ['another host', [r(`shop.${D}`, 'A', OLD)], `host shop.${D}`, /by its own record\), and stays there/],
    [
      'an alias of the name that moves',
      [r(`shop.${D}`, 'CNAME', D)],
      `alias shop.${D}`,
      /by its alias ferry\.example\), and moves with the site/,
    ],
    [
      'SPF by “a”',
      [r(D, 'TXT', 'v=spf1 a -all')],
      `spf ${D} ${OLD}`,
      /allows mail from 192\.0\.2\.7 \(a\); after the change it forbids it \(-all\)/,
    ],
    [
      'SPF by the address itself',
      [r(D, 'TXT', `v=spf1 ip4:${OLD} -all`)],
      `spf ${D} ${OLD}`,
      /it still does after the change \(ip4:192\.0\.2\.7\)/,
    ],
    [
      'SPF by the exchangers',
      [r(D, 'MX', `10 mail.${D}`), r(`mail.${D}`, 'CNAME', D), r(D, 'TXT', 'v=spf1 mx ~all')],
      `spf ${D} ${OLD}`,
      /\(mx\); after the change it distrusts it \(~all\)/,
    ],
  ])('%s', (_, records, id, text) => {
    expect(shares(records).found.find((s) => s.id === id)?.text).toMatch(text);
  });
  it('SPF by what another domain includes, followed to the address', () => {
    const more = [
      // as answers have it: quoted, in parts
      r('spf.host.example', 'TXT', `"v=spf1 a:box." "host.example -all"`),
      r('box.host.example', 'A', OLD),
    ];
    const { found } = shares([r(D, 'TXT', 'v=spf1 include:spf.host.example -all')], {}, more);
    expect(found[0]!.text).toContain('include:spf.host.example (a:box.host.example)');
  });
  it.each<[string, ShareInput['answered'], RegExp | undefined]>([
    ['was not asked', [], /^It cannot be told whether SPF of ferry\.example allows mail from 192\.0\.2\.7/],
    [
      'did not answer',
      [{ ...NOERROR, rcode: 'SERVFAIL', name: 'spf.host.example', type: 'TXT' }],
      /^It cannot be told/,
    ],
    [
      'is known to the servers to come alone',
      [{ ...NOERROR, role: 'coming', name: 'spf.host.example', type: 'TXT' }],
      /^It cannot be told/,
    ],
    ['has no SPF', [{ ...NOERROR, name: 'spf.host.example', type: 'TXT' }], undefined],
  ])('SPF that includes a domain that %s', (_, none, text) => {
    const { found } = shares([r(D, 'TXT', 'v=spf1 include:spf.host.example -all')], {}, [], none);
    if (text) expect(found[0]!.text).toMatch(text);
    else expect(found).toEqual([]);
  });
  it('SPF that never allowed the old address is not touched', () => {
    expect(shares([r(D, 'TXT', 'v=spf1 ip4:198.51.100.1 -all')]).found).toEqual([]);
  });
});

describe('what follows from an answer', () => {
  it.each<[string, ReturnType<typeof r>[], ShareInput['answers'], string[]]>([
    [
      'a host that moves',
      [r(`shop.${D}`, 'A', OLD)],
      { [`host shop.${D}`]: 'moves' },
      [`shop.${D} A ${NEW}`],
    ],
    ['a host that stays', [r(`shop.${D}`, 'A', OLD)], { [`host shop.${D}`]: 'stays' }, []],
    [
      'an alias that stays',
      [r(`shop.${D}`, 'CNAME', D)],
      { [`alias shop.${D}`]: 'stays' },
      [`shop.${D} A ${OLD}`],
    ],
    ['an alias that moves', [r(`shop.${D}`, 'CNAME', D)], { [`alias shop.${D}`]: 'moves' }, []],
    [
      'a host whose old address stands in the second of its sets',
      [r(`shop.${D}`, 'AAAA', '2001:db8::4'), r(`shop.${D}`, 'A', OLD)],
      { [`host shop.${D}`]: 'moves' },
      [`shop.${D} AAAA 2001:db8::4`, `shop.${D} A ${NEW}`],
    ],
    [
      'a host with another address as well',
      [r(`shop.${D}`, 'A', OLD), r(`shop.${D}`, 'A', '198.51.100.4')],
      { [`host shop.${D}`]: 'moves' },
      [`shop.${D} A 198.51.100.4`, `shop.${D} A ${NEW}`],
    ],
  ])('%s', (_, records, answers, expected) => {
    expect(shares(records, answers).records.map((x) => `${x.name} ${x.type} ${x.value}`)).toEqual(expected);
  });
});
