import type { CreationOptional } from 'sequelize';
import type { Stage } from '#core/facts/situation';
import { bind, day, flag, id, json, ref, Row, text, when } from '../platform/db/row';

export type AssignmentKind = 'site' | 'client' | 'host' | 'default';

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

export class AssignmentRow extends Row<AssignmentRow> {
  declare id: CreationOptional<number>;
  declare checklistId: number;
  declare kind: AssignmentKind;
  declare target: string;
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

export function bindModels(): void {
  bind(ChecklistRow, 'checklist', { id, name: text(200), builtIn: flag });
  bind(ChecklistVersion, 'checklist_version', {
    id,
    checklistId: ref,
    version: ref,
    data: json('data'),
    createdAt: when,
    savedBy: text(120),
  });
  bind(AssignmentRow, 'checklist_assignment', { id, checklistId: ref, kind: text(8), target: text(200) });
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
}
