/** Records ready to paste: what to set, and before it what is to go. */
import type { DnsRecord } from '#core/facts/evidence';
import { hourLine } from '#core/formats/zone-file/write';

type Line = Pick<DnsRecord, 'name' | 'type' | 'value'>;

/** Lines each once; nothing where there are none. */
function block(label: string, lines: readonly Line[]): { label: string; text: string }[] {
  const text = [...new Set(lines.map(hourLine))].join('\n');
  return text ? [{ label, text }] : [];
}

/** @param gone records of today that contradict the new ones, or stand beside them where one may */
export function recordRecipe(gone: readonly Line[], set: readonly Line[]): { label: string; text: string }[] {
  return [...block('Take away first', gone), ...block('Zone file', set)];
}
