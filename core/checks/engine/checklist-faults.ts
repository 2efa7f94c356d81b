/**
 * What a checklist's fields alone cannot say: checks that exist, parameters within their range, building
 * blocks that are whole.
 */
import { BARE, type Checklist } from '#core/facts/checklist';
import { checksOf } from './checklist';
import { checkById } from '#core/checks/catalogue/index';

/** @returns each with the path of its line, such as `items.3` */
export function checklistFaults(list: Checklist): { path: string; message: string }[] {
  const out: { path: string; message: string }[] = [];
  const ids = new Set<string>();
  (list.own ?? []).forEach((c, i) => {
    const fault = (message: string) => out.push({ path: `own.${i}`, message: `${c.title}: ${message}` });
    if (ids.has(c.id)) fault(`there are two checks with the id ${c.id}`);
    ids.add(c.id);
    if (!c.test) return;
    if (c.test.look !== 'text' && !c.test.at)
      fault(
        c.test.look === 'element'
          ? 'say the selector'
          : c.test.look === 'header'
            ? 'say the header'
            : c.test.look === 'record'
              ? 'say the record’s name'
              : 'say the path',
      );
    if ((c.test.look === 'text' || !BARE.has(c.test.is)) && !c.test.value) fault('say the value');
    if (c.test.look === 'status' && c.test.at && !c.test.at.startsWith('/')) fault('the path begins with /');
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
