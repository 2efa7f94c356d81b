import type { CreationOptional } from 'sequelize';
import type { AccessKind } from '#core/facts/evidence';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';
import type { ShareAnswer } from '#core/launch/shared-address';
import { defineModels } from '#server/platform/db/models';
import { bind, day, flag, id, json, ref, Row, text, when, whole } from '#server/platform/db/row';

export class Client extends Row<Client> {
  declare id: CreationOptional<number>;
  declare name: string;
}

export class Site extends Row<Site> {
  declare id: CreationOptional<number>;
  declare clientId: number;
  declare name: string;
  declare stage: Stage;
  declare replaces: boolean;
  /** The day that is planned. */
  declare launchDate: string | null;
  /** When it was set to launched; nothing where it came so. */
  declare launchedAt: CreationOptional<Date | null>;
  /** What was said of each thing that shares its address: whether it moves with the site. */
  declare shares: CreationOptional<Record<string, ShareAnswer> | null>;
  declare hostProfileId: CreationOptional<number | null>;
  declare ownerId: CreationOptional<number | null>;
  /** Pages that its audits read at most; null for the usual number. */
  declare pageLimit: CreationOptional<number | null>;
  /** Raised by each change of what is kept of the site itself. */
  declare version: CreationOptional<number>;
  declare createdAt: Date;
}

export class Environment extends Row<Environment> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare name: string;
  declare kind: EnvironmentKind;
  declare url: string;
  declare access: CreationOptional<AccessKind>;
  declare accessSealed: CreationOptional<string | null>;
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

/** A person of a client. One who has left is kept, since their words are. */
export class Contact extends Row<Contact> {
  declare id: CreationOptional<number>;
  declare clientId: number;
  declare name: string;
  declare email: string;
  declare role: string;
  declare createdAt: Date;
  declare leftAt: CreationOptional<Date | null>;
}

defineModels(() => {
  bind(Contact, 'contact', {
    id,
    clientId: ref,
    name: text(120),
    email: text(254),
    role: text(120),
    createdAt: when,
    leftAt: when,
  });
  bind(Client, 'client', { id, name: text(200) });
  bind(Site, 'site', {
    id,
    clientId: ref,
    name: text(200),
    stage: text(12),
    replaces: flag,
    launchDate: day,
    launchedAt: when,
    shares: json('shares'),
    hostProfileId: ref,
    ownerId: ref,
    pageLimit: ref,
    version: { type: ref, defaultValue: 1 },
    createdAt: when,
  });
  bind(Environment, 'environment', {
    id,
    siteId: ref,
    name: text(80),
    kind: text(8),
    url: text(2000),
    access: { type: text(12), defaultValue: 'open' },
    accessSealed: text(2000),
    setUpOn: day,
    changedOn: day,
    endsOn: day,
    situation: text(8),
    position: whole,
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
});
