import { LinkPasswordDto } from '../people/dto';
import { setPasswordByLink } from '../people/people';
import { LIMITS, readJson } from '../platform/http/body';
import { clientAddress } from '../platform/http/client-address';
import { parseAs } from '../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { token, wanted } = await parseAs(LinkPasswordDto, await readJson(event, LIMITS.signIn));
  return setPasswordByLink(token, wanted, clientAddress(event.node.req));
});
