import { LinkPasswordDto, setPasswordByLink } from '#server/people';
import { LIMITS, readJson } from '#server/platform/http/body';
import { clientAddress } from '#server/platform/http/client-address';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { token, wanted } = await parseAs(LinkPasswordDto, await readJson(event, LIMITS.signIn));
  return setPasswordByLink(token, wanted, clientAddress(event.node.req));
});
