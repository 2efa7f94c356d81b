/** Checklists with their versions, and which one a site is judged by. */
import { Op } from 'sequelize';
import { builtInChecklists } from '#core/checks/engine/built-in';
import type { Checklist } from '#core/facts/checklist';
import {
  AssignmentRow,
  Audit,
  ChecklistRow,
  ChecklistVersion,
  Client,
  Site,
  type AssignmentKind,
} from '../platform/db/models';
import { refuse } from '../platform/http/failure';

const DEFAULT = 'Full';
/** One start of the server knows one catalogue. */
let builtIn: Promise<void> | undefined;

async function keepBuiltIn(): Promise<void> {
  for (const wanted of builtInChecklists()) {
    const [row] = await ChecklistRow.findOrCreate({
      where: { name: wanted.name },
      defaults: { name: wanted.name, builtIn: true },
    });
    if (!row.builtIn) continue;
    const newest = await ChecklistVersion.findOne({
      where: { checklistId: row.id },
      order: [['version', 'DESC']],
    });
    const stored = newest?.data as Checklist | undefined;
    if (stored && JSON.stringify(stored.items) === JSON.stringify(wanted.items)) continue;
    const version = (newest?.version ?? 0) + 1;
    await ChecklistVersion.create({
      checklistId: row.id,
      version,
      data: { ...wanted, version },
      createdAt: new Date(),
    });
  }
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

/** The checklist a site is judged by: its own, else its client's, its host's, the agency's default. */
export async function checklistFor(site: Site): Promise<{ id: number; checklist: Checklist }> {
  await ensureBuiltIn();
  const targets: [AssignmentKind, string][] = [
    ['site', String(site.id)],
    ['client', String(site.clientId)],
    ...(site.hostProfile ? [['host', site.hostProfile] as [AssignmentKind, string]] : []),
    ['default', ''],
  ];
  const rows = await AssignmentRow.findAll({
    where: { [Op.or]: targets.map(([kind, target]) => ({ kind, target })) },
  });
  for (const [kind] of targets) {
    const hit = rows.find((r) => r.kind === kind);
    if (hit) return newestOf(hit.checklistId);
  }
  return newestOf((await ChecklistRow.findOne({ where: { name: DEFAULT }, rejectOnEmpty: true })).id);
}

/** A stored version. */
export async function checklistVersion(id: number): Promise<Checklist> {
  return (await ChecklistVersion.findByPk(id, { rejectOnEmpty: true })).data as Checklist;
}

async function find(id: number): Promise<ChecklistRow> {
  const row = await ChecklistRow.findByPk(id);
  if (!row) throw refuse(404, 'This checklist does not exist, or not any more.');
  return row;
}

export interface Assignment {
  kind: AssignmentKind;
  target: string;
  title: string;
}

async function assignmentsOf(ids: number[]): Promise<Map<number, Assignment[]>> {
  const rows = await AssignmentRow.findAll({
    where: { checklistId: ids },
    order: [
      ['kind', 'ASC'],
      ['target', 'ASC'],
    ],
  });
  const of = (kind: AssignmentKind) => rows.filter((r) => r.kind === kind).map((r) => Number(r.target));
  const [sites, clients] = await Promise.all([
    Site.findAll({ where: { id: of('site') }, attributes: ['id', 'name'] }),
    Client.findAll({ where: { id: of('client') } }),
  ]);
  const names = new Map<string, string>([
    ...sites.map((s) => [`site ${s.id}`, s.name] as const),
    ...clients.map((c) => [`client ${c.id}`, c.name] as const),
  ]);
  const out = new Map<number, Assignment[]>();
  for (const r of rows)
    out.set(r.checklistId, [
      ...(out.get(r.checklistId) ?? []),
      {
        kind: r.kind,
        target: r.target,
        title:
          r.kind === 'default'
            ? 'all other sites'
            : r.kind === 'host'
              ? r.target
              : (names.get(`${r.kind} ${r.target}`) ?? 'gone'),
      },
    ]);
  return out;
}

export async function listChecklists() {
  await ensureBuiltIn();
  const rows = await ChecklistRow.findAll({
    order: [
      ['builtIn', 'DESC'],
      ['id', 'ASC'],
    ],
  });
  const assigned = await assignmentsOf(rows.map((r) => r.id));
  const anyDefault = [...assigned.values()].some((a) => a.some((x) => x.kind === 'default'));
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
        assignments: [
          ...(assigned.get(r.id) ?? []),
          ...(r.name === DEFAULT && r.builtIn && !anyDefault
            ? [{ kind: 'default' as const, target: '', title: 'all other sites' }]
            : []),
        ],
      };
    }),
  );
}

/** One checklist with its versions, newest first. @throws 404 */
export async function checklistDetail(id: number) {
  const row = await find(id);
  const versions = await ChecklistVersion.findAll({
    where: { checklistId: id },
    order: [['version', 'DESC']],
    limit: 100,
  });
  const sites = await sitesJudgedBy(id);
  return {
    id: row.id,
    name: row.name,
    builtIn: row.builtIn,
    checklist: versions[0]!.data as Checklist,
    sites,
    versions: versions.map((v) => ({
      version: v.version,
      savedBy: v.savedBy,
      savedAt: v.createdAt.toISOString(),
      data: v.data as Checklist,
    })),
    assignments: (await assignmentsOf([id])).get(id) ?? [],
  };
}

/** The sites that this checklist is for now. */
async function sitesJudgedBy(id: number): Promise<{ id: number; name: string }[]> {
  const [sites, rows, full] = await Promise.all([
    Site.findAll({ order: [['name', 'ASC']] }),
    AssignmentRow.findAll(),
    ChecklistRow.findOne({ where: { name: DEFAULT } }),
  ]);
  const of = new Map(rows.map((r) => [`${r.kind} ${r.target}`, r.checklistId]));
  const fallback = of.get('default ') ?? full?.id;
  return sites
    .filter(
      (s) =>
        (of.get(`site ${s.id}`) ??
          of.get(`client ${s.clientId}`) ??
          (s.hostProfile ? of.get(`host ${s.hostProfile}`) : undefined) ??
          fallback) === id,
    )
    .map((s) => ({ id: s.id, name: s.name }));
}

/** A new checklist. @throws 409 when there is one of that name */
export async function makeChecklist(checklist: Checklist, by: string): Promise<number> {
  const name = checklist.name.trim();
  if (await ChecklistRow.count({ where: { name } }))
    throw refuse(409, `There is a checklist named ${name} already.`);
  const row = await ChecklistRow.create({ name, builtIn: false });
  await ChecklistVersion.create({
    checklistId: row.id,
    version: 1,
    data: { ...checklist, name, version: 1 },
    createdAt: new Date(),
    savedBy: by,
  });
  return row.id;
}

/** Saves the next version. @throws 404, 409 for a built-in one or a name that is taken */
export async function saveChecklist(
  id: number,
  checklist: Checklist,
  by: string,
): Promise<{ versionId: number; version: number }> {
  const row = await find(id);
  if (row.builtIn)
    throw refuse(409, `${row.name} comes with Armband and stays as it is. Make a copy and change that.`);
  const name = checklist.name.trim();
  if (name !== row.name && (await ChecklistRow.count({ where: { name } })))
    throw refuse(409, `There is a checklist named ${name} already.`);
  const newest = await ChecklistVersion.findOne({ where: { checklistId: id }, order: [['version', 'DESC']] });
  const version = (newest?.version ?? 0) + 1;
  const made = await ChecklistVersion.create({
    checklistId: id,
    version,
    data: { ...checklist, name, version },
    createdAt: new Date(),
    savedBy: by,
  });
  await row.update({ name });
  return { versionId: made.id, version };
}

/** Takes a checklist away; audits keep the version they used. @throws 404, 409 */
export async function dropChecklist(id: number): Promise<void> {
  const row = await find(id);
  if (row.builtIn) throw refuse(409, `${row.name} comes with Armband and stays.`);
  const versions = (await ChecklistVersion.findAll({ where: { checklistId: id }, attributes: ['id'] })).map(
    (v) => v.id,
  );
  if (await Audit.count({ where: { checklistVersionId: versions } }))
    throw refuse(
      409,
      'Audits were made by this checklist, and their history needs it. Assign its sites elsewhere instead.',
    );
  await row.destroy();
}

/** Sets what a checklist is for; what another one had of it moves over. @throws 404 */
export async function assignChecklist(
  id: number,
  wanted: { kind: AssignmentKind; target: string }[],
): Promise<void> {
  await find(id);
  await AssignmentRow.destroy({ where: { checklistId: id } });
  for (const { kind, target } of wanted) {
    await AssignmentRow.destroy({ where: { kind, target } });
    await AssignmentRow.create({ checklistId: id, kind, target });
  }
}
