/** A form's draft read as data and checked by its class, the faults sorted to the fields they belong to. */
import { dataFrom, type Draft, type FieldGroup } from './field-text';
import { readAs } from './validation';

export interface CheckedDraft {
  data: Record<string, unknown>;
  /** Sentences by field. */
  faults: Record<string, string[]>;
  /** Sentences that belong to no field of the form. */
  others: string[];
}

/** "records.2.value must …" is about the third line of the field. */
function sentence(path: string, field: string, message: string): string {
  const rest = message.startsWith(path) ? message.slice(path.length).replace(/^[: ]+/, '') : message;
  const line = /^(\d+)/.exec(path.slice(field.length + 1));
  return line ? `Line ${Number(line[1]) + 1}: ${rest}` : rest;
}

/** @param extra what the data holds beside the form's fields */
export async function checkDraft(
  groups: readonly FieldGroup[],
  shape: new () => object,
  draft: Draft,
  extra: Record<string, unknown> = {},
): Promise<CheckedDraft> {
  const read = dataFrom(groups, draft);
  const data = { ...read.data, ...extra };
  const out: CheckedDraft = { data, faults: {}, others: [] };
  const fields = groups.flatMap((g) => g.fields);
  for (const f of read.faults) (out.faults[f.path] ??= []).push(f.message.slice(f.message.indexOf(': ') + 2));
  for (const { path, message } of (await readAs(shape, data)).faults) {
    const field = fields.find((f) => path === f.field || path.startsWith(`${f.field}.`))?.field;
    if (field) (out.faults[field] ??= []).push(sentence(path, field, message));
    else out.others.push(message);
  }
  return out;
}

/** Data for a save that may also empty fields: those of the form that are blank become null. */
export function withBlanks(
  groups: readonly FieldGroup[],
  data: Record<string, unknown>,
): Record<string, unknown> {
  return {
    ...Object.fromEntries(groups.flatMap((g) => g.fields).map((f) => [f.field.split('.')[0]!, null])),
    ...data,
  };
}
