/**
 * A checklist as the composer holds it: one row a check of the catalogue or of the agency's own, on or off,
 * in its order.
 */
import type { ParameterSpec } from '#core/checks/kit/check';
import { CATALOGUE } from '#core/checks/catalogue/index';
import type { Checklist, ChecklistItem, OwnCheck } from '#core/facts/checklist';
import { SECTIONS, SEVERITY_WEIGHT, type Section, type Severity } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';

export interface ChecklistDraftRow {
  id: string;
  section: Section;
  catalogueTitle: string;
  catalogueSeverity: Severity;
  why: string;
  source: string;
  byHand: boolean;
  situations: readonly Situation[];
  specs: Record<string, ParameterSpec>;
  on: boolean;
  severity: Severity;
  /** As typed; empty is the severity's own weight. */
  weight: string;
  /** As typed; empty is the default. */
  parameters: Record<string, string>;
  title: string;
  note: string;
  own?: OwnCheck;
}

type Known = Pick<
  ChecklistDraftRow,
  | 'id'
  | 'section'
  | 'catalogueTitle'
  | 'catalogueSeverity'
  | 'why'
  | 'source'
  | 'byHand'
  | 'situations'
  | 'specs'
>;
const fromCatalogue = (): Known[] =>
  CATALOGUE.map((c) => ({
    id: c.id,
    section: c.section,
    catalogueTitle: c.title,
    catalogueSeverity: c.severity,
    why: c.why,
    source: c.source,
    byHand: c.byHand ?? false,
    situations: c.situations,
    specs: c.parameters ?? {},
  }));
const fromOwn = (own: OwnCheck): Known => ({
  id: own.id,
  section: own.section,
  catalogueTitle: own.title,
  catalogueSeverity: own.severity,
  why: own.why ?? '',
  source: 'the agency’s own rule',
  byHand: !own.test,
  situations: own.situations,
  specs: {},
});

function rowOf(known: Known, item: ChecklistItem | undefined, own?: OwnCheck): ChecklistDraftRow {
  const severity = item?.severity ?? known.catalogueSeverity;
  return {
    ...known,
    on: item !== undefined && item.on !== false,
    severity,
    weight:
      item?.weight === undefined || item.weight === SEVERITY_WEIGHT[severity] ? '' : String(item.weight),
    parameters: Object.fromEntries(
      Object.entries(known.specs).map(([k, spec]) => {
        const v = item?.parameters?.[k];
        return [k, v === undefined || v === spec.default ? '' : String(v)];
      }),
    ),
    title: item?.title ?? '',
    note: item?.note ?? '',
    ...(own ? { own } : {}),
  };
}

/** Rows by section: the checklist's own order first, then what it does not mention, switched off. */
export function rowsOf(checklist: Checklist): ChecklistDraftRow[] {
  const own = new Map((checklist.own ?? []).map((o) => [o.id, o]));
  const known = new Map([...fromCatalogue(), ...[...own.values()].map(fromOwn)].map((k) => [k.id, k]));
  const mentioned = checklist.items.flatMap((item) => {
    const k = known.get(item.check);
    return k ? [rowOf(k, item, own.get(item.check))] : [];
  });
  const seen = new Set(mentioned.map((r) => r.id));
  const rest = [...known.values()]
    .filter((k) => !seen.has(k.id))
    .map((k) => rowOf(k, undefined, own.get(k.id)));
  return SECTIONS.flatMap((s) => [...mentioned, ...rest].filter((r) => r.section === s));
}

/** A new row for a check of the agency's own. */
export function ownRow(own: OwnCheck): ChecklistDraftRow {
  return rowOf(fromOwn(own), { check: own.id }, own);
}

function itemOf(r: ChecklistDraftRow): ChecklistItem {
  const parameters = Object.fromEntries(
    Object.entries(r.parameters)
      .filter(([, v]) => v.trim() !== '')
      .map(([k, v]) => [k, Number(v.replace(',', '.'))]),
  );
  return {
    check: r.id,
    ...(r.on ? {} : { on: false }),
    ...(r.own || r.severity !== r.catalogueSeverity ? { severity: r.severity } : {}),
    ...(r.weight.trim() ? { weight: Number(r.weight.replace(',', '.')) } : {}),
    ...(Object.keys(parameters).length ? { parameters } : {}),
    ...(r.title.trim() ? { title: r.title.trim() } : {}),
    ...(r.note.trim() ? { note: r.note.trim() } : {}),
  };
}

/** The checklist that the rows describe. */
export function checklistOf(
  rows: readonly ChecklistDraftRow[],
  about: { name: string; version: number; description: string },
): Checklist {
  const own = rows.flatMap((r) => (r.own ? [r.own] : []));
  return {
    name: about.name.trim(),
    version: about.version,
    ...(about.description.trim() ? { description: about.description.trim() } : {}),
    items: rows.map(itemOf),
    ...(own.length ? { own } : {}),
  };
}

/** The rows with one moved before another of its section; to the section's end without one. */
export function moveRow(
  rows: readonly ChecklistDraftRow[],
  id: string,
  before: string | undefined,
): ChecklistDraftRow[] {
  const row = rows.find((r) => r.id === id);
  const target = before === undefined ? undefined : rows.find((r) => r.id === before);
  if (!row || id === before || (target && target.section !== row.section)) return [...rows];
  const rest = rows.filter((r) => r !== row);
  const at = target ? rest.indexOf(target) : rest.findLastIndex((r) => r.section === row.section) + 1;
  return [...rest.slice(0, at), row, ...rest.slice(at)];
}

/** An id for an own check from its title, not yet taken. */
export function ownId(title: string, taken: ReadonlySet<string>): string {
  const base = `own.${
    title
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'check'
  }`;
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}

/** Whether a line asks for something else than the catalogue. */
export const isChanged = (r: ChecklistDraftRow): boolean =>
  Boolean(r.own) ||
  !r.on ||
  r.severity !== r.catalogueSeverity ||
  r.weight !== '' ||
  r.title !== '' ||
  r.note !== '' ||
  Object.values(r.parameters).some(Boolean);
