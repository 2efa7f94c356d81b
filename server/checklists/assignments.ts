/** Which checklist a site is judged by: its own, else its client's, its host's, the agency's default. */
import type { Transaction } from 'sequelize';
import { profilesByIds } from '#server/hosts';
import { clientsByIds, sitesByIds, type Site } from '#server/sites';
import { ChecklistRow, AssignmentRow, type AssignmentKind } from './models';

/** The list that counts where nothing is assigned. */
const DEFAULT = 'Full';

/** What decides a site's checklist. */
export type Assignable = Pick<Site, 'id' | 'clientId' | 'hostProfileId'>;

const keyOf = (kind: AssignmentKind, target: string): string => `${kind} ${target}`;

/** What a site's checklist may be assigned to, what counts most first. */
function keysFor({ id, clientId, hostProfileId }: Assignable): string[] {
  return [
    keyOf('site', String(id)),
    keyOf('client', String(clientId)),
    ...(hostProfileId ? [keyOf('host', String(hostProfileId))] : []),
    keyOf('default', ''),
  ];
}

/** All assignments, ready to be asked for many sites. */
export class Assigned {
  private constructor(
    private readonly lists: ReadonlyMap<string, number>,
    private readonly fallback: number,
  ) {}

  static async read(): Promise<Assigned> {
    const [rows, full] = await Promise.all([
      AssignmentRow.findAll(),
      ChecklistRow.findOne({ where: { name: DEFAULT }, rejectOnEmpty: true }),
    ]);
    return new Assigned(new Map(rows.map((r) => [keyOf(r.kind, r.target), r.checklistId])), full.id);
  }

  /** The number of the checklist that a site is judged by. */
  checklistOf(site: Assignable): number {
    for (const key of keysFor(site)) {
      const id = this.lists.get(key);
      if (id !== undefined) return id;
    }
    return this.fallback;
  }

  /** Whether a checklist counts where nothing else is assigned. */
  isDefault(id: number): boolean {
    return (this.lists.get(keyOf('default', '')) ?? this.fallback) === id;
  }
}

export interface Assignment {
  kind: AssignmentKind;
  target: string;
  title: string;
}

/** What each checklist is assigned to, in words. */
export async function assignmentsOf(checklistIds: number[]): Promise<Map<number, Assignment[]>> {
  const rows = await AssignmentRow.findAll({
    where: { checklistId: checklistIds },
    order: [
      ['kind', 'ASC'],
      ['target', 'ASC'],
    ],
  });
  const ids = (kind: AssignmentKind) => rows.filter((r) => r.kind === kind).map((r) => Number(r.target));
  const [sites, clients, hosts] = await Promise.all([
    sitesByIds(ids('site')),
    clientsByIds(ids('client')),
    profilesByIds(ids('host')),
  ]);
  const titles = new Map<string, string>([
    ...sites.map((s): [string, string] => [keyOf('site', String(s.id)), s.name]),
    ...clients.map((c): [string, string] => [keyOf('client', String(c.id)), c.name]),
    ...hosts.map((h): [string, string] => [keyOf('host', String(h.id)), h.name]),
    [keyOf('default', ''), ALL_OTHERS],
  ]);
  const out = new Map<number, Assignment[]>();
  for (const { checklistId, kind, target } of rows) {
    const list = out.get(checklistId) ?? [];
    list.push({ kind, target, title: titles.get(keyOf(kind, target)) ?? 'gone' });
    out.set(checklistId, list);
  }
  return out;
}

/** What the default is for. */
export const ALL_OTHERS = 'all other sites';

/** What is assigned to a site, client or host profile ends with it, or goes over to another. */
export async function endAssignments(
  kind: Exclude<AssignmentKind, 'default'>,
  id: number,
  transaction: Transaction,
  into?: number,
): Promise<void> {
  const own = { where: { kind, target: String(id) }, transaction };
  const hasOwn =
    into !== undefined &&
    (await AssignmentRow.count({ where: { kind, target: String(into) }, transaction })) > 0;
  if (into === undefined || hasOwn) await AssignmentRow.destroy(own);
  else await AssignmentRow.update({ target: String(into) }, own);
}
