/**
 * What the probe reads from foreign bytes: DNS answers, addresses, content codings, registration data,
 * images.
 */
import zlib from 'node:zlib';
import packet from 'dns-packet';
import fc from '../tests/property';
import { describe, expect, it } from 'vitest';
import { AddressMap, forbidden, splitPort } from './addresses';
import { decodeAnswer } from './dns/client';
import { decodeBody } from './http/decode';
import { readDomain, serverFor } from './registration/rdap';

describe('addresses that may not be dialled', () => {
  // one of each block of the special-purpose registries (RFC 6890, 5737, 6598, 3849, 4193, 3056, 4380)
  it.each([
    '127.0.0.1',
    '10.1.2.3',
    '172.16.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '192.0.2.1',
    '198.51.100.1',
    '203.0.113.1',
    '198.18.0.1',
    '224.0.0.1',
    '240.0.0.1',
    '255.255.255.255',
    '::1',
    '::',
    'fe80::1',
    'fc00::1',
    'fd12::1',
    'ff02::1',
    '2001:db8::1',
    '2002::1',
    '2001::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '64:ff9b::1',
    'fec0::1',
    '4000::1',
    'nonsense',
    '',
  ])('%s', (address) => {
    expect(forbidden(address)).not.toBeNull();
  });
  it.each(['1.1.1.1', '93.184.215.14', '2606:4700:4700::1111', '::ffff:1.1.1.1'])('%s may', (address) => {
    expect(forbidden(address)).toBeNull();
  });
});

describe('the map', () => {
  it('a rule with a port wins, hosts fold their case, IPv6 its spelling', () => {
    const map = new AddressMap([
      'a.example=127.0.0.1:1',
      'a.example:443=127.0.0.1:2',
      '192.0.2.1:53=127.0.0.1:3',
      '[2001:db8:0::1]:80=[::1]:4',
      '192.0.2.2=127.0.0.9',
    ]);
    expect(map.find('A.example', 80)).toEqual({ address: '127.0.0.1', port: 1 });
    expect(map.find('a.example.', 443)?.port).toBe(2);
    expect(map.find('192.0.2.1', 53)?.port).toBe(3);
    expect(map.find('192.0.2.1', 80)).toBeUndefined();
    expect(map.find('2001:db8::1', 80)).toEqual({ address: '::1', port: 4 });
    expect(map.find('192.0.2.2', 443)).toEqual({ address: '127.0.0.9', port: 443 });
  });
  it.each(['a.example', '=127.0.0.1:1', 'a=b.example:1', 'a.example=127.0.0.1:99999'])(
    'refuses %s',
    (rule) => {
      expect(() => new AddressMap([rule])).toThrow(RangeError);
    },
  );
  it('splits ports', () => {
    expect(splitPort('[::1]:53')).toEqual({ host: '::1', port: 53 });
    expect(splitPort('::1')).toEqual({ host: '::1', port: undefined });
    expect(splitPort('a:0')).toBeNull();
  });
});

describe('DNS answers', () => {
  const question = { name: 'a.example', type: 'A' };
  const answer = (id = 7, name = 'a.example') =>
    packet.encode({
      type: 'response',
      id,
      questions: [{ type: 'A', name, class: 'IN' }],
      answers: [{ type: 'A', name, ttl: 5, data: '192.0.2.1', class: 'IN' }],
    });
  it('an answer is decoded; another id or question, or no response at all, is refused', () => {
    expect(decodeAnswer(answer(), question, 7).answers).toHaveLength(1);
    expect(() => decodeAnswer(answer(8), question, 7)).toThrow('another id');
    expect(() => decodeAnswer(answer(7, 'b.example'), question, 7)).toThrow('another question');
    expect(() =>
      decodeAnswer(
        packet.encode({ type: 'query', id: 7, questions: [{ type: 'A', name: 'a.example' }] }),
        question,
        7,
      ),
    ).toThrow('no response');
  });
  it('counts that cannot be are refused before they cost time', () => {
    const b = answer();
    b.writeUInt16BE(65535, 6);
    expect(() => decodeAnswer(b, question, 7)).toThrow('counts');
  });
  it('a compression loop ends', () => {
    const b = Buffer.concat([answer().subarray(0, 12), Buffer.from([0xc0, 12, 0, 1, 0, 1])]);
    b.writeUInt16BE(0, 6);
    expect(() => decodeAnswer(b, question, 7)).toThrow();
  });
  it('any bytes: an answer or an error, in time', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        try {
          decodeAnswer(Buffer.from(bytes), question, 7);
        } catch (e) {
          expect(e).toBeInstanceOf(Error);
        }
      }),
      { numRuns: 2000 },
    );
  });
});

describe('content codings', () => {
  const text = Buffer.from('songs by the water '.repeat(100));
  it('gzip, br, both deflates, and several after another', async () => {
    expect(await decodeBody(zlib.gzipSync(text), 'gzip', 1e6)).toEqual(text);
    expect(await decodeBody(zlib.brotliCompressSync(text), 'br', 1e6)).toEqual(text);
    expect(await decodeBody(zlib.deflateSync(text), 'deflate', 1e6)).toEqual(text);
    expect(await decodeBody(zlib.deflateRawSync(text), 'deflate', 1e6)).toEqual(text);
    expect(await decodeBody(zlib.gzipSync(zlib.brotliCompressSync(text)), 'br, gzip', 1e6)).toEqual(text);
    expect(await decodeBody(text, 'identity', 1e6)).toEqual(text);
  });
  it('a bomb ends at the cap, nonsense with a word', async () => {
    await expect(decodeBody(zlib.gzipSync(Buffer.alloc(5e6)), 'gzip', 1e6)).rejects.toMatchObject({
      code: 'too-large',
    });
    await expect(decodeBody(text, 'gzip', 1e6)).rejects.toMatchObject({ code: 'bad-encoding' });
    await expect(decodeBody(text, 'zstd', 1e6)).rejects.toMatchObject({ code: 'bad-encoding' });
    expect(() => decodeBody(text, 'gzip, gzip, gzip, gzip', 1e6)).toThrow();
  });
});

describe('registration data', () => {
  it('finds the server by the longest entry, https first (RFC 9224 section 3)', () => {
    const bootstrap = {
      services: [
        [['uk'], ['http://uk.example/', 'https://uk.example/']],
        [['co.uk'], ['https://couk.example/']],
      ] as [string[], string[]][],
    };
    expect(serverFor(bootstrap, 'a.co.uk')).toBe('https://couk.example/');
    expect(serverFor(bootstrap, 'a.org.uk')).toBe('https://uk.example/');
    expect(serverFor(bootstrap, 'a.zz')).toBeUndefined();
  });
  it('reads the domain object in the shape of RFC 9083 5.3', () => {
    expect(
      readDomain(
        JSON.stringify({
          objectClassName: 'domain',
          ldhName: 'XN--FO-5JA.EXAMPLE',
          status: ['locked', 'transfer prohibited'],
          events: [{ eventAction: 'expiration', eventDate: '2017-12-31T23:59:59Z' }],
          nameservers: [{ objectClassName: 'nameserver', ldhName: 'ns1.example.com' }],
          entities: [
            {
              objectClassName: 'entity',
              handle: 'XXXX',
              roles: ['registrar'],
              vcardArray: [
                'vcard',
                [
                  ['version', {}, 'text', '4.0'],
                  ['fn', {}, 'text', 'Gullwing Names'],
                ],
              ],
            },
          ],
        }),
      ),
    ).toEqual({
      ldhName: 'xn--fo-5ja.example',
      status: ['locked', 'transfer prohibited'],
      events: [{ action: 'expiration', date: '2017-12-31T23:59:59Z' }],
      registrar: 'Gullwing Names',
      nameServers: ['ns1.example.com'],
    });
    expect(() => readDomain('{}')).toThrow();
    fc.assert(
      fc.property(fc.jsonValue(), (v) => {
        try {
          readDomain(
            JSON.stringify({ objectClassName: 'domain', events: v, entities: v, status: v, nameservers: v }),
          );
        } catch (e) {
          expect(e).toBeInstanceOf(SyntaxError);
        }
      }),
    );
  });
});
