/** Fixes: changing, accepting. */
import type { Transaction } from 'sequelize';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { FixEvent, FixState } from '#core/facts/fix';
import { setState } from '#core/fixes/life';
import { findFinding, reevaluate } from '#server/audits';
import { findPerson, type Person } from '#server/people';
import { now, today } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, DomainError, NotFound, Refused } from '#server/platform/errors';
import { contactOfSite, lockSites } from '#server/sites';
import type { AcceptDto, FixChangeDto, FixesChangeDto } from './dto';
import { AcceptanceRow, Fix } from './models';
import { addEvents } from './update-fixes';

const GONE = 'This fix does not exist, or not any more.';

async function find(id: number): Promise<Fix> {
  const fix = await Fix.findByPk(id);
  if (!fix) throw new NotFound(GONE);
  return fix;
}

/** One change of a fix while it is written down: what is set, and the lines of the history. */
interface Change {
  set: Partial<Pick<Fix, 'state' | 'ownerId' | 'contactId' | 'dueDate'>>;
  events: FixEvent[];
}

/** @throws Conflict when the state is not a person's to set */
function stateChange(fix: Fix, to: FixState, by: string, at: string): Change {
  const { state, places, returns, checkId: check } = fix;
  try {
    const step = setState({ state, places, returns }, to, { check, by, at });
    return { set: { state: step.fix.state }, events: step.events };
  } catch (error) {
    throw new Conflict((error as Error).message);
  }
}

/** @throws Refused when the person is not there */
async function ownerChange(fix: Fix, to: number | null, by: string, at: string): Promise<Change> {
  if (to === fix.ownerId && !fix.contactId) return { set: {}, events: [] };
  const owner = to === null ? null : await findPerson(to);
  if (to !== null && !owner) throw new Refused('This person does not exist, or not any more.');
  return {
    set: { ownerId: owner?.id ?? null, contactId: null },
    events: [{ kind: 'owner', by, at, text: owner?.name ?? 'nobody' }],
  };
}

/** Somebody of the client does it. @throws NotFound */
async function contactChange(fix: Fix, to: number, by: string, at: string): Promise<Change> {
  if (to === fix.contactId) return { set: {}, events: [] };
  const contact = await contactOfSite(to, fix.siteId);
  return {
    set: { ownerId: null, contactId: contact.id },
    events: [{ kind: 'owner', by, at, text: `${contact.name} (client)` }],
  };
}

function dueChange(fix: Fix, to: string | null, by: string, at: string): Change {
  if (to === fix.dueDate) return { set: {}, events: [] };
  return { set: { dueDate: to }, events: [{ kind: 'due', by, at, text: to ?? 'no date' }] };
}

/**
 * A person's changes of one fix: state, owner, due date, a comment. Each becomes a line of the history.
 * @returns the site it belongs to; @throws NotFound, Conflict, Refused before anything is written
 */
async function applyChange(
  id: number,
  { state, ownerId, contactId, dueDate, comment }: FixChangeDto,
  by: string,
  transaction: Transaction,
): Promise<number> {
  const fix = await Fix.findByPk(id, { transaction, lock: true });
  if (!fix) throw new NotFound(GONE);
  const changedAt = now();
  const at = changedAt.toISOString();
  const changes = [
    ...(state === undefined ? [] : [stateChange(fix, state, by, at)]),
    ...(ownerId === undefined ? [] : [await ownerChange(fix, ownerId || null, by, at)]),
    ...(contactId === undefined ? [] : [await contactChange(fix, contactId, by, at)]),
    ...(dueDate === undefined ? [] : [dueChange(fix, dueDate || null, by, at)]),
  ];
  const set = Object.assign({}, ...changes.map((c) => c.set)) as Change['set'];
  if (Object.keys(set).length) await fix.update({ ...set, changedAt }, { transaction });
  const events = changes.flatMap((c) => c.events);
  if (comment) events.push({ kind: 'comment', by, at, text: comment });
  await addEvents(id, events, transaction);
  return fix.siteId;
}

/** @throws NotFound, Conflict, Refused */
export function changeFix(id: number, change: FixChangeDto, { name }: Person): Promise<void> {
  return inTransaction(async (transaction) => {
    await holdSitesOf([id], transaction);
    const siteId = await applyChange(id, change, name, transaction);
    await emit('SitesChanged', { siteIds: [siteId] }, transaction);
  });
}

async function holdSitesOf(ids: readonly number[], transaction: Transaction): Promise<void> {
  const fixes = await Fix.findAll({ where: { id: [...ids] }, attributes: ['siteId'], transaction });
  await lockSites(
    fixes.map((f) => f.siteId),
    transaction,
  );
}

/**
 * Accepts a fault for the places and values found now. A blocker counts only once a second person has agreed.
 */
export async function acceptFix(
  id: number,
  input: AcceptDto,
  person: Person,
): Promise<{ needsSecond: boolean }> {
  const fix = await find(id);
  if (input.until <= today())
    throw new Refused('The end date lies in the past: an acceptance ends on a day to come.');
  const finding = await findFinding(fix.environmentId, fix.checkId);
  const data = finding?.data as JudgedFinding | undefined;
  if (!finding || finding.outcome !== 'failed' || !data)
    throw new Conflict('The last audit does not see this fault, so there is nothing to accept.');
  const places = data.places
    .filter((p) => p.outcome === 'failed')
    .map(({ place, code, data }) => ({ place, code, ...(data ? { data } : {}) }));
  const needsSecond = finding.severity === 'blocker';
  const at = now();
  await inTransaction(async (transaction) => {
    await Fix.findByPk(id, { attributes: ['id'], transaction, lock: true });
    const asked = await AcceptanceRow.findOne({
      where: {
        environmentId: fix.environmentId,
        checkId: fix.checkId,
        withdrawnAt: null,
        secondedById: null,
      },
      transaction,
    });
    if (needsSecond && asked && asked.byId !== person.id && asked.until > today())
      throw new Conflict('Somebody else wants to leave it already: agree to that, or take it back first.');
    await AcceptanceRow.update(
      { withdrawnAt: at },
      { where: { environmentId: fix.environmentId, checkId: fix.checkId, withdrawnAt: null }, transaction },
    );
    await AcceptanceRow.create(
      {
        environmentId: fix.environmentId,
        checkId: fix.checkId,
        places,
        byCode: true,
        reason: input.reason,
        byId: person.id,
        until: input.until,
        createdAt: at,
      },
      { transaction },
    );
    await addEvents(
      id,
      [
        {
          kind: 'comment',
          by: person.name,
          at: at.toISOString(),
          text: `wants to leave it until ${input.until}: ${input.reason}${needsSecond ? ' (a second person must agree)' : ''}`,
        },
      ],
      transaction,
    );
  });
  await reevaluate(fix.environmentId, { cause: 'acceptance', by: person.name });
  return { needsSecond };
}

/** The second person's yes to leaving a blocker. */
export async function secondAcceptance(acceptanceId: number, person: Person): Promise<void> {
  const environmentId = await inTransaction(async (transaction) => {
    const row = await AcceptanceRow.findByPk(acceptanceId, { transaction, lock: true });
    if (!row || row.withdrawnAt) throw new NotFound('This acceptance does not exist, or not any more.');
    if (row.byId === person.id)
      throw new Conflict('A blocker needs the agreement of a second person, not of the one who asked.');
    if (row.secondedById) throw new Conflict('Somebody has agreed to this already.');
    await row.update({ secondedById: person.id }, { transaction });
    return row.environmentId;
  });
  await reevaluate(environmentId, { cause: 'acceptance', by: person.name });
}

/** Takes acceptances back; the fault counts again. */
export async function withdrawAcceptance(fixId: number, person: Person): Promise<void> {
  const fix = await find(fixId);
  const at = now();
  await inTransaction(async (transaction) => {
    const [count] = await AcceptanceRow.update(
      { withdrawnAt: at },
      { where: { environmentId: fix.environmentId, checkId: fix.checkId, withdrawnAt: null }, transaction },
    );
    if (!count) throw new Conflict('There is no acceptance to take back.');
    const text = 'took the acceptance back';
    await addEvents(fixId, [{ kind: 'comment', by: person.name, at: at.toISOString(), text }], transaction);
  });
  await reevaluate(fix.environmentId, { cause: 'acceptance', by: person.name });
}

/**
 * The same change of many fixes, each by itself: what cannot be changed is said and stops no other.
 * @returns how many were changed, and the first reasons why others were not
 */
export async function changeFixes(
  { ids, ...change }: FixesChangeDto,
  person: Person,
): Promise<{ changed: number; refused: { id: number; reason: string }[] }> {
  return inTransaction(async (transaction) => {
    const refused: { id: number; reason: string }[] = [];
    const siteIds = new Set<number>();
    await holdSitesOf(ids, transaction);
    for (const id of ids) {
      try {
        siteIds.add(await applyChange(id, change, person.name, transaction));
      } catch (error) {
        if (!(error instanceof DomainError)) throw error;
        refused.push({ id, reason: error.message });
      }
    }
    await emit('SitesChanged', { siteIds: [...siteIds] }, transaction);
    return { changed: ids.length - refused.length, refused };
  });
}
