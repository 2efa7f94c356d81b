import { isRemarkCheck } from '#core/facts/fix';
import { fixWithHistory } from '#server/fixes';
import { remarkOfFix } from '#server/reports';
import { contactsOfSite } from '#server/sites';

/** Lines of a history that one answer holds. */
const EVENTS = 80;

/** One fix with its history, newest first. */
export async function fixDetail(id: number) {
  const { fix, events } = await fixWithHistory(id, EVENTS);
  return {
    id: fix.id,
    environmentId: fix.environmentId,
    check: fix.checkId,
    state: fix.state,
    ownerId: (fix.ownerId ?? null) as number | null,
    contactId: (fix.contactId ?? null) as number | null,
    /** Who of the client can do it. */
    contacts: await contactsOfSite(fix.siteId),
    /** What the client said, where it comes of a remark. */
    remark: isRemarkCheck(fix.checkId) ? await remarkOfFix(fix.id) : null,
    dueDate: (fix.dueDate ?? null) as string | null,
    returns: fix.returns,
    openedAt: fix.openedAt.toISOString(),
    events: events.map((e) => ({
      id: e.id,
      kind: e.kind,
      by: e.byName,
      at: e.at.toISOString(),
      from: e.fromState,
      to: e.toState,
      text: e.text,
    })),
  };
}
