/** What a contact sees behind a share link: the newest edition, what they said, and what became of it. */
import { clientApproval } from '#core/checks/catalogue/delivery/client-approval';
import { findFinding, findAudit, seenPicture } from '#server/audits';
import { Conflict, NotFound } from '#server/platform/errors';
import { approvalsOf, approve, withdrawApproval, type ApprovalLine } from './approvals';
import { newestEdition, type Edition } from './composing';
import type { RemarkDto, YesDto } from './dto';
import type { Guest } from './guest';
import { addRemark, remarksOf, type RemarkLine } from './remarks';

const NOTHING_YET = 'There is no report yet. You will be told when there is.';

/** @throws NotFound before the first edition */
async function editionFor({ link }: Guest): Promise<Edition> {
  const edition = await newestEdition(link.siteId);
  if (!edition) throw new NotFound(NOTHING_YET);
  return edition;
}

/** A contact’s own yes, without what proves it. */
type OwnYes = Pick<ApprovalLine, 'id' | 'at' | 'auditId' | 'note' | 'environment' | 'withdrawn'>;

export interface Shared {
  contact: { id: number; name: string };
  edition: Omit<Edition, 'siteId' | 'by'>;
  remarks: Omit<RemarkLine, 'fixId' | 'editionId' | 'auditId'>[];
  yeses: OwnYes[];
  /** Whether the site has changed since the newest yes that stands, as far as audits have seen. */
  isStale: boolean;
}

/** @throws NotFound */
export async function sharedWith(guest: Guest): Promise<Shared> {
  const { link, contact } = guest;
  const { siteId: _, by: __, ...edition } = await editionFor(guest);
  const [remarks, approvals, audit] = await Promise.all([
    remarksOf(link.siteId, contact.id),
    approvalsOf(link.siteId),
    findAudit(edition.auditId),
  ]);
  const judged = audit && (await findFinding(audit.environmentId, clientApproval.id));
  return {
    contact: { id: contact.id, name: contact.name },
    edition,
    remarks: remarks.map(({ fixId: ___, editionId: ____, auditId: _____, ...line }) => line),
    yeses: approvals
      .filter((a) => a.contactId === contact.id)
      .map(({ id, at, auditId, note, environment, withdrawn }) => ({
        id,
        at,
        auditId,
        note,
        environment,
        withdrawn,
      })),
    isStale: judged?.outcome === 'failed',
  };
}

/** A picture of a page of the newest edition, and no other. @throws NotFound */
export async function sharedPicture(guest: Guest, sha256: string): Promise<Buffer> {
  const { report } = await editionFor(guest);
  const shown = report.pages.some((p) => p.desktop?.sha256 === sha256 || p.phone?.sha256 === sha256);
  if (!shown || !report.parts.includes('pictures')) throw new NotFound('This picture is not in the report.');
  return seenPicture(report.auditId, sha256);
}

/** @throws NotFound, Refused, TooMany */
export async function remarkByGuest(guest: Guest, input: RemarkDto): Promise<void> {
  await addRemark(guest.contact, await editionFor(guest), input);
}

/** @throws NotFound, Conflict where another edition was published meanwhile */
export async function approveByGuest(guest: Guest, { editionId, note }: YesDto): Promise<void> {
  const edition = await editionFor(guest);
  if (edition.id !== editionId)
    throw new Conflict('A newer edition was published meanwhile. Look at it, then say yes to that.');
  const { siteId, auditId } = edition;
  await approve(guest.contact, { siteId, auditId, editionId, note });
}

/** Takes the contact’s newest yes back. @throws NotFound, Conflict */
export async function withdrawByGuest({ link, contact }: Guest, reason: string): Promise<void> {
  const own = (await approvalsOf(link.siteId)).find((a) => a.contactId === contact.id && !a.withdrawn);
  if (!own) throw new Conflict('There is no yes to take back.');
  const whose = { contactId: contact.id, siteId: link.siteId };
  await withdrawApproval(own.id, { by: contact.name, reason, whose });
}
