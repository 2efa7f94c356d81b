import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { OpenDto, openLink } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { passphrase = '' } = await parseAs(OpenDto, await readJson(event, LIMITS.signIn));
  await openLink(event, passphrase);
  return { ok: true };
});
