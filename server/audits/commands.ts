/** The commands that show outside Armband what an audit saw. */
import { checksOf } from '#core/checks/engine/checklist';
import { commandsFor, type ShownBy } from '#core/verify/commands';
import { checklistVersion } from '../checklists/checklists';
import { NotFound } from '../platform/errors';
import { keptEvidence } from '../platform/packed';
import { Environment } from '../sites/models';
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
  const evidence = await keptEvidence(stored.data);
  const checkOf = checksOf(checklist);
  return (id, place) => {
    const check = checkOf(id);
    return check ? commandsFor(check, place, evidence) : [];
  };
}

/** Those of one place, by the newest audit. @throws NotFound */
export async function commandsAt(environmentId: number, check: string, place: string): Promise<ShownBy[]> {
  const environment = await Environment.findByPk(environmentId);
  const audit = environment?.lastAuditId ? await Audit.findByPk(environment.lastAuditId) : null;
  if (!audit) throw new NotFound('Nothing was audited here yet.');
  return (await commandsOf(audit))(check, place);
}
