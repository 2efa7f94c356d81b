/**
 * Ranges of addresses: RFC 4632 3.1 and RFC 4291 2.3 give the forms; the borders are compared with Node's own
 * block list.
 */
import { BlockList } from 'node:net';
import { describe, expect, it } from 'vitest';
import { isRange, rangeOf } from './address-ranges';

describe('ranges of addresses', () => {
  it('are told from what is none', () => {
    for (const good of [
      '192.0.2.0/24',
      '192.0.2.9/32',
      '0.0.0.0/0',
      '2001:db8::/32',
      '2001:DB8:20::/48',
      '::1/128',
    ])
      expect(isRange(good), good).toBe(true);
    for (const bad of [
      '192.0.2.0',
      '192.0.2.0/33',
      '192.0.2/24',
      '2001:db8::/129',
      'host.example/24',
      '192.0.2.0/-1',
      ' 192.0.2.0/24',
      '192.0.2.0/24/1',
      '',
    ])
      expect(isRange(bad), bad).toBe(false);
  });

  it('hold the addresses that Node’s block list says they hold', () => {
    for (const [range, addresses] of [
      ['192.0.2.16/28', ['192.0.2.15', '192.0.2.16', '192.0.2.31', '192.0.2.32']],
      ['198.51.100.7/32', ['198.51.100.6', '198.51.100.7']],
      [
        '2001:db8:20::/48',
        ['2001:db8:1f:ffff::1', '2001:db8:20::', '2001:db8:20:ffff:ffff:ffff:ffff:ffff', '2001:db8:21::'],
      ],
    ] as const) {
      const [base, bits] = range.split('/') as [string, string];
      const list = new BlockList();
      const family = base.includes(':') ? 'ipv6' : 'ipv4';
      list.addSubnet(base, Number(bits), family);
      for (const a of addresses)
        expect(rangeOf(a, [range]) === range, `${a} in ${range}`).toBe(list.check(a, family));
    }
  });

  describe('of another family, malformed ones and none hold nothing', () => {
    it.each([
      ['192.0.2.1', ['2001:db8::/32', 'nonsense', '192.0.2.0/24'], '192.0.2.0/24'],
      ['192.0.2.1', ['nonsense'], undefined],
      ['kites.example', ['0.0.0.0/0'], undefined],
      ['192.0.2.1', undefined, undefined],
    ])('%s, %j: %s', (one, two, wanted) => {
      expect(rangeOf(one, two)).toBe(wanted);
    });
  });
});
