/** What a TLS server shows: the chain as it sends it, and the verdict against the trust store. */
import tls from 'node:tls';
import { X509Certificate } from 'node:crypto';
import type { AddressEvidence, CertificateFacts, TlsEvidence } from '#core/facts/evidence';
import type { Dialer } from './dialer';
import { ProbeError, describe } from './network-error';
import { signatureAlgorithm } from './signature-algorithm';

const CURVE_BITS: Record<string, number> = {
  prime256v1: 256,
  secp384r1: 384,
  secp521r1: 521,
  ed25519: 256,
  ed448: 456,
};

/** The facts of one certificate from its DER bytes. */
function certificateFacts(der: Buffer): CertificateFacts {
  const c = new X509Certificate(der);
  const key = c.publicKey;
  const details = key.asymmetricKeyDetails;
  return {
    subject: oneLine(c.subject),
    issuer: oneLine(c.issuer),
    serial: c.serialNumber,
    names: sanNames(c.subjectAltName),
    notBefore: new Date(c.validFrom).toISOString(),
    notAfter: new Date(c.validTo).toISOString(),
    keyType: (key.asymmetricKeyType ?? 'unknown').toUpperCase(),
    keyBits: details?.modulusLength ?? CURVE_BITS[details?.namedCurve ?? key.asymmetricKeyType ?? ''] ?? null,
    signature: signatureAlgorithm(der),
    fingerprint256: c.fingerprint256,
  };
}

const oneLine = (name: string | undefined): string => (name ?? '').split('\n').join(', ').slice(0, 300);

/** DNS and IP names of a subjectAltName as Node prints it; names that contain a comma come quoted (JSON). */
function sanNames(text: string | undefined): string[] {
  if (!text) return [];
  return [...text.matchAll(/(?:DNS|IP Address):("(?:[^"\\]|\\.)*"|[^,]+)/g)]
    .map((m) => m[1]!.replace(/^"|"$/g, '').trim().toLowerCase())
    .slice(0, 200);
}

/** The roots that count: Node's own store and those given. Built once, since it takes 80 ms. */
export class TrustStore {
  readonly context: tls.SecureContext;
  /** For the chain as sent: without any root, nothing is added from the store. */
  readonly bare: tls.SecureContext;
  private readonly pems: string[];

  constructor(extra: readonly string[] = []) {
    this.pems = [...extra, ...tls.rootCertificates];
    this.context = tls.createSecureContext(extra.length ? { ca: this.pems } : {});
    this.bare = tls.createSecureContext({ ca: [] });
  }

  /** Whether a certificate was issued by one of the roots. */
  anchors(certificate: X509Certificate): boolean {
    return this.pems.some((pem) => {
      try {
        const root = new X509Certificate(pem);
        return certificate.checkIssued(root) && certificate.verify(root.publicKey);
      } catch {
        return false;
      }
    });
  }
}

export interface Handshake {
  host: string;
  context: tls.SecureContext;
  timeoutMs: number;
  /** Protocols offered (RFC 7301); http/1.1 alone unless told. */
  alpn?: string[];
  /** Called when a stapled OCSP response came; asking for one costs the server nothing. */
  onStaple?: () => void;
  /** Offer this version only. */
  version?: tls.SecureVersion;
}

/** Upgrades a connection. The verdict is kept, not enforced; names are judged from the SAN, not here. */
export function handshake(
  socket: import('node:net').Socket,
  { host, context, timeoutMs, alpn = ['http/1.1'], onStaple, version }: Handshake,
): Promise<tls.TLSSocket> {
  return new Promise((resolve, reject) => {
    const secure = tls.connect({
      socket,
      servername: /^[\d.]+$|:/.test(host) ? '' : host,
      secureContext: context,
      rejectUnauthorized: false,
      checkServerIdentity: () => undefined,
      ALPNProtocols: alpn,
      requestOCSP: onStaple !== undefined,
      ...(version ? { minVersion: version, maxVersion: version } : {}),
    } as tls.ConnectionOptions);
    // Node reads the whole chain to check the name, which costs more than the handshake; names are judged elsewhere
    secure.getPeerCertificate = () => ({}) as tls.DetailedPeerCertificate;
    if (onStaple)
      secure.on('OCSPResponse', (response: Buffer | null) => {
        if (response?.length) onStaple();
      });
    const timer = setTimeout(
      () => secure.destroy(new ProbeError('timeout', 'no TLS handshake in time')),
      timeoutMs,
    );
    const fail = (error: unknown) => {
      clearTimeout(timer);
      socket.destroy();
      reject(error);
    };
    secure.once('error', fail);
    const closed = () => fail(new ProbeError('tls', 'the connection was cut off during the TLS handshake'));
    secure.once('close', closed);
    secure.once('secureConnect', () => {
      clearTimeout(timer);
      secure.getPeerCertificate = tls.TLSSocket.prototype.getPeerCertificate;
      secure.removeListener('error', fail);
      secure.removeListener('close', closed);
      resolve(secure);
    });
  });
}

function chainOf(secure: tls.TLSSocket): Buffer[] {
  const out: Buffer[] = [];
  const seen = new Set<string>();
  for (
    let c: tls.DetailedPeerCertificate | undefined = secure.getPeerCertificate(true);
    c?.raw && !seen.has(c.fingerprint256) && out.length < 10;
    c = c.issuerCertificate
  ) {
    seen.add(c.fingerprint256);
    out.push(c.raw);
  }
  return out;
}

/** Fetches an issuer's certificate from the address that a certificate names (RFC 5280 4.2.2.1). */
export type FetchIssuer = (url: string) => Promise<Buffer | undefined>;

async function completes(chain: Buffer[], store: TrustStore, fetchIssuer: FetchIssuer): Promise<boolean> {
  let top = new X509Certificate(chain.at(-1)!);
  for (let step = 0; step < 3; step++) {
    if (store.anchors(top)) return step > 0;
    const url = /CA Issuers - URI:(http:\/\/\S+)/.exec(top.infoAccess ?? '')?.[1];
    const bytes = url ? await fetchIssuer(url) : undefined;
    if (!bytes) return false;
    try {
      const issuer = new X509Certificate(bytes);
      if (!top.checkIssued(issuer) || !top.verify(issuer.publicKey)) return false;
      top = issuer;
    } catch {
      return false;
    }
  }
  return false;
}

const OLD_VERSIONS = ['TLSv1', 'TLSv1.1'] as const;
const oldContexts = new Map<tls.SecureVersion, tls.SecureContext>();

/** @throws where this machine's library cannot offer the version */
function oldContext(version: tls.SecureVersion): tls.SecureContext {
  let context = oldContexts.get(version);
  if (!context) {
    // old versions need old ciphers and short keys allowed, or the offer never leaves
    context = tls.createSecureContext({
      minVersion: version,
      maxVersion: version,
      ciphers: 'DEFAULT@SECLEVEL=0',
    });
    oldContexts.set(version, context);
  }
  return context;
}

/**
 * Offers TLS 1.0 and 1.1, one after the other.
 * @returns undefined where this machine's library cannot offer them
 */
async function oldProtocols(
  dialer: Dialer,
  host: string,
  port: number,
): Promise<TlsEvidence['oldProtocols']> {
  const accepted: ('TLSv1' | 'TLSv1.1')[] = [];
  for (const version of OLD_VERSIONS) {
    let context: tls.SecureContext;
    try {
      context = oldContext(version);
    } catch {
      return undefined;
    }
    try {
      const { socket } = await dialer.connect(host, port);
      const secure = await handshake(socket, { host, context, timeoutMs: Math.min(dialer.timeoutMs, 5000) });
      accepted.push(version);
      secure.on('error', () => {});
      secure.destroy();
    } catch (error) {
      if ((error as { code?: string }).code === 'ERR_SSL_NO_PROTOCOLS_AVAILABLE') return undefined;
    }
  }
  return { accepted };
}

/** The verdict on one connection: what was agreed and whether the chain is trusted. */
function verdictOf(
  secure: tls.TLSSocket,
): Pick<TlsEvidence, 'protocol' | 'cipher' | 'alpn' | 'trusted' | 'trustError'> {
  const authorizationError = secure.authorizationError as { code?: string } | string | null;
  return {
    protocol: secure.getProtocol() ?? undefined,
    cipher: secure.getCipher()?.name,
    ...(secure.alpnProtocol ? { alpn: secure.alpnProtocol } : {}),
    trusted: secure.authorized,
    ...(secure.authorized
      ? {}
      : {
          trustError: String(
            (authorizationError as { code?: string } | null)?.code ?? authorizationError ?? 'unknown',
          ),
        }),
  };
}

/**
 * Looks at one host's TLS on a port. Never throws.
 * @param options.old whether TLS 1.0 and 1.1 are offered as well
 */
export async function probeTls(
  { dialer, store, fetchIssuer }: { dialer: Dialer; store: TrustStore; fetchIssuer: FetchIssuer },
  host: string,
  port: number,
  options: { old?: boolean } = {},
): Promise<TlsEvidence> {
  const evidence: TlsEvidence = { host, chain: [], trusted: false };
  const timeoutMs = Math.min(dialer.timeoutMs, 10_000);
  try {
    let stapled = false;
    const [judged, bare] = (await Promise.all(
      [store.context, store.bare].map(async (context) => {
        const { socket, address } = await dialer.connect(host, port);
        evidence.address = address;
        return handshake(socket, {
          host,
          context,
          timeoutMs,
          alpn: ['h2', 'http/1.1'],
          onStaple: () => {
            stapled = true;
          },
        });
      }),
    )) as [tls.TLSSocket, tls.TLSSocket];
    judged.on('error', () => {});
    bare.on('error', () => {});
    Object.assign(evidence, verdictOf(judged), { stapled });
    const chain = chainOf(bare);
    evidence.chain = chain.map(certificateFacts);
    judged.destroy();
    bare.destroy();
    if (
      !evidence.trusted &&
      chain.length &&
      /UNABLE_TO_(VERIFY_LEAF|GET_ISSUER)/.test(evidence.trustError ?? '')
    )
      evidence.completedChain = await completes(chain, store, fetchIssuer);
  } catch (error) {
    evidence.error = describe(error, true);
  }
  if (options.old) evidence.oldProtocols = await oldProtocols(dialer, host, port);
  return evidence;
}

/** Looks at one address of a host: the leaf it shows and the verdict. Never throws. */
export async function probeAddress(
  dialer: Dialer,
  store: TrustStore,
  host: string,
  address: string,
  port: number,
): Promise<NonNullable<AddressEvidence['tls']>> {
  try {
    const { socket } = await dialer.connect(host, port, address);
    const secure = await handshake(socket, {
      host,
      context: store.context,
      timeoutMs: Math.min(dialer.timeoutMs, 10_000),
      alpn: ['h2', 'http/1.1'],
    });
    secure.on('error', () => {});
    const { trusted, trustError } = verdictOf(secure);
    const raw = secure.getPeerCertificate()?.raw;
    const facts = raw ? certificateFacts(raw) : undefined;
    secure.destroy();
    return {
      trusted,
      ...(trustError ? { trustError } : {}),
      names: facts?.names ?? [],
      ...(facts ? { fingerprint256: facts.fingerprint256 } : {}),
    };
  } catch (error) {
    return { trusted: false, names: [], error: describe(error, true) };
  }
}
