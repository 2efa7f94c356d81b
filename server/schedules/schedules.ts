/** Schedules: what is audited when, by site, client, host profile or stage. */
import { Op } from 'sequelize';
import { PARTS, type Part } from '#core/facts/parts';
import { STAGES } from '#core/facts/situation';
import { allChecklists, checklistNamed } from '#server/checklists';
import { profilesByIds } from '#server/hosts';
import { inTransaction } from '#server/platform/db/transaction';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { clientsByIds, sitesByIds } from '#server/sites';
import type { ScheduleDto } from './dto';
import { PlannedAudit, ScheduleRow, type OfKind } from './models';

const GONE = 'This schedule does not exist, or not any more.';
const QUICK = 'Quick launch';

/** What is proposed: everything once a week, the short list each night, what ends by itself once a day. */
const PROPOSED = [
  { name: 'Full list, weekly', every: 'week', parts: '', list: '', fromTime: '22:00', toTime: '05:00' },
  { name: 'Quick list, nightly', every: 'day', parts: '', list: QUICK, fromTime: '01:00', toTime: '05:00' },
  {
    name: 'Certificates and records, daily',
    every: 'day',
    parts: 'dns,tls',
    list: '',
    fromTime: '05:00',
    toTime: '06:30',
  },
] as const;
const SATURDAY = 6;

/** The proposal is there from the first start on, switched off: nobody's sites are asked before somebody says so. */
export async function ensureProposal(): Promise<void> {
  if (await ScheduleRow.count()) return;
  const quick = await checklistNamed(QUICK);
  const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
  await ScheduleRow.bulkCreate(
    PROPOSED.map(({ list, ...s }) => ({
      ...s,
      ofKind: 'stage' as const,
      ofTarget: 'launched',
      checklistId: list ? (quick?.id ?? null) : null,
      weekday: SATURDAY,
      notFrom: null,
      notTo: null,
      timeZone,
      pageLimit: null,
      pausedUntil: null,
      isOn: false,
      builtIn: true,
      createdBy: 'Armband',
    })),
    { ignoreDuplicates: true },
  );
}

export const partsOfRow = ({ parts }: Pick<ScheduleRow, 'parts'>): Part[] =>
  PARTS.filter((part) => parts.split(',').includes(part));

/** What a schedule is for, in words. */
async function nameOfTarget(kind: OfKind, target: string): Promise<string> {
  if (kind === 'all') return 'all sites';
  if (kind === 'stage') return `sites that are ${target}`;
  const ids = [Number(target)];
  const [row] =
    kind === 'site'
      ? await sitesByIds(ids)
      : kind === 'client'
        ? await clientsByIds(ids)
        : await profilesByIds(ids);
  return row?.name ?? 'something that is not there any more';
}

export async function listSchedules() {
  const rows = await ScheduleRow.findAll({ order: [['id', 'ASC']] });
  const lists = new Map((await allChecklists()).map((c) => [c.id, c.name]));
  return Promise.all(
    rows.map(async (r) => ({
      id: r.id,
      name: r.name,
      ofKind: r.ofKind,
      ofTarget: r.ofTarget,
      of: await nameOfTarget(r.ofKind, r.ofTarget),
      parts: partsOfRow(r),
      checklistId: r.checklistId,
      checklist: r.checklistId ? (lists.get(r.checklistId) ?? null) : null,
      pageLimit: r.pageLimit ?? 0,
      every: r.every,
      weekday: r.weekday,
      from: r.fromTime,
      to: r.toTime,
      notFrom: r.notFrom ?? '',
      notTo: r.notTo ?? '',
      timeZone: r.timeZone,
      pausedUntil: r.pausedUntil ?? '',
      isOn: Boolean(r.isOn),
      by: r.createdBy,
    })),
  );
}

async function refuseUnfit(input: ScheduleDto): Promise<void> {
  const { ofKind, ofTarget, from, to, checklistId } = input;
  if (input.what === 'parts' && !input.parts.length)
    throw new Refused('Choose at least one part to look at.');
  if (from === to) throw new Refused('It must end at another time than it begins.');
  if (ofKind === 'stage' && !STAGES.some((s) => s === ofTarget && s !== 'retired'))
    throw new Refused('Choose a stage; retired sites are not audited.');
  if (ofKind !== 'all' && ofKind !== 'stage' && !/^\d{1,9}$/.test(ofTarget))
    throw new Refused('Choose what it is for.');
  if (checklistId && !(await allChecklists()).some((c) => c.id === checklistId))
    throw new Refused('This checklist does not exist, or not any more.');
}

const columnsOf = (input: ScheduleDto) => ({
  name: input.name.trim(),
  ofKind: input.ofKind,
  ofTarget: input.ofKind === 'all' ? '' : input.ofTarget,
  parts: input.parts.join(','),
  checklistId: input.checklistId,
  pageLimit: input.pageLimit || null,
  every: input.every,
  weekday: input.weekday,
  fromTime: input.from,
  toTime: input.to,
  notFrom: input.notFrom || null,
  notTo: input.notTo || null,
  timeZone: input.timeZone,
  pausedUntil: input.pausedUntil || null,
  isOn: input.isOn,
});

/**
 * Adds a schedule, or changes one; what was planned by it and has not begun is planned anew.
 * @throws Refused, Conflict for a name that is taken, NotFound
 */
export async function saveSchedule(input: ScheduleDto, by: string, id?: number): Promise<number> {
  await refuseUnfit(input);
  return inTransaction(async (transaction) => {
    const { name } = columnsOf(input);
    const taken = { name, ...(id === undefined ? {} : { id: { [Op.ne]: id } }) };
    if (await ScheduleRow.count({ where: taken, transaction }))
      throw new Conflict(`There is a schedule named ${name} already.`);
    announce('SchedulesChanged', {}, { transaction });
    if (id === undefined)
      return (await ScheduleRow.create({ ...columnsOf(input), createdBy: by }, { transaction })).id;
    const row = await ScheduleRow.findByPk(id, { transaction, lock: true });
    if (!row) throw new NotFound(GONE);
    await row.update(columnsOf(input), { transaction });
    await PlannedAudit.destroy({ where: { scheduleId: id, state: ['planned', 'covered'] }, transaction });
    return id;
  });
}

/** @throws NotFound */
export async function deleteSchedule(id: number): Promise<void> {
  if (!(await ScheduleRow.destroy({ where: { id } }))) throw new NotFound(GONE);
  announce('SchedulesChanged', {});
}

export const builtInSchedules = (): Promise<ScheduleRow[]> =>
  ScheduleRow.findAll({ where: { builtIn: true }, order: [['id', 'ASC']] });
