/**
 * The server name that a TLS client asks for, out of the first bytes of its hello (RFC 8446 4.1.2, RFC 6066
 * 3).
 */
export function serverNameIn(hello: Buffer): string | undefined {
  try {
    if (hello[0] !== 22 || hello[5] !== 1) return undefined;
    let at = 43;
    at += 1 + hello[at]!;
    at += 2 + hello.readUInt16BE(at);
    at += 1 + hello[at]!;
    const end = at + 2 + hello.readUInt16BE(at);
    at += 2;
    while (at + 4 <= end) {
      const type = hello.readUInt16BE(at),
        size = hello.readUInt16BE(at + 2);
      if (type === 0)
        return hello.toString('latin1', at + 9, at + 9 + hello.readUInt16BE(at + 7)).toLowerCase();
      at += 4 + size;
    }
  } catch {
    /* a hello in pieces, or none at all */
  }
  return undefined;
}
