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

/** Words for what Node, OpenSSL and undici say. */
export function describe(error: unknown, secure = false): NetworkError {
  if (error instanceof ProbeError) return error.toJSON();
  const e = error as { code?: string; message?: string; cause?: unknown };
  const code = e.code ?? '';
  if (e.cause instanceof ProbeError) return e.cause.toJSON();
  if (code === 'ECONNREFUSED') return { code: 'refused', message: 'the connection was refused' };
  if (code === 'ECONNRESET' || code === 'UND_ERR_SOCKET' || code === 'EPIPE')
    return { code: 'reset', message: 'the connection was cut off' };
  if (/TIMEOUT|ETIMEDOUT/.test(code)) return { code: 'timeout', message: 'no answer in time' };
  if (code === 'EHOSTUNREACH' || code === 'ENETUNREACH' || code === 'EADDRNOTAVAIL')
    return { code: 'no-address', message: 'the network cannot be reached from here' };
  if (code === 'UND_ERR_HEADERS_OVERFLOW' || code === 'HPE_HEADER_OVERFLOW')
    return { code: 'too-large', message: 'the headers are larger than 64 KiB' };
  if (code === 'UND_ERR_ABORTED' || code === 'ABORT_ERR') return { code: 'stopped', message: 'stopped' };
  if (code.startsWith('HPE_') || code.startsWith('UND_ERR'))
    return { code: 'protocol', message: `the answer is not valid HTTP (${code})` };
  if (
    secure &&
    (code.startsWith('ERR_SSL') ||
      code.startsWith('ERR_TLS') ||
      code === 'EPROTO' ||
      /SSL|TLS/.test(e.message ?? ''))
  )
    return { code: 'tls', message: `the TLS handshake failed (${code || 'no reason given'})` };
  return { code: 'protocol', message: (e.message ?? String(error)).slice(0, 200) };
}
