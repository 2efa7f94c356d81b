/** Manual checks: attesting, with a note and a file. */
import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { checksOf } from '#core/checks/engine/checklist';
import type { Check } from '#core/checks/kit/check';
import { AttachmentRow, AttestationRow } from './models';
import { Audit } from '../audits/models';
import { Environment, Site } from '../sites/models';
import type { AttestDto } from '../fixes/dto';
import { checklistFor, checklistVersion } from './checklists';
import { NotFound, Refused } from '../platform/errors';
import { reevaluate } from '../audits/judging';
import type { Person } from '../people/models';

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
  return new Date(Date.now() + days * DAY).toISOString().slice(0, 10);
}

/** @throws Refused */
async function refuseUnfit(input: AttestDto, environmentId: number): Promise<void> {
  const { attachmentId, doesNotApply, note } = input;
  if (attachmentId && !(await AttachmentRow.count({ where: { id: attachmentId, environmentId } })))
    throw new Refused('This file does not belong to this environment.');
  if (doesNotApply && !note?.trim()) throw new Refused('Say in the note why it is not applicable.');
}

/** Attests a manual check, for one of the things it is about or for all. @throws Refused, NotFound */
export async function attest(environmentId: number, input: AttestDto, person: Person): Promise<void> {
  const environment = await Environment.findByPk(environmentId);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
  const check = await checkAsked(environment, site, input.check);
  if (!check?.byHand) throw new Refused('Only manual checks are attested.');
  await refuseUnfit(input, environmentId);
  const { done, doesNotApply = false, note, untilStageChanges, place = null, attachmentId = null } = input;
  await AttestationRow.create({
    environmentId,
    checkId: check.id,
    done,
    doesNotApply,
    byName: person.name,
    byId: person.id,
    at: new Date(),
    note: note?.trim() || null,
    goodUntil: goodUntil(input, check),
    goodWhile: untilStageChanges ? site.stage : null,
    place,
    attachmentId,
  });
  await reevaluate(environmentId, { cause: 'attestation', by: person.name });
}

/** Kinds of file by their first bytes; what is none of them is kept only as plain text. */
const KINDS: { type: string; starts: (b: Buffer) => boolean }[] = [
  {
    type: 'image/png',
    starts: (b) => b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  },
  { type: 'image/jpeg', starts: (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff },
  {
    type: 'image/webp',
    starts: (b) => b.toString('latin1', 0, 4) === 'RIFF' && b.toString('latin1', 8, 12) === 'WEBP',
  },
  { type: 'image/gif', starts: (b) => /^GIF8[79]a/.test(b.toString('latin1', 0, 6)) },
  { type: 'application/pdf', starts: (b) => b.toString('latin1', 0, 5) === '%PDF-' },
];

/** @returns the type by the bytes themselves; undefined for what is not kept */
export function typeOfFile(bytes: Buffer): string | undefined {
  const kind = KINDS.find((k) => k.starts(bytes));
  if (kind) return kind.type;
  if (bytes.includes(0)) return undefined;
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'text/plain; charset=utf-8';
  } catch {
    return undefined;
  }
}

/**
 * Keeps a file beside an attestation to come.
 * @throws Refused for what is empty, too large or of no known kind; NotFound
 */
export async function keepFile(
  environmentId: number,
  name: string,
  bytes: Buffer,
  person: Person,
): Promise<{ id: number; name: string; type: string }> {
  if (!(await Environment.count({ where: { id: environmentId } })))
    throw new NotFound('This environment does not exist, or not any more.');
  if (!bytes.length) throw new Refused('The file is empty.');
  if (bytes.length > MOST_FILE_BYTES)
    throw new Refused(`The file is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB.`);
  const type = typeOfFile(bytes);
  if (!type)
    throw new Refused('Pictures (PNG, JPEG, WebP, GIF), PDF and plain text can be kept, not this file.');

  const plain =
    name
      .replace(/[\u0000-\u001f\u007f/\\]/g, '')
      .trim()
      .slice(0, 200) || 'file';
  const row = await AttachmentRow.create({
    environmentId,
    name: plain,
    type,
    bytes: bytes.length,
    byName: person.name,
    at: new Date(),
    data: bytes,
  });
  return { id: row.id, name: row.name, type: row.type };
}

/** @throws NotFound */
export async function keptFile(id: number): Promise<AttachmentRow> {
  const row = await AttachmentRow.findByPk(id);
  if (!row) throw new NotFound('This file does not exist, or not any more.');
  return row;
}
