import type { CreationOptional } from 'sequelize';
import type { Outcome, Section, Severity } from '#core/facts/finding';
import type { Situation, Stage } from '#core/facts/situation';
import type { Gate } from '#core/score/score';
import { defineModels } from '#server/platform/db/models';
import {
  amount,
  bind,
  bytes,
  day,
  flag,
  id,
  json,
  percent,
  ref,
  Row,
  text,
  when,
  whole,
} from '#server/platform/db/row';
import type { Scope } from './scope';

export type AuditStatus = 'queued' | 'running' | 'done' | 'stopped' | 'failed';

/** Why evidence was judged. */
export const CAUSES = [
  'audit',
  'brief',
  'checklist',
  'host profile',
  'stage',
  'attestation',
  'acceptance',
  'time',
  'update',
  'approved state',
  'intended texts',
  'build',
  'approval',
] as const;
export type VerdictCause = (typeof CAUSES)[number];

export class Audit extends Row<Audit> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  /** The address it looked at; unknown of audits before it was kept. */
  declare url: CreationOptional<string | null>;
  declare status: AuditStatus;
  declare runningKey: number | null;
  declare situation: Situation;
  declare briefId: number | null;
  declare checklistVersionId: number;
  declare progress: CreationOptional<string | null>;
  /** The work that does it. */
  declare jobId: CreationOptional<number | null>;
  /** How often it was cut off and begun again. */
  declare restarts: CreationOptional<number>;
  /** What was looked at again; null where all was looked at. */
  declare scope: CreationOptional<Scope | null>;
  /** Pages that it reads at most, where whoever started it said so. */
  declare pageLimit: CreationOptional<number | null>;
  /** The audit whose evidence the rest was taken from. */
  declare baseAuditId: CreationOptional<number | null>;
  /** From beginning to look until it was kept, in milliseconds. */
  declare tookMs: CreationOptional<number | null>;
  declare startedBy: string;
  declare startedAt: Date;
  declare finishedAt: CreationOptional<Date | null>;
  declare score: CreationOptional<number | null>;
  /** Of the newest audit before it that can be compared: same situation, checklist and brief. */
  declare scoreBefore: CreationOptional<number | null>;
  declare coverage: CreationOptional<number | null>;
  declare gate: CreationOptional<Gate | null>;
  declare result: CreationOptional<object | null>;
  declare error: CreationOptional<string | null>;
}

export class AuditEvidence extends Row<AuditEvidence> {
  declare auditId: number;
  declare version: number;
  declare data: Buffer;
}

export class AuditFindings extends Row<AuditFindings> {
  declare auditId: number;
  declare data: Buffer;
}

/** The table of an audit’s pages, packed as it is sent; made when it is first asked for after a verdict. */
export class AuditPages extends Row<AuditPages> {
  declare auditId: number;
  declare verdictId: number;
  declare data: Buffer;
}

export class FindingRow extends Row<FindingRow> {
  declare environmentId: number;
  declare checkId: string;
  declare auditId: number;
  declare section: Section;
  declare severity: Severity;
  declare outcome: Outcome;
  declare accepted: boolean;
  declare position: number;
  declare title: string;
  declare fault: string;
  /** In which words it is stored. */
  declare wording: string;
  declare scope: string;
  /** The code of what is said. */
  declare code: string;
  /** What was found, else why nothing could be; cut. */
  declare found: CreationOptional<string | null>;
  declare byHand: boolean;
  /** What was expected; cut. */
  declare expected: CreationOptional<string | null>;
  /** How many pages, hosts or records it looked at. */
  declare places: number;
  /** How many pages, hosts or records fail, without the accepted ones. */
  declare failing: number;
  /** Points. */
  declare lost: number;
  declare data: unknown;
}

/** Which pictures an audit saw, each by the digest that its evidence names. */
export class SeenPicture extends Row<SeenPicture> {
  declare auditId: number;
  declare sha256: string;
  declare fileId: number;
}

/** One judging of one audit's evidence; append only. */
export class VerdictRow extends Row<VerdictRow> {
  declare id: CreationOptional<number>;
  declare auditId: number;
  declare environmentId: number;
  declare at: Date;
  declare cause: VerdictCause;
  declare byName: string;
  declare situation: Situation;
  declare briefVersion: number | null;
  declare checklistVersionId: number | null;
  declare profileVersion: number | null;
  declare catalogue: string;
  declare evidenceVersion: number;
  declare score: number | null;
  declare coverage: number | null;
  declare gate: Gate;
  declare result: object;
}

/** What a person vouched for. */
export class AttestationRow extends Row<AttestationRow> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare checkId: string;
  declare done: boolean;
  declare byName: string;
  declare at: Date;
  declare note: string | null;
  declare goodUntil: string | null;
  declare place: CreationOptional<string | null>;
  declare doesNotApply: CreationOptional<boolean>;
  declare goodWhile: CreationOptional<Stage | null>;
  declare attachmentId: CreationOptional<number | null>;
  declare byId: CreationOptional<number | null>;
  declare toldAt: CreationOptional<Date | null>;
}

defineModels(() => {
  bind(AttestationRow, 'attestation', {
    id,
    environmentId: ref,
    checkId: text(80),
    done: flag,
    byName: text(120),
    at: when,
    note: text(1000),
    goodUntil: day,
    place: text(300),
    doesNotApply: { type: flag, defaultValue: false },
    goodWhile: text(12),
    attachmentId: ref,
    byId: ref,
    toldAt: when,
  });
  bind(SeenPicture, 'seen_picture', {
    auditId: { type: ref, primaryKey: true },
    sha256: { type: text(64), primaryKey: true },
    fileId: ref,
  });
  bind(Audit, 'audit', {
    id,
    environmentId: ref,
    url: text(2000),
    status: text(8),
    runningKey: ref,
    situation: text(8),
    briefId: ref,
    checklistVersionId: ref,
    progress: text(600),
    jobId: ref,
    restarts: { type: ref, defaultValue: 0 },
    scope: json('scope'),
    pageLimit: ref,
    baseAuditId: ref,
    tookMs: ref,
    startedBy: text(120),
    startedAt: when,
    finishedAt: when,
    score: percent,
    scoreBefore: percent,
    coverage: percent,
    gate: text(10),
    result: json('result'),
    error: text(600),
  });
  bind(AuditEvidence, 'audit_evidence', {
    auditId: { type: ref, primaryKey: true },
    version: ref,
    data: bytes,
  });
  bind(AuditFindings, 'audit_findings', {
    auditId: { type: ref, primaryKey: true },
    data: bytes,
  });
  bind(AuditPages, 'audit_pages', {
    auditId: { type: ref, primaryKey: true },
    verdictId: ref,
    data: bytes,
  });
  bind(FindingRow, 'finding', {
    environmentId: { type: ref, primaryKey: true },
    checkId: { type: text(80), primaryKey: true },
    auditId: ref,
    section: text(12),
    severity: text(8),
    outcome: text(12),
    accepted: flag,
    position: whole,
    title: text(200),
    fault: text(200),
    wording: text(8),
    scope: text(8),
    code: text(80),
    found: text(300),
    byHand: flag,
    expected: text(300),
    places: whole,
    failing: whole,
    lost: amount,
    data: json('data'),
  });
  bind(VerdictRow, 'verdict', {
    id,
    auditId: ref,
    environmentId: ref,
    at: when,
    cause: text(16),
    byName: text(120),
    situation: text(8),
    briefVersion: ref,
    checklistVersionId: ref,
    profileVersion: ref,
    catalogue: text(16),
    evidenceVersion: ref,
    score: percent,
    coverage: percent,
    gate: text(10),
    result: json('result'),
  });
});
