/** Records of a brief as a zone file and back (RFC 1035 section 5). */
import { RECORD_TYPES, type ExpectedRecord } from '#core/facts/brief';
import { toZoneFile, type ZoneFile } from './zone-file';

/** The strings of a TXT record joined, without quotes (RFC 7208 3.3 joins them so). */
const joined = (value: string): string => [...value.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map(m => m[1]!.replace(/\\(.)/g, '$1')).join('');

/** What a zone keeps for itself is nothing that a host asks for. */
const OWN = new Set(['SOA']);

/** @returns records that a brief can expect, how many of other kinds were left out, and what could not be read */
export function recordsFromZone(zone: ZoneFile): { records: ExpectedRecord[]; left: number; faults: string[] } {
  const kept = zone.records.filter(r => RECORD_TYPES.includes(r.type) && !OWN.has(r.type));
  return {
    records: kept.map(r => ({ name: r.name, type: r.type, value: r.type === 'TXT' ? joined(r.value) : r.value, ...(r.ttl === undefined ? {} : { ttl: r.ttl }) })),
    left: zone.records.length - kept.length, faults: zone.errors.map(e => `line ${e.line}: ${e.message}`),
  };
}

export function zoneFromRecords(records: readonly ExpectedRecord[]): string { return toZoneFile(records); }
