/** The environments a site can be seen at: adding, changing and deleting. */
import type { EnvironmentDto, AccessDto } from '#core/entry/site';
import { parseUrl } from '#core/extract/address';
import { accessFault } from '#probe/http/access';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { defineQuestion, type Question } from '#server/platform/extension-points';
import { sealAccess } from './access';
import { SITE_GONE } from './find';
import { Environment, Site } from './models';

/** The dates that were given; an empty one empties the field. */
function datesOf(input: EnvironmentDto): Partial<Pick<Environment, 'setUpOn' | 'changedOn' | 'endsOn'>> {
  return Object.fromEntries(
    (['setUpOn', 'changedOn', 'endsOn'] as const)
      .filter((k) => input[k] !== undefined)
      .map((k) => [k, input[k] || null]),
  );
}

const MOST = 20;

/** Why an environment cannot be changed just now. */
export const whyBusy = defineQuestion<[environmentId: number], string>();
/** Why an environment is kept, though nothing goes on there. */
export const reasonsToKeepEnvironment = defineQuestion<[environmentId: number], string>();

/** @throws Conflict with the first reason */
async function refuse(question: Question<[number], string>, id: number): Promise<void> {
  const [why] = await question.ask(id);
  if (why) throw new Conflict(why);
}

/** @throws Refused for what cannot be sent, or could not be kept out of the evidence */
export function refuseUnusable({ kind, name = '', value }: AccessDto): void {
  if (value === undefined || value === '' || kind === 'open' || kind === 'addresses') return;
  const origins: string[] = [];
  const fault = accessFault(
    kind === 'credentials'
      ? { kind, user: name, password: value, origins }
      : { kind, name: name || 'kept', value, origins },
  );
  if (fault) throw new Refused(fault);
}

/** What is missing of an access of which nothing is kept yet. */
function missingOf({ kind, name, value }: AccessDto): string | undefined {
  const credentials = kind === 'credentials';
  if (!name) return credentials ? 'Say which user name gets in.' : `Say the name of the ${kind}.`;
  if (!value) return credentials ? 'Say the password.' : `Say the value of the ${kind}.`;
  return undefined;
}

function refuseUnfit(input: EnvironmentDto, before: Environment | null): void {
  const { access } = input;
  if (!access || access.kind === 'open' || access.kind === 'addresses') return;
  const kept = before?.access === access.kind && before.accessSealed !== null;
  const missing = kept ? undefined : missingOf(access);
  if (missing) throw new Refused(missing);
  // a key goes to the origin it was made for and to no other
  if (!access.value && kept && parseUrl(before.url)?.origin !== parseUrl(input.url)?.origin)
    throw new Refused('The address is on another host, port or scheme now: enter the secret again.');
  refuseUnusable(access);
}

/**
 * Adds an environment: the live one at the end, any other in front of it.
 * @throws NotFound, Refused, Conflict for a second live one
 */
export async function addEnvironment(siteId: number, input: EnvironmentDto): Promise<number> {
  refuseUnfit(input, null);
  return inTransaction(async (transaction) => {
    // the site's row is held, so that two who add at once add one after the other
    if (!(await Site.findByPk(siteId, { transaction, lock: true }))) throw new NotFound(SITE_GONE);
    const environments = await Environment.findAll({
      where: { siteId },
      order: [['position', 'ASC']],
      transaction,
    });
    if (environments.length >= MOST) throw new Refused(`A site has at most ${MOST} environments.`);
    const at = environments.findIndex((p) => p.kind === 'live');
    const kind = input.kind ?? 'before';
    if (kind === 'live' && at >= 0) throw new Conflict('This site has a live environment already.');
    const position = at < 0 ? environments.length : at;
    for (const p of environments.slice(position))
      await p.update({ position: p.position + 1 }, { transaction });
    const made = await Environment.create(
      {
        siteId,
        name: input.name.trim(),
        kind,
        url: input.url,
        position,
        ...datesOf(input),
        ...(input.access ? sealAccess(input.access, null) : {}),
      },
      { transaction },
    );
    await emit('SitesChanged', { siteIds: [siteId] }, transaction);
    return made.id;
  });
}

/** Changes name, address and access. @throws NotFound, Refused, Conflict while it is being audited */
export async function changeEnvironment(id: number, input: EnvironmentDto): Promise<void> {
  const environment = await Environment.findByPk(id);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  refuseUnfit(input, environment);
  await refuse(whyBusy, id);
  const columns = {
    name: input.name.trim(),
    url: input.url,
    ...datesOf(input),
    ...(input.access ? sealAccess(input.access, environment) : {}),
  };
  await inTransaction(async (transaction) => {
    await Environment.update(columns, { where: { id }, transaction });
    await emit('SitesChanged', { siteIds: [environment.siteId] }, transaction);
  });
}

/**
 * Deletes an environment with its audits and fixes.
 * @throws NotFound, Conflict for the live one, while it is being audited, and where a client was told of it or said yes
 */
export async function deleteEnvironment(id: number): Promise<void> {
  const environment = await Environment.findByPk(id);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  if (environment.kind === 'live') throw new Conflict('The live environment stays: a site has one.');
  await refuse(whyBusy, id);
  if ((await Environment.count({ where: { siteId: environment.siteId } })) === 1)
    throw new Conflict('A site keeps its last environment. Delete the site instead.');
  await refuse(reasonsToKeepEnvironment, id);
  await inTransaction(async (transaction) => {
    await Environment.destroy({ where: { id }, transaction });
    await emit('SitesChanged', { siteIds: [environment.siteId] }, transaction);
  });
}
