/** Manual checks: attesting, with a note and a file. */
import { checksOf } from '#core/checks/engine/checklist';
import type { Check } from '#core/checks/kit/check';
import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { checklistFor, checklistVersion } from '#server/checklists';
import type { Person } from '#server/people';
import { now } from '#server/platform/clock';
import { NotFound, Refused } from '#server/platform/errors';
import { FileRow, storeFile } from '#server/platform/files/files';
import { findEnvironment, getSite, type Environment, type Site } from '#server/sites';
import type { AttestDto } from './dto';
import { AttestationRow, Audit } from './models';
import { reevaluate } from './reevaluate';

/** A check of the checklist that judged this environment last, the agency's own among them. */
async function checkAsked(environment: Environment, site: Site, id: string): Promise<Check | undefined> {
  const audit = environment.lastAuditId ? await Audit.findByPk(environment.lastAuditId) : null;
  const checklist = audit
    ? await checklistVersion(audit.checklistVersionId)
    : (await checklistFor(site)).checklist;
  return checksOf(checklist)(id);
}

const DAY = 86_400_000;

/** Until when an attestation is good: by its own days, else the check's; undefined while the stage lasts. */
function goodUntil(input: AttestDto, check: Check): string | null {
  const days = input.goodForDays ?? check.attestedForDays;
  const says = input.done || input.doesNotApply;
  if (!says || !days || input.untilStageChanges) return null;
  return new Date(now().getTime() + days * DAY).toISOString().slice(0, 10);
}

/** @throws Refused */
async function refuseUnfit(input: AttestDto, environmentId: number): Promise<void> {
  const { attachmentId, doesNotApply, note } = input;
  if (attachmentId && !(await FileRow.count({ where: { id: attachmentId, environmentId } })))
    throw new Refused('This file does not belong to this environment.');
  if (doesNotApply && !note?.trim()) throw new Refused('Say in the note why it is not applicable.');
}

/** Attests a manual check, for one of the things it is about or for all. @throws Refused, NotFound */
export async function attest(environmentId: number, input: AttestDto, person: Person): Promise<void> {
  const environment = await findEnvironment(environmentId);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  const site = await getSite(environment.siteId);
  const check = await checkAsked(environment, site, input.check);
  if (!check?.byHand && check?.attestedForDays === undefined)
    throw new Refused('Only manual checks, and those that say so, are attested.');
  await refuseUnfit(input, environmentId);
  const { done, doesNotApply = false, note, untilStageChanges, place = null, attachmentId = null } = input;
  await AttestationRow.create({
    environmentId,
    checkId: check.id,
    done,
    doesNotApply,
    byName: person.name,
    byId: person.id,
    at: now(),
    note: note?.trim() || null,
    goodUntil: goodUntil(input, check),
    goodWhile: untilStageChanges ? site.stage : null,
    place,
    attachmentId,
  });
  await reevaluate(environmentId, { cause: 'attestation', by: person.name });
}

/**
 * Keeps a file beside an attestation to come.
 * @throws Refused for what is empty, too large or of no known kind; NotFound
 */
export async function saveAttachment(
  environmentId: number,
  name: string,
  bytes: Buffer,
  person: Person,
): Promise<{ id: number; name: string; type: string }> {
  const environment = await findEnvironment(environmentId);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  const { siteId } = environment;
  const file = { siteId, environmentId, name, bytes, byName: person.name, at: now() };
  const row = await storeFile(file, MOST_FILE_BYTES);
  return { id: row.id, name: row.name, type: row.type };
}
