/**
 * The practice net's own certificate authority: a root, an intermediate, and leaves issued when first asked
 * for.
 */
import { createHash, webcrypto } from 'node:crypto';
import 'reflect-metadata';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto as unknown as Crypto);
const ALG = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
const DAY = 86_400_000;

export type LeafKind = 'good' | 'weak-key' | 'expired' | 'wrong-name' | 'soon' | 'self-signed' | 'no-chain';
export interface Leaf {
  key: string;
  chain: string;
}

const keyPair = () =>
  webcrypto.subtle.generateKey(ALG, true, ['sign', 'verify']) as Promise<webcrypto.CryptoKeyPair>;
const pem = async (key: webcrypto.CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
let serial = 0x1000;
const nextSerial = () => (serial++).toString(16).padStart(8, '0');

export class Authority {
  private readonly leaves = new Map<string, Promise<Leaf>>();
  private constructor(
    private readonly root: x509.X509Certificate,
    private readonly intermediate: x509.X509Certificate,
    private readonly keys: { root: webcrypto.CryptoKeyPair; intermediate: webcrypto.CryptoKeyPair },
    private readonly issuerUrl: string,
  ) {}

  /** @param issuerUrl where the intermediate can be fetched from, named in each leaf */
  static async create(issuerUrl: string): Promise<Authority> {
    const [root, intermediate] = await Promise.all([keyPair(), keyPair()]);
    const from = new Date(Date.now() - 30 * DAY),
      to = new Date(Date.now() + 3650 * DAY);
    const usages = new x509.KeyUsagesExtension(
      x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign,
      true,
    );
    const rootCert = await x509.X509CertificateGenerator.createSelfSigned({
      serialNumber: nextSerial(),
      name: 'CN=Sallow Firth Practice Root',
      notBefore: from,
      notAfter: to,
      signingAlgorithm: ALG,
      keys: root as never,
      extensions: [new x509.BasicConstraintsExtension(true, 1, true), usages],
    });
    const interCert = await x509.X509CertificateGenerator.create({
      serialNumber: nextSerial(),
      subject: 'CN=Sallow Firth Practice Issuer',
      issuer: rootCert.subject,
      notBefore: from,
      notAfter: to,
      signingAlgorithm: ALG,
      publicKey: intermediate.publicKey as never,
      signingKey: root.privateKey as never,
      extensions: [new x509.BasicConstraintsExtension(true, 0, true), usages],
    });
    return new Authority(rootCert, interCert, { root, intermediate }, issuerUrl);
  }

  get rootPem(): string {
    return this.root.toString('pem');
  }
  /** Digest of the key that signs every leaf, as browsers take it: SHA-256 of its DER, as base64. */
  get keyDigest(): string {
    return createHash('sha256').update(Buffer.from(this.intermediate.publicKey.rawData)).digest('base64');
  }
  get intermediateDer(): Buffer {
    return Buffer.from(this.intermediate.rawData);
  }

  /** Key and chain for a set of names. The same question gets the same certificate. */
  leaf(names: string[], kind: LeafKind): Promise<Leaf> {
    const id = `${kind} ${names.join(' ')}`;
    let made = this.leaves.get(id);
    if (!made) this.leaves.set(id, (made = this.issue(names, kind)));
    return made;
  }

  private async issue(names: string[], kind: LeafKind): Promise<Leaf> {
    const keys =
      kind === 'weak-key'
        ? ((await webcrypto.subtle.generateKey(
            {
              name: 'RSASSA-PKCS1-v1_5',
              modulusLength: 1024,
              publicExponent: new Uint8Array([1, 0, 1]),
              hash: 'SHA-256',
            },
            true,
            ['sign', 'verify'],
          )) as webcrypto.CryptoKeyPair)
        : await keyPair();
    const dates: Record<LeafKind, [number, number]> = {
      good: [-20, 70],
      'weak-key': [-20, 70],
      'wrong-name': [-20, 70],
      'no-chain': [-20, 70],
      'self-signed': [-20, 70],
      soon: [-84, 6],
      expired: [-93, -3],
    };
    const [from, to] = dates[kind].map((d) => new Date(Date.now() + d * DAY)) as [Date, Date];
    const shown = kind === 'wrong-name' ? ['default.fennel-hosting.example'] : names;
    const san = new x509.SubjectAlternativeNameExtension(
      shown.map((value) => ({ type: 'dns' as const, value })),
    );
    const subject = `CN=${shown[0]}`;
    if (kind === 'self-signed') {
      const own = await x509.X509CertificateGenerator.createSelfSigned({
        serialNumber: nextSerial(),
        name: subject,
        notBefore: from,
        notAfter: to,
        signingAlgorithm: ALG,
        keys: keys as never,
        extensions: [san],
      });
      return { key: await pem(keys.privateKey), chain: own.toString('pem') };
    }
    const cert = await x509.X509CertificateGenerator.create({
      serialNumber: nextSerial(),
      subject,
      issuer: this.intermediate.subject,
      notBefore: from,
      notAfter: to,
      signingAlgorithm: ALG,
      publicKey: keys.publicKey as never,
      signingKey: this.keys.intermediate.privateKey as never,
      extensions: [
        san,
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.AuthorityInfoAccessExtension({ caIssuers: this.issuerUrl }),
      ],
    });
    return {
      key: await pem(keys.privateKey),
      chain:
        kind === 'no-chain'
          ? cert.toString('pem')
          : `${cert.toString('pem')}\n${this.intermediate.toString('pem')}`,
    };
  }
}
