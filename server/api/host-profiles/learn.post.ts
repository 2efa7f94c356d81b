import { LearnDto } from '#server/checklists';
import { learnFrom } from '#server/hosts';
import { LIMITS, readJson } from '#server/platform/http/body';
import { abortOnDisconnect } from '#server/platform/http/caller-left';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { url, profile } = await parseAs(LearnDto, await readJson(event, LIMITS.document));
  return learnFrom(url, profile, event.context.person.name, abortOnDisconnect(event));
});
