import { SignInDto } from '../people/dto';
import { signIn } from '../people/people';
import { beginSession } from '../people/sessions';
import { LIMITS, readJson } from '../platform/http/body';
import { clientAddress } from '../platform/http/client-address';
import { parseAs } from '../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { email, password } = await parseAs(SignInDto, await readJson(event, LIMITS.signIn));
  const person = await signIn(email, password, clientAddress(event.node.req));
  await beginSession(event, person);
  return person;
});
