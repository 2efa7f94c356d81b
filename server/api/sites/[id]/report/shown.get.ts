import { idOf } from '../../../../platform/http/route-parameters';
import { approvalsOf } from '../../../../reports/approvals';
import { editionsOf } from '../../../../reports/composing';
import { clientOf, contactsOf } from '../../../../reports/contacts';
import { linksOf } from '../../../../reports/links';
import { remarksOf } from '../../../../reports/remarks';

/** What was shown to the client, and what came back. */
export default defineEventHandler(async (event) => {
  const id = idOf(event);
  const clientId = await clientOf(id);
  const [editions, contacts, links, remarks, approvals] = await Promise.all([
    editionsOf(id),
    contactsOf(clientId),
    linksOf(id),
    remarksOf(id),
    approvalsOf(id),
  ]);
  return { clientId, editions, contacts, links, remarks, approvals };
});
