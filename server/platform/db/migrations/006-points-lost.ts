/**
 * Weights are points that can be lost now. The agency's own checklists get a version in which each line that
 * carries the old weight of its severity carries the new one; a weight that somebody chose stays.
 */
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';

/** Weights by severity, as they were and as they are from this step on. */
const OLD: Record<string, number> = { blocker: 10, major: 5, minor: 2 };
const NEW: Record<string, number> = { blocker: 20, major: 5, minor: 1 };

interface Item {
  check: string;
  severity?: string;
  weight?: number;
}
interface List {
  version?: number;
  items: Item[];
  own?: { id: string; severity: string }[];
}
interface Newest {
  checklistId: number;
  version: number;
  data: string;
}

/** @returns the list with new weights; undefined where no line changes */
function withNewWeights(data: string): string | undefined {
  const list = JSON.parse(data) as List;
  const own = new Map((list.own ?? []).map((c) => [c.id, c.severity]));
  const severityOf = ({ check, severity }: Item): string =>
    severity ?? own.get(check) ?? checkById.get(check)?.severity ?? '';
  const items = list.items.map((item) => {
    const severity = severityOf(item);
    return item.weight !== undefined && item.weight === OLD[severity]
      ? { ...item, weight: NEW[severity] }
      : item;
  });
  const isChanged = items.some((item, i) => item.weight !== list.items[i]!.weight);
  return isChanged ? JSON.stringify({ ...list, version: (list.version ?? 1) + 1, items }) : undefined;
}

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const lists = await sequelize.query<Newest>(
    `SELECT v.checklist_id AS checklistId, v.version, v.data FROM checklist_version v
       JOIN checklist c ON c.id = v.checklist_id AND c.built_in = 0
      WHERE v.version = (SELECT MAX(n.version) FROM checklist_version n WHERE n.checklist_id = v.checklist_id)`,
    { type: QueryTypes.SELECT, transaction },
  );
  for (const { checklistId, version, data } of lists) {
    const next = withNewWeights(data);
    if (next === undefined) continue;
    await sequelize.query(
      `INSERT INTO checklist_version (checklist_id, version, data, created_at, saved_by)
       VALUES (:checklistId, :version, :next, NOW(3), 'Armband')`,
      { replacements: { checklistId, version: version + 1, next }, transaction },
    );
  }
}
