/** Connects fixes to events, hooks and questions of other subjects. */
import type { Transaction } from 'sequelize';
import type { AcceptedPlace } from '#core/facts/checklist';
import { OPEN_STATES } from '#core/facts/fix';
import { judgeInputs, beforeJudging, verdictSaved } from '#server/audits';
import { peopleByIds } from '#server/people';
import { emit, subscribe } from '#server/platform/domain-events';
import { migrateAcceptances } from './acceptance-codes';
import { acceptancesOf } from './find';
import { Fix } from './models';
import { updateFixes } from './update-fixes';

/** The owner of fixes, whose name lists show. */
type Whose = { ownerId: number } | { contactId: number };

/** Updates what lists show of somebody's fixes. @param change is made before */
async function changeFixesOf(
  whose: Whose,
  transaction: Transaction,
  change?: () => Promise<unknown>,
): Promise<void> {
  const rows = await Fix.findAll({ where: whose, attributes: ['siteId'], group: ['siteId'], transaction });
  await change?.();
  await emit('SitesChanged', { siteIds: rows.map((f) => f.siteId) }, transaction);
}

export function connectFixes(): void {
  beforeJudging.on(migrateAcceptances);
  verdictSaved.on(updateFixes);
  judgeInputs.answer(async (environment) => {
    const rows = await acceptancesOf(environment.id);
    const people = await peopleByIds(
      rows.flatMap((r) => (r.secondedById ? [r.byId, r.secondedById] : [r.byId])),
    );
    const nameOf = (id: number): string => people.find((p) => p.id === id)?.name ?? '';
    return {
      acceptances: rows.map((r) => ({
        check: r.checkId,
        places: r.places.filter((p): p is AcceptedPlace => 'code' in p),
        reason: r.reason,
        by: nameOf(r.byId),
        ...(r.secondedById ? { seconded: nameOf(r.secondedById) } : {}),
        until: r.until,
      })),
    };
  });
  subscribe('PersonRenamed', ({ personId }, transaction) =>
    changeFixesOf({ ownerId: personId }, transaction),
  );
  subscribe('PersonLeft', ({ personId: ownerId }, transaction) =>
    changeFixesOf({ ownerId }, transaction, () =>
      Fix.update({ ownerId: null }, { where: { ownerId, state: [...OPEN_STATES] }, transaction }),
    ),
  );
  subscribe('ContactRenamed', ({ contactId }, transaction) => changeFixesOf({ contactId }, transaction));
  subscribe('ContactLeft', ({ contactId }, transaction) =>
    changeFixesOf({ contactId }, transaction, () =>
      Fix.update({ contactId: null }, { where: { contactId }, transaction }),
    ),
  );
  subscribe('ContactMerged', async ({ contactId, into }, transaction) => {
    await Fix.update({ contactId: into }, { where: { contactId }, transaction });
  });
}
