import type { CreationOptional } from 'sequelize';
import { bind, flag, id, ref, Row, text, when } from '../platform/db/row';

/** What a page is to say of itself, one row for each time that was changed; append only but for what is seen. */
export class IntendedRow extends Row<IntendedRow> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare path: string;
  declare version: number;
  /** Nothing for those that were overtaken. */
  declare newest: boolean | null;
  declare title: string | null;
  declare description: string | null;
  declare savedBy: string;
  declare savedAt: Date;
  /** When an audit first saw it on the page. */
  declare seenAt: CreationOptional<Date | null>;
}

export function bindModels(): void {
  bind(IntendedRow, 'intended_text', {
    id,
    siteId: ref,
    path: text(700),
    version: ref,
    newest: flag,
    title: text(500),
    description: text(1000),
    savedBy: text(120),
    savedAt: when,
    seenAt: when,
  });
}
