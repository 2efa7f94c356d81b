/** What an audit's findings do to the fixes of its environment, and whom it tells. */
import type { Transaction } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { isRemarkCheck, type FixCore, type FixEvent } from '#core/facts/fix';
import { afterAudit, afterLeavingOut, type Step } from '#core/fixes/life';
import type { SavedVerdict } from '#server/audits';
import { notify } from '#server/people';
import { AcceptanceRow, Fix, FixEventRow } from './models';

const coreOf = (row: Fix): FixCore => ({ state: row.state, places: row.places, returns: row.returns });

/** Those who should hear of it: the fix's owner, else whoever accepted the fault. */
async function concerned(row: Fix, transaction: Transaction): Promise<number[]> {
  if (row.ownerId) return [row.ownerId];
  const last = await AcceptanceRow.findOne({
    where: { environmentId: row.environmentId, checkId: row.checkId },
    order: [['id', 'DESC']],
    transaction,
  });
  return last ? [last.byId] : [];
}

export async function updateFixes(
  { environment, site, auditId, findings, at, isRenewed }: SavedVerdict,
  transaction: Transaction,
): Promise<void> {
  const fixes = new Map(
    (await Fix.findAll({ where: { environmentId: environment.id }, transaction, lock: true })).map((f) => [
      f.checkId,
      f,
    ]),
  );
  const iso = at.toISOString();
  const keep = async (
    row: Fix | undefined,
    finding: JudgedFinding | undefined,
    checkId: string,
    step: Step | null,
  ): Promise<void> => {
    if (!step) return;
    const values = {
      state: step.fix.state,
      places: step.fix.places,
      returns: step.fix.returns,
      severity: (finding ?? row!).severity,
    };
    const wasAccepted = row?.state === 'accepted';
    const fix = row
      ? row.set(values)
      : Fix.build({ environmentId: environment.id, checkId, openedAt: at, changedAt: at, ...values });
    // most audits find the same faults at the same places
    if (fix.changed()) await fix.set('changedAt', at).save({ transaction });
    await addEvents(fix.id, step.events, transaction, auditId);
    if (row && wasAccepted && step.fix.state === 'open' && isRenewed(checkId))
      await notify(
        await concerned(row, transaction),
        `${finding?.fault ?? checkById.get(checkId)?.fault ?? checkId} on ${site.name}, ${environment.name}, counts again: new places or another value than what was accepted.`,
        `/sites/${site.id}?environment=${environment.id}&check=${checkId}`,
        transaction,
      );
  };
  for (const finding of findings) {
    const row = fixes.get(finding.check);
    fixes.delete(finding.check);
    const core = row ? coreOf(row) : null;
    // old evidence re-evaluated says nothing new about a fault that somebody called done
    if (
      !isRenewed(finding.check) &&
      core?.state === 'to verify' &&
      finding.outcome === 'failed' &&
      !finding.accepted
    )
      continue;
    await keep(row, finding, finding.check, afterAudit(core, finding, iso));
  }
  // what a client said is seen by no audit
  for (const row of [...fixes.values()].filter((f) => !isRemarkCheck(f.checkId)))
    await keep(row, undefined, row.checkId, afterLeavingOut(coreOf(row), iso));
}

/** Appends lines to a fix's history. */
export async function addEvents(
  fixId: number,
  events: FixEvent[],
  transaction?: Transaction,
  auditId: number | null = null,
): Promise<void> {
  if (!events.length) return;
  await FixEventRow.bulkCreate(
    events.map((e) => ({
      fixId,
      auditId,
      kind: e.kind,
      byName: e.by,
      at: new Date(e.at),
      fromState: e.from ?? null,
      toState: e.to ?? null,
      text: e.text?.slice(0, 2000) ?? null,
    })),
    { transaction },
  );
}
