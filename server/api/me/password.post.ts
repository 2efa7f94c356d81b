import { PasswordDto } from '../../people/dto';
import { knownBrowser } from '../../people/known-browser';
import { changePassword } from '../../people/people';
import { beginSession } from '../../people/sessions';
import { LIMITS, readJson } from '../../platform/http/body';
import { clientAddress } from '../../platform/http/client-address';
import { parseAs } from '../../platform/http/validation';

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
