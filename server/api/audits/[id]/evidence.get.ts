import { EVIDENCE_FORMATS, evidenceFile, type EvidenceFormat } from '#server/audits';
import { Refused } from '#server/platform/errors';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  const as = String(getQuery(event).as ?? 'json');
  if (!Object.hasOwn(EVIDENCE_FORMATS, as))
    throw new Refused(`There is evidence as ${Object.keys(EVIDENCE_FORMATS).join(', ')}, not as that.`);
  const file = await evidenceFile(idOf(event), as as EvidenceFormat);
  // foreign text, so it is saved and never shown as a page of ours
  setHeader(event, 'content-type', file.type);
  setHeader(event, 'content-disposition', `attachment; filename="${file.name}"`);
  setHeader(event, 'x-content-type-options', 'nosniff');
  return file.body;
});
