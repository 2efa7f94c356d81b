/** Judging evidence with everything that the agency knows. Stores nothing. */
import type { AuditInput } from '#core/checks/engine/judge';
import type { Brief } from '#core/facts/brief';
import type { Attestation, Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';
import { defineQuestion } from '#server/platform/extension-points';
import { briefForChecks, type Environment, type Site } from '#server/sites';
import { findEvidence } from './find';
import type { JudgeInput, JudgeJob, Verdict } from './judge-bytes';
import { judgeContextFor, stagingAudit } from './judge-context';
import { judgeInThread } from './judge-pool';
import { AttestationRow } from './models';
import { environmentOf } from './situations';

async function attestationsOf(environmentId: number): Promise<Attestation[]> {
  const rows = await AttestationRow.findAll({ where: { environmentId } });
  return rows.map((r) => ({
    check: r.checkId,
    done: r.done,
    by: r.byName,
    at: r.at.toISOString(),
    ...(r.place === null ? {} : { place: r.place }),
    ...(r.doesNotApply ? { doesNotApply: true } : {}),
    ...(r.note ? { note: r.note } : {}),
    ...(r.goodUntil ? { goodUntil: r.goodUntil } : {}),
    ...(r.goodWhile ? { goodWhile: r.goodWhile } : {}),
  }));
}

/** Inputs of a judgement that other subjects know. */
export interface JudgeInputs extends Pick<AuditInput, 'approval' | 'acceptances' | 'intended' | 'build'> {
  /** The audit that a client said yes to; its evidence is stored. */
  approvedAuditId?: number;
}
/** Asked of each subject that has such inputs. */
export const judgeInputs = defineQuestion<[Environment, Site], JudgeInputs>();

/** What evidence is judged by. */
export interface JudgeRules {
  brief: Brief;
  checklist: Checklist;
  profile: HostProfile | undefined;
}

/** All that evidence is judged by, read at one moment. */
export interface JudgeBasis {
  input: Omit<JudgeInput, 'at'>;
  stagingAuditId?: number;
  approvedAuditId?: number;
  /** Two bases with the same version lead to the same verdict. */
  version: string;
}

/** Reads what evidence of an environment is judged by. */
export async function readBasis(environment: Environment, site: Site, by: JudgeRules): Promise<JudgeBasis> {
  const [stagingAuditId, inputs, context, known, attestations] = await Promise.all([
    stagingAudit(environment, site),
    judgeInputs.ask(environment, site),
    judgeContextFor(environment, site),
    briefForChecks(site, by.brief),
    attestationsOf(environment.id),
  ]);
  const { approvedAuditId, ...given } = Object.assign({}, ...inputs) as JudgeInputs;
  const { book, ...ownContext } = context;
  const own = {
    of: environmentOf(environment, site),
    ...known,
    checklist: by.checklist,
    ...(by.profile ? { profile: by.profile } : {}),
    ...ownContext,
    ...given,
    attestations,
  };
  return {
    input: { ...own, book },
    stagingAuditId,
    approvedAuditId,
    // without the book of other clients: it is cached, and a change there does not re-evaluate this site
    version: JSON.stringify([own, stagingAuditId, approvedAuditId]),
  };
}

const bytesOf = async (auditId: number | undefined): Promise<Buffer | undefined> =>
  auditId === undefined ? undefined : (await findEvidence(auditId))?.data;

/** Judges packed evidence in a thread. */
export async function judgeBy(basis: JudgeBasis, evidence: Buffer, at: Date): Promise<Verdict> {
  const [staging, approved] = await Promise.all([
    bytesOf(basis.stagingAuditId),
    bytesOf(basis.approvedAuditId),
  ]);
  const job: JudgeJob = {
    evidence,
    ...(staging ? { staging } : {}),
    ...(approved ? { approved } : {}),
    input: { ...basis.input, at: at.toISOString() },
  };
  return judgeInThread(job);
}

/** Judges packed evidence of an environment by what holds now. */
export const judgeEnvironment = async (
  environment: Environment,
  site: Site,
  evidence: Buffer,
  by: JudgeRules,
  at: Date,
): Promise<Verdict> => judgeBy(await readBasis(environment, site, by), evidence, at);
