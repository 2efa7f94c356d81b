/**
 * What a checklist's fields alone cannot say: checks that exist, parameters within their range, building
 * blocks that are whole.
 */
import { BARE, type Checklist, type Look, type OwnTest } from '#core/facts/checklist';
import { selectorFault } from '#core/extract/selected';
import { checksOf } from './checklist';
import { checkById } from '#core/checks/catalogue/index';

/** What a building block lacks, by what it looks at. */
const SAY: Partial<Record<Look, string>> = {
  element: 'say the selector',
  header: 'say the header',
  record: 'say the record’s name',
  status: 'say the path',
};

/** What is wrong with a building block; also said beside the field while it is typed. */
function testFaults({ look, at, is, value }: OwnTest): string[] {
  const out: string[] = [];
  if (look !== 'text' && !at) out.push(SAY[look]!);
  const wrong = look === 'element' && at ? selectorFault(at) : undefined;
  if (wrong) out.push(`“${at}” is no CSS selector: ${wrong}`);
  if ((look === 'text' || !BARE.has(is)) && !value) out.push('say the value');
  if (look === 'status' && at && !at.startsWith('/')) out.push('the path begins with /');
  return out;
}

/** @returns each with the path of its line, such as `items.3` */
export function checklistFaults(list: Checklist): { path: string; message: string }[] {
  const out: { path: string; message: string }[] = [];
  const ids = new Set<string>();
  (list.own ?? []).forEach((c, i) => {
    const fault = (message: string) => out.push({ path: `own.${i}`, message: `${c.title}: ${message}` });
    if (ids.has(c.id)) fault(`there are two checks with the id ${c.id}`);
    ids.add(c.id);
    if (!c.test) return;
    for (const message of testFaults(c.test)) fault(message);
  });
  const checkOf = checksOf(list);
  const seen = new Set<string>();
  list.items.forEach((item, i) => {
    const check = checkOf(item.check);
    const fault = (message: string) => out.push({ path: `items.${i}`, message: `${item.check}: ${message}` });
    if (!check) {
      fault('there is no such check');
      return;
    }
    if (seen.has(item.check)) fault('stands in the list twice');
    seen.add(item.check);
    for (const [name, value] of Object.entries(item.parameters ?? {})) {
      const spec = checkById.get(item.check)?.parameters?.[name];
      if (!spec) fault(`has no parameter ${name}`);
      else if (typeof value !== 'number' || !(value >= spec.min && value <= spec.max))
        fault(`${spec.meaning} must lie between ${spec.min} and ${spec.max} ${spec.unit}`);
    }
  });
  return out;
}
