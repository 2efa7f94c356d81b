/** Host profiles with their versions. */
import { Op, type Transaction } from 'sequelize';
import { refusalOf } from '#core/extract/refusal';
import { finalStatus, lastAnswer, type Evidence, type PageEvidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { learnDefaults, type Learnt } from '#core/proposals/learn-defaults';
import { quantity } from '#core/text/quantity';
import { collect } from '#probe/collect';
import { networkSettings } from '../audits/network';
import { reevaluateHosted } from '../audits/reevaluating';
import { AssignmentRow } from '../checklists/models';
import { inTransaction } from '../platform/db/transaction';
import { Conflict, NotFound, Unreachable } from '../platform/errors';
import { announce } from '../platform/events';
import { IsObject, IsString } from '../platform/http/validation';
import { defineJob } from '../platform/jobs/definition';
import { workedOut } from '../platform/jobs/queue';
import { refuseOverwriting } from '../platform/overwriting';
import { VERSIONS_READ, versionsWindow } from '../platform/versions';
import { SITES_NAMED } from '../platform/windows';
import { Site } from '../sites/models';
import { keepNames } from '../sites/standing';
import { HostProfileRow, HostProfileVersion } from './models';
import { now } from '../platform/clock';

const GONE = 'This host profile does not exist, or not any more.';

/** The newest version of each profile, by its number. */
async function newestVersions(): Promise<Map<number, HostProfileVersion>> {
  const rows = await HostProfileVersion.findAll({ order: [['version', 'ASC']] });
  return new Map(rows.map((r) => [r.hostProfileId, r]));
}

/** Newest version of each, with how many sites use it. */
export async function listProfiles() {
  const [profiles, newest, sites] = await Promise.all([
    HostProfileRow.findAll({ order: [['name', 'ASC']] }),
    newestVersions(),
    Site.count({ where: { hostProfileId: { [Op.ne]: null } }, group: ['hostProfileId'] }),
  ]);
  const used = new Map(sites.map((s) => [s.hostProfileId, s.count]));
  return profiles.map(({ id, name }) => {
    const { version, savedBy, createdAt, data } = newest.get(id)!;
    return {
      id,
      name,
      version,
      savedBy,
      savedAt: createdAt.toISOString(),
      sites: used.get(id) ?? 0,
      profile: data,
    };
  });
}

/** @throws NotFound */
export async function profileDetail(id: number) {
  const profile = await HostProfileRow.findByPk(id);
  if (!profile) throw new NotFound(GONE);
  const [newest, sites, count] = await Promise.all([
    HostProfileVersion.findOne({
      where: { hostProfileId: id },
      order: [['version', 'DESC']],
      rejectOnEmpty: true,
    }),
    Site.findAll({
      where: { hostProfileId: id },
      attributes: ['id', 'name'],
      order: [['name', 'ASC']],
      limit: SITES_NAMED,
    }),
    Site.count({ where: { hostProfileId: id } }),
  ]);
  return {
    id,
    name: profile.name,
    version: newest.version,
    profile: newest.data,
    sites: { count, some: sites.map((s) => ({ id: s.id, name: s.name })) },
  };
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
export function makeProfile(profile: HostProfile, by: string, within?: Transaction): Promise<number> {
  return inTransaction(async (transaction) => {
    if (await HostProfileRow.count({ where: { name: profile.name }, transaction }))
      throw new Conflict(`There is a host profile named ${profile.name} already.`);
    const row = await HostProfileRow.create({ name: profile.name }, { transaction });
    await HostProfileVersion.create(
      { hostProfileId: row.id, version: 1, data: profile, createdAt: now(), savedBy: by },
      { transaction },
    );
    announce([['host-profiles']], { transaction });
    return row.id;
  }, within);
}

/** Keeps the next version, under another name where it has one. @throws NotFound, Conflict */
function keepVersion(id: number, profile: HostProfile, by: string, from: number): Promise<number> {
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
    announce([['host-profiles']], { transaction });
    if (isRenamed) await keepNames({ hostProfileId: id }, transaction);
    return version;
  });
}

/** Saves the next version and judges the stored evidence of its sites by it. @returns the work that judges */
export async function saveProfile(
  id: number,
  profile: HostProfile,
  by: string,
  from: number,
): Promise<{ version: number; job: number | null }> {
  const version = await keepVersion(id, profile, by, from);
  const sites = await Site.findAll({
    where: { hostProfileId: id, stage: { [Op.ne]: 'retired' } },
    attributes: ['id'],
  });
  return {
    version,
    job: await reevaluateHosted(
      sites.map((s) => s.id),
      profile.name,
      by,
    ),
  };
}

/** @throws NotFound, Conflict while sites use it */
export function dropProfile(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const used = await Site.count({ where: { hostProfileId: id }, transaction });
    if (used)
      throw new Conflict(
        `${quantity(used, 'site uses', 'sites use')} this profile. Give them another one first.`,
      );
    await AssignmentRow.destroy({ where: { kind: 'host', target: String(id) }, transaction });
    if (!(await HostProfileRow.destroy({ where: { id }, transaction }))) throw new NotFound(GONE);
    announce([['host-profiles']], { transaction });
  });
}

class LearnPayload {
  @IsString() url!: string;
  @IsObject() profile!: HostProfile;
}
interface Lesson {
  url: string;
  learnt: Learnt[];
}

/** Reading an untouched site of a host. */
export const learnJob = defineJob<LearnPayload>({
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
  return workedOut(learnJob, { url, profile }, { by, title: `Reading ${url}` }, signal);
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
export function silenceOf(home: PageEvidence | undefined): string {
  const { chain } = home ?? {};
  return chain?.error?.message ?? `it answered ${(chain && finalStatus(chain)) ?? 'nothing'}`;
}
