import type { CreationOptional } from 'sequelize';
import type { NewsKind } from '#core/compare/news';
import type { Every } from '#core/schedule/night';
import { defineModels } from '#server/platform/db/models';
import { bind, day, flag, id, ref, Row, text, when, whole } from '#server/platform/db/row';

export const OF_KINDS = ['all', 'site', 'client', 'host', 'stage'] as const;
export type OfKind = (typeof OF_KINDS)[number];

/** What is audited when. */
export class ScheduleRow extends Row<ScheduleRow> {
  declare id: CreationOptional<number>;
  declare name: string;
  declare ofKind: OfKind;
  /** A number, or a stage; empty for all. */
  declare ofTarget: string;
  /** Parts with commas; empty for everything, or for what the checklist's checks rest on. */
  declare parts: string;
  /** The list whose checks are looked at; null for the site's own. */
  declare checklistId: number | null;
  /** Pages that its audits read at most; null for what the site says. */
  declare pageLimit: CreationOptional<number | null>;
  declare every: Every;
  declare weekday: number;
  declare fromTime: string;
  declare toTime: string;
  declare notFrom: string | null;
  declare notTo: string | null;
  /** Where the brief names none. */
  declare timeZone: string;
  declare pausedUntil: string | null;
  declare isOn: boolean;
  declare builtIn: CreationOptional<boolean>;
  declare createdBy: string;
}

export type PlanState = 'planned' | 'started' | 'covered' | 'refused' | 'missed';

/** One environment's turn in one night. */
export class PlannedAudit extends Row<PlannedAudit> {
  declare id: CreationOptional<number>;
  declare scheduleId: number;
  declare environmentId: number;
  declare night: string;
  declare runAt: Date;
  declare state: PlanState;
  declare auditId: CreationOptional<number | null>;
  /** Why it could not be. */
  declare reason: CreationOptional<string | null>;
}

/** What an audit of the night found beyond the one before; told with all that has the same cause. */
export class NewsRow extends Row<NewsRow> {
  declare id: CreationOptional<number>;
  declare kind: NewsKind;
  declare cause: string;
  declare environmentId: number;
  declare auditId: number;
  declare checkId: string;
  declare title: string;
  declare text: string;
  declare at: Date;
  declare told: CreationOptional<boolean>;
}

defineModels(() => {
  bind(ScheduleRow, 'schedule', {
    id,
    name: text(120),
    ofKind: text(12),
    ofTarget: text(40),
    parts: text(80),
    checklistId: ref,
    pageLimit: ref,
    every: text(8),
    weekday: whole,
    fromTime: text(5),
    toTime: text(5),
    notFrom: text(5),
    notTo: text(5),
    timeZone: text(60),
    pausedUntil: day,
    isOn: flag,
    builtIn: { type: flag, defaultValue: false },
    createdBy: text(120),
  });
  bind(PlannedAudit, 'planned_audit', {
    id,
    scheduleId: ref,
    environmentId: ref,
    night: day,
    runAt: when,
    state: text(10),
    auditId: ref,
    reason: text(300),
  });
  bind(NewsRow, 'news', {
    id,
    kind: text(20),
    cause: text(200),
    environmentId: ref,
    auditId: ref,
    checkId: text(80),
    title: text(200),
    text: text(400),
    at: when,
    told: { type: flag, defaultValue: false },
  });
});
