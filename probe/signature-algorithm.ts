/** The signature algorithm of a certificate, which Node's own X509Certificate does not tell. */

/** Names as RFC 5912 and RFC 8410 have them. */
const NAMES: Record<string, string> = {
  '1.2.840.113549.1.1.4': 'md5WithRSAEncryption',
  '1.2.840.113549.1.1.5': 'sha1WithRSAEncryption',
  '1.2.840.113549.1.1.10': 'rsassaPss',
  '1.2.840.113549.1.1.11': 'sha256WithRSAEncryption',
  '1.2.840.113549.1.1.12': 'sha384WithRSAEncryption',
  '1.2.840.113549.1.1.13': 'sha512WithRSAEncryption',
  '1.2.840.10045.4.1': 'ecdsa-with-SHA1',
  '1.2.840.10045.4.3.2': 'ecdsa-with-SHA256',
  '1.2.840.10045.4.3.3': 'ecdsa-with-SHA384',
  '1.2.840.10045.4.3.4': 'ecdsa-with-SHA512',
  '1.3.101.112': 'Ed25519',
  '1.3.101.113': 'Ed448',
};

/** Head of a DER element: where its content begins and ends. @throws RangeError when it does not fit */
function element(der: Uint8Array, at: number, tag: number): { start: number; end: number } {
  if (der[at] !== tag) throw new RangeError('another DER element than expected');
  let length = der[at + 1] ?? 0;
  let start = at + 2;
  if (length & 0x80) {
    const bytes = length & 0x7f;
    if (bytes > 4) throw new RangeError('a DER length that is too long');
    length = 0;
    for (let i = 0; i < bytes; i++) length = length * 256 + (der[start++] ?? 0);
  }
  if (start + length > der.length) throw new RangeError('a DER element that is cut short');
  return { start, end: start + length };
}

function objectIdentifier(bytes: Uint8Array): string {
  const arcs: number[] = [];
  let value = 0;
  for (const b of bytes) {
    value = value * 128 + (b & 0x7f);
    if (!(b & 0x80)) {
      arcs.push(value);
      value = 0;
    }
  }
  const first = Math.min(2, Math.floor((arcs[0] ?? 0) / 40));
  return [first, (arcs[0] ?? 0) - first * 40, ...arcs.slice(1)].join('.');
}

/**
 * Certificate ::= SEQUENCE { tbsCertificate SEQUENCE, signatureAlgorithm SEQUENCE { algorithm OID … } … }
 * (RFC 5280 4.1).
 * @returns "unknown" for what cannot be read
 */
export function signatureAlgorithm(der: Uint8Array): string {
  try {
    const body = element(der, element(der, 0, 0x30).start, 0x30);
    const oid = element(der, element(der, body.end, 0x30).start, 0x06);
    const id = objectIdentifier(der.subarray(oid.start, oid.end));
    return NAMES[id] ?? id;
  } catch {
    return 'unknown';
  }
}
