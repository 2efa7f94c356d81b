/** Records of a zone file, in the master format of RFC 1035 section 5. */

export interface ZoneFileRecord {
  name: string;
  type: string;
  ttl?: number;
  value: string;
}

/** Which words of a type's data are names. */
export const NAME_WORDS: Record<string, number[]> = {
  CNAME: [0],
  NS: [0],
  PTR: [0],
  DNAME: [0],
  MX: [1],
  SRV: [3],
  SOA: [0, 1],
  HTTPS: [1],
  SVCB: [1],
};
