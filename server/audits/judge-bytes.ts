/** From packed evidence to findings and score: what a judging thread does, without a database. */
import { judge, type AuditInput, type JudgedFinding } from '#core/checks/engine/judge';
import { SiteView } from '#core/checks/view/site-view';
import type { Face } from '#core/compare/news';
import type { Evidence } from '#core/facts/evidence';
import { whyNotSeen } from '#core/facts/rendered';
import { situationOf, type Situation } from '#core/facts/situation';
import { proposeBrief, type Proposal } from '#core/proposals/propose-brief';
import { unreachedBy } from '#core/score/reached';
import { scoreOf, type Result } from '#core/score/score';
import { bufferOf, readEvidence } from '#server/platform/packed';

/** Everything but the evidence; the situation follows from the environment and from what is seen there. */
export interface JudgeInput extends Omit<
  AuditInput,
  'evidence' | 'situation' | 'staging' | 'approved' | 'at'
> {
  at: string;
  of: Parameters<typeof situationOf>[0];
}
export interface JudgeJob {
  evidence: Uint8Array;
  staging?: Uint8Array;
  /** What a contact said yes to. */
  approved?: Uint8Array;
  input: JudgeInput;
}
export interface Verdict {
  situation: Situation;
  findings: JudgedFinding[];
  result: Result;
  notes: string[];
  /** Why the part that a browser sees is missing, or a part of it; undefined where it is not. */
  missing?: string;
  /** What was seen of the fields that checks wait for. */
  proposals: Proposal[];
  evidenceVersion: number;
  /** When each part was looked at, where that was not at once. */
  times?: Evidence['times'];
  /** What a visitor of the home page sees first. */
  face?: Face;
}

/** What the evidence says of the fields that checks wait for. */
function proposalsFor(findings: readonly JudgedFinding[], evidence: Evidence): Proposal[] {
  const awaited = new Set<string>(findings.flatMap((f) => f.awaits ?? []));
  return awaited.size ? proposeBrief(evidence).filter((p) => awaited.has(p.field)) : [];
}

const LONGEST = 200;

function faceOf({ home }: SiteView): Face | undefined {
  if (!home) return undefined;
  const { titles, headings } = home.facts;
  const cut = (text: string | undefined): string => (text ?? '').slice(0, LONGEST);
  return {
    title: cut(titles[0]?.text),
    heading: cut(headings.find((h) => h.level === 1)?.text),
    description: cut(home.description?.content),
  };
}

export async function judgeBytes({ evidence: packed, staging, approved, input }: JudgeJob): Promise<Verdict> {
  const evidence = await readEvidence(bufferOf(packed));
  const { of, at, ...rest } = input;
  const profile = input.profile ?? { name: '' };
  const view = new SiteView(evidence, input.brief, profile, 'holding');
  const situation = situationOf({
    ...of,
    // a partial look leaves older parts as they were
    seenAt: [evidence.startedAt, ...Object.values(evidence.times ?? {})].sort()[0]!,
    holdingSeen: Boolean(view.markOn(view.home, 'holding')),
  });
  const findings = judge({
    ...rest,
    evidence,
    situation,
    at: new Date(at),
    ...(staging ? { staging: await readEvidence(bufferOf(staging)) } : {}),
    ...(approved ? { approved: await readEvidence(bufferOf(approved)) } : {}),
  });
  return {
    situation,
    findings,
    result: scoreOf(findings, unreachedBy(evidence)),
    notes: evidence.notes,
    missing: whyNotSeen(evidence.rendered),
    proposals: proposalsFor(findings, evidence),
    evidenceVersion: evidence.version,
    times: evidence.times,
    face: faceOf(view),
  };
}
