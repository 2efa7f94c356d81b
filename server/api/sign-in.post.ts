import { parseAs } from '../dto/validation';
import { SignInDto } from '../dto/work';
import { signIn } from '../services/people';

export default defineEventHandler(async (event) => {
  const { email, password } = await parseAs(SignInDto, await readBody(event));
  const user = await signIn(email, password, getRequestIP(event) ?? 'unknown');
  await setUserSession(event, { user, loggedInAt: Date.now() });
  return user;
});
