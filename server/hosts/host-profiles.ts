/** Host profiles with their versions. */
import { Op, type Transaction } from 'sequelize';
import { refusalOf } from '#core/extract/refusal';
import { finalStatus, lastAnswer, type Evidence, type PageEvidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { learnDefaults, type LearnedDefault } from '#core/proposals/learn-defaults';
import { quantity } from '#core/text/quantity';
import { collect } from '#probe/collect';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Unreachable } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { defineQuestion } from '#server/platform/extension-points';
import { IsObject, IsString } from '#server/platform/http/validation';
import { defineJob } from '#server/platform/jobs/definition';
import { jobResult } from '#server/platform/jobs/queue';
import { networkSettings } from '#server/platform/network/network';
import { refuseOverwriting } from '#server/platform/overwriting';
import { VERSIONS_READ, versionsWindow } from '#server/platform/versions';
import { HostProfileRow, HostProfileVersion } from './models';

const GONE = 'This host profile does not exist, or not any more.';

/** The newest version of each profile, by its number. */
export async function newestVersions(): Promise<Map<number, HostProfileVersion>> {
  const rows = await HostProfileVersion.findAll({ order: [['version', 'ASC']] });
  return new Map(rows.map((r) => [r.hostProfileId, r]));
}

/** One window of a profile's versions, newest first. */
export async function profileVersions(hostProfileId: number, after?: number) {
  const rows = await HostProfileVersion.findAll({
    where: { hostProfileId, ...(after === undefined ? {} : { version: { [Op.lt]: after } }) },
    order: [['version', 'DESC']],
    limit: VERSIONS_READ,
  });
  return versionsWindow(
    rows.map(({ version, savedBy, createdAt, data }) => ({ version, savedBy, savedAt: createdAt, data })),
  );
}

/** A new profile. @throws Conflict when there is one of that name */
export function createProfile(profile: HostProfile, by: string, within?: Transaction): Promise<number> {
  return inTransaction(async (transaction) => {
    if (await HostProfileRow.count({ where: { name: profile.name }, transaction }))
      throw new Conflict(`There is a host profile named ${profile.name} already.`);
    const row = await HostProfileRow.create({ name: profile.name }, { transaction });
    await HostProfileVersion.create(
      { hostProfileId: row.id, version: 1, data: profile, createdAt: now(), savedBy: by },
      { transaction },
    );
    announce('HostProfilesChanged', {}, { transaction });
    return row.id;
  }, within);
}

/** Keeps the next version, under another name where it has one. @throws NotFound, Conflict */
export function saveProfile(id: number, profile: HostProfile, by: string, from: number): Promise<number> {
  return inTransaction(async (transaction) => {
    const row = await HostProfileRow.findByPk(id, { transaction, lock: true });
    if (!row) throw new NotFound(GONE);
    const taken = { name: profile.name, id: { [Op.ne]: id } };
    if (await HostProfileRow.count({ where: taken, transaction }))
      throw new Conflict(`There is a host profile named ${profile.name} already.`);
    const newest = await HostProfileVersion.findOne({
      where: { hostProfileId: id },
      order: [['version', 'DESC']],
      transaction,
      rejectOnEmpty: true,
    });
    refuseOverwriting(from, newest, profile);
    const version = newest.version + 1;
    const isRenamed = row.name !== profile.name;
    await row.update({ name: profile.name }, { transaction });
    await HostProfileVersion.create(
      { hostProfileId: id, version, data: profile, createdAt: now(), savedBy: by },
      { transaction },
    );
    announce('HostProfilesChanged', {}, { transaction });
    if (isRenamed) await emit('HostProfileRenamed', { hostProfileId: id }, transaction);
    return version;
  });
}

/** How many sites use a profile. */
export const usesOfProfile = defineQuestion<[hostProfileId: number, transaction: Transaction], number>();

/** @throws NotFound, Conflict while sites use it */
export function deleteProfile(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const used = (await usesOfProfile.ask(id, transaction)).reduce((sum, n) => sum + n, 0);
    if (used)
      throw new Conflict(
        `${quantity(used, 'site uses', 'sites use')} this profile. Give them another one first.`,
      );
    await emit('HostProfileDeleted', { hostProfileId: id }, transaction);
    if (!(await HostProfileRow.destroy({ where: { id }, transaction }))) throw new NotFound(GONE);
  });
}

class LearnPayload {
  @IsString() url!: string;
  @IsObject() profile!: HostProfile;
}
interface Lesson {
  url: string;
  learnt: LearnedDefault[];
}

/** Reading an untouched site of a host. */
const learnJob = defineJob<LearnPayload>({
  name: 'learn defaults',
  lane: 'waited',
  payload: LearnPayload,
  async run({ url, profile }, { signal, progress }): Promise<Lesson> {
    const evidence = await collect({
      ...networkSettings(),
      url,
      kind: 'before',
      maxPages: 20,
      auditSeconds: 30,
      signal,
      onProgress: progress,
    });
    const home = homeRead(evidence, url);
    return { url: home.url, learnt: learnDefaults(evidence, profile) };
  },
});

/**
 * Reads an untouched site of the host and proposes its leavings as defaults; it ends when the caller leaves.
 * @throws Unreachable when nothing can be read there
 */
export function learnFrom(
  url: string,
  profile: HostProfile,
  by: string,
  signal: AbortSignal,
): Promise<Lesson> {
  return jobResult(learnJob, { url, profile }, { by, title: `Reading ${url}` }, signal);
}

/** The home page, where it was read and is a page. @throws Unreachable with the reason */
function homeRead(evidence: Evidence, url: string): PageEvidence {
  const home = evidence.pages.find((p) => p.via === 'home');
  if (!home?.facts) throw new Unreachable(`Nothing could be read at ${url}: ${silenceOf(home)}.`);
  const { status = 0, headers = [] } = lastAnswer(home.chain) ?? {};
  if (refusalOf({ status, headers, facts: home.facts }))
    throw new Unreachable(`${url} refused the visitor (${status}); its page is not the host’s sample.`);
  return home;
}

/** Why a home page was not read. */
function silenceOf(home: PageEvidence | undefined): string {
  const { chain } = home ?? {};
  return chain?.error?.message ?? `it answered ${(chain && finalStatus(chain)) ?? 'nothing'}`;
}
