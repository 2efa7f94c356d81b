import type { CreationOptional } from 'sequelize';
import { bind, id, ref, Row, text, when } from '../platform/db/row';

export class User extends Row<User> {
  declare id: CreationOptional<number>;
  declare email: string;
  declare name: string;
  declare passwordHash: string;
  declare createdAt: Date;
}

export class NotificationRow extends Row<NotificationRow> {
  declare id: CreationOptional<number>;
  declare userId: number;
  declare text: string;
  declare link: string;
  declare at: Date;
  declare readAt: CreationOptional<Date | null>;
}

export function bindModels(): void {
  bind(User, 'user', { id, email: text(254), name: text(120), passwordHash: text(400), createdAt: when });
  bind(NotificationRow, 'notification', {
    id,
    userId: ref,
    text: text(600),
    link: text(300),
    at: when,
    readAt: when,
  });
}
