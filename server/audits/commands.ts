/** The commands that show outside Armband what an audit saw. */
import { checksOf } from '#core/checks/engine/checklist';
import { commandsFor, type ShownBy } from '#core/verify/commands';
import { checklistVersion } from '#server/checklists';
import { NotFound } from '#server/platform/errors';
import { readEvidence } from '#server/platform/packed';
import { findEnvironment } from '#server/sites';
import { Audit, AuditEvidence } from './models';

/**
 * @returns what makes the commands of one audit: of a check’s place
 * @throws NotFound where its evidence is not kept any more
 */
export async function commandsOf(audit: Audit): Promise<(check: string, place: string) => ShownBy[]> {
  const [stored, checklist] = await Promise.all([
    AuditEvidence.findByPk(audit.id),
    checklistVersion(audit.checklistVersionId),
  ]);
  if (!stored) throw new NotFound('The evidence of this audit is not kept any more.');
  const evidence = await readEvidence(stored.data);
  const checkOf = checksOf(checklist);
  return (id, place) => {
    const check = checkOf(id);
    return check ? commandsFor(check, place, evidence) : [];
  };
}

/** Those of one place, by the newest audit. @throws NotFound */
export async function commandsAt(environmentId: number, check: string, place: string): Promise<ShownBy[]> {
  const environment = await findEnvironment(environmentId);
  const audit = environment?.lastAuditId ? await Audit.findByPk(environment.lastAuditId) : null;
  if (!audit) throw new NotFound('Nothing was audited here yet.');
  return (await commandsOf(audit))(check, place);
}
