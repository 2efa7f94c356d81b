/** All pages that an audit saw, and one of them opened. */
import { Op } from 'sequelize';
import { brotliDecompress } from 'node:zlib';
import { promisify } from 'node:util';
import type { PageDetail } from '#core/pages/page-detail';
import { Audit, AuditEvidence, AuditFindings, AuditPages, VerdictRow } from '../audits/models';
import { checklistVersion } from '../checklists/checklists';
import { newestProfile } from '../hosts/known-profiles';
import { NotFound } from '../platform/errors';
import { serverWorkers } from '../platform/workers';
import { briefForChecks } from '../sites/briefs';
import { BriefRow, Environment, Site } from '../sites/models';
import type { Brief } from '#core/facts/brief';
import { pagesFromBytes, type KeptAudit, type PagesAnswer, type PagesJob } from './page-bytes';

const unpack = promisify(brotliDecompress);
const threads = serverWorkers('pages-worker.mjs', { timeoutMs: 120_000, workers: 1 });
export const endPages = threads.close;

const answerTo = (job: PagesJob): Promise<string> => threads.run(job) ?? pagesFromBytes(job);

const NO_PAGES = 'This audit has no pages to show, or not any more.';

/** @returns the number of an audit’s newest verdict; @throws NotFound */
async function newestVerdict(auditId: number): Promise<number> {
  const verdict = await VerdictRow.findOne({
    where: { auditId },
    attributes: ['id'],
    order: [['id', 'DESC']],
  });
  if (!verdict) throw new NotFound(NO_PAGES);
  return verdict.id;
}

/** All that pages are looked at with. @throws NotFound */
async function keptAudit(audit: Audit, verdictId: number): Promise<KeptAudit> {
  const environment = await Environment.findByPk(audit.environmentId, { rejectOnEmpty: true });
  const [site, stored, findings, brief] = await Promise.all([
    Site.findByPk(environment.siteId, { rejectOnEmpty: true }),
    AuditEvidence.findByPk(audit.id),
    AuditFindings.findByPk(audit.id),
    audit.briefId ? BriefRow.findByPk(audit.briefId) : null,
  ]);
  if (!stored || !findings) throw new NotFound(NO_PAGES);
  const known = await briefForChecks(site, (brief?.data as Brief | undefined) ?? {});
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const { items } = await checklistVersion(audit.checklistVersionId);
  return {
    key: `${audit.id} ${verdictId}`,
    evidence: stored.data,
    findings: findings.data,
    brief: known.brief,
    ...(profile ? { profile } : {}),
    situation: audit.situation,
    checklist: { items },
  };
}

/** @throws NotFound */
async function auditById(id: number): Promise<Audit> {
  const audit = await Audit.findByPk(id);
  if (audit?.status !== 'done') throw new NotFound(NO_PAGES);
  return audit;
}

/** The table of an audit’s pages as it is sent, packed with brotli. @throws NotFound */
export async function packedPages(auditId: number): Promise<Buffer> {
  const [audit, verdictId, made] = await Promise.all([
    auditById(auditId),
    newestVerdict(auditId),
    AuditPages.findByPk(auditId),
  ]);
  if (made?.verdictId === verdictId) return made.data;
  const data = Buffer.from(await answerTo({ audit: await keptAudit(audit, verdictId) }), 'base64');
  await AuditPages.upsert({ auditId, verdictId, data });
  return data;
}

/** The same, unpacked. */
export async function pagesOf(auditId: number): Promise<PagesAnswer> {
  return JSON.parse((await unpack(await packedPages(auditId))).toString('utf8')) as PagesAnswer;
}

/** One page, with what changed since the audit before. @throws NotFound */
export async function pageOf(auditId: number, url: string): Promise<PageDetail> {
  const audit = await auditById(auditId);
  const verdictId = await newestVerdict(auditId);
  const before = await Audit.findOne({
    where: { environmentId: audit.environmentId, id: { [Op.lt]: auditId }, status: 'done' },
    order: [['id', 'DESC']],
  });
  const earlier = before && (await keptAudit(before, await newestVerdict(before.id)).catch(() => undefined));
  const job: PagesJob = {
    audit: await keptAudit(audit, verdictId),
    url,
    ...(earlier ? { before: earlier } : {}),
  };
  const detail = JSON.parse(await answerTo(job)) as PageDetail | null;
  if (!detail) throw new NotFound('This audit did not see this page.');
  return detail;
}
