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

/** Where one host is asked. */
interface Entries {
  http: string;
  https: string;
  /** Path of the entry, and of the folder that a probing path stands in. */
  entry: string;
  folder: string;
  tlsPort: number;
  /** An address of plain http on a port of its own: nothing answers over TLS there. */
  plainOnly: boolean;
}

function entriesOf(host: string, { base, kind }: HostTools): Entries {
  const isHere = host === base.hostname;
  const isSecure = base.protocol === 'https:';
  const port = isHere && base.port ? `:${base.port}` : '';
  const hasPath = isHere && kind === 'before';
  return {
    https: `https://${host}${isSecure ? port : ''}`,
    http: `http://${host}${isSecure ? '' : port}`,
    entry: hasPath ? base.pathname : '/',
    folder: hasPath ? base.pathname.replace(/[^/]*$/, '') : '/',
    tlsPort: Number(isSecure && isHere ? base.port : '') || 443,
    plainOnly: !isSecure && port !== '',
  };
}

/** Half of what a host is looked at for, where the other half is known. */
export interface Half {
  part: 'tls' | 'http';
  before: HostEvidence;
}

/**
 * Looks at one host. Never throws.
 * @param half only its handshake, or only what answers over it
 */
export async function probeHost(
  tools: HostTools,
  host: string,
  role: HostEvidence['role'],
  half?: Half,
): Promise<HostEvidence> {
  if (half?.part === 'tls') return { ...half.before, role, tls: await handshakeOf(tools, host, role) };
  const { client, kind, own } = tools;
  const { http, https, entry, folder, tlsPort, plainOnly } = entriesOf(host, tools);
  const isLive = kind === 'live' && role !== 'staging';
  const follow = (url: string) => client.followTwice(url, { own: (h) => own.has(h) || h === host });
  const secure = (url: string): Promise<Fetched> | Fetched => (plainOnly ? nothing(url) : follow(url));
  const [tls, plain, encrypted, plainPath, encryptedPath] = await Promise.all([
    half ? half.before.tls : handshakeOf(tools, host, role),
    follow(http + entry),
    secure(https + entry),
    follow(http + folder + PROBE_PATH),
    secure(https + folder + PROBE_PATH),
  ]);
  const landing = await landingOf(encrypted.chain.end === 'answer' ? encrypted : plain, tools.extract);
  return {
    host,
    role,
    tls,
    http: plain.chain,
    https: encrypted.chain,
    httpPath: plainPath.chain,
    httpsPath: encryptedPath.chain,
    addresses: isLive && !plainOnly ? await probeAddresses(tools, host, https, tlsPort) : [],
    ...(landing ? { landing } : {}),
  };
}

/** A host's certificate and what it speaks. */
async function handshakeOf(tools: HostTools, host: string, role: HostEvidence['role']): Promise<TlsEvidence> {
  const { client, dialer, store, kind } = tools;
  const { tlsPort, plainOnly } = entriesOf(host, tools);
  if (plainOnly) return silentTls(host);
  const fetchIssuer = async (url: string) => {
    const { exchange, body } = await client.exchange(url, 'GET');
    return exchange.status === 200 ? body : undefined;
  };
  const old = kind === 'live' && role !== 'staging';
  return probeTls({ dialer, store, fetchIssuer }, host, tlsPort, { old });
}

const nothing = (start: string): Fetched => ({
  chain: { start, hops: [], end: 'error', error: PLAIN_ONLY },
});

/** The page that a visitor of a host's own address meets. */
async function landingOf({ chain, body }: Fetched, extract: Extract): Promise<HostEvidence['landing']> {
  const last = lastAnswer(chain);
  const type = headerValues(last, 'content-type')[0];
  if (chain.end !== 'answer' || !last || !body || !isHtml(type, body)) return undefined;
  try {
    const { facts } = await extract(body, type, last.url);
    return { url: last.url, status: last.status!, facts: slim(facts) };
  } catch {
    // a page that cannot be read is said among the pages
    return undefined;
  }
}

/** Each address of a host by itself, in the order of the addresses. */
async function probeAddresses(
  { client, dialer, store, extract }: HostTools,
  host: string,
  origin: string,
  port: number,
): Promise<AddressEvidence[]> {
  const addresses = await dialer.resolve(host).catch(() => []);
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

/**
 * A landing page is kept for what tells whether it is the site's: title, text, headings, where it leads and
 * what it asks for; the page itself is among the pages.
 */
function slim(
  facts: NonNullable<HostEvidence['landing']>['facts'],
): NonNullable<HostEvidence['landing']>['facts'] {
  return {
    ...facts,
    text: facts.text.slice(0, 2000),
    metas: facts.metas.filter((m) => m.httpEquiv === 'refresh').slice(0, 1),
    links: [],
    scripts: facts.scripts.slice(0, 3).map(({ inline: _, ...script }) => script),
    anchors: facts.anchors.slice(0, 10),
    images: [],
    forms: facts.forms.slice(0, 3),
    resources: [],
    jsonLd: [],
    headings: facts.headings.slice(0, 5),
    bylines: [],
    unnamed: [],
    hidden: [],
  };
}
