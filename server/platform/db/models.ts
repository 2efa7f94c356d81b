/** The tables as Sequelize models. */
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
} from 'sequelize';
import type { WayInKind } from '#core/facts/evidence';
import type { Gate } from '#core/score/score';
import type { FixEvent, FixState } from '#core/facts/fix';
import type { Outcome, Section, Severity } from '#core/facts/finding';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';
import { database } from './connection';

export type AuditStatus = 'queued' | 'running' | 'done' | 'stopped' | 'failed';

const id = { type: DataTypes.INTEGER.UNSIGNED, autoIncrement: true, primaryKey: true } as const;
const ref = DataTypes.INTEGER.UNSIGNED;
const text = (n: number) => DataTypes.STRING(n);
const when = DataTypes.DATE(3);

/** A MEDIUMTEXT column that holds JSON. */
function json(field: string) {
  return {
    type: DataTypes.TEXT('medium'),
    get(this: Model) {
      const v = this.getDataValue(field as never) as unknown;
      return typeof v === 'string' ? (JSON.parse(v) as unknown) : v;
    },
    set(this: Model, v: unknown) {
      this.setDataValue(field as never, (v === null || v === undefined ? null : JSON.stringify(v)) as never);
    },
  };
}

abstract class Row<T extends Model> extends Model<InferAttributes<T>, InferCreationAttributes<T>> {}

export class User extends Row<User> {
  declare id: CreationOptional<number>;
  declare email: string;
  declare name: string;
  declare passwordHash: string;
  declare createdAt: Date;
}
export class Client extends Row<Client> {
  declare id: CreationOptional<number>;
  declare name: string;
}
export class HostProfileRow extends Row<HostProfileRow> {
  declare id: CreationOptional<number>;
  declare name: string;
  declare version: number;
  declare data: unknown;
  declare createdAt: Date;
  declare savedBy: CreationOptional<string>;
}
export class ChecklistRow extends Row<ChecklistRow> {
  declare id: CreationOptional<number>;
  declare name: string;
  declare builtIn: boolean;
}
export class ChecklistVersion extends Row<ChecklistVersion> {
  declare id: CreationOptional<number>;
  declare checklistId: number;
  declare version: number;
  declare data: unknown;
  declare createdAt: Date;
  declare savedBy: CreationOptional<string>;
}
export type AssignmentKind = 'site' | 'client' | 'host' | 'default';
export class AssignmentRow extends Row<AssignmentRow> {
  declare id: CreationOptional<number>;
  declare checklistId: number;
  declare kind: AssignmentKind;
  declare target: string;
}
export class Site extends Row<Site> {
  declare id: CreationOptional<number>;
  declare clientId: number;
  declare name: string;
  declare stage: Stage;
  declare replaces: boolean;
  declare launchDate: string | null;
  declare hostProfile: string | null;
  declare ownerId: CreationOptional<number | null>;
  declare createdAt: Date;
}
export class Environment extends Row<Environment> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare name: string;
  declare kind: EnvironmentKind;
  declare url: string;
  declare wayIn: CreationOptional<WayInKind>;
  declare wayInSealed: CreationOptional<string | null>;
  declare setUpOn: CreationOptional<string | null>;
  declare changedOn: CreationOptional<string | null>;
  declare endsOn: CreationOptional<string | null>;
  declare situation: CreationOptional<Situation | null>;
  declare position: number;
  declare lastAuditId: CreationOptional<number | null>;
}
export class BriefRow extends Row<BriefRow> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare version: number;
  declare data: unknown;
  declare savedBy: string;
  declare savedAt: Date;
}
export class Audit extends Row<Audit> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare status: AuditStatus;
  declare runningKey: number | null;
  declare situation: Situation;
  declare briefId: number | null;
  declare checklistVersionId: number;
  declare progress: CreationOptional<string | null>;
  declare startedBy: string;
  declare startedAt: Date;
  declare finishedAt: CreationOptional<Date | null>;
  declare score: CreationOptional<number | null>;
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
export class FindingRow extends Row<FindingRow> {
  declare environmentId: number;
  declare checkId: string;
  declare auditId: number;
  declare section: Section;
  declare severity: Severity;
  declare outcome: Outcome;
  declare accepted: boolean;
  declare position: number;
  declare data: unknown;
}
export class Fix extends Row<Fix> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare checkId: string;
  declare severity: Severity;
  declare state: FixState;
  declare places: { place: string; found?: string }[];
  declare returns: number;
  declare ownerId: CreationOptional<number | null>;
  declare dueDate: CreationOptional<string | null>;
  declare openedAt: Date;
  declare changedAt: Date;
}
export class FixEventRow extends Row<FixEventRow> {
  declare id: CreationOptional<number>;
  declare fixId: number;
  declare auditId: number | null;
  declare kind: FixEvent['kind'];
  declare byName: string;
  declare at: Date;
  declare fromState: FixState | null;
  declare toState: FixState | null;
  declare text: string | null;
}
export class AcceptanceRow extends Row<AcceptanceRow> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare checkId: string;
  declare places: { place: string; found: string }[];
  declare reason: string;
  declare byId: number;
  declare secondedById: CreationOptional<number | null>;
  declare until: string;
  declare createdAt: Date;
  declare withdrawnAt: CreationOptional<Date | null>;
  declare toldAt: CreationOptional<Date | null>;
}
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
export class AttachmentRow extends Row<AttachmentRow> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare name: string;
  declare type: string;
  declare bytes: number;
  declare byName: string;
  declare at: Date;
  declare data: Buffer;
}
/** Why evidence was judged. */
export type VerdictCause =
  | 'audit'
  | 'brief'
  | 'checklist'
  | 'host profile'
  | 'stage'
  | 'attestation'
  | 'acceptance'
  | 'time'
  | 'approved state';
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
export class NotificationRow extends Row<NotificationRow> {
  declare id: CreationOptional<number>;
  declare userId: number;
  declare text: string;
  declare link: string;
  declare at: Date;
  declare readAt: CreationOptional<Date | null>;
}

let ready = false;

/** Binds the models to the connection, once. */
export function useModels(): void {
  if (ready) return;
  ready = true;
  const sequelize = database();
  const bind = (
    model: { init: (a: never, o: never) => unknown },
    tableName: string,
    attributes: Record<string, unknown>,
  ) => model.init(attributes as ModelAttributes as never, { sequelize, tableName } as never);
  bind(User, 'user', { id, email: text(254), name: text(120), passwordHash: text(400), createdAt: when });
  bind(Client, 'client', { id, name: text(200) });
  bind(HostProfileRow, 'host_profile', {
    id,
    name: text(200),
    version: ref,
    data: json('data'),
    createdAt: when,
    savedBy: text(120),
  });
  bind(ChecklistRow, 'checklist', { id, name: text(200), builtIn: DataTypes.BOOLEAN });
  bind(ChecklistVersion, 'checklist_version', {
    id,
    checklistId: ref,
    version: ref,
    data: json('data'),
    createdAt: when,
    savedBy: text(120),
  });
  bind(AssignmentRow, 'checklist_assignment', { id, checklistId: ref, kind: text(8), target: text(200) });
  bind(Site, 'site', {
    id,
    clientId: ref,
    name: text(200),
    stage: text(12),
    replaces: DataTypes.BOOLEAN,
    launchDate: DataTypes.DATEONLY,
    hostProfile: text(200),
    ownerId: ref,
    createdAt: when,
  });
  bind(Environment, 'environment', {
    id,
    siteId: ref,
    name: text(80),
    kind: text(8),
    url: text(2000),
    wayIn: { type: text(12), defaultValue: 'open' },
    wayInSealed: text(2000),
    setUpOn: DataTypes.DATEONLY,
    changedOn: DataTypes.DATEONLY,
    endsOn: DataTypes.DATEONLY,
    situation: text(8),
    position: DataTypes.INTEGER,
    lastAuditId: ref,
  });
  bind(BriefRow, 'brief', {
    id,
    siteId: ref,
    version: ref,
    data: json('data'),
    savedBy: text(120),
    savedAt: when,
  });
  bind(Audit, 'audit', {
    id,
    environmentId: ref,
    status: text(8),
    runningKey: ref,
    situation: text(8),
    briefId: ref,
    checklistVersionId: ref,
    progress: text(600),
    startedBy: text(120),
    startedAt: when,
    finishedAt: when,
    score: DataTypes.TINYINT.UNSIGNED,
    coverage: DataTypes.TINYINT.UNSIGNED,
    gate: text(10),
    result: json('result'),
    error: text(600),
  });
  bind(AuditEvidence, 'audit_evidence', {
    auditId: { type: ref, primaryKey: true },
    version: ref,
    data: DataTypes.BLOB('long'),
  });
  bind(AuditFindings, 'audit_findings', {
    auditId: { type: ref, primaryKey: true },
    data: DataTypes.BLOB('long'),
  });
  bind(FindingRow, 'finding', {
    environmentId: { type: ref, primaryKey: true },
    checkId: { type: text(80), primaryKey: true },
    auditId: ref,
    section: text(12),
    severity: text(8),
    outcome: text(12),
    accepted: DataTypes.BOOLEAN,
    position: DataTypes.INTEGER,
    data: json('data'),
  });
  bind(Fix, 'fix', {
    id,
    environmentId: ref,
    checkId: text(80),
    severity: text(8),
    state: text(16),
    places: json('places'),
    returns: ref,
    ownerId: ref,
    dueDate: DataTypes.DATEONLY,
    openedAt: when,
    changedAt: when,
  });
  bind(FixEventRow, 'fix_event', {
    id,
    fixId: ref,
    auditId: ref,
    kind: text(12),
    byName: text(120),
    at: when,
    fromState: text(16),
    toState: text(16),
    text: text(2000),
  });
  bind(AcceptanceRow, 'acceptance', {
    id,
    environmentId: ref,
    checkId: text(80),
    places: json('places'),
    reason: text(1000),
    byId: ref,
    secondedById: ref,
    until: DataTypes.DATEONLY,
    createdAt: when,
    withdrawnAt: when,
    toldAt: when,
  });
  bind(AttestationRow, 'attestation', {
    id,
    environmentId: ref,
    checkId: text(80),
    done: DataTypes.BOOLEAN,
    byName: text(120),
    at: when,
    note: text(1000),
    goodUntil: DataTypes.DATEONLY,
    place: text(300),
    doesNotApply: { type: DataTypes.BOOLEAN, defaultValue: false },
    goodWhile: text(12),
    attachmentId: ref,
    byId: ref,
    toldAt: when,
  });
  bind(AttachmentRow, 'attachment', {
    id,
    environmentId: ref,
    name: text(200),
    type: text(60),
    bytes: ref,
    byName: text(120),
    at: when,
    data: DataTypes.BLOB('long'),
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
    score: DataTypes.TINYINT.UNSIGNED,
    coverage: DataTypes.TINYINT.UNSIGNED,
    gate: text(10),
    result: json('result'),
  });
  bind(NotificationRow, 'notification', {
    id,
    userId: ref,
    text: text(600),
    link: text(300),
    at: when,
    readAt: when,
  });
}
