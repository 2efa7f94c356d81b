import type { IncomingMessage } from 'node:http';
import { afterEach, describe, expect, it } from 'vitest';
import { clientAddress } from './client-address';

afterEach(() => {
  delete process.env.ARMBAND_TRUSTED_PROXIES;
});

describe('where a request comes from', () => {
  it.each([
    ['nobody is trusted', '', '127.0.0.1', '198.51.100.7', '127.0.0.1'],
    ['the proxy says', '127.0.0.1', '127.0.0.1', '198.51.100.7', '198.51.100.7'],
    ['IPv4 within IPv6', '127.0.0.1', '::ffff:127.0.0.1', '198.51.100.7', '198.51.100.7'],
    [
      'what the caller made up stands further left',
      '127.0.0.1',
      '127.0.0.1',
      '1.1.1.1, 198.51.100.7',
      '198.51.100.7',
    ],
    ['two proxies', '127.0.0.1,10.0.0.0/8', '127.0.0.1', '198.51.100.7, 10.1.2.3', '198.51.100.7'],
    ['a stranger is no proxy', '10.0.0.0/8', '203.0.113.9', '198.51.100.7', '203.0.113.9'],
    ['a proxy that says nothing', '127.0.0.1', '127.0.0.1', undefined, '127.0.0.1'],
  ])('%s', (_, trusted, remoteAddress, forwarded, expected) => {
    process.env.ARMBAND_TRUSTED_PROXIES = trusted;
    const request = {
      headers: forwarded === undefined ? {} : { 'x-forwarded-for': forwarded },
      socket: { remoteAddress },
    } as unknown as IncomingMessage;
    expect(clientAddress(request)).toBe(expected);
  });
});
