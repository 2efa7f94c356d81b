/** What one audit found, as files in open formats. */
import type { JudgedFinding } from '#core/checks/engine/judge';
import { FINDING_FORMATS, type FindingFormat } from '#core/formats/findings/index';
import type { Result } from '#core/score/score';
import { withText } from '#core/text/message-text';
import { NotFound } from '#server/platform/errors';
import { plainName } from '#server/platform/http/file-names';
import { unpackJson } from '#server/platform/packed';
import { getEnvironment, getSite } from '#server/sites';
import { commandsOf } from './commands';
import { Audit, AuditFindings } from './models';

/** @throws NotFound when the audit has no findings */
export async function findingsFile(
  auditId: number,
  format: FindingFormat,
): Promise<{ name: string; type: string; body: string }> {
  const [audit, stored] = await Promise.all([Audit.findByPk(auditId), AuditFindings.findByPk(auditId)]);
  if (!audit || !stored) throw new NotFound('This audit has no findings, or not any more.');
  const environment = await getEnvironment(audit.environmentId);
  const site = await getSite(environment.siteId);
  const at = (audit.finishedAt ?? audit.startedAt).toISOString();
  const { type, ending, write } = FINDING_FORMATS[format];
  const commands = format === 'markdown' ? await commandsOf(audit).catch(() => undefined) : undefined;
  const body = write({
    url: audit.url || environment.url,
    situation: audit.situation,
    at,
    findings: (await unpackJson<JudgedFinding[]>(stored.data)).map((f) => withText(f)),
    result: audit.result as Result,
    ...(commands ? { commands: (check, place) => commands(check, place).map((c) => c.line) } : {}),
  });
  const name = `${plainName(site.name)}-${plainName(environment.name)}-${at.slice(0, 10)}.${ending}`;
  return { name, type, body };
}
