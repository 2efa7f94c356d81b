import { describe, expect, it } from 'vitest';
import { canonicalService, presentService } from './svcb';

const bytes = (hex: string): Uint8Array =>
  Uint8Array.from(hex.replace(/\s/g, '').match(/../g)!, (b) => parseInt(b, 16));
const plain = (name: string): string => name.toLowerCase().replace(/\.$/, '');

// RFC 9460, appendix D: wire and presentation form, as printed there
const FOO = '03666f6f 076578616d706c65 03636f6d 00';
const VECTORS: [string, string, string][] = [
  ['alias form', `0000 ${FOO}`, '0 foo.example.com'],
  ['the name itself', '0001 00', '1 .'],
  ['a port', `0010 ${FOO} 0003 0002 0035`, '16 foo.example.com port=53'],
  ['a key without a name', `0001 ${FOO} 029b 0005 68656c6c6f`, '1 foo.example.com key667=hello'],
  [
    'an octet beyond ASCII',
    `0001 ${FOO} 029b 0009 68656c6c6fd2716f6f`,
    '1 foo.example.com key667=hello\\210qoo',
  ],
  [
    'IPv6 hints',
    `0001 ${FOO} 0006 0020 20010db8000000000000000000000001 20010db8000000000000000000530001`,
    '1 foo.example.com ipv6hint=2001:db8::1,2001:db8::53:1',
  ],
  [
    'several parameters',
    '0010 03666f6f 076578616d706c65 036f7267 00 0000 0004 0001 0004 0001 0009 02683205 68332d3139 0004 0004 c0000201',
    '16 foo.example.org mandatory=alpn,ipv4hint alpn=h2,h3-19 ipv4hint=192.0.2.1',
  ],
];

describe('RFC 9460, appendix D', () => {
  it.each(VECTORS)('%s', (_, wire, presentation) => {
    expect(presentService(bytes(wire))).toBe(presentation);
  });
});

describe('data that cannot be read stay as they came (RFC 3597 5)', () => {
  it.each([
    ['too short', '00'],
    ['a name without an end', '0001 05 6666'],
    ['a parameter that is cut', '0001 00 0001 0010 02'],
    ['a hint of five octets', '0001 00 0004 0005 c000020100'],
  ])('%s', (_, wire) => {
    expect(presentService(bytes(wire))).toMatch(/^\\# \d+ [0-9a-f]*$/);
  });
});

describe('one spelling', () => {
  it.each([
    ['order of keys', '1 . port=443 alpn=h2', '1 . alpn=h2 port=443'],
    ['quotes', '1 . alpn="h2,h3"', '1 . alpn=h2,h3'],
    ['a key by its number', '1 . key1=h2', '1 . alpn=h2'],
    ['a final dot and capitals', '0 Host.Example.', '0 host.example'],
    ['one address spelt otherwise', '1 . ipv6hint=2001:DB8:0::1', '1 . ipv6hint=2001:db8::1'],
    ['order of hints', '1 . ipv4hint=192.0.2.2,192.0.2.1', '1 . ipv4hint=192.0.2.1,192.0.2.2'],
    ['the generic form after priority and name', '1 . \\# 7 00010003026832', '1 . alpn=h2'],
    ['the generic form of the whole', '\\# 10 00010000010003026832', '1 . alpn=h2'],
  ])('%s', (_, one, other) => {
    expect(canonicalService(one, plain)).toBe(canonicalService(other, plain));
  });
  it.each([
    ['another protocol', '1 . alpn=h2', '1 . alpn=h3'],
    ['another target', '1 a.example', '1 b.example'],
    ['one parameter more', '1 . alpn=h2', '1 . alpn=h2 port=8443'],
  ])('%s is another value', (_, one, other) => {
    expect(canonicalService(one, plain)).not.toBe(canonicalService(other, plain));
  });
});
