import { PersonDto, addPerson, passwordLink } from '#server/people';
import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { email, name } = await parseAs(PersonDto, await readJson(event, LIMITS.signIn));
  const id = await addPerson(email, name);
  return { id, link: await passwordLink(id, event.context.person.name) };
});
