import { PasswordDto, knownBrowser, changePassword, beginSession } from '#server/people';
import { LIMITS, readJson } from '#server/platform/http/body';
import { clientAddress } from '#server/platform/http/client-address';
import { parseAs } from '#server/platform/http/validation';

/** All other sessions end; this browser goes on with a new one. */
export default defineEventHandler(async (event) => {
  const { old, wanted } = await parseAs(PasswordDto, await readJson(event, LIMITS.signIn));
  const { person } = event.context;
  await changePassword(person, old, wanted, {
    address: clientAddress(event.node.req),
    browser: knownBrowser(event, person.email),
  });
  await beginSession(event, person);
  return { ok: true };
});
