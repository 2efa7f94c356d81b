/** Ranges of addresses in CIDR form (RFC 4632 3.1; RFC 4291 2.3). */
import ipaddr from 'ipaddr.js';

/** Whether a text is a range, such as 192.0.2.0/24 or 2001:db8::/32. */
export function isRange(text: string): boolean {
  return ipaddr.IPv4.isValidCIDRFourPartDecimal(text) || ipaddr.IPv6.isValidCIDR(text);
}

/** The first range that an address lies in; undefined for what is no address. */
export function rangeOf(address: string, ranges: readonly string[] | undefined): string | undefined {
  if (!ranges?.length || !ipaddr.isValid(address)) return undefined;
  const parsed = ipaddr.parse(address);
  return ranges.find((range) => {
    if (!isRange(range)) return false;
    const [base, bits] = ipaddr.parseCIDR(range);
    return base.kind() === parsed.kind() && parsed.match(base, bits);
  });
}
