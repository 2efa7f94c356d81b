import { SignInDto } from '../people/dto';
import { knownBrowser, rememberBrowser } from '../people/known-browser';
import { addressOf, signIn } from '../people/people';
import { beginSession } from '../people/sessions';
import { LIMITS, readJson } from '../platform/http/body';
import { clientAddress } from '../platform/http/client-address';
import { parseAs } from '../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { email, password } = await parseAs(SignInDto, await readJson(event, LIMITS.signIn));
  const account = addressOf(email);
  const person = await signIn(email, password, {
    address: clientAddress(event.node.req),
    browser: knownBrowser(event, account),
  });
  await beginSession(event, person);
  rememberBrowser(event, account);
  return person;
});
