import type { CreationOptional } from 'sequelize';
import type { AcceptedPlace } from '#core/facts/checklist';
import type { Severity } from '#core/facts/finding';
import type { FixEvent, FixState } from '#core/facts/fix';
import { defineModels } from '#server/platform/db/models';
import { bind, day, flag, id, json, ref, Row, text, when } from '#server/platform/db/row';

export class Fix extends Row<Fix> {
  declare id: CreationOptional<number>;
  declare environmentId: number;
  declare checkId: string;
  declare severity: Severity;
  declare state: FixState;
  declare places: { place: string; found?: string }[];
  declare returns: number;
  declare ownerId: CreationOptional<number | null>;
  /** A contact of the client who does it, in place of somebody of the agency. */
  declare contactId: CreationOptional<number | null>;
  /** What a client said, where it comes of a remark and no check names it. */
  declare title: CreationOptional<string | null>;
  declare dueDate: CreationOptional<string | null>;
  /** Kept with where its site stands, as are the keys that lists are sorted by. */
  declare siteId: CreationOptional<number>;
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
  /** Those of before there were codes have the sentence found instead. */
  declare places: (AcceptedPlace | { place: string; found: string })[];
  /** Whether all places have codes. */
  declare byCode: CreationOptional<boolean>;
  declare reason: string;
  declare byId: number;
  declare secondedById: CreationOptional<number | null>;
  declare until: string;
  declare createdAt: Date;
  declare withdrawnAt: CreationOptional<Date | null>;
  declare toldAt: CreationOptional<Date | null>;
}

defineModels(() => {
  bind(Fix, 'fix', {
    id,
    environmentId: ref,
    checkId: text(80),
    severity: text(8),
    state: text(16),
    places: json('places'),
    returns: ref,
    ownerId: ref,
    contactId: ref,
    title: text(200),
    dueDate: day,
    siteId: { type: ref, defaultValue: 0 },
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
    byCode: { type: flag, defaultValue: false },
    reason: text(1000),
    byId: ref,
    secondedById: ref,
    until: day,
    createdAt: when,
    withdrawnAt: when,
    toldAt: when,
  });
});
