/** HAR 1.2: the published schema (npm har-schema, from the format's authors) is the judge. */
import { parseUrl } from '#core/extract/address';
import { isIPv4, isIPv6 } from 'node:net';
import Ajv from 'ajv';
import fc from '../property';
import schemas from 'har-schema';
import { describe, expect, it } from 'vitest';
import { evidence } from '#core/checks/example-evidence';
import { chainsOf, toHar } from '#core/formats/har/write';
import { fromHar } from '#core/formats/har/read';
import { evidenceFromHar } from '#core/formats/har/evidence';

const ajv = new Ajv({
  strict: false,
  validateSchema: false,
  formats: {
    ipv4: isIPv4,
    ipv6: isIPv6,
    uri: (t) => parseUrl(t) !== undefined,
    'date-time': (t) => !Number.isNaN(Date.parse(t)),
    regex: true,
  },
});
// the package's schemas name draft 06 and carry "id" references to each other
for (const schema of Object.values(schemas as unknown as Record<string, Record<string, unknown>>))
  if (typeof schema === 'object' && '$id' in schema) {
    const { $schema: draft, ...rest } = schema;
    void draft;
    ajv.addSchema(rest);
  }
const valid = ajv.getSchema('har.json#')!;

describe('the HTTP part as HAR', () => {
  it('fits the published schema', () => {
    valid(JSON.parse(JSON.stringify(toHar(evidence()))));
    expect(valid.errors).toBeNull();
  });
  it('the schema is one that can refuse', () => {
    const har = JSON.parse(JSON.stringify(toHar(evidence()))) as { log: { entries: { time?: number }[] } };
    delete har.log.entries[0]!.time;
    expect(valid(har)).toBe(false);
  });
  it('comes back as it went out, chain by chain', () => {
    const chains = chainsOf(evidence());
    expect(fromHar(JSON.stringify(toHar(evidence()))).map((c) => c.chain)).toEqual(
      chains.map((c) => ({ ...c, hops: c.hops.map((h) => ({ ...h, httpVersion: '1.1' })) })),
    );
  });
  it('a failed chain comes back with its reason', () => {
    const e = evidence();
    e.notFound = {
      start: 'https://marsh-choir.example/x',
      hops: [
        {
          url: 'https://marsh-choir.example/x',
          method: 'GET',
          headers: [],
          timing: { total: 3 },
          error: { code: 'timeout', message: 'no answer in time' },
        },
      ],
      end: 'error',
      error: { code: 'timeout', message: 'no answer in time' },
    };
    expect(fromHar(JSON.stringify(toHar(e))).map((c) => c.chain)).toContainEqual(e.notFound);
  });
});

const entry = (
  url: string,
  status: number,
  more: Record<string, unknown> = {},
  response: Record<string, unknown> = {},
) => ({
  startedDateTime: '2026-11-25T00:00:00Z',
  time: 12,
  request: {
    method: 'GET',
    url,
    httpVersion: 'h2',
    headers: [],
    queryString: [],
    cookies: [],
    headersSize: -1,
    bodySize: 0,
  },
  response: {
    status,
    statusText: '',
    httpVersion: 'h2',
    headers: [{ name: 'content-type', value: 'text/html' }],
    cookies: [],
    content: { size: 20, mimeType: 'text/html', text: '<!doctype html><title>Marsh Choir</title><p>Hi' },
    redirectURL: '',
    headersSize: -1,
    bodySize: 15,
    ...response,
  },
  cache: {},
  timings: { blocked: 1, dns: -1, connect: 8, ssl: 5, send: 0, wait: 6, receive: 1 },
  ...more,
});
const har = (...entries: unknown[]) =>
  JSON.stringify({ log: { version: '1.2', creator: { name: 'a browser', version: '1' }, entries } });

describe('an archive recorded elsewhere', () => {
  it('redirects are put together with what they lead to', () => {
    const [one, two] = fromHar(
      har(
        entry('http://a.example/', 301, {}, { redirectURL: 'https://a.example/', headers: [] }),
        entry('https://b.example/', 200),
        entry('https://a.example/', 200),
      ),
    );
    expect(one!.chain.hops.map((h) => [h.url, h.status])).toEqual([
      ['http://a.example/', 301],
      ['https://a.example/', 200],
    ]);
    expect(two!.chain.start).toBe('https://b.example/');
  });
  it('times are read as the format has them: ssl is part of connect', () => {
    expect(fromHar(har(entry('https://a.example/', 200)))[0]!.chain.hops[0]).toMatchObject({
      httpVersion: '2',
      timing: { total: 12, connect: 3, tls: 5, firstByte: 6 },
      bytes: { encoded: 15, decoded: 20 },
    });
  });
  it('becomes evidence that says what was not looked at', () => {
    const e = evidenceFromHar(
      har(
        entry('https://a.example/', 200),
        entry('https://a.example/about', 200),
        entry(
          'https://a.example/robots.txt',
          200,
          {},
          {
            headers: [{ name: 'content-type', value: 'text/plain' }],
            content: { size: 1, mimeType: 'text/plain', text: 'User-agent: *\nDisallow: /x' },
          },
        ),
      ),
      { url: 'https://a.example/', kind: 'live', hosts: ['a.example'], at: '2026-11-25T00:00:00Z' },
    );
    expect(e.pages.map((p) => [p.via, p.facts?.titles[0]?.text])).toEqual([
      ['home', 'Marsh Choir'],
      ['link', 'Marsh Choir'],
    ]);
    expect(e.robots.facts?.groups).toHaveLength(1);
    expect(e.hosts[0]!.tls.error?.code).toBe('stopped');
    expect(e.notes.join()).toContain('HAR');
  });
  it('with nothing of the site is refused', () => {
    expect(() =>
      evidenceFromHar(har(entry('https://b.example/', 200)), {
        url: 'https://a.example/',
        kind: 'live',
        hosts: ['a.example'],
        at: '',
      }),
    ).toThrow('no request to a.example');
  });
  it.each(['', 'x', '[]', '{"log":{}}', 'null'])('%j is refused with a sentence', (text) => {
    expect(() => fromHar(text)).toThrow('no HAR file');
  });
  it('nonsense inside is passed over, and nothing throws', () => {
    fc.assert(
      fc.property(fc.array(fc.anything({ maxDepth: 3 })), (entries) => {
        fromHar(JSON.stringify({ log: { entries } }));
      }),
    );
    fc.assert(
      fc.property(
        fc.record({ method: fc.constantFrom('GET', 'POST', 7), url: fc.oneof(fc.webUrl(), fc.string()) }),
        fc.anything({ maxDepth: 3 }),
        fc.anything({ maxDepth: 3 }),
        (request, response, timings) => {
          fromHar(
            JSON.stringify({
              log: {
                entries: [
                  { request, response: response ?? {}, timings },
                  { request, response: { status: 301, headers: [{ name: 'location', value: request.url }] } },
                ],
              },
            }),
          );
        },
      ),
    );
  });
});
