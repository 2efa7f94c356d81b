/** Taking a site on, and what its screen shows. */
import type { CreationAttributes, Transaction } from 'sequelize';
import { profileIdOf } from '../hosts/known-profiles';
import { inTransaction } from '../platform/db/transaction';
import { BriefRow, Client, Environment, Site } from './models';
import type { NewSiteDto } from '#core/entry/site';
import { withALabels } from '#core/facts/a-labels';
import type { Brief } from '#core/facts/brief';
import type { Stage } from '#core/facts/situation';
import { newestBrief, saveBrief } from './briefs';
import { refuseUnusable } from './environments';
import { Conflict, NotFound } from '../platform/errors';
import { judgeSiteAgain } from '../audits/judging';
import { roster } from './roster';
import { sealWayIn, wayInName } from './way-in';

/** A site as it is entered, with the names of client and host profile found or made. */
async function makeSite(input: NewSiteDto, transaction: Transaction): Promise<Site> {
  const [clientName, name] = [input.client.trim(), input.name.trim()];
  const [client] = await Client.findOrCreate({
    where: { name: clientName },
    defaults: { name: clientName },
    transaction,
  });
  // the client's row is held, so that of two who take the same site on at once the second sees the first
  await client.reload({ transaction, lock: true });
  if (await Site.count({ where: { clientId: client.id, name }, transaction }))
    throw new Conflict(`${client.name} has a site named ${name} already.`);
  return Site.create(
    {
      clientId: client.id,
      name,
      stage: input.stage,
      replaces: input.replaces,
      launchDate: input.launchDate ?? null,
      hostProfileId: input.hostProfile ? await profileIdOf(input.hostProfile, transaction) : null,
      createdAt: new Date(),
    },
    { transaction },
  );
}

/** Its environments, those before the live one first. */
function environmentsOf({ places, liveUrl }: NewSiteDto): Omit<CreationAttributes<Environment>, 'siteId'>[] {
  const before = places.map(({ name, url, wayIn }, position) => ({
    name,
    url,
    position,
    kind: 'before' as const,
    ...(wayIn ? sealWayIn(wayIn, null) : {}),
  }));
  return [...before, { name: 'Live', url: liveUrl, position: before.length, kind: 'live' as const }];
}

const isFilled = (v: unknown): boolean => v !== undefined && v !== '' && !(Array.isArray(v) && !v.length);

/**
 * Creates client (unless known), site, environments and the first version of the brief.
 * @param within a transaction that is open already
 * @throws Conflict when the client has a site of that name
 */
export function takeOn(input: NewSiteDto, by: string, within?: Transaction): Promise<number> {
  for (const { wayIn } of input.places) if (wayIn) refuseUnusable(wayIn);
  return inTransaction(async (transaction) => {
    const { id: siteId } = await makeSite(input, transaction);
    await Environment.bulkCreate(
      environmentsOf(input).map((e) => ({ siteId, ...e })),
      { transaction },
    );
    const brief = Object.fromEntries(Object.entries({ ...input.brief }).filter(([, v]) => isFilled(v)));
    await BriefRow.create(
      { siteId, version: 1, data: withALabels(brief), savedBy: by, savedAt: new Date() },
      { transaction },
    );
    return siteId;
  }, within);
}

/** Everything the site's head and brief need. @throws NotFound */
export async function siteDetail(id: number) {
  const [row] = await roster(id);
  if (!row) throw new NotFound('This site does not exist, or not any more.');
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

/** Saves the next version of a brief and judges the stored evidence by it. @throws NotFound, Conflict */
export async function changeBrief(
  siteId: number,
  change: Partial<Brief>,
  by: string,
  from?: number,
): Promise<number> {
  if (!(await Site.count({ where: { id: siteId } })))
    throw new NotFound('This site does not exist, or not any more.');
  const { version } = await saveBrief(siteId, change, by, from);
  await judgeSiteAgain(siteId, { cause: 'brief', by });
  return version;
}

export async function setStage(id: number, stage: Stage, by: string): Promise<void> {
  const site = await Site.findByPk(id);
  if (!site) throw new NotFound('This site does not exist, or not any more.');
  await site.update({ stage });
  await judgeSiteAgain(id, { cause: 'stage', by });
}

export async function listClients(): Promise<{ id: number; name: string }[]> {
  return (await Client.findAll({ order: [['name', 'ASC']] })).map((c) => ({ id: c.id, name: c.name }));
}
