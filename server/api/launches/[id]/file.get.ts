import { LaunchFileDto, launchFile } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** The run sheet in an open format. */
export default defineEventHandler(async (event) => {
  const { as } = await parseAs(LaunchFileDto, getQuery(event));
  const { name, type, body } = await launchFile(idOf(event), as);
  setHeader(event, 'content-type', type);
  setHeader(event, 'content-disposition', `attachment; filename="${name}"`);
  setHeader(event, 'x-content-type-options', 'nosniff');
  return body;
});
