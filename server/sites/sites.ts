/** Taking a site on, and what its screen shows. */
import { Op, type CreationAttributes, type Transaction } from 'sequelize';
import type { AccessDto, NewSiteDto, SiteChangeDto } from '#core/entry/site';
import { withALabels } from '#core/facts/a-labels';
import type { Brief } from '#core/facts/brief';
import type { Stage } from '#core/facts/situation';
import { profileIdOf, profilesByIds } from '#server/hosts';
import { findMember } from '#server/people';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { defineQuestion } from '#server/platform/extension-points';
import { refuseOverwriting } from '#server/platform/overwriting';
import { sealAccess } from './access';
import { refuseUnusable } from './environments';
import { SITE_GONE } from './find';
import { BriefRow, Client, Environment, Site } from './models';

/**
 * The client of a name, found or made, and held, so that of two who add the same site at once the second sees
 * the first.
 */
async function clientNamed(name: string, transaction: Transaction): Promise<Client> {
  const [client] = await Client.findOrCreate({ where: { name }, defaults: { name }, transaction });
  return client.reload({ transaction, lock: true });
}

/** @throws Conflict when the client has another site of that name */
async function refuseTaken(client: Client, name: string, transaction: Transaction, own = 0): Promise<void> {
  if (await Site.count({ where: { clientId: client.id, name, id: { [Op.ne]: own } }, transaction }))
    throw new Conflict(`${client.name} has a site named ${name} already.`);
}

/** @returns null for nobody. @throws Refused for somebody who is not of the team */
async function knownOwner(ownerId: number | undefined, transaction: Transaction): Promise<number | null> {
  if (!ownerId) return null;
  if (!(await findMember(ownerId, transaction)))
    throw new Refused('This person is not of the team, or not any more.');
  return ownerId;
}

/** A site as it is entered, with the names of client and host profile found or made. */
async function makeSite(input: NewSiteDto, transaction: Transaction): Promise<Site> {
  const name = input.name.trim();
  const client = await clientNamed(input.client.trim(), transaction);
  await refuseTaken(client, name, transaction);
  return Site.create(
    {
      clientId: client.id,
      name,
      stage: input.stage,
      replaces: input.replaces,
      launchDate: input.launchDate ?? null,
      hostProfileId: input.hostProfile ? await profileIdOf(input.hostProfile, transaction) : null,
      ownerId: await knownOwner(input.ownerId, transaction),
      pageLimit: input.pageLimit ?? null,
      createdAt: now(),
    },
    { transaction },
  );
}

/** Its environments, those before the live one first. */
function environmentsOf({
  environments,
  liveUrl,
}: NewSiteDto): Omit<CreationAttributes<Environment>, 'siteId'>[] {
  const before = environments.map(({ name, url, access }, position) => ({
    name,
    url,
    position,
    kind: 'before' as const,
    ...(access ? sealAccess(access, null) : {}),
  }));
  if (!liveUrl) return before;
  return [...before, { name: 'Live', url: liveUrl, position: before.length, kind: 'live' as const }];
}

const isFilled = (v: unknown): boolean => v !== undefined && v !== '' && !(Array.isArray(v) && !v.length);

/**
 * Creates client (unless known), site, environments and the first version of the brief.
 * @param within a transaction that is open already
 * @throws Conflict when the client has a site of that name
 */
export function addSite(input: NewSiteDto, by: string, within?: Transaction): Promise<number> {
  if (!input.liveUrl && !input.environments.length)
    throw new Refused('Give the live address, or one before it where there is no live one yet.');
  for (const { access } of input.environments) if (access) refuseUnusable(access);
  return inTransaction(async (transaction) => {
    const { id: siteId } = await makeSite(input, transaction);
    await Environment.bulkCreate(
      environmentsOf(input).map((e) => ({ siteId, ...e })),
      { transaction },
    );
    const brief = Object.fromEntries(Object.entries({ ...input.brief }).filter(([, v]) => isFilled(v)));
    await BriefRow.create(
      { siteId, version: 1, data: withALabels(brief), savedBy: by, savedAt: now() },
      { transaction },
    );
    await emit('SitesChanged', { siteIds: [siteId] }, transaction);
    announce('SitesCounted', {}, { transaction });
    return siteId;
  }, within);
}

/** What of a site checks read, or its checklist hangs on. */
const JUDGED_BY = ['stage', 'replaces', 'launchDate', 'hostProfileId', 'clientId'];

/** What is given; an empty text or 0 empties its column. */
const emptied = ({ launchDate, pageLimit }: SiteChangeDto) => ({
  ...(launchDate === undefined ? {} : { launchDate: launchDate || null }),
  ...(pageLimit === undefined ? {} : { pageLimit: pageLimit || null }),
});

/** The columns that a change sets. */
async function columnsOf(
  { name, client, ownerId, hostProfile, launchDate, pageLimit, ...rest }: SiteChangeDto,
  site: Site,
  transaction: Transaction,
): Promise<Partial<CreationAttributes<Site>>> {
  const to = client === undefined ? null : await clientNamed(client.trim(), transaction);
  if (name !== undefined || to) {
    const owner = to ?? (await Client.findByPk(site.clientId, { transaction, rejectOnEmpty: true }));
    await refuseTaken(owner, name?.trim() ?? site.name, transaction, site.id);
  }
  return {
    ...rest,
    ...(name === undefined ? {} : { name: name.trim() }),
    ...(to ? { clientId: to.id } : {}),
    ...emptied({ launchDate, pageLimit }),
    ...(ownerId === undefined ? {} : { ownerId: await knownOwner(ownerId, transaction) }),
    ...(hostProfile === undefined
      ? {}
      : { hostProfileId: hostProfile ? await profileIdOf(hostProfile, transaction) : null }),
  };
}

/** Why a site cannot be set to launched yet. */
export const reasonsNotToLaunch = defineQuestion<[siteId: number, transaction: Transaction], string>();

/** What is kept of a site itself, as its form has it. */
async function asKept(
  { version, name, clientId, hostProfileId, stage, replaces, launchDate, ownerId, pageLimit }: Site,
  transaction: Transaction,
): Promise<{ version: number; data: Required<SiteChangeDto> }> {
  const client = await Client.findByPk(clientId, { transaction, rejectOnEmpty: true });
  const [profile] = hostProfileId ? await profilesByIds([hostProfileId]) : [];
  return {
    version,
    data: {
      name,
      client: client.name,
      stage,
      replaces,
      launchDate: launchDate ?? '',
      hostProfile: profile?.name ?? '',
      ownerId: ownerId ?? 0,
      pageLimit: pageLimit ?? 0,
    },
  };
}

export interface SavedSite {
  version: number;
  /** Columns that were changed and that checks read, or that a checklist hangs on. */
  judged: string[];
}

/**
 * Changes what is kept of a site.
 * @param from the version that the change was made on, where that matters
 * @throws NotFound, Conflict when the client has another site of that name or somebody saved since, Refused
 */
export function saveSite(id: number, change: SiteChangeDto, by: string, from?: number): Promise<SavedSite> {
  return inTransaction(async (transaction) => {
    const site = await Site.findByPk(id, { transaction, lock: true });
    if (!site) throw new NotFound(SITE_GONE);
    const kept = await asKept(site, transaction);
    refuseOverwriting(from, kept, { ...kept.data, ...change });
    const isLaunched = change.stage === 'launched' && site.stage !== 'launched';
    const [why] = isLaunched ? await reasonsNotToLaunch.ask(id, transaction) : [];
    if (why) throw new Conflict(why);
    site.set(await columnsOf(change, site, transaction));
    if (isLaunched) site.launchedAt = now();
    if (site.stage !== 'launched') site.launchedAt = null;
    const changed = site.changed() || [];
    if (changed.length) site.version++;
    await site.save({ transaction });
    if (isLaunched) await emit('SiteLaunched', { siteId: id, name: site.name, by }, transaction);
    await emit('SitesChanged', { siteIds: [id] }, transaction);
    announce('SitesCounted', {}, { transaction });
    return { judged: changed.filter((key) => JUDGED_BY.includes(key)), version: site.version };
  });
}

/** A site whose facts are known already, such as one of the demo. */
export interface KnownSite {
  client: string;
  name: string;
  stage: Stage;
  replaces: boolean;
  launchDate: string;
  hostProfileId: number;
  liveUrl: string;
  environments: (Pick<Environment, 'name' | 'url'> & {
    setUpOn: string | null;
    changedOn: string | null;
    endsOn: string | null;
    access?: AccessDto;
  })[];
  brief: Brief;
  savedBy: string;
}

/** Adds a site as it is given, without a look at what a person may have meant. */
export async function addKnownSite(
  { client: clientName, environments, liveUrl, brief, savedBy, ...site }: KnownSite,
  transaction: Transaction,
): Promise<void> {
  const client = await clientNamed(clientName, transaction);
  const { id: siteId } = await Site.create(
    { ...site, clientId: client.id, createdAt: now() },
    { transaction },
  );
  const before = environments.map(({ access, ...e }, position) => ({
    ...e,
    siteId,
    position,
    kind: 'before' as const,
    ...(access ? sealAccess(access, null) : {}),
  }));
  await Environment.bulkCreate(
    [...before, { siteId, name: 'Live', kind: 'live', url: liveUrl, position: before.length }],
    { transaction },
  );
  await BriefRow.create({ siteId, version: 1, data: brief, savedBy, savedAt: now() }, { transaction });
  await emit('SitesChanged', { siteIds: [siteId] }, transaction);
}
