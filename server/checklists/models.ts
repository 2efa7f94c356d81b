import type { CreationOptional } from 'sequelize';
import { defineModels } from '#server/platform/db/models';
import { bind, flag, id, json, ref, Row, text, when } from '#server/platform/db/row';

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

defineModels(() => {
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
});
