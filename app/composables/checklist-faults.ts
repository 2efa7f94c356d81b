/** Faults of a checklist, each with the line of the composer that it belongs to. */
import type { Fault } from '#core/entry/validation';
import type { Checklist } from '#core/facts/checklist';
import { quantity } from '#core/text/quantity';

export interface ChecklistFaults {
  /** Sentences by the id of the check whose line they are about. */
  byRow: Record<string, string[]>;
  /** What is to be said above the lines; empty where nothing is wrong. */
  sentence: string;
}

/** The check that a fault's path names. */
function checkAt(path: string, { items, own = [] }: Checklist): string | undefined {
  const [, kind, index] = /^(items|own)\.(\d+)/.exec(path) ?? [];
  if (kind === 'items') return items[Number(index)]?.check;
  return kind === 'own' ? own[Number(index)]?.id : undefined;
}

export function sortFaults(faults: readonly Fault[], list: Checklist): ChecklistFaults {
  const byRow: Record<string, string[]> = {};
  const rest: string[] = [];
  for (const { path, message } of faults) {
    const check = checkAt(path, list);
    if (check === undefined) {
      rest.push(message);
      continue;
    }
    const words = message.replace(/^(?:items|own)\.\d+\.(?:test\.)?/, '').replace(`${check}: `, '');
    (byRow[check] ??= []).push(words);
  }
  const count = `${quantity(faults.length, 'line needs', 'lines need')} a look.`;
  return { byRow, sentence: faults.length ? [...rest, count].join(' ') : '' };
}
