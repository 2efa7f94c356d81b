/** Records of a zone file (RFC 1035 section 5) for a brief; the way back is toZoneFile. */
import { RECORD_TYPES, type ExpectedRecord } from '#core/facts/brief';
import { joinedText } from '#core/facts/dns-text';
import type { ZoneFile } from '#core/formats/zone-file/read';

/** What a zone keeps for itself is nothing that a host asks for. */
const OWN = new Set(['SOA']);

/**
 * @returns records that a brief can expect, how many of other kinds were left out, and what could not be read
 */
export function recordsFromZone(zone: ZoneFile): {
  records: ExpectedRecord[];
  left: number;
  faults: string[];
} {
  const kept = zone.records.filter((r) => RECORD_TYPES.includes(r.type) && !OWN.has(r.type));
  return {
    records: kept.map((r) => ({
      name: r.name,
      type: r.type,
      value: r.type === 'TXT' ? joinedText(r.value) : r.value,
      ...(r.ttl === undefined ? {} : { ttl: r.ttl }),
    })),
    left: zone.records.length - kept.length,
    faults: zone.errors.map((e) => `line ${e.line}: ${e.message}`),
  };
}
