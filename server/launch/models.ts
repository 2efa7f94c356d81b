import type { CreationOptional } from 'sequelize';
import type { AccountKind, Condition, LaunchTemplate, ProofKind } from '#core/facts/launch';
import type { ProofStanding, Seen } from '#core/launch/sheet';
import type { WatchGoal, WatchStanding } from '#core/launch/watch';
import { defineModels } from '#server/platform/db/models';
import { bind, flag, id, json, longText, ref, Row, text, when } from '#server/platform/db/row';

/** The agency’s run sheet; the version that it begins with is built in and not kept. */
export class LaunchTemplateRow extends Row<LaunchTemplateRow> {
  declare version: number;
  declare data: LaunchTemplate;
  declare savedBy: string;
  declare savedAt: Date;
}

export class AccountRow extends Row<AccountRow> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare kind: AccountKind;
  declare operator: string;
  declare holder: string;
  declare access: string;
  declare payer: string;
  declare hasTransferCode: boolean;
  declare note: string;
  declare savedBy: string;
  declare savedAt: Date;
}

/** Somebody wants to go although something stands against it. */
export interface LaunchOverride {
  by: string;
  byId: number;
  at: string;
  reason: string;
  against: string[];
  /** What that was, one by one; older ones do not say. */
  codes?: string[];
}

export class Launch extends Row<Launch> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare number: number;
  /** The site’s number while it is open, so that it has one open launch at most. */
  declare openKey: number | null;
  declare templateVersion: number;
  /** As it was when the launch was begun. */
  declare template: LaunchTemplate;
  declare plannedAt: Date;
  /** The longest TTL of what changes, before anything was lowered; seconds. */
  declare oldTtl: number;
  /** The records that change as they were when somebody said go, before that as at the begin: the way back. */
  declare backLines: string;
  declare begunBy: string;
  declare begunAt: Date;
  declare anyway: CreationOptional<LaunchOverride | null>;
  /** What held of the site when somebody said go: it decides which steps belong, whatever is so afterwards. */
  declare conditions: CreationOptional<Condition[] | null>;
  declare onePage: CreationOptional<boolean>;
  /** What was seen when somebody asked for it, by the kind of proof. */
  declare asked: CreationOptional<Partial<Record<ProofKind, Omit<Seen, 'title'>>> | null>;
  declare wentAt: CreationOptional<Date | null>;
  declare wentBy: CreationOptional<string | null>;
  declare endedAt: CreationOptional<Date | null>;
  declare endedBy: CreationOptional<string | null>;
  declare endedHow: CreationOptional<'done' | 'given up' | null>;
  declare learnt: CreationOptional<string | null>;
}

export class LaunchStep extends Row<LaunchStep> {
  declare id: CreationOptional<number>;
  declare launchId: number;
  declare stepId: string;
  declare saidBy: CreationOptional<string | null>;
  declare saidAt: CreationOptional<Date | null>;
  declare note: CreationOptional<string | null>;
  declare leftBy: CreationOptional<string | null>;
  declare leftAt: CreationOptional<Date | null>;
  declare leftReason: CreationOptional<string | null>;
  declare provenAt: CreationOptional<Date | null>;
  /** What was seen then. */
  declare provenBy: CreationOptional<ProofStanding[] | null>;
  declare ownerId: CreationOptional<number | null>;
  declare contactId: CreationOptional<number | null>;
  declare outside: CreationOptional<string | null>;
}

export type LaunchEventKind =
  | 'begun'
  | 'moved'
  | 'done'
  | 'undone'
  | 'proven'
  | 'went back'
  | 'left out'
  | 'taken up'
  | 'owner'
  | 'anyway'
  | 'went'
  | 'ended'
  | 'given up';

/** The log of a launch: append only. */
export class LaunchEvent extends Row<LaunchEvent> {
  declare id: CreationOptional<number>;
  declare launchId: number;
  declare kind: LaunchEventKind;
  declare stepId: CreationOptional<string | null>;
  declare byName: string;
  declare at: Date;
  declare text: CreationOptional<string | null>;
}

export class WatchRow extends Row<WatchRow> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare openKey: number | null;
  declare goal: WatchGoal;
  declare standing: CreationOptional<WatchStanding | null>;
  declare looks: number;
  declare begunBy: string;
  declare begunAt: Date;
  declare nextAt: Date | null;
  declare heldAt: CreationOptional<Date | null>;
  /** What was told last, so that each thing is told once. */
  declare told: string;
  declare endedAt: CreationOptional<Date | null>;
  declare endedBy: CreationOptional<string | null>;
}

export class WatchEvent extends Row<WatchEvent> {
  declare id: CreationOptional<number>;
  declare watchId: number;
  declare at: Date;
  declare subject: string;
  declare state: string;
  declare text: string;
}

defineModels(() => {
  bind(LaunchTemplateRow, 'launch_template', {
    version: { type: ref, primaryKey: true },
    data: json('data'),
    savedBy: text(120),
    savedAt: when,
  });
  bind(AccountRow, 'site_account', {
    id,
    siteId: ref,
    kind: text(12),
    operator: text(120),
    holder: text(200),
    access: text(400),
    payer: text(200),
    hasTransferCode: flag,
    note: text(2000),
    savedBy: text(120),
    savedAt: when,
  });
  bind(Launch, 'launch', {
    id,
    siteId: ref,
    number: ref,
    openKey: ref,
    templateVersion: ref,
    template: json('template'),
    plannedAt: when,
    oldTtl: ref,
    backLines: longText,
    begunBy: text(120),
    begunAt: when,
    anyway: json('anyway'),
    conditions: json('conditions'),
    onePage: { type: flag, defaultValue: false },
    asked: json('asked'),
    wentAt: when,
    wentBy: text(120),
    endedAt: when,
    endedBy: text(120),
    endedHow: text(12),
    learnt: text(4000),
  });
  bind(LaunchStep, 'launch_step', {
    id,
    launchId: ref,
    stepId: text(60),
    saidBy: text(120),
    saidAt: when,
    note: text(2000),
    leftBy: text(120),
    leftAt: when,
    leftReason: text(2000),
    provenAt: when,
    provenBy: json('provenBy'),
    ownerId: ref,
    contactId: ref,
    outside: text(120),
  });
  bind(LaunchEvent, 'launch_event', {
    id,
    launchId: ref,
    kind: text(16),
    stepId: text(60),
    byName: text(120),
    at: when,
    text: text(2000),
  });
  bind(WatchRow, 'watch', {
    id,
    siteId: ref,
    openKey: ref,
    goal: json('goal'),
    standing: json('standing'),
    looks: ref,
    begunBy: text(120),
    begunAt: when,
    nextAt: when,
    heldAt: when,
    told: text(400),
    endedAt: when,
    endedBy: text(120),
  });
  bind(WatchEvent, 'watch_event', {
    id,
    watchId: ref,
    at: when,
    subject: text(300),
    state: text(16),
    text: text(600),
  });
});
