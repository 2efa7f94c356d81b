/** Taking a site on, and what its screen shows. */
import { Op, type CreationAttributes, type Transaction } from 'sequelize';
import { profileIdOf } from '../hosts/known-profiles';
import { inTransaction } from '../platform/db/transaction';
import { BriefRow, Client, Environment, Site } from './models';
import type { NewSiteDto, SiteChangeDto } from '#core/entry/site';
import { withALabels } from '#core/facts/a-labels';
import type { Brief } from '#core/facts/brief';
import { newestBrief, saveBrief } from './briefs';
import { refuseUnusable } from './environments';
import { announce, type Key } from '../platform/events';
import { Conflict, NotFound, Refused } from '../platform/errors';
import { auditAfterLaunch } from '../audits/launch-audit';
import { reevaluateSite } from '../audits/judging';
import { checklistFor } from '../checklists/checklists';
import { User } from '../people/models';
import { siteWithEnvironments } from './roster';
import { Launch } from '../launch/models';
import { keepStanding } from './standing';
import { refuseOverwriting } from '../platform/overwriting';
import { sealAccess, accessName } from './access';
import { now } from '../platform/clock';

/** Lists that say how many sites each line has. */
const COUNTING_SITES: Key[] = [['clients'], ['host-profiles'], ['checklists']];

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
  if (!(await User.count({ where: { id: ownerId, removedAt: null }, transaction })))
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
    await keepStanding([siteId], transaction);
    announce(COUNTING_SITES, { transaction });
    return siteId;
  }, within);
}

/** Everything the site's head and brief need. @throws NotFound */
export async function siteDetail(id: number) {
  const row = await siteWithEnvironments(id);
  if (!row) throw new NotFound('This site does not exist, or not any more.');
  const brief = await newestBrief(id);
  const ways = new Map(
    (await Environment.findAll({ where: { siteId: id } })).map((e) => [
      e.id,
      {
        access: e.access,
        accessName: accessName(e),
        setUpOn: e.setUpOn ?? null,
        changedOn: e.changedOn ?? null,
        endsOn: e.endsOn ?? null,
      },
    ]),
  );
  return {
    ...row,
    environments: row.environments.map((p) => ({ ...p, ...ways.get(p.id) })),
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
  await reevaluateSite(siteId, { cause: 'brief', by });
  return version;
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

/** A launch that is under way leads through its sheet. @throws Conflict */
async function refuseBeforeGo(siteId: number, transaction: Transaction): Promise<void> {
  const launch = await Launch.findOne({ where: { openKey: siteId }, transaction });
  if (launch && !launch.wentAt)
    throw new Conflict(
      'Its launch is under way, and nobody has said go yet: see the run sheet under Launch.',
    );
}

/** What is kept of a site itself, as its form has it. */
async function asKept(
  { id, version }: Site,
  transaction: Transaction,
): Promise<{ version: number; data: Required<SiteChangeDto> }> {
  const { name, client, stage, replaces, launchDate, hostProfile, ownerId, pageLimit } =
    (await siteWithEnvironments(id, transaction))!;
  return {
    version,
    data: {
      name,
      client,
      stage,
      replaces,
      launchDate: launchDate ?? '',
      hostProfile: hostProfile ?? '',
      ownerId: ownerId ?? 0,
      pageLimit: pageLimit ?? 0,
    },
  };
}

/**
 * Changes what is kept of a site; where checks read it, the stored evidence is judged by it.
 * @param from the version that the change was made on, where that matters
 * @returns the version that it made
 * @throws NotFound, Conflict when the client has another site of that name or somebody saved since, Refused
 */
export async function changeSite(
  id: number,
  change: SiteChangeDto,
  by: string,
  from?: number,
): Promise<number> {
  const { judged, version } = await inTransaction(async (transaction) => {
    const site = await Site.findByPk(id, { transaction, lock: true });
    if (!site) throw new NotFound('This site does not exist, or not any more.');
    const kept = await asKept(site, transaction);
    refuseOverwriting(from, kept, { ...kept.data, ...change });
    if (change.stage === 'launched' && site.stage !== 'launched') await refuseBeforeGo(id, transaction);
    const isLaunched = change.stage === 'launched' && site.stage !== 'launched';
    site.set(await columnsOf(change, site, transaction));
    if (isLaunched) {
      site.launchedAt = now();
      await auditAfterLaunch(site, by, transaction);
    }
    if (site.stage !== 'launched') site.launchedAt = null;
    const changed = site.changed() || [];
    if (changed.length) site.version++;
    await site.save({ transaction });
    await keepStanding([id], transaction);
    announce(COUNTING_SITES, { transaction });
    return { judged: changed.filter((key) => JUDGED_BY.includes(key)), version: site.version };
  });
  if (!judged.length) return version;
  // another client or host may have another checklist
  const { id: checklistVersionId } = await checklistFor(await Site.findByPk(id, { rejectOnEmpty: true }));
  const cause = judged.includes('hostProfileId') ? 'host profile' : 'stage';
  await reevaluateSite(id, { cause, by }, checklistVersionId);
  return version;
}
