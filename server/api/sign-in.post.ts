import { parseAs } from '../platform/http/validation';
import { SignInDto } from '../fixes/dto';
import { signIn } from '../people/people';

export default defineEventHandler(async (event) => {
  const { email, password } = await parseAs(SignInDto, await readBody(event));
  const user = await signIn(email, password, getRequestIP(event) ?? 'unknown');
  await setUserSession(event, { user, loggedInAt: Date.now() });
  return user;
});
