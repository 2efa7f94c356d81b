/** The watch on a launch: begun from the plan, looked at again and again by whichever process is there, told once. */
import { Op, type Transaction } from 'sequelize';
import { registrableDomain } from '#core/extract/address';
import {
  AFTER_HOLDING_MS,
  goalOf,
  pauseAfter,
  watchChanges,
  watchStanding,
  type Subject,
  type WatchStanding,
} from '#core/launch/watch';
import { hostsOf } from '#probe/plan';
import { lookAround } from '#probe/watching';
import { siteOwners, notify } from '#server/people';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { IsInt, Min } from '#server/platform/http/validation';
import { defineJob, PRIORITY } from '#server/platform/jobs/definition';
import { enqueue } from '#server/platform/jobs/queue';
import { list, networkSettings } from '#server/platform/network/network';
import { lockSite, getSite } from '#server/sites';
import { launchedFrom, loweredBy, planFrom } from './cut-over';
import { Launch, LaunchStep, WatchEvent, WatchRow } from './models';

/** Begins to watch. @throws NotFound, Conflict, Refused */
export async function beginWatch(siteId: number, by: string): Promise<{ id: number }> {
  const from = await launchedFrom(siteId);
  const { brief, live, profile } = from;
  if (!live) throw new Refused('There is no live address to watch.');
  const plan = planFrom(from);
  if (!plan)
    throw new Conflict('The live address was not looked at yet: an audit of it says what is served now.');
  const launch = await Launch.findOne({ where: { openKey: siteId } });
  const steps = launch ? await LaunchStep.findAll({ where: { launchId: launch.id } }) : [];
  const goal = goalOf(plan, {
    brief,
    hosts: hostsOf(live.url, 'live', brief),
    ranges: profile?.addressRanges,
    lowered: launch ? loweredBy(launch, steps) : undefined,
    oldTtl: launch?.oldTtl,
  });
  return inTransaction(async (transaction) => {
    await lockSite(siteId, transaction);
    if (await WatchRow.count({ where: { openKey: siteId }, transaction }))
      throw new Conflict('This site is watched already.');
    const at = now();
    const row = await WatchRow.create(
      { siteId, openKey: siteId, goal, looks: 0, begunBy: by, begunAt: at, nextAt: at, told: '' },
      { transaction },
    );
    await emit('SiteTouched', { siteId }, transaction);
    return { id: row.id };
  });
}

/** @throws NotFound */
export async function endWatch(id: number, by: string): Promise<void> {
  const row = await WatchRow.findByPk(id);
  if (!row) throw new NotFound('This watch is not there, or not any more.');
  await row.update({ openKey: null, nextAt: null, endedAt: now(), endedBy: by });
  await emit('SiteTouched', { siteId: row.siteId });
}

/** Resolvers that are asked for themselves: those of ARMBAND_WATCH_RESOLVERS, else the ones that audits use. */
export function watchedResolvers(): string[] {
  const own = list(process.env.ARMBAND_WATCH_RESOLVERS);
  return own.length ? own : [...(networkSettings().resolvers ?? [])];
}

const LONGEST_TOLD = 400;

/** What is worth a message: that it holds, that something turned back, that it is overdue. */
function messageOf(site: string, { verdict, reasons }: WatchStanding): string | null {
  if (verdict === 'holds') return `${site}: the launch holds everywhere.`;
  if (verdict === 'turned back') return `${site}: something turned back after it held. ${reasons.join(' ')}`;
  return verdict === 'overdue' ? `${site}: the launch is overdue. ${reasons.join(' ')}` : null;
}

/** Tells whoever looks after the site, each thing once. @returns what was told last */
async function tellOnce(row: WatchRow, standing: WatchStanding, transaction: Transaction): Promise<string> {
  const site = await getSite(row.siteId, transaction);
  const message = messageOf(site.name, standing)?.slice(0, LONGEST_TOLD);
  if (message && message !== row.told)
    await notify(await siteOwners(site), message, `/sites/${site.id}?tab=launch&view=watch`, transaction);
  return message ?? '';
}

async function keepLook(row: WatchRow, standing: WatchStanding, transaction: Transaction): Promise<void> {
  const held = await WatchRow.findByPk(row.id, { transaction, lock: true });
  // ended, or looked at by another process meanwhile
  if (!held || held.openKey === null || held.looks !== row.looks) return;
  const at = new Date(standing.at);
  const changes: Subject[] = watchChanges(held.standing ?? null, standing);
  await WatchEvent.bulkCreate(
    changes.map(({ kind, name, state, text }) => ({
      watchId: row.id,
      at,
      subject: `${kind} ${name}`.slice(0, 300),
      state,
      text: text.slice(0, 600),
    })),
    { transaction },
  );
  const told = await tellOnce(held, standing, transaction);
  const last = await WatchEvent.findOne({ where: { watchId: row.id }, order: [['id', 'DESC']], transaction });
  const since = standing.at - (last?.at ?? held.begunAt).getTime();
  const isOver = standing.verdict === 'holds' && standing.at - standing.heldAt! > AFTER_HOLDING_MS;
  await held.update(
    {
      standing,
      looks: held.looks + 1,
      heldAt: standing.heldAt ? new Date(standing.heldAt) : null,
      nextAt: isOver ? null : new Date(standing.at + pauseAfter(since, standing.verdict === 'holds')),
      told,
      ...(isOver ? { openKey: null, endedAt: at, endedBy: 'the watch' } : {}),
    },
    { transaction },
  );
  await emit('SiteTouched', { siteId: row.siteId }, transaction);
}

class WatchPayload {
  @IsInt() @Min(1) watchId!: number;
}

const watchJob = defineJob({
  name: 'watch',
  lane: 'waited',
  payload: WatchPayload,
  async run({ watchId }, work) {
    const row = await WatchRow.findByPk(watchId);
    if (!row || row.openKey === null) return undefined;
    const { brief, profile } = await launchedFrom(row.siteId);
    const zone = registrableDomain(row.goal.hosts[0] ?? '');
    if (!zone) return undefined;
    const { resolvers: _, store, agent, ...network } = networkSettings();
    const seen = await lookAround(
      {
        ...network,
        store: store!,
        agent: agent!,
        goal: row.goal,
        zone,
        brief,
        profile,
        resolvers: watchedResolvers(),
        signal: work.signal,
      },
      now().getTime(),
    );
    work.signal.throwIfAborted();
    const standing = watchStanding(row.goal, seen, row.standing ?? null, row.begunAt.getTime());
    await inTransaction((transaction) => keepLook(row, standing, transaction));
    return undefined;
  },
});

const AT_ONCE = 50;

/** Puts down a look at each watch that is due. */
export async function enqueueDueWatches(): Promise<void> {
  const due = await WatchRow.findAll({
    where: { nextAt: { [Op.lte]: now() }, openKey: { [Op.ne]: null } },
    order: [['nextAt', 'ASC']],
    limit: AT_ONCE,
  });
  for (const { id } of due)
    await enqueue(
      watchJob,
      { watchId: id },
      { by: 'the watch', title: 'Watching a launch', priority: PRIORITY.afterwards, onlyKey: `watch ${id}` },
    );
}

/** Looks at once. @throws NotFound, Conflict where it has ended */
export async function checkWatch(id: number, by: string): Promise<void> {
  const row = await WatchRow.findByPk(id);
  if (!row) throw new NotFound('This watch is not there, or not any more.');
  if (row.openKey === null) throw new Conflict('This watch has ended.');
  await enqueue(
    watchJob,
    { watchId: id },
    { by, title: 'Watching a launch', priority: PRIORITY.waiting, onlyKey: `watch ${id}` },
  );
}

const MOST_EVENTS = 400;

export interface WatchShown {
  id: number;
  begunBy: string;
  begunAt: string;
  endedAt: string | null;
  nextAt: string | null;
  looks: number;
  standing: WatchStanding | null;
  events: { at: string; subject: string; state: string; text: string }[];
}

/** The newest watch of a site, with who changed when; null where there was none. */
export async function siteWatch(siteId: number): Promise<WatchShown | null> {
  const row = await WatchRow.findOne({ where: { siteId }, order: [['id', 'DESC']] });
  if (!row) return null;
  const events = await WatchEvent.findAll({
    where: { watchId: row.id },
    order: [['id', 'DESC']],
    limit: MOST_EVENTS,
  });
  return {
    id: row.id,
    begunBy: row.begunBy,
    begunAt: row.begunAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
    nextAt: row.nextAt?.toISOString() ?? null,
    looks: row.looks,
    standing: row.standing ?? null,
    events: events
      .reverse()
      .map(({ at, subject, state, text }) => ({ at: at.toISOString(), subject, state, text })),
  };
}
