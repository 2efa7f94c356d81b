/** Putting the report of a site together from its newest audit, and publishing it as an edition. */
import { Op } from 'sequelize';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { pathBelow, baseOf } from '#core/compare/sites/page-face';
import { shownFacts } from '#core/extract/shell';
import { finalStatus, type Evidence } from '#core/facts/evidence';
import { headingOf } from '#core/facts/heading';
import type { RenderedView } from '#core/facts/rendered';
import { composeReport, type Report, type ReportFix, type ReportPage } from '#core/report/report';
import type { ReportSetup } from '#core/report/setup';
import type { Result } from '#core/score/score';
import {
  auditIn,
  doneAttestations,
  firstAudit,
  picturesOfAudit,
  findEvidence,
  findFindings,
  getAudit,
} from '#server/audits';
import { fixesOf } from '#server/fixes';
import { peopleByIds } from '#server/people';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound } from '#server/platform/errors';
import { refuseOverwriting } from '#server/platform/overwriting';
import { readEvidence, packJson, unpackJson } from '#server/platform/packed';
import { contactsByIds, environmentIn, findSiteLocked, findSite, getClient, SITE_GONE } from '#server/sites';
import { ReportDraft, ReportEdition } from './models';
import { firstSetup, lookOf, template } from './template';

const NOT_AUDITED = 'This environment has not been audited yet: a report tells what an audit found.';
const NO_EDITION = 'This edition does not exist, or not any more.';

interface Draft {
  version: number;
  savedBy: string | null;
  setup: ReportSetup;
}

/** What was chosen for the report of a site; the agency’s template before anything was. */
export async function draftOf(siteId: number): Promise<Draft> {
  const row = await ReportDraft.findByPk(siteId);
  const first = firstSetup(await template());
  return {
    version: row?.version ?? 0,
    savedBy: row?.savedBy ?? null,
    setup: { ...first, ...row?.data },
  };
}

/** @throws NotFound, Conflict where somebody saved meanwhile */
export async function saveDraft(
  siteId: number,
  { setup, from }: { setup: ReportSetup; from: number },
  by: string,
): Promise<{ version: number }> {
  return inTransaction(async (transaction) => {
    const site = await findSiteLocked(siteId, transaction);
    if (!site) throw new NotFound(SITE_GONE);
    const row = await ReportDraft.findByPk(siteId, { transaction });
    if (row) refuseOverwriting(from, row, setup);
    const version = (row?.version ?? 0) + 1;
    await ReportDraft.upsert({ siteId, version, data: setup, savedBy: by, savedAt: now() }, { transaction });
    await emit('SiteTouched', { siteId }, transaction);
    return { version };
  });
}

/** Who does what: the people of the agency and of the client. */
async function reportFixes(environmentId: number): Promise<ReportFix[]> {
  const rows = await fixesOf(environmentId);
  const [users, contacts] = await Promise.all([
    peopleByIds(rows.flatMap((f) => f.ownerId ?? [])),
    contactsByIds(rows.flatMap((f) => f.contactId ?? [])),
  ]);
  const names = new Map(users.map((u) => [u.id, u.name]));
  const theirs = new Map(contacts.map((c) => [c.id, c.name]));
  return rows.map((f) => ({
    check: f.checkId,
    state: f.state,
    who: (f.ownerId ? names.get(f.ownerId) : f.contactId ? theirs.get(f.contactId) : null) ?? null,
    contactId: f.contactId ?? null,
    due: f.dueDate ?? null,
  }));
}

const pictureOf = (view: RenderedView | undefined, kept: ReadonlySet<string>) => {
  const picture = view?.first;
  return picture && kept.has(picture.sha256)
    ? { sha256: picture.sha256, width: picture.width, height: picture.height }
    : undefined;
};

/** Pages with their pictures; without any, those that were read, so that they can be spoken of. */
function pagesOf(evidence: Evidence, kept: ReadonlySet<string>): ReportPage[] {
  const base = baseOf(evidence);
  const titles = new Map(evidence.pages.map((p) => [p.url, shownFacts(p)?.titles[0]?.text ?? '']));
  const seen = new Map((evidence.rendered?.pages ?? []).map((p) => [p.url, p.views]));
  const read = evidence.pages.filter((p) => p.facts && (finalStatus(p.chain) ?? 0) < 400);
  return [...read]
    .sort((a, b) => Number(seen.has(b.url)) - Number(seen.has(a.url)))
    .slice(0, MOST_PAGES)
    .map(({ url }) => {
      const views = seen.get(url);
      const desktop = pictureOf(
        views?.find((v) => v.screen === 'desktop'),
        kept,
      );
      const phone = pictureOf(
        views?.find((v) => v.screen === 'phone'),
        kept,
      );
      return {
        url,
        path: pathBelow(url, base),
        title: titles.get(url) ?? '',
        ...(desktop ? { desktop } : {}),
        ...(phone ? { phone } : {}),
      };
    });
}
/** Pages that a report names; remarks can be about any of them. */
const MOST_PAGES = 60;

/** The pages of the audit that was composed last: while somebody types, evidence is not unpacked for each letter. */
let lastPages: { key: string; pages: Promise<ReportPage[]> } | undefined;

async function readPages(auditId: number, kept: ReadonlySet<string>): Promise<ReportPage[]> {
  const stored = await findEvidence(auditId);
  return stored ? pagesOf(await readEvidence(stored.data), kept) : [];
}

async function pagesOfAudit(auditId: number): Promise<ReportPage[]> {
  const rows = await picturesOfAudit(auditId);
  const kept = new Set(rows.map((r) => r.sha256));
  const key = [auditId, ...[...kept].sort()].join(' ');
  if (lastPages?.key !== key) {
    const pages = readPages(auditId, kept);
    lastPages = { key, pages };
    pages.catch(() => {
      lastPages = undefined;
    });
  }
  return lastPages.pages;
}

async function attestedAt(environmentId: number): Promise<Map<string, string>> {
  const rows = await doneAttestations(environmentId);
  return new Map(rows.map((r) => [r.checkId, r.at.toISOString()]));
}

async function findingsOf(auditId: number): Promise<JudgedFinding[]> {
  const row = await findFindings(auditId);
  return row ? unpackJson<JudgedFinding[]>(row.data) : [];
}

/** What the report before told of another audit; without one, the first audit of the environment. */
async function beforeOf(
  siteId: number,
  environmentId: number,
  auditId: number,
): Promise<{ at: string; isReport: boolean; findings: JudgedFinding[] } | null> {
  const edition = await ReportEdition.findOne({
    where: { siteId, auditId: { [Op.ne]: auditId } },
    order: [['number', 'DESC']],
    attributes: ['auditId'],
  });
  const told = edition && (await auditIn(environmentId, edition.auditId));
  const audit = told ?? (await firstAudit(environmentId, auditId));
  if (!audit) return null;
  const at = (audit.finishedAt ?? audit.startedAt).toISOString();
  return { at, isReport: told !== null, findings: await findingsOf(audit.id) };
}

export interface Composed {
  report: Report;
  /** What can be left out or put in other words: all that fails or waits for a person. */
  choices: { check: string; title: string; severity: string; outcome: string }[];
}

/** Puts the report of an environment together as it would be published now. @throws NotFound, Conflict */
export async function composed(siteId: number, environmentId: number): Promise<Composed> {
  const [site, environment] = await Promise.all([findSite(siteId), environmentIn(siteId, environmentId)]);
  if (!site || !environment) throw new NotFound('This environment does not exist, or not any more.');
  if (!environment.lastAuditId) throw new Conflict(NOT_AUDITED);
  const audit = await getAudit(environment.lastAuditId);
  const [client, findings, pages, look, draft] = await Promise.all([
    getClient(site.clientId),
    findingsOf(audit.id),
    pagesOfAudit(audit.id),
    template(),
    draftOf(siteId),
  ]);
  const result = audit.result as Result;
  const report = composeReport({
    site: site.name,
    client: client.name,
    stage: site.stage,
    environment: { name: environment.name, isLive: environment.kind === 'live', url: environment.url },
    audit: { id: audit.id, at: (audit.finishedAt ?? audit.startedAt).toISOString() },
    gate: audit.gate ?? result.gate,
    band: result.band,
    findings,
    before: await beforeOf(siteId, environmentId, audit.id),
    fixes: await reportFixes(environmentId),
    attestedAt: await attestedAt(environmentId),
    pages,
    setup: draft.setup,
    agency: lookOf(look),
  });
  const choices = findings
    .filter((f) => (f.outcome === 'failed' && !f.accepted) || (f.byHand && f.outcome !== 'inapplicable'))
    .map((f) => ({ check: f.check, title: headingOf(f), severity: f.severity, outcome: f.outcome }));
  return { report, choices };
}

/** Publishes what is composed now as the next edition. @throws NotFound, Conflict */
export async function publish(
  siteId: number,
  environmentId: number,
  by: string,
): Promise<{ id: number; number: number }> {
  const { report } = await composed(siteId, environmentId);
  const data = await packJson(report);
  return inTransaction(async (transaction) => {
    await findSiteLocked(siteId, transaction);
    const last = await ReportEdition.max<number, ReportEdition>('number', { where: { siteId }, transaction });
    const number = (last || 0) + 1;
    const edition = await ReportEdition.create(
      { siteId, number, auditId: report.auditId, byName: by, at: now(), data },
      { transaction },
    );
    await emit('SiteTouched', { siteId }, transaction);
    return { id: edition.id, number };
  });
}

export interface EditionLine {
  id: number;
  number: number;
  auditId: number;
  by: string;
  at: string;
}
const lineOf = ({ id, number, auditId, byName, at }: ReportEdition): EditionLine => ({
  id,
  number,
  auditId,
  by: byName,
  at: at.toISOString(),
});

/** The newest first. */
export async function editionsOf(siteId: number): Promise<EditionLine[]> {
  const rows = await ReportEdition.findAll({
    where: { siteId },
    order: [['number', 'DESC']],
    attributes: { exclude: ['data'] },
    limit: 100,
  });
  return rows.map(lineOf);
}

export interface Edition extends EditionLine {
  siteId: number;
  report: Report;
}
const opened = async (row: ReportEdition): Promise<Edition> => ({
  ...lineOf(row),
  siteId: row.siteId,
  report: await unpackJson<Report>(row.data),
});

/** @throws NotFound */
export async function edition(id: number): Promise<Edition> {
  const row = await ReportEdition.findByPk(id);
  if (!row) throw new NotFound(NO_EDITION);
  return opened(row);
}

/** The newest edition of a site; nothing before the first was published. */
export async function newestEdition(siteId: number): Promise<Edition | null> {
  const row = await ReportEdition.findOne({ where: { siteId }, order: [['number', 'DESC']] });
  return row && opened(row);
}
