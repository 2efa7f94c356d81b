/** What one audit collected, as files in open formats. */
import { toHar } from '#core/formats/har/write';
import { dnsToZoneFile } from '#core/formats/zone-file/write';
import { NotFound } from '#server/platform/errors';
import { plainName } from '#server/platform/http/file-names';
import { readEvidence } from '#server/platform/packed';
import { getEnvironment, getSite } from '#server/sites';
import { Audit, AuditEvidence } from './models';

export const EVIDENCE_FORMATS = {
  json: ['application/json', 'json'],
  har: ['application/json', 'har'],
  zone: ['text/dns; charset=utf-8', 'zone'],
} as const;
export type EvidenceFormat = keyof typeof EVIDENCE_FORMATS;

/** @throws NotFound when the audit has no evidence */
export async function evidenceFile(
  auditId: number,
  format: EvidenceFormat,
): Promise<{ name: string; type: string; body: string }> {
  const [audit, stored] = await Promise.all([Audit.findByPk(auditId), AuditEvidence.findByPk(auditId)]);
  if (!audit || !stored) throw new NotFound('This audit has no evidence, or not any more.');
  const environment = await getEnvironment(audit.environmentId);
  const site = await getSite(environment.siteId);
  const evidence = await readEvidence(stored.data);
  const [type, ending] = EVIDENCE_FORMATS[format];
  const body =
    format === 'json'
      ? JSON.stringify(evidence)
      : format === 'har'
        ? JSON.stringify(toHar(evidence))
        : dnsToZoneFile(evidence.dns);
  return {
    name: `${plainName(site.name)}-${plainName(environment.name)}-${evidence.startedAt.slice(0, 10)}.${ending}`,
    type,
    body,
  };
}
