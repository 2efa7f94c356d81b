/** What a checklist asks: its lines, their checks and their parameters. */
import type { Checklist, ChecklistItem } from '#core/facts/checklist';
import { SEVERITY_WEIGHT } from '#core/facts/finding';
import type { HostProfile } from '#core/facts/host-profile';
import { CATALOGUE, checkById } from '#core/checks/catalogue/index';
import type { Check } from '#core/checks/kit/check';
import { ownCheck } from './own-check';

/** The checklist with every check of the catalogue at its own severity and parameters. */
export function fullChecklist(): Checklist {
  return {
    name: 'Full',
    version: 1,
    items: CATALOGUE.map((c) => ({
      check: c.id,
      on: true,
      severity: c.severity,
      weight: SEVERITY_WEIGHT[c.severity],
      parameters: Object.fromEntries(
        Object.entries(c.parameters ?? {}).map(([name, spec]) => [name, spec.default]),
      ),
    })),
  };
}

const NO_PARAMETERS: Record<string, number> = Object.freeze({});

/** A line's parameters over the check's defaults, held within their range. */
export function parametersOf(check: Check, item: ChecklistItem): Record<string, number> {
  if (!check.parameters) return NO_PARAMETERS;
  const out: Record<string, number> = {};
  for (const [name, spec] of Object.entries(check.parameters)) {
    const given = Number(item.parameters?.[name] ?? spec.default);
    out[name] = Number.isFinite(given) ? Math.min(spec.max, Math.max(spec.min, given)) : spec.default;
  }
  return out;
}

/** The checks of a checklist by their ids: the catalogue's and the agency's own. */
export function checksOf(checklist: Pick<Checklist, 'own'>): (id: string) => Check | undefined {
  if (!checklist.own?.length) return (id) => checkById.get(id);
  const own = new Map(checklist.own.map((c) => [c.id, ownCheck(c)]));
  return (id) => checkById.get(id) ?? own.get(id);
}

/** The checklist's lines, and those that the host calls for beside them. */
export function linesOf(checklist: Checklist, profile: HostProfile): ChecklistItem[] {
  const isOn = (id: string): boolean => checklist.items.some((i) => i.check === id && i.on !== false);
  const called = (profile.handChecks ?? []).filter((id) => !isOn(id) && checkById.get(id)?.byHand);
  if (!called.length) return checklist.items;
  return [...checklist.items.filter((i) => !called.includes(i.check)), ...called.map((check) => ({ check }))];
}
