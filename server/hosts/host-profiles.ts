/** Host profiles with their versions. */
import { Op } from 'sequelize';
import { fieldChanges } from '#core/compare/fields';
import type { HostProfile } from '#core/facts/host-profile';
import { learnDefaults, type Learnt } from '#core/proposals/learn-defaults';
import { refusalOf } from '#core/extract/refusal';
import { finalStatus, lastAnswer } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { AssignmentRow, HostProfileRow, Site } from '../platform/db/models';
import { refuse } from '../platform/http/failure';
import { startJob } from '../platform/jobs/jobs';
import { judgeSiteAgain } from '../audits/judging';
import { networkSettings } from '../audits/network';

/** Newest version of each, with how many sites use it. */
export async function listProfiles() {
  const [rows, sites] = await Promise.all([
    HostProfileRow.findAll({
      order: [
        ['name', 'ASC'],
        ['version', 'DESC'],
      ],
    }),
    Site.findAll({ attributes: ['hostProfile'] }),
  ]);
  const newest = rows.filter((r, i) => rows[i - 1]?.name !== r.name);
  return newest.map((r) => ({
    name: r.name,
    version: r.version,
    savedBy: r.savedBy,
    savedAt: r.createdAt.toISOString(),
    sites: sites.filter((s) => s.hostProfile === r.name).length,
    profile: r.data as HostProfile,
  }));
}

/** @throws 404 */
export async function profileDetail(name: string) {
  const rows = await HostProfileRow.findAll({ where: { name }, order: [['version', 'ASC']] });
  if (!rows.length) throw refuse(404, 'This host profile does not exist, or not any more.');
  const sites = await Site.findAll({
    where: { hostProfile: name },
    attributes: ['id', 'name'],
    order: [['name', 'ASC']],
  });
  return {
    name,
    version: rows.at(-1)!.version,
    profile: rows.at(-1)!.data as HostProfile,
    sites: sites.map((s) => ({ id: s.id, name: s.name })),
    versions: rows
      .map((r, i) => ({
        version: r.version,
        savedBy: r.savedBy,
        savedAt: r.createdAt.toISOString(),
        changes: fieldChanges((rows[i - 1]?.data ?? {}) as object, r.data as object),
        data: r.data as HostProfile,
      }))
      .reverse(),
  };
}

/** A new profile. @throws 409 when there is one of that name */
export async function makeProfile(profile: HostProfile, by: string): Promise<void> {
  if (await HostProfileRow.count({ where: { name: profile.name } }))
    throw refuse(409, `There is a host profile named ${profile.name} already.`);
  await HostProfileRow.create({
    name: profile.name,
    version: 1,
    data: profile,
    createdAt: new Date(),
    savedBy: by,
  });
}

/** Saves the next version and judges the stored evidence of its sites by it. @returns the work that judges */
export async function saveProfile(
  name: string,
  profile: HostProfile,
  by: string,
): Promise<{ version: number; job: string | null }> {
  const newest = await HostProfileRow.findOne({ where: { name }, order: [['version', 'DESC']] });
  if (!newest) throw refuse(404, 'This host profile does not exist, or not any more.');
  const version = newest.version + 1;
  if (profile.name !== name) {
    if (await HostProfileRow.count({ where: { name: profile.name } }))
      throw refuse(409, `There is a host profile named ${profile.name} already.`);
    await HostProfileRow.update({ name: profile.name }, { where: { name } });
    await Site.update({ hostProfile: profile.name }, { where: { hostProfile: name } });
    await AssignmentRow.update({ target: profile.name }, { where: { kind: 'host', target: name } });
  }
  await HostProfileRow.create({
    name: profile.name,
    version,
    data: profile,
    createdAt: new Date(),
    savedBy: by,
  });
  const sites = await Site.findAll({
    where: { hostProfile: profile.name, stage: { [Op.ne]: 'retired' } },
    attributes: ['id'],
  });
  const job = sites.length
    ? startJob(
        `Judging the sites of ${profile.name} again`,
        by,
        sites.map((s) => s.id),
        (id) => judgeSiteAgain(id, { cause: 'host profile', by }),
      )
    : null;
  return { version, job: job?.id ?? null };
}

/** @throws 404, 409 while sites use it */
export async function dropProfile(name: string): Promise<void> {
  const used = await Site.count({ where: { hostProfile: name } });
  if (used)
    throw refuse(
      409,
      `${used} ${used === 1 ? 'site uses' : 'sites use'} this profile. Give them another one first.`,
    );
  if (!(await HostProfileRow.destroy({ where: { name } })))
    throw refuse(404, 'This host profile does not exist, or not any more.');
}

/**
 * Reads an untouched site of the host and proposes its leavings as defaults.
 * @throws 502 when nothing can be read there
 */
export async function learnFrom(
  url: string,
  profile: HostProfile,
): Promise<{ url: string; learnt: Learnt[] }> {
  const evidence = await collect({
    ...networkSettings(),
    url,
    kind: 'before',
    maxPages: 20,
    auditSeconds: 30,
  });
  const home = evidence.pages.find((p) => p.via === 'home');
  const answer = home && lastAnswer(home.chain);
  const refusal =
    home?.facts &&
    refusalOf({ status: answer?.status ?? 0, headers: answer?.headers ?? [], facts: home.facts });
  if (refusal)
    throw refuse(502, `${url} refused the visitor (${answer?.status}); its page is not the host’s sample.`);
  if (!home?.facts)
    throw refuse(
      502,
      `Nothing could be read at ${url}: ${home?.chain.error?.message ?? `it answered ${home ? (finalStatus(home.chain) ?? 'nothing') : 'nothing'}`}.`,
    );
  return { url: home.url, learnt: learnDefaults(evidence, profile) };
}
