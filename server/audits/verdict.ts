/** Judging evidence with all that the agency knows; keeps nothing. */
import type { Brief } from '#core/facts/brief';
import type { Acceptance, AcceptedPlace, Attestation, Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';
import { AttestationRow } from '../checklists/models';
import { AcceptanceRow } from '../fixes/models';
import { User } from '../people/models';
import { briefForChecks } from '../sites/briefs';
import type { Environment, Site } from '../sites/models';
import { approvalFor } from '../reports/approved';
import { besideFor, stagingEvidence } from './beside';
import type { JudgeJob, Verdict } from './judge-bytes';
import { judgeInThread } from './judge-pool';
import { environmentOf } from './situations';

async function acceptancesOf(environmentId: number): Promise<Acceptance[]> {
  const rows = await AcceptanceRow.findAll({ where: { environmentId, withdrawnAt: null } });
  const people = new Map((await User.findAll()).map((u) => [u.id, u.name]));
  return rows.map((r) => ({
    check: r.checkId,
    places: r.places.filter((p): p is AcceptedPlace => 'code' in p),
    reason: r.reason,
    by: people.get(r.byId) ?? '',
    ...(r.secondedById ? { seconded: people.get(r.secondedById) ?? '' } : {}),
    until: r.until,
  }));
}

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

/** What evidence is judged by. */
export interface By {
  brief: Brief;
  checklist: Checklist;
  profile: HostProfile | undefined;
}

/** Judges packed evidence of an environment, in a thread; keeps nothing. */
export async function verdictOn(
  environment: Environment,
  site: Site,
  evidence: Buffer,
  by: By,
  at: Date,
): Promise<Verdict> {
  const staging = await stagingEvidence(environment, site);
  const yes = await approvalFor(environment);
  const job: JudgeJob = {
    evidence,
    ...(staging ? { staging } : {}),
    ...(yes ? { approved: yes.approved } : {}),
    input: {
      of: environmentOf(environment, site),
      at: at.toISOString(),
      ...(await briefForChecks(site, by.brief)),
      checklist: by.checklist,
      ...(by.profile ? { profile: by.profile } : {}),
      ...(await besideFor(environment, site)),
      ...(yes ? { approval: yes.approval } : {}),
      attestations: await attestationsOf(environment.id),
      acceptances: await acceptancesOf(environment.id),
    },
  };
  return judgeInThread(job);
}
