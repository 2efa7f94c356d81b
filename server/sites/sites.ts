/** Taking a site on, and what its screen shows. */
import type { Transaction } from 'sequelize';
import { database } from '../platform/db/connection';
import { BriefRow, Client, Environment, Site } from '../platform/db/models';
import type { NewSiteDto } from '#core/entry/site';
import type { Brief } from '#core/facts/brief';
import type { Stage } from '#core/facts/situation';
import { newestBrief, saveBrief, withAsciiHosts } from './briefs';
import { refuse } from '../platform/http/failure';
import { judgeSiteAgain } from '../audits/judging';
import { roster } from './roster';
import { sealWayIn, wayInName } from './way-in';

/**
 * Creates client (unless known), site, places and the first version of the brief.
 * @throws 409 when the client has a site of that name
 */
export async function takeOn(input: NewSiteDto, by: string, within?: Transaction): Promise<number> {
  const work = async (transaction: Transaction): Promise<number> => {
    const [client] = await Client.findOrCreate({
      where: { name: input.client.trim() },
      defaults: { name: input.client.trim() },
      transaction,
    });
    if (await Site.count({ where: { clientId: client.id, name: input.name.trim() }, transaction }))
      throw refuse(409, `${client.name} has a site named ${input.name.trim()} already.`);
    const site = await Site.create(
      {
        clientId: client.id,
        name: input.name.trim(),
        stage: input.stage,
        replaces: input.replaces,
        launchDate: input.launchDate ?? null,
        hostProfile: input.hostProfile || null,
        createdAt: new Date(),
      },
      { transaction },
    );
    const places = [
      ...input.places.map((p) => ({
        name: p.name,
        url: p.url,
        kind: 'before' as const,
        ...(p.wayIn ? sealWayIn(p.wayIn, null) : {}),
      })),
      { name: 'Live', url: input.liveUrl, kind: 'live' as const },
    ];
    await Environment.bulkCreate(
      places.map((p, position) => ({ siteId: site.id, position, ...p })),
      { transaction },
    );
    const brief = Object.fromEntries(
      Object.entries({ ...input.brief }).filter(
        ([, v]) => v !== undefined && v !== '' && !(Array.isArray(v) && !v.length),
      ),
    );
    await BriefRow.create(
      { siteId: site.id, version: 1, data: withAsciiHosts(brief), savedBy: by, savedAt: new Date() },
      { transaction },
    );
    return site.id;
  };
  return within ? work(within) : database().transaction(work);
}

/** Everything the site's head and brief need. @throws 404 */
export async function siteDetail(id: number) {
  const [row] = await roster(id);
  if (!row) throw refuse(404, 'This site does not exist, or not any more.');
  const brief = await newestBrief(id);
  const ways = new Map(
    (await Environment.findAll({ where: { siteId: id } })).map((e) => [
      e.id,
      {
        wayIn: e.wayIn,
        wayInName: wayInName(e),
        setUpOn: e.setUpOn ?? null,
        changedOn: e.changedOn ?? null,
        endsOn: e.endsOn ?? null,
      },
    ]),
  );
  return {
    ...row,
    places: row.places.map((p) => ({ ...p, ...ways.get(p.id) })),
    brief: brief
      ? {
          version: brief.version,
          data: brief.brief,
          savedBy: brief.savedBy,
          savedAt: brief.savedAt.toISOString(),
        }
      : null,
  };
}

/** Saves the next version of a brief and judges the stored evidence by it. @throws 404, 409 */
export async function changeBrief(
  siteId: number,
  change: Partial<Brief>,
  by: string,
  from?: number,
): Promise<number> {
  if (!(await Site.count({ where: { id: siteId } })))
    throw refuse(404, 'This site does not exist, or not any more.');
  const { version } = await saveBrief(siteId, change, by, from);
  await judgeSiteAgain(siteId, { cause: 'brief', by });
  return version;
}

export async function setStage(id: number, stage: Stage, by: string): Promise<void> {
  const site = await Site.findByPk(id);
  if (!site) throw refuse(404, 'This site does not exist, or not any more.');
  await site.update({ stage });
  await judgeSiteAgain(id, { cause: 'stage', by });
}

export async function listClients(): Promise<{ id: number; name: string }[]> {
  return (await Client.findAll({ order: [['name', 'ASC']] })).map((c) => ({ id: c.id, name: c.name }));
}
