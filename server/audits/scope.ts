/** What an audit looks at, where it is not everything. */

import type { Check } from '#core/checks/kit/check';
import { partsFor, partsOf } from '#core/checks/engine/parts-of';
import { PART_WORDS, PARTS, type Part } from '#core/facts/parts';
import { quantity } from '#core/text/quantity';

/** Parts, what chosen checks rest on, or some pages: what of it is named is looked at again. */
export interface Scope {
  parts?: Part[];
  checks?: string[];
  pages?: string[];
}

/** The parts to collect. */
export function partsOfScope(
  { parts = [], checks = [] }: Scope,
  checkOf: (id: string) => Check | undefined,
): Part[] {
  const named = new Set([...parts, ...partsFor(checks.flatMap((id) => checkOf(id) ?? []))]);
  return PARTS.filter((part) => named.has(part));
}

/** Whether all that a check rests on is among these parts. */
export function isRenewed(check: Check | undefined, parts: readonly Part[]): boolean {
  return check !== undefined && partsOf(check).every((part) => parts.includes(part));
}

/** What was looked at again, in words. */
export function scopeText({ parts = [], pages = [] }: Scope): string {
  const named = parts.map((part) => PART_WORDS[part]);
  return [...named, ...(pages.length ? [quantity(pages.length, 'page')] : [])].join(', ');
}
