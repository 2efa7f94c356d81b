/**
 * Evidence: everything collected about one environment at one time, as plain JSON. Collecting never judges.
 */
import type { PageFact, SiteFact } from './fact-names';
import type { PageFacts } from '#core/extract/html';
import type { Part } from './parts';
import type { RobotsFile } from '#core/extract/robots';
import type { SitemapFacts } from '#core/extract/sitemap';
import type { CssFacts } from '#core/extract/css';
import type { ManifestFacts } from '#core/extract/manifest';
import type { RenderedEvidence } from './rendered';

/** Raised when the shape changes; older ones are read through `upgradeEvidence`. */
export const EVIDENCE_VERSION = 2;

export type Header = [name: string, value: string];

/** One request and its answer. Times in milliseconds, sizes in bytes. */
export interface Exchange {
  url: string;
  method: 'GET' | 'HEAD';
  /** Address and port that were dialled. */
  address?: string;
  status?: number;
  /** The reason phrase as it came; HTTP/2 has none. */
  reason?: string;
  headers: Header[];
  httpVersion?: '1.1' | '2';
  timing: { resolve?: number; connect?: number; tls?: number; firstByte?: number; total: number };
  bytes?: { encoded: number; decoded: number };
  /** The body was longer than the cap and was cut. */
  cut?: boolean;
  error?: NetworkError;
}

export type NetworkErrorCode =
  | 'no-name'
  | 'no-address'
  | 'forbidden-address'
  | 'refused'
  | 'reset'
  | 'timeout'
  | 'tls'
  | 'protocol'
  | 'too-large'
  | 'bad-encoding'
  | 'redirect-loop'
  | 'too-many-redirects'
  | 'bad-url'
  | 'stopped'
  | 'dns';
export interface NetworkError {
  code: NetworkErrorCode;
  message: string;
}

/** A request with the redirects that followed. `end` tells how it came to rest. */
export interface Chain {
  start: string;
  hops: Exchange[];
  end: 'answer' | 'error';
  error?: NetworkError;
}

/** One DNS record in presentation form. */
export interface DnsRecord {
  name: string;
  type: string;
  ttl: number;
  value: string;
}

/** One question put to one server. `rcode` is the name of RFC 6895, or NONE when no answer came. */
export interface DnsAnswer {
  server: string;
  serverName?: string;
  /**
   * Asked as a recursive resolver, as a server of the site's zone, as a server of the zone above it, or as
   * one that the brief says will take the zone over.
   */
  role: 'resolver' | 'authority' | 'parent' | 'coming';
  name: string;
  type: string;
  rcode: string;
  authoritative: boolean;
  authenticated: boolean;
  transport: 'udp' | 'tcp';
  records: DnsRecord[];
  /** NS and SOA records of the authority section: a referral, or how long a name is known not to be. */
  authority?: DnsRecord[];
  /** Addresses of the additional section (glue). */
  additional?: DnsRecord[];
  /** Asked with checking disabled (RFC 4035 3.2.2). */
  unchecked?: true;
  ms: number;
  error?: string;
}

export interface NameServer {
  name: string;
  addresses: string[];
  /** Who names it: the zone above, the zone itself, or both. */
  namedBy: ('parent' | 'zone')[];
}

export interface DnsEvidence {
  resolvers: string[];
  /** The zone of the site's registrable domain, and the servers named for it above and in it. */
  zone: string | null;
  nameServers: NameServer[];
  /** The zone above, as far as it could be asked. */
  parent: { zone: string; servers: { name: string; addresses: string[] }[] } | null;
  /** A label made up for this audit, asked for below the zone: an answer means a wildcard. */
  randomLabel: string;
  answers: DnsAnswer[];
}

export interface CertificateFacts {
  subject: string;
  issuer: string;
  serial: string;
  names: string[];
  /** ISO 8601. */
  notBefore: string;
  notAfter: string;
  keyType: string;
  keyBits: number | null;
  /** Name of the signature algorithm, e.g. "ecdsa-with-SHA256", or its object identifier when unknown. */
  signature: string;
  fingerprint256: string;
}

export interface TlsEvidence {
  host: string;
  address?: string;
  protocol?: string;
  cipher?: string;
  /** As the server sent it, leaf first. */
  chain: CertificateFacts[];
  trusted: boolean;
  /** The validator's own code when not trusted, e.g. CERT_HAS_EXPIRED. */
  trustError?: string;
  /** The chain is trusted once a missing intermediate is fetched or known. */
  completedChain?: boolean;
  /** What ALPN agreed (RFC 7301). */
  alpn?: string;
  /** A stapled OCSP response came with the handshake (RFC 6066 8). */
  stapled?: boolean;
  /** Which of TLS 1.0 and 1.1 the server agrees to; undefined where they cannot be offered from here. */
  oldProtocols?: { accepted: ('TLSv1' | 'TLSv1.1')[] };
  error?: NetworkError;
}

/** One address of a host, looked at by itself. */
export interface AddressEvidence {
  address: string;
  family: 4 | 6;
  tls?: Pick<TlsEvidence, 'trusted' | 'trustError' | 'error'> & { names: string[]; fingerprint256?: string };
  /** The root over https, without following redirects. */
  exchange: Exchange;
  /** The title there, or where it redirects to: enough to see whether it is the same site. */
  title?: string;
}

/** The entries of one host: both schemes, at the root and at a path with a query. */
export interface HostEvidence {
  host: string;
  /** `implied`: with or without www, which the brief does not name. */
  role: 'preferred' | 'other' | 'implied' | 'environment' | 'staging';
  tls: TlsEvidence;
  http: Chain;
  https: Chain;
  httpPath: Chain;
  httpsPath: Chain;
  /** What a visitor of the root lands on, over https where it answers, else over http. */
  landing?: { url: string; status: number; facts: PageFacts };
  /** Each of its addresses by itself (live hosts only). */
  addresses: AddressEvidence[];
}

/** What scripts made of a page in a browser: its facts, or why there are none. */
export interface PageRendering {
  facts?: PageFacts;
  failure?: string;
  /** Where scripts led on to another address. */
  leadsTo?: string;
}

export interface PageEvidence {
  /** Where the chain came to rest, normalised by the URL standard. */
  url: string;
  requested: string;
  /** The page the link stood on; null for the home page, the brief's pages and sitemap entries. */
  from: string | null;
  /** How it was found; `named`: as the canonical of a page, or in another language, and by no link. */
  via: 'home' | 'link' | 'sitemap' | 'brief' | 'named';
  depth: number;
  chain: Chain;
  /** The first try, where a 5xx made the probe ask again. */
  firstTry?: Chain;
  contentType?: string;
  charset?: string;
  sha256?: string;
  facts?: PageFacts;
  /** An empty shell as a browser rendered it, read for its text and links alone. */
  rendered?: PageRendering;
  /** When it was read again by itself, later than the other pages. */
  readAt?: string;
  /** Facts that were not read yet when this page was. */
  lacks?: PageFact[];
}

export type AssetRole =
  | 'icon'
  | 'touch-icon'
  | 'share-picture'
  | 'script'
  | 'style'
  | 'picture'
  | 'font'
  | 'media'
  | 'manifest-icon'
  | 'logo'
  | 'third-party';

export interface AssetEvidence {
  url: string;
  roles: AssetRole[];
  chain: Chain;
  contentType?: string;
  /** Bytes of the whole file: counted, or as Content-Length or Content-Range has it. */
  size?: number;
  /** Of the whole file; missing where only its head was fetched. */
  sha256?: string;
  /** Style sheets only. */
  css?: CssFacts;
  image?: { type: string; width: number; height: number; sizes?: { width: number; height: number }[] };
  imageError?: string;
}

export interface TextFileEvidence<T> {
  chain: Chain;
  contentType?: string;
  /** The file's own bytes, unpacked. */
  bytes?: number;
  text?: string;
  facts?: T;
}

/** The policy file of MTA-STS, asked for without following redirects, and the certificate that it came by. */
export interface StsPolicyEvidence {
  host: string;
  chain: Chain;
  trusted: boolean;
  /** Names of the certificate. */
  names: string[];
  /** Its beginning. */
  text: string;
}

export interface PathProbe {
  path: string;
  chain: Chain;
  telltale?: string;
  sample?: string;
}

/** What an ordinary request and one that asks for revalidation got for one page. */
export interface FreshnessEvidence {
  url: string;
  ordinary: FetchedText;
  revalidated: FetchedText;
}
/** `text` is a digest of the visible text, so that changing tokens in the markup do not count. */
export interface FetchedText {
  status?: number;
  age?: string;
  sha256?: string;
  text?: string;
  error?: NetworkError;
}

/** An address beside another one that should give the same page or lead to it. */
export interface VariantEvidence {
  url: string;
  of: string;
  chain: Chain;
  text?: string;
}

/** A linked address that is no page of the site, asked for its status only. */
export interface LinkEvidence {
  url: string;
  own: boolean;
  chain: Chain;
}

/** A file of the uploaded build that nothing led to, asked for by its name. */
export interface BuiltEvidence {
  url: string;
  chain: Chain;
  sha256?: string;
  size?: number;
  /** The words of a page. */
  text?: string;
}

export interface RegistrationEvidence {
  domain: string;
  chain?: Chain;
  /** Whether the bootstrap names a server for this domain. */
  served: boolean;
  ldhName?: string;
  unicodeName?: string;
  /** Whether the registry has a DS for it (RFC 9083 5.3, secureDNS). */
  delegationSigned?: boolean;
  status: string[];
  events: { action: string; date: string }[];
  registrar?: string;
  nameServers: string[];
  error?: string;
}

export type AccessKind = 'open' | 'credentials' | 'parameter' | 'cookie' | 'addresses';

export interface Evidence {
  version: number;
  agent: string;
  target: {
    url: string;
    /** All hosts of the site that were looked at, A-labels, the environment's own first. */
    hosts: string[];
    registrable: string | null;
    kind: 'live' | 'before';
    /** How the auditor gets in. `addresses`: only certain addresses may, and the auditor's is one. */
    wayIn: AccessKind;
  };
  startedAt: string;
  finishedAt: string;
  dns: DnsEvidence;
  hosts: HostEvidence[];
  /** The brief's other subdomains: whether each answers over https. */
  subdomains: { host: string; chain: Chain }[];
  robots: TextFileEvidence<RobotsFile>;
  sitemaps: (TextFileEvidence<SitemapFacts> & { url: string; from: 'robots' | 'default' | 'index' })[];
  /** Sitemaps that the robots.txt of other hosts names, which their entries have to be vouched for by. */
  vouching?: { host: string; chain: Chain; sitemaps?: string[] }[];
  pages: PageEvidence[];
  /** Addresses that were found but not read because the page limit was reached. */
  unread: string[];
  assets: AssetEvidence[];
  /**
   * Linked files, links to pages that had been read under another address, and, where asked for, outside
   * addresses.
   */
  links: LinkEvidence[];
  /** The brief's hidden pages that no link led to. */
  hidden?: PageEvidence[];
  /** Files of the build that nothing led to. */
  built?: BuiltEvidence[];
  notFound: Chain | null;
  /** What a made-up address gets: the first characters of its answer. */
  notFoundSample?: string;
  /** And the title of what it shows. */
  notFoundTitle?: string;
  paths: PathProbe[];
  /** Paths that the agency's own checks ask for. */
  asked?: PathProbe[];
  /** Folders below which files lie and that are no page themselves. */
  folders: PathProbe[];
  tokenFiles: PathProbe[];
  /** The brief's former addresses, as they answer now. */
  former: { from: string; chain: Chain }[];
  /** Pages under their other slash form. */
  variants: VariantEvidence[];
  freshness: FreshnessEvidence[];
  manifest: (TextFileEvidence<ManifestFacts> & { url: string }) | null;
  /** What the brief's way past the holding page leads to. */
  bypass: { chain: Chain; title?: string } | null;
  registration: RegistrationEvidence | null;
  /** The policy of MTA-STS, where the zone has a record for one. */
  mtaSts?: StsPolicyEvidence | null;
  /** What a browser saw; nothing where none was asked to look. */
  rendered?: RenderedEvidence;
  /** What was cut short or left out, in plain words. */
  notes: string[];
  /** When each part was looked at, where that was not all at once. */
  times?: Record<Part, string>;
  /** Facts that this evidence, which is of an earlier version, does not have. */
  lacks?: SiteFact[];
}

/** @returns the last exchange of a chain that got an answer, or undefined. */
export function lastAnswer(chain: Chain): Exchange | undefined {
  for (let i = chain.hops.length - 1; i >= 0; i--)
    if (chain.hops[i]!.status !== undefined) return chain.hops[i];
  return undefined;
}

/** @returns the status a chain came to rest at; undefined when it ended in an error. */
export function finalStatus(chain: Chain): number | undefined {
  return chain.end === 'answer' ? lastAnswer(chain)?.status : undefined;
}

const NO_VALUES: readonly string[] = Object.freeze([]);

/**
 * @returns all values of a header, in the order they came; names are compared without case (RFC 9110 5.1).
 */
export function headerValues(exchange: Exchange | undefined, name: string): readonly string[] {
  if (!exchange) return NO_VALUES;
  const wanted = name.toLowerCase();
  let values: string[] | undefined;
  // lengths first: this is asked for every page by many checks, and mostly there is none
  for (const h of exchange.headers)
    if (h[0].length === wanted.length && h[0].toLowerCase() === wanted) (values ??= []).push(h[1]);
  return values ?? NO_VALUES;
}
