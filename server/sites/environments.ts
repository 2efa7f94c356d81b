/** The places a site can be seen at: adding, changing and taking away. */
import { Audit } from '../audits/models';
import { Environment, Site } from './models';
import type { PlaceDto, WayInDto } from '#core/entry/site';
import { parseUrl } from '#core/extract/address';
import { wayInFault } from '#probe/http/way-in';
import { Conflict, NotFound, Refused } from '../platform/errors';
import { inTransaction } from '../platform/db/transaction';
import { sealWayIn } from './way-in';

/** The dates that were given; an empty one empties the field. */
function datesOf(input: PlaceDto): Partial<Pick<Environment, 'setUpOn' | 'changedOn' | 'endsOn'>> {
  return Object.fromEntries(
    (['setUpOn', 'changedOn', 'endsOn'] as const)
      .filter((k) => input[k] !== undefined)
      .map((k) => [k, input[k] || null]),
  );
}

const MOST = 20;

/** @throws Refused for what cannot be sent, or could not be kept out of the evidence */
export function refuseUnusable({ kind, name = '', value }: WayInDto): void {
  if (value === undefined || value === '' || kind === 'open' || kind === 'addresses') return;
  const origins: string[] = [];
  const fault = wayInFault(
    kind === 'credentials'
      ? { kind, user: name, password: value, origins }
      : { kind, name: name || 'kept', value, origins },
  );
  if (fault) throw new Refused(fault);
}

/** What is missing of a way in of which nothing is kept yet. */
function missingOf({ kind, name, value }: WayInDto): string | undefined {
  const credentials = kind === 'credentials';
  if (!name) return credentials ? 'Say which user name gets in.' : `Say the name of the ${kind}.`;
  if (!value) return credentials ? 'Say the password.' : `Say the value of the ${kind}.`;
  return undefined;
}

function refuseUnfit(input: PlaceDto, before: Environment | null): void {
  const { wayIn } = input;
  if (!wayIn || wayIn.kind === 'open' || wayIn.kind === 'addresses') return;
  const kept = before?.wayIn === wayIn.kind && before.wayInSealed !== null;
  const missing = kept ? undefined : missingOf(wayIn);
  if (missing) throw new Refused(missing);
  // a key goes to the origin it was made for and to no other
  if (!wayIn.value && kept && parseUrl(before.url)?.origin !== parseUrl(input.url)?.origin)
    throw new Refused('The address is on another host, port or scheme now: enter the secret again.');
  refuseUnusable(wayIn);
}

/** Adds a place before the live one, in front of it. @throws NotFound, Refused */
export async function addPlace(siteId: number, input: PlaceDto): Promise<number> {
  refuseUnfit(input, null);
  return inTransaction(async (transaction) => {
    // the site's row is held, so that two who add at once add one after the other
    if (!(await Site.findByPk(siteId, { transaction, lock: true })))
      throw new NotFound('This site does not exist, or not any more.');
    const places = await Environment.findAll({
      where: { siteId },
      order: [['position', 'ASC']],
      transaction,
    });
    if (places.length >= MOST) throw new Refused(`A site has at most ${MOST} places.`);
    const at = places.findIndex((p) => p.kind === 'live');
    const position = at < 0 ? places.length : at;
    for (const p of places.slice(position)) await p.update({ position: p.position + 1 }, { transaction });
    const made = await Environment.create(
      {
        siteId,
        name: input.name.trim(),
        kind: 'before',
        url: input.url,
        position,
        ...datesOf(input),
        ...(input.wayIn ? sealWayIn(input.wayIn, null) : {}),
      },
      { transaction },
    );
    return made.id;
  });
}

/** Changes name, address and way in. @throws NotFound, Refused, Conflict while it is being audited */
export async function changePlace(id: number, input: PlaceDto): Promise<void> {
  const place = await Environment.findByPk(id);
  if (!place) throw new NotFound('This place does not exist, or not any more.');
  refuseUnfit(input, place);
  if (await Audit.count({ where: { runningKey: id } }))
    throw new Conflict('This place is being audited. Wait for it or stop it.');
  await place.update({
    name: input.name.trim(),
    url: input.url,
    ...datesOf(input),
    ...(input.wayIn ? sealWayIn(input.wayIn, place) : {}),
  });
}

/**
 * Takes a place away with its audits and fixes.
 * @throws NotFound, Conflict for the live one and while it is being audited
 */
export async function takePlaceAway(id: number): Promise<void> {
  const place = await Environment.findByPk(id);
  if (!place) throw new NotFound('This place does not exist, or not any more.');
  if (place.kind === 'live') throw new Conflict('The live place stays: a site has one.');
  if (await Audit.count({ where: { runningKey: id } }))
    throw new Conflict('This place is being audited. Wait for it or stop it.');
  await place.destroy();
}
