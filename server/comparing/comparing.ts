/** Two audits of a site compared, whichever environments they are of. */
import type { Comparison } from '#core/compare/sites/compare-sites';
import {
  auditsByIds,
  evidenceOfAudits,
  finishedAudits,
  findAudit,
  findEvidence,
  type Audit,
} from '#server/audits';
import { NotFound, Refused } from '#server/platform/errors';
import { serverWorkers } from '#server/platform/workers';
import { environmentsOf, findEnvironment, type Environment } from '#server/sites';
import { compareBytes, type CompareJob } from './compare-bytes';

const threads = serverWorkers('compare-worker.mjs', { timeoutMs: 120_000, workers: 1 });

/** How many audits of an environment can be chosen from. */
const MOST_SIDES = 30;
/** How far back is looked to tell which side moved on. */
const EARLIER = 3;

/** An audit that can be compared. */
export interface SideLine {
  auditId: number;
  environmentId: number;
  environment: string;
  kind: 'live' | 'before';
  url: string;
  at: string;
}

const lineOf = (audit: Audit, environment: Environment): SideLine => ({
  auditId: audit.id,
  environmentId: environment.id,
  environment: environment.name,
  kind: environment.kind,
  url: audit.url || environment.url,
  at: (audit.finishedAt ?? audit.startedAt).toISOString(),
});

/** What can be compared of a site, the newest of each environment first. */
export async function sidesOf(siteId: number): Promise<SideLine[]> {
  const environments = await environmentsOf(siteId);
  const lists = await Promise.all(
    environments.map(async (environment) => {
      const audits = await finishedAudits(environment.id, { limit: MOST_SIDES });
      return audits.map((audit) => lineOf(audit, environment));
    }),
  );
  return lists.flat();
}

const NOT_OURS = 'This audit is none of this site’s, or its evidence is gone.';

interface Found {
  line: SideLine;
  evidence: Buffer;
  earlier: Buffer[];
}

/** @throws NotFound where it is no audit of this site, or one without evidence */
async function sideOf(siteId: number, auditId: number): Promise<Found> {
  const audit = await findAudit(auditId);
  const environment = audit && (await findEnvironment(audit.environmentId));
  const stored = await findEvidence(auditId);
  if (!audit || !stored || environment?.siteId !== siteId) throw new NotFound(NOT_OURS);
  const before = await finishedAudits(environment.id, { before: auditId, limit: EARLIER });
  const rows = await evidenceOfAudits(before.map((a) => a.id));
  return { line: lineOf(audit, environment), evidence: stored.data, earlier: rows.map((r) => r.data) };
}

/** @throws NotFound where one of them is no audit of this site, Refused for an audit with itself */
export async function checkedSides(siteId: number, first: number, second: number): Promise<void> {
  if (first === second) throw new Refused('Choose two different audits to compare.');
  const audits = await auditsByIds([first, second]);
  const own = new Set((await environmentsOf(siteId)).map((e) => e.id));
  if (audits.filter((a) => own.has(a.environmentId)).length < 2) throw new NotFound(NOT_OURS);
}

export interface ComparedSides extends Comparison {
  first: SideLine;
  second: SideLine;
}

/** @throws NotFound, Refused for an audit with itself */
export async function compareAudits(siteId: number, first: number, second: number): Promise<ComparedSides> {
  await checkedSides(siteId, first, second);
  const [a, b] = await Promise.all([sideOf(siteId, first), sideOf(siteId, second)]);
  const job: CompareJob = {
    first: a.evidence,
    second: b.evidence,
    earlier: { first: a.earlier, second: b.earlier },
  };
  const answer = threads.run(job);
  const comparison = answer ? (JSON.parse(await answer) as Comparison) : await compareBytes(job);
  return { ...comparison, first: a.line, second: b.line };
}
