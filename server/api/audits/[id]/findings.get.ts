import { findingsFile, FindingsFileDto } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** The findings of one audit in an open format. */
export default defineEventHandler(async (event) => {
  const { as } = await parseAs(FindingsFileDto, getQuery(event));
  const { name, type, body } = await findingsFile(idOf(event), as);
  setHeader(event, 'content-type', type);
  setHeader(event, 'content-disposition', `attachment; filename="${name}"`);
  setHeader(event, 'x-content-type-options', 'nosniff');
  return body;
});
