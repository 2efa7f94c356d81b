import type { NetworkError, NetworkErrorCode } from '#core/facts/evidence';

/** A failure on the network with a sentence for the screen. */
export class ProbeError extends Error implements NetworkError {
  constructor(
    readonly code: NetworkErrorCode,
    message: string,
  ) {
    super(message);
  }
  toJSON(): NetworkError {
    return { code: this.code, message: this.message };
  }
}

/** What the codes of Node and undici mean; the first that fits counts. */
const MEANINGS: [codes: RegExp, meaning: NetworkError][] = [
  [/^ECONNREFUSED$/, { code: 'refused', message: 'the connection was refused' }],
  [/^(?:ECONNRESET|UND_ERR_SOCKET|EPIPE)$/, { code: 'reset', message: 'the connection was cut off' }],
  [/TIMEOUT|ETIMEDOUT/, { code: 'timeout', message: 'no answer in time' }],
  [
    /^(?:EHOSTUNREACH|ENETUNREACH|EADDRNOTAVAIL)$/,
    { code: 'no-address', message: 'the network cannot be reached from here' },
  ],
  [
    /^(?:UND_ERR_HEADERS_OVERFLOW|HPE_HEADER_OVERFLOW)$/,
    { code: 'too-large', message: 'the headers are larger than 64 KiB' },
  ],
  [/^(?:UND_ERR_ABORTED|ABORT_ERR)$/, { code: 'stopped', message: 'stopped' }],
];

const isTlsFault = (code: string, message: string): boolean =>
  /^(?:ERR_SSL|ERR_TLS|EPROTO$)/.test(code) || /SSL|TLS/.test(message);

/** Words for what Node, OpenSSL and undici say. */
export function describe(error: unknown, secure = false): NetworkError {
  if (error instanceof ProbeError) return error.toJSON();
  const { code = '', message = '', cause } = error as { code?: string; message?: string; cause?: unknown };
  if (cause instanceof ProbeError) return cause.toJSON();
  const known = MEANINGS.find(([codes]) => codes.test(code));
  if (known) return { ...known[1] };
  if (/^(?:HPE_|UND_ERR)/.test(code))
    return { code: 'protocol', message: `the answer is not valid HTTP (${code})` };
  if (secure && isTlsFault(code, message))
    return { code: 'tls', message: `the TLS handshake failed (${code || 'no reason given'})` };
  return { code: 'protocol', message: (message || String(error)).slice(0, 200) };
}
