/** Judging the stored evidence of many sites by another checklist: first as a preview, then for good. */
import { col, fn, Op } from 'sequelize';
import { catalogueVersion } from '#core/checks/engine/catalogue-version';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { wordingVersion } from '#core/checks/engine/wording-version';
import type { Checklist } from '#core/facts/checklist';
import { headingOf } from '#core/facts/heading';
import { pointsLost, type Gate } from '#core/score/score';
import { compareWorst } from '#core/score/urgency';
import { pointsText } from '#core/text/points';
import { checklistFor, sitesJudgedBy } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { now } from '#server/platform/clock';
import { IsArray, IsBoolean, IsIn, IsInt, IsObject, IsString } from '#server/platform/http/validation';
import { defineJob, PRIORITY } from '#server/platform/jobs/definition';
import { enqueue, jobById, resultsOf } from '#server/platform/jobs/queue';
import { unpackJson } from '#server/platform/packed';
import { auditedEnvironments, findEnvironment, getSite } from '#server/sites';
import { judgeEnvironment } from './judge-environment';
import { lastEvidence } from './last-evidence';
import { Audit, AuditFindings, CAUSES, FindingRow, VerdictRow, type VerdictCause } from './models';
import { reevaluate } from './reevaluate';
import type { Cause } from './save-verdict';

export interface PreviewedChange {
  environmentId: number;
  siteId: number;
  site: string;
  environment: string;
  before: { score: number | null; gate: Gate | null };
  after: { score: number | null; gate: Gate };
  changes: { check: string; title: string; from: string; to: string }[];
}

const MOST_CHANGES = 20;
const word = (f: JudgedFinding | undefined): string =>
  f
    ? f.accepted
      ? 'accepted'
      : `${f.outcome}${f.outcome === 'failed' ? `, ${f.severity}` : ''}`
    : 'not asked';

/** The word, and what it costs. */
const detail = (f: JudgedFinding | undefined): string =>
  f?.outcome === 'failed' ? `${word(f)}, ${pointsText(pointsLost(f))} points` : word(f);

/** Which findings differ between two verdicts, the gravest first. */
function changesBetween(
  before: readonly JudgedFinding[],
  after: readonly JudgedFinding[],
): PreviewedChange['changes'] {
  const old = new Map(before.map((f) => [f.check, f])),
    now = new Map(after.map((f) => [f.check, f]));
  return [...new Set([...old.keys(), ...now.keys()])]
    .filter((id) => detail(old.get(id)) !== detail(now.get(id)))
    .sort((a, b) => compareWorst((now.get(a) ?? old.get(a))!, (now.get(b) ?? old.get(b))!))
    .slice(0, MOST_CHANGES)
    .map((check) => ({
      check,
      title: headingOf((now.get(check) ?? old.get(check))!),
      ...(word(old.get(check)) === word(now.get(check))
        ? { from: detail(old.get(check)), to: detail(now.get(check)) }
        : { from: word(old.get(check)), to: word(now.get(check)) }),
    }));
}

async function previewIn(environmentId: number, checklist: Checklist): Promise<PreviewedChange | undefined> {
  const environment = await findEnvironment(environmentId);
  const last = environment && (await lastEvidence(environment));
  if (!environment || !last) return undefined;
  const site = await getSite(environment.siteId);
  const [stored, profile] = await Promise.all([
    AuditFindings.findByPk(last.audit.id),
    newestProfile(site.hostProfileId ?? null),
  ]);
  const { findings, result } = await judgeEnvironment(
    environment,
    site,
    last.evidence,
    { brief: last.brief?.brief ?? {}, checklist, profile: profile?.profile },
    now(),
  );
  const before = stored ? await unpackJson<JudgedFinding[]>(stored.data) : [];
  return {
    environmentId,
    siteId: site.id,
    site: site.name,
    environment: environment.name,
    before: { score: last.audit.score ?? null, gate: last.audit.gate ?? null },
    after: { score: result.score, gate: result.gate },
    changes: changesBetween(before, findings),
  };
}

/** Sites one by one, all that a checklist is for, or every one. */
export interface WhichSites {
  siteIds?: readonly number[];
  ofChecklist?: number;
  every?: boolean;
}

/** Environments of these sites that were audited. */
async function environmentsOf({ siteIds = [], ofChecklist, every }: WhichSites): Promise<number[]> {
  const ids = ofChecklist === undefined ? siteIds : await sitesJudgedBy(ofChecklist);
  return auditedEnvironments(every ? undefined : [...ids]);
}

class EnvironmentsPayload {
  @IsArray()
  @IsInt({ each: true })
  environmentIds!: number[];
}

class PreviewPayload extends EnvironmentsPayload {
  @IsObject() checklist!: Checklist;
}

/** Judging stored evidence by another checklist, without keeping anything. */
const previewJob = defineJob<PreviewPayload>({
  name: 'preview',
  // it may be long: nobody who waits for something short is to wait for it
  lane: 'work',
  payload: PreviewPayload,
  async run({ environmentIds, checklist }, work) {
    await work.each(environmentIds, (id) => previewIn(id, checklist));
    return undefined;
  },
});

/** What would change, without keeping anything. @returns the job */
export async function startPreview(checklist: Checklist, which: WhichSites, by: string): Promise<number> {
  const environmentIds = await environmentsOf(which);
  const title = `What ${checklist.name} would change`;
  return (await enqueue(
    previewJob,
    { environmentIds, checklist },
    { by, title, priority: PRIORITY.waiting, total: environmentIds.length },
  ))!;
}

const GATES: Record<Gate, number> = { clear: 0, undecided: 1, held: 2 };

/** How much a change weighs: a gate that closes most, then points. */
function weightOf({ before, after, changes }: PreviewedChange): number {
  const gate =
    before.gate === after.gate ? 0 : 1000 + 10 * (GATES[after.gate] - (before.gate ? GATES[before.gate] : 0));
  return gate + Math.abs((after.score ?? 0) - (before.score ?? 0)) + (changes.length ? 0.5 : 0);
}

const MOST_LISTED = 40;

/** A preview so far: what weighs most of what would change, and how many environments would and would not. */
export async function previewOf(id: number) {
  const job = await jobById(id);
  const results = await resultsOf<PreviewedChange>(id);
  const changing = results
    .filter((a) => weightOf(a) > 0)
    .sort((a, b) => weightOf(b) - weightOf(a) || a.site.localeCompare(b.site));
  return {
    ...job,
    looked: results.length,
    changing: changing.length,
    results: changing.slice(0, MOST_LISTED),
  };
}

/** Judges the last audit of one environment by the checklist that its site has now, unless it is being audited. */
async function judgeByNewest(id: number, cause: Cause): Promise<void> {
  const environment = await findEnvironment(id);
  if (!environment || (await Audit.count({ where: { runningKey: id } }))) return;
  const site = await getSite(environment.siteId);
  await reevaluate(id, cause, (await checklistFor(site)).id);
}

class ReevaluatePayload extends EnvironmentsPayload {
  @IsIn(CAUSES) cause!: VerdictCause;
  @IsString() by!: string;
  /** By the checklist that the site has now, else by the one of the audit. */
  @IsBoolean() newest!: boolean;
}

/** Judging stored evidence again, and keeping that. */
const reevaluateJob = defineJob<ReevaluatePayload>({
  name: 're-evaluate',
  lane: 'work',
  payload: ReevaluatePayload,
  async run({ environmentIds, cause, by, newest }, work) {
    await work.each(environmentIds, async (id) => {
      await (newest ? judgeByNewest(id, { cause, by }) : reevaluate(id, { cause, by }));
      return undefined;
    });
    return undefined;
  },
});

/** @returns the job; null where one with that key has not ended */
function enqueueReevaluation(
  title: string,
  payload: ReevaluatePayload,
  onlyKey?: string,
): Promise<number | null> {
  return enqueue(reevaluateJob, payload, {
    by: payload.by,
    title,
    priority: payload.cause === 'update' ? PRIORITY.afterwards : PRIORITY.person,
    total: payload.environmentIds.length,
    onlyKey,
  });
}

/** Judges the last audit of each environment by the checklist that its site has now. @returns the job */
export async function startReevaluating(which: WhichSites, by: string): Promise<number> {
  const environmentIds = await environmentsOf(which);
  return (await enqueueReevaluation('Judging stored evidence again', {
    environmentIds,
    cause: 'checklist',
    by,
    newest: true,
  }))!;
}

/** Judges the sites of a host profile by its new version. @returns the job; null where it has no site */
export async function reevaluateHosted(siteIds: readonly number[], name: string, by: string) {
  const environmentIds = await environmentsOf({ siteIds });
  if (!environmentIds.length) return null;
  const payload: ReevaluatePayload = { environmentIds, cause: 'host profile', by, newest: false };
  return enqueueReevaluation(`Judging the sites of ${name} again`, payload);
}

/**
 * Judges what another catalogue has judged last, or what is stored in other words: once after each update of Armband,
 * at its start.
 */
export async function reevaluateAfterUpdate(): Promise<void> {
  const now = catalogueVersion();
  const newest = await VerdictRow.findAll({
    attributes: ['environmentId', [fn('MAX', col('id')), 'id']],
    group: ['environmentId'],
  });
  const verdicts = await VerdictRow.findAll({
    where: { id: newest.map((v) => v.id), catalogue: { [Op.ne]: now } },
    attributes: ['environmentId'],
  });
  const worded = await FindingRow.findAll({
    where: { wording: { [Op.ne]: wordingVersion() } },
    attributes: ['environmentId'],
    group: ['environmentId'],
  });
  const environmentIds = [...new Set([...verdicts, ...worded].map((v) => v.environmentId))];
  if (!environmentIds.length) return;
  await enqueueReevaluation(
    'Armband was updated: judging stored evidence by the new rules',
    {
      environmentIds,
      cause: 'update',
      by: 'Armband',
      newest: true,
    },
    `update ${now} ${wordingVersion()}`,
  );
}
