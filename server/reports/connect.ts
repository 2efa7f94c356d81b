/** Connects reports, share links and approvals to events, hooks and questions of other subjects. */
import { judgeInputs, reasonsToKeepAudits } from '#server/audits';
import { now } from '#server/platform/clock';
import { subscribe } from '#server/platform/domain-events';
import { approvalFor, reasonToKeep } from './approved';
import { ApprovalRow, Remark, ShareLink } from './models';

export function connectReports(): void {
  reasonsToKeepAudits.answer(reasonToKeep);
  judgeInputs.answer((environment) => approvalFor(environment));
  subscribe('ContactLeft', async ({ contactId }, transaction) => {
    await ShareLink.update({ revokedAt: now() }, { where: { contactId, revokedAt: null }, transaction });
  });
  subscribe('ContactMerged', async ({ contactId, into }, transaction) => {
    const theirs = { where: { contactId }, transaction };
    await ShareLink.update({ contactId: into }, theirs);
    await Remark.update({ contactId: into }, theirs);
    await ApprovalRow.update({ contactId: into }, theirs);
  });
}
