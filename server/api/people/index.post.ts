import { PersonDto } from '../../people/dto';
import { addPerson, passwordLink } from '../../people/people';
import { LIMITS, readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { email, name } = await parseAs(PersonDto, await readJson(event, LIMITS.signIn));
  const id = await addPerson(email, name);
  return { id, link: await passwordLink(id, event.context.person.name) };
});
