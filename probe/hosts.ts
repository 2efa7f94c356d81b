/** One host from outside: its entries, its certificate, and each of its addresses by itself. */
import {
  headerValues,
  lastAnswer,
  type AddressEvidence,
  type HostEvidence,
  type TlsEvidence,
} from '#core/facts/evidence';
import type { EnvironmentKind } from '#core/facts/situation';
import { isHtml } from './crawl';
import type { Dialer } from './dialer';
import type { Extract } from './extractor';
import type { Fetched, HttpClient } from './http/client';
import { probeAddress, probeTls, type TrustStore } from './tls';

/** A path and query that show whether a redirect keeps them. */
const PROBE_PATH = 'armband-probe/path?kept=1';
const ADDRESSES = 8;

export interface HostTools {
  client: HttpClient;
  dialer: Dialer;
  store: TrustStore;
  extract: Extract;
  kind: EnvironmentKind;
  base: URL;
  own: ReadonlySet<string>;
}

const PLAIN_ONLY = { code: 'refused', message: 'the address is plain http' } as const;
const silentTls = (host: string): TlsEvidence => ({ host, chain: [], trusted: false, error: PLAIN_ONLY });

/** Looks at one host. Never throws. */
export async function probeHost(
  tools: HostTools,
  host: string,
  role: HostEvidence['role'],
): Promise<HostEvidence> {
  const { client, dialer, store, extract, kind, base, own } = tools;
  const here = host === base.hostname;
  const port = here && base.port ? `:${base.port}` : '';
  const path = here && kind === 'before' ? base.pathname.replace(/[^/]*$/, '') : '/';
  const follow = (url: string) => client.followTwice(url, { own: (h) => own.has(h) || h === host });
  const plainOnly = here && base.protocol === 'http:' && port !== '';
  const https = `https://${host}${base.protocol === 'https:' ? port : ''}`;
  const http = `http://${host}${base.protocol === 'http:' ? port : ''}`;
  const fetchIssuer = async (url: string) => {
    const { exchange, body } = await client.exchange(url, 'GET');
    return exchange.status === 200 ? body : undefined;
  };
  const nothing = (start: string): Fetched => ({
    chain: { start, hops: [], end: 'error', error: PLAIN_ONLY },
  });
  const entry = here && kind === 'before' ? base.pathname : path;
  const tlsPort = Number(base.protocol === 'https:' && here ? base.port : '') || 443;
  const [tls, a, b, c, d] = await Promise.all([
    plainOnly
      ? silentTls(host)
      : probeTls(dialer, store, host, tlsPort, fetchIssuer, { old: kind === 'live' && role !== 'staging' }),
    follow(http + entry),
    plainOnly ? nothing(https + entry) : follow(https + entry),
    follow(http + path + PROBE_PATH),
    plainOnly ? nothing(https + path + PROBE_PATH) : follow(https + path + PROBE_PATH),
  ]);
  const evidence: HostEvidence = {
    host,
    role,
    tls,
    http: a.chain,
    https: b.chain,
    httpPath: c.chain,
    httpsPath: d.chain,
    addresses: [],
  };
  const landed = b.chain.end === 'answer' ? b : a;
  const last = lastAnswer(landed.chain);
  const type = headerValues(last, 'content-type')[0];
  if (landed.chain.end === 'answer' && last && landed.body && isHtml(type, landed.body)) {
    try {
      evidence.landing = {
        url: last.url,
        status: last.status!,
        facts: slim((await extract(landed.body, type, last.url)).facts),
      };
    } catch {
      /* a page that cannot be read is said among the pages */
    }
  }
  if (kind === 'live' && role !== 'staging')
    evidence.addresses = await probeAddresses(tools, host, https, tlsPort, plainOnly);
  return evidence;
}

/** Each address of a host by itself, in the order of the addresses. */
async function probeAddresses(
  { client, dialer, store, extract }: HostTools,
  host: string,
  origin: string,
  port: number,
  plainOnly: boolean,
): Promise<AddressEvidence[]> {
  const addresses = plainOnly ? [] : await dialer.resolve(host).catch(() => []);
  return Promise.all(
    [...addresses]
      .sort()
      .slice(0, ADDRESSES)
      .map(async (address): Promise<AddressEvidence> => {
        const family = address.includes(':') ? 6 : 4;
        const [tls, { exchange, body }] = await Promise.all([
          probeAddress(dialer, store, host, address, port),
          client.exchange(`${origin}/`, 'GET', {}, { address }),
        ]);
        const title =
          headerValues(exchange, 'location')[0] ??
          (body && isHtml(headerValues(exchange, 'content-type')[0], body)
            ? (
                await Promise.resolve(
                  extract(body, headerValues(exchange, 'content-type')[0], `${origin}/`),
                ).catch(() => undefined)
              )?.facts.titles[0]?.text
            : undefined);
        return { address, family, tls, exchange, ...(title ? { title: title.slice(0, 300) } : {}) };
      }),
  );
}

/** A landing page is kept for its title, text and marks only; the page itself is among the pages. */
function slim(
  facts: NonNullable<HostEvidence['landing']>['facts'],
): NonNullable<HostEvidence['landing']>['facts'] {
  return {
    ...facts,
    text: facts.text.slice(0, 2000),
    metas: [],
    links: [],
    scripts: [],
    anchors: [],
    images: [],
    forms: [],
    resources: [],
    jsonLd: [],
    headings: [],
    bylines: [],
    unnamed: [],
    hidden: [],
  };
}
