import { SignInDto, knownBrowser, rememberBrowser, addressOf, signIn, beginSession } from '#server/people';
import { LIMITS, readJson } from '#server/platform/http/body';
import { clientAddress } from '#server/platform/http/client-address';
import { parseAs } from '#server/platform/http/validation';

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
