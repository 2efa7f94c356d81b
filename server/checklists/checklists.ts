/** Checklists with their versions, and which one a site is judged by. */
import { Op, type Transaction } from 'sequelize';
import { builtInChecklists } from '#core/checks/engine/built-in';
import type { Checklist } from '#core/facts/checklist';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { Conflict, NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { defineQuestion } from '#server/platform/extension-points';
import { refuseOverwriting } from '#server/platform/overwriting';
import { SITES_NAMED } from '#server/platform/windows';
import { allSites, sitesByIds, type Site } from '#server/sites';
import { ALL_OTHERS, Assigned, assignmentsOf, type Assignment } from './assignments';
import { AssignmentRow, ChecklistRow, ChecklistVersion, type AssignmentKind } from './models';

/** One start of the server knows one catalogue. */
let builtIn: Promise<void> | undefined;

/** A built-in checklist as the catalogue has it now. */
function keepBuiltInList(wanted: Checklist): Promise<void> {
  const { name } = wanted;
  return inTransaction(async (transaction) => {
    const [row] = await ChecklistRow.findOrCreate({
      where: { name },
      defaults: { name, builtIn: true },
      transaction,
    });
    if (!row.builtIn) return;
    const newest = await ChecklistVersion.findOne({
      where: { checklistId: row.id },
      order: [['version', 'DESC']],
      transaction,
    });
    const stored = newest?.data as Checklist | undefined;
    if (stored && JSON.stringify(stored.items) === JSON.stringify(wanted.items)) return;
    await keepVersion(row.id, wanted, undefined, transaction);
  });
}

async function keepBuiltIn(): Promise<void> {
  for (const wanted of builtInChecklists()) await keepBuiltInList(wanted);
}

/** Brings the built-in checklists up to the catalogue; what changed becomes a new version. */
export function ensureBuiltIn(): Promise<void> {
  builtIn ??= keepBuiltIn();
  builtIn.catch(() => {
    builtIn = undefined;
  });
  return builtIn;
}

async function newestOf(checklistId: number): Promise<{ id: number; checklist: Checklist }> {
  const row = await ChecklistVersion.findOne({
    where: { checklistId },
    order: [['version', 'DESC']],
    rejectOnEmpty: true,
  });
  return { id: row.id, checklist: row.data as Checklist };
}

/** A checklist as it is now. */
export const checklistById = async (id: number): Promise<Checklist> => (await newestOf(id)).checklist;

/** The checklist a site is judged by. */
export async function checklistFor(site: Site): Promise<{ id: number; checklist: Checklist }> {
  await ensureBuiltIn();
  return newestOf((await Assigned.read()).checklistOf(site));
}

/** A stored version. */
export async function checklistVersion(id: number): Promise<Checklist> {
  return (await ChecklistVersion.findByPk(id, { rejectOnEmpty: true })).data as Checklist;
}

/** @param transaction holds the row until it ends */
async function find(id: number, transaction?: Transaction): Promise<ChecklistRow> {
  const row = await ChecklistRow.findByPk(id, transaction ? { transaction, lock: true } : {});
  if (!row) throw new NotFound('This checklist does not exist, or not any more.');
  return row;
}

/** The default that nobody has assigned. */
const isImplied = (own: readonly Assignment[], isDefault: boolean): boolean =>
  isDefault && !own.some((a) => a.kind === 'default');

export async function listChecklists() {
  await ensureBuiltIn();
  const rows = await ChecklistRow.findAll({
    order: [
      ['builtIn', 'DESC'],
      ['id', 'ASC'],
    ],
  });
  const [assigned, all] = await Promise.all([assignmentsOf(rows.map((r) => r.id)), Assigned.read()]);
  return Promise.all(
    rows.map(async (r) => {
      const versions = await ChecklistVersion.findAll({
        where: { checklistId: r.id },
        order: [['version', 'DESC']],
        limit: 1,
      });
      const data = versions[0]!.data as Checklist;
      const on = data.items.filter((i) => i.on !== false);
      return {
        id: r.id,
        name: r.name,
        builtIn: r.builtIn,
        version: versions[0]!.version,
        savedBy: versions[0]!.savedBy,
        savedAt: versions[0]!.createdAt.toISOString(),
        description: data.description ?? '',
        checks: on.length,
        own: (data.own ?? []).length,
        assignments: isImplied(assigned.get(r.id) ?? [], all.isDefault(r.id))
          ? [...(assigned.get(r.id) ?? []), { kind: 'default' as const, target: '', title: ALL_OTHERS }]
          : (assigned.get(r.id) ?? []),
      };
    }),
  );
}

/** One checklist as it is now. @throws NotFound */
export async function checklistDetail(id: number) {
  const row = await find(id);
  const newest = await ChecklistVersion.findOne({
    where: { checklistId: id },
    order: [['version', 'DESC']],
    rejectOnEmpty: true,
  });
  const siteIds = await sitesJudgedBy(id);
  const some = await sitesByIds(siteIds.slice(0, SITES_NAMED));
  return {
    id: row.id,
    name: row.name,
    builtIn: row.builtIn,
    version: newest.version,
    checklist: newest.data as Checklist,
    sites: { count: siteIds.length, some: some.map((s) => ({ id: s.id, name: s.name })) },
    assignments: (await assignmentsOf([id])).get(id) ?? [],
  };
}

/** The sites that a checklist is for now, by name. */
export async function sitesJudgedBy(id: number): Promise<number[]> {
  const [sites, assigned] = await Promise.all([allSites(), Assigned.read()]);
  return sites.filter((s) => assigned.checklistOf(s) === id).map((s) => s.id);
}

/** Why versions of a checklist are kept, where others know of one. */
export const reasonsToKeepChecklist = defineQuestion<
  [versionIds: number[], transaction: Transaction],
  string
>();

const VERSIONS = 50;

/** One window of a checklist's versions, newest first, without what they ask. */
export async function checklistVersions(checklistId: number, after?: number) {
  const found = await ChecklistVersion.findAll({
    where: { checklistId, ...(after === undefined ? {} : { version: { [Op.lt]: after } }) },
    order: [['version', 'DESC']],
    limit: VERSIONS + 1,
  });
  const rows = found.slice(0, VERSIONS).map((v) => ({
    version: v.version,
    savedBy: v.savedBy ?? null,
    savedAt: v.createdAt.toISOString(),
    checks: (v.data as Checklist).items.filter((i) => i.on !== false).length,
  }));
  return { rows, next: found.length > VERSIONS ? rows.at(-1)!.version : null };
}

/** What one version asks. @throws NotFound */
export async function checklistAsOf(checklistId: number, version: number): Promise<Checklist> {
  const row = await ChecklistVersion.findOne({ where: { checklistId, version } });
  if (!row) throw new NotFound(`There is no version ${version} of this checklist.`);
  return row.data as Checklist;
}

async function refuseTaken(name: string, transaction: Transaction): Promise<void> {
  if (await ChecklistRow.count({ where: { name }, transaction }))
    throw new Conflict(`There is a checklist named ${name} already.`);
}

/** A new checklist. @throws Conflict when there is one of that name */
export function createChecklist(checklist: Checklist, by: string): Promise<number> {
  const name = checklist.name.trim();
  return inTransaction(async (transaction) => {
    await refuseTaken(name, transaction);
    const row = await ChecklistRow.create({ name, builtIn: false }, { transaction });
    await keepVersion(row.id, { ...checklist, name }, by, transaction);
    announce('ChecklistsChanged', {}, { transaction });
    return row.id;
  });
}

/** Keeps a checklist as the next version. */
async function keepVersion(
  checklistId: number,
  checklist: Checklist,
  savedBy: string | undefined,
  transaction: Transaction,
): Promise<ChecklistVersion> {
  const newest = await ChecklistVersion.max<number | null, ChecklistVersion>('version', {
    where: { checklistId },
    transaction,
  });
  const version = (newest ?? 0) + 1;
  return ChecklistVersion.create(
    {
      checklistId,
      version,
      data: { ...checklist, version },
      createdAt: now(),
      ...(savedBy === undefined ? {} : { savedBy }),
    },
    { transaction },
  );
}

/**
 * Saves the next version.
 * @param from the version that the change was made on
 * @throws NotFound; Conflict for a built-in one, a name that is taken, and where somebody saved since
 */
export function saveChecklist(
  id: number,
  checklist: Checklist,
  by: string,
  from: number,
): Promise<{ versionId: number; version: number }> {
  const name = checklist.name.trim();
  return inTransaction(async (transaction) => {
    const row = await find(id, transaction);
    if (row.builtIn)
      throw new Conflict(`${row.name} comes with Armband and stays as it is. Make a copy and change that.`);
    if (name !== row.name) await refuseTaken(name, transaction);
    const newest = await ChecklistVersion.findOne({
      where: { checklistId: id },
      order: [['version', 'DESC']],
      transaction,
      rejectOnEmpty: true,
    });
    refuseOverwriting(from, newest, { ...checklist, name });
    const { id: versionId, version } = await keepVersion(id, { ...checklist, name }, by, transaction);
    await row.update({ name }, { transaction });
    announce('ChecklistsChanged', {}, { transaction });
    return { versionId, version };
  });
}

/** Takes a checklist away; audits keep the version they used. @throws NotFound, Conflict */
export function deleteChecklist(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const row = await find(id, transaction);
    if (row.builtIn) throw new Conflict(`${row.name} comes with Armband and stays.`);
    const versions = await ChecklistVersion.findAll({
      where: { checklistId: id },
      attributes: ['id'],
      transaction,
    });
    const [why] = await reasonsToKeepChecklist.ask(
      versions.map((v) => v.id),
      transaction,
    );
    if (why) throw new Conflict(why);
    await row.destroy({ transaction });
    announce('ChecklistsChanged', {}, { transaction });
  });
}

/** Sets what a checklist is for; what another one had of it moves over. @throws NotFound */
export function assignChecklist(
  id: number,
  wanted: { kind: AssignmentKind; target: string }[],
): Promise<void> {
  return inTransaction(async (transaction) => {
    await find(id, transaction);
    await AssignmentRow.destroy({ where: { checklistId: id }, transaction });
    for (const { kind, target } of wanted) {
      await AssignmentRow.destroy({ where: { kind, target }, transaction });
      await AssignmentRow.create({ checklistId: id, kind, target }, { transaction });
    }
    announce('ChecklistsChanged', {}, { transaction });
  });
}

/** Versions by their numbers. */
export const checklistVersionsById = (ids: readonly number[]): Promise<ChecklistVersion[]> =>
  ChecklistVersion.findAll({ where: { id: [...ids] } });

export const allChecklists = (): Promise<ChecklistRow[]> =>
  ChecklistRow.findAll({ attributes: ['id', 'name'] });

export const checklistNamed = (name: string): Promise<ChecklistRow | null> =>
  ChecklistRow.findOne({ where: { name } });
