/** Judging evidence with all that the agency knows; keeps nothing. */
import type { AuditInput } from '#core/checks/engine/judge';
import { defineQuestion } from '#server/platform/extension-points';
import type { Brief } from '#core/facts/brief';
import type { Attestation, Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';
import { briefForChecks, type Environment, type Site } from '#server/sites';
import { AttestationRow } from './models';
import { judgeContextFor, stagingEvidence } from './judge-context';
import type { JudgeJob, Verdict } from './judge-bytes';
import { judgeInThread } from './judge-pool';
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

/** What evidence is judged by beside what audits themselves know. */
export interface JudgeInputs extends Pick<AuditInput, 'approval' | 'acceptances' | 'intended' | 'build'> {
  /** Packed evidence of what a client said yes to. */
  approved?: Buffer;
}
/** Each subject that checks read something of gives its part. */
export const judgeInputs = defineQuestion<[Environment, Site], JudgeInputs>();

/** What evidence is judged by. */
export interface JudgeRules {
  brief: Brief;
  checklist: Checklist;
  profile: HostProfile | undefined;
}

/** Judges packed evidence of an environment, in a thread; keeps nothing. */
export async function judgeEnvironment(
  environment: Environment,
  site: Site,
  evidence: Buffer,
  by: JudgeRules,
  at: Date,
): Promise<Verdict> {
  const staging = await stagingEvidence(environment, site);
  const [inputs, context] = await Promise.all([
    judgeInputs.ask(environment, site),
    judgeContextFor(environment, site),
  ]);
  const { approved, ...known } = Object.assign({}, ...inputs) as JudgeInputs;
  const job: JudgeJob = {
    evidence,
    ...(staging ? { staging } : {}),
    ...(approved ? { approved } : {}),
    input: {
      of: environmentOf(environment, site),
      at: at.toISOString(),
      ...(await briefForChecks(site, by.brief)),
      checklist: by.checklist,
      ...(by.profile ? { profile: by.profile } : {}),
      ...context,
      ...known,
      attestations: await attestationsOf(environment.id),
    },
  };
  return judgeInThread(job);
}
