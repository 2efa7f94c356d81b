import type { CreationOptional } from 'sequelize';
import { defineModels } from '#server/platform/db/models';
import { bind, flag, id, ref, Row, text, when } from '#server/platform/db/row';

/** Who does something, as all others see them. */
export interface Person {
  id: number;
  name: string;
  email: string;
  owner: boolean;
}

export class User extends Row<User> {
  declare id: CreationOptional<number>;
  declare email: string;
  declare name: string;
  /** Empty until a password was chosen. */
  declare passwordHash: string;
  /** Raised by whatever ends all of a person's sessions. */
  declare sessionVersion: CreationOptional<number>;
  declare createdAt: Date;
  declare removedAt: CreationOptional<Date | null>;
  /** May add and remove people. */
  declare owner: CreationOptional<boolean>;
}

export class SessionRow extends Row<SessionRow> {
  declare id: string;
  declare userId: number;
  declare version: number;
  declare agent: string;
  declare address: string;
  declare createdAt: Date;
  declare seenAt: Date;
}

/** A link by which somebody may choose a password once. Only a digest of what stands in it is kept. */
export class PasswordLinkRow extends Row<PasswordLinkRow> {
  declare digest: string;
  declare userId: number;
  declare madeBy: string;
  declare until: Date;
}

export class NotificationRow extends Row<NotificationRow> {
  declare id: CreationOptional<number>;
  declare userId: number;
  declare text: string;
  declare link: string;
  declare at: Date;
  declare readAt: CreationOptional<Date | null>;
}

export class SavedView extends Row<SavedView> {
  declare id: CreationOptional<number>;
  declare userId: number;
  declare screen: string;
  declare name: string;
  declare query: string;
}

defineModels(() => {
  bind(SavedView, 'saved_view', { id, userId: ref, screen: text(20), name: text(80), query: text(1000) });
  bind(User, 'user', {
    id,
    email: text(254),
    name: text(120),
    passwordHash: text(400),
    sessionVersion: ref,
    createdAt: when,
    removedAt: when,
    owner: { type: flag, defaultValue: false },
  });
  bind(SessionRow, 'session', {
    id: { type: text(64), primaryKey: true },
    userId: ref,
    version: ref,
    agent: text(300),
    address: text(60),
    createdAt: when,
    seenAt: when,
  });
  bind(PasswordLinkRow, 'password_link', {
    digest: { type: text(64), primaryKey: true },
    userId: ref,
    madeBy: text(120),
    until: when,
  });
  bind(NotificationRow, 'notification', {
    id,
    userId: ref,
    text: text(600),
    link: text(300),
    at: when,
    readAt: when,
  });
});
