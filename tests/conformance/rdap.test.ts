/**
 * RDAP: the domain object of RFC 9083 5.3 (its members as printed there, from memory; the longest parts
 * shortened).
 */
import { describe, expect, it } from 'vitest';
import bundled from '../../probe/registration/bootstrap.json' with { type: 'json' };
import { readBootstrap, readDomain, serverFor } from '#probe/registration/rdap';

/** RFC 9083, 5.3: a domain of a registry that works with resellers and DNSSEC. */
const DNR = {
  objectClassName: 'domain',
  handle: 'XXXX',
  ldhName: 'xn--fo-5ja.example',
  unicodeName: 'fóo.example',
  variants: [
    {
      relation: ['registered', 'conjoined'],
      variantNames: [{ ldhName: 'xn--fo-cka.example', unicodeName: 'fõo.example' }],
    },
  ],
  status: ['locked', 'transfer prohibited'],
  publicIds: [{ type: 'ENS_Auth ID', identifier: '1234567890' }],
  nameservers: [
    {
      objectClassName: 'nameserver',
      handle: 'XXXX',
      ldhName: 'ns1.example.com',
      status: ['active'],
      ipAddresses: { v6: ['2001:db8::123', '2001:db8::124'], v4: ['192.0.2.1', '192.0.2.2'] },
      events: [{ eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' }],
    },
    { objectClassName: 'nameserver', handle: 'XXXX', ldhName: 'ns2.example.com', status: ['active'] },
  ],
  secureDNS: {
    zoneSigned: true,
    delegationSigned: true,
    maxSigLife: 604800,
    keyData: [
      { flags: 257, protocol: 3, algorithm: 8, publicKey: 'AwEAAa6eDzronzjEDbT...Jg1M5N rBSPkuXpdFE=' },
    ],
  },
  links: [
    {
      value: 'https://example.net/domain/xn--fo-5ja.example',
      rel: 'self',
      href: 'https://example.net/domain/xn--fo-5ja.example',
      type: 'application/rdap+json',
    },
  ],
  port43: 'whois.example.net',
  events: [
    { eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' },
    { eventAction: 'last changed', eventDate: '1991-12-31T23:59:59Z', eventActor: 'joe@example.com' },
    { eventAction: 'transfer', eventDate: '1991-12-31T23:59:59Z' },
    { eventAction: 'expiration', eventDate: '2016-12-31T23:59:59Z' },
  ],
  entities: [
    {
      objectClassName: 'entity',
      handle: 'XXXX',
      vcardArray: [
        'vcard',
        [
          ['version', {}, 'text', '4.0'],
          ['fn', {}, 'text', 'Joe User'],
          ['kind', {}, 'text', 'individual'],
        ],
      ],
      roles: ['registrant'],
    },
    { objectClassName: 'entity', handle: 'REG-1', roles: ['registrar'] },
  ],
};
/** RFC 9083, 5.3: a reverse domain of a number registry. */
const RIR = {
  objectClassName: 'domain',
  handle: 'XXXX',
  ldhName: '0.2.192.in-addr.arpa',
  nameservers: [
    { objectClassName: 'nameserver', ldhName: 'ns1.rir.example' },
    { objectClassName: 'nameserver', ldhName: 'ns2.rir.example' },
  ],
  secureDNS: { delegationSigned: true },
  events: [{ eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' }],
};
/** RFC 9083, 6: an error. */
const ERROR = {
  errorCode: 418,
  title: 'Your Beverage Choice is Not Available',
  description: ['I know coffee has more ummppphhh.', 'Sorry, dude!'],
};
/** RFC 9224, 4: the example of a bootstrap for domains. */
const BOOTSTRAP = {
  version: '1.0',
  publication: '2024-01-07T10:11:12Z',
  description: 'Some text',
  services: [
    [['net', 'com'], ['https://registry.example.com/myrdap/']],
    [['org', 'mytld'], ['https://example.org/']],
    [['xn--zckzah'], ['https://example.net/rdapxn--zckzah/', 'http://example.net/rdapxn--zckzah/']],
  ],
};

describe('RFC 9083', () => {
  it('5.3: the domain of a registry', () => {
    expect(readDomain(JSON.stringify(DNR))).toEqual({
      ldhName: 'xn--fo-5ja.example',
      unicodeName: 'fóo.example',
      delegationSigned: true,
      status: ['locked', 'transfer prohibited'],
      registrar: 'REG-1',
      nameServers: ['ns1.example.com', 'ns2.example.com'],
      events: [
        { action: 'registration', date: '1990-12-31T23:59:59Z' },
        { action: 'last changed', date: '1991-12-31T23:59:59Z' },
        { action: 'transfer', date: '1991-12-31T23:59:59Z' },
        { action: 'expiration', date: '2016-12-31T23:59:59Z' },
      ],
    });
  });
  it('5.3: a reverse domain has no expiry and no registrar', () => {
    const d = readDomain(JSON.stringify(RIR));
    expect(d.events.some((e) => e.action === 'expiration')).toBe(false);
    expect(d.registrar).toBeUndefined();
  });
  it('6: an error is no domain', () => {
    expect(() => readDomain(JSON.stringify(ERROR))).toThrow('no domain object');
  });
});

describe('RFC 9224', () => {
  it.each([
    ['example.com', 'https://registry.example.com/myrdap/'],
    ['a.b.org', 'https://example.org/'],
    ['x.xn--zckzah', 'https://example.net/rdapxn--zckzah/'],
    ['x.nosuch', undefined],
  ])('4: %s is asked at %s', (domain, url) => {
    expect(serverFor(readBootstrap(BOOTSTRAP), domain)).toBe(url);
  });
  it('what ships knows no registry of a reserved name (RFC 2606 2)', () => {
    const shipped = readBootstrap(bundled);
    expect(serverFor(shipped, 'ropewalk.example')).toBeUndefined();
    expect(serverFor(shipped, 'ropewalk.com')).toMatch(/^https:/);
  });
  it.each([
    [null],
    [{}],
    [{ services: [] }],
    [{ services: [[['com'], 'https://a.example/']] }],
    [{ services: 'x' }],
  ])('%j is no bootstrap file', (data) => {
    expect(() => readBootstrap(data)).toThrow('no bootstrap file');
  });
});
