import { idOf } from '#server/platform/http/route-parameters';
import { approvalsOf, editionsOf, linksOf, remarksOf } from '#server/reports';
import { clientOf, contactsOf } from '#server/sites';

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
