/** All pages that an audit saw, and one of them opened. */
import { promisify } from 'node:util';
import { brotliDecompress } from 'node:zlib';
import type { Brief } from '#core/facts/brief';
import type { PageDetail } from '#core/pages/page-detail';
import {
  finishedAudits,
  newestVerdictId,
  storedPages,
  storePages,
  findEvidence,
  findFindings,
  findAudit,
  type Audit,
} from '#server/audits';
import { checklistVersion } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { NotFound } from '#server/platform/errors';
import { serverWorkers } from '#server/platform/workers';
import { getEnvironment, getSite, findBrief, briefForChecks } from '#server/sites';
import { pagesFromBytes, type KeptAudit, type PagesAnswer, type PagesJob } from './page-bytes';

const unpack = promisify(brotliDecompress);
const threads = serverWorkers('pages-worker.mjs', { timeoutMs: 120_000, workers: 1 });

const answerTo = (job: PagesJob): Promise<string> => threads.run(job) ?? pagesFromBytes(job);

const NO_PAGES = 'This audit has no pages to show, or not any more.';

/** @returns the number of an audit’s newest verdict; @throws NotFound */
async function newestVerdict(auditId: number): Promise<number> {
  const verdictId = await newestVerdictId(auditId);
  if (!verdictId) throw new NotFound(NO_PAGES);
  return verdictId;
}

/** All that pages are looked at with. @throws NotFound */
async function keptAudit(audit: Audit, verdictId: number): Promise<KeptAudit> {
  const environment = await getEnvironment(audit.environmentId);
  const [site, stored, findings, brief] = await Promise.all([
    getSite(environment.siteId),
    findEvidence(audit.id),
    findFindings(audit.id),
    audit.briefId ? findBrief(audit.briefId) : null,
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
  const audit = await findAudit(id);
  if (audit?.status !== 'done') throw new NotFound(NO_PAGES);
  return audit;
}

/** The table of an audit’s pages as it is sent, packed with brotli. @throws NotFound */
export async function packedPages(auditId: number): Promise<Buffer> {
  const [audit, verdictId, made] = await Promise.all([
    auditById(auditId),
    newestVerdict(auditId),
    storedPages(auditId),
  ]);
  if (made?.verdictId === verdictId) return made.data;
  const data = Buffer.from(await answerTo({ audit: await keptAudit(audit, verdictId) }), 'base64');
  await storePages({ auditId, verdictId, data });
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
  const [before] = await finishedAudits(audit.environmentId, { before: auditId, limit: 1 });
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
