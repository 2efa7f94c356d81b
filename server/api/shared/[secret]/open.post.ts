import { LIMITS, readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { OpenDto } from '../../../reports/dto';
import { openLink } from '../../../reports/links';

export default defineEventHandler(async (event) => {
  const { passphrase = '' } = await parseAs(OpenDto, await readJson(event, LIMITS.signIn));
  await openLink(event, passphrase);
  return { ok: true };
});
