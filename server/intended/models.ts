import type { CreationOptional } from 'sequelize';
import { defineModels } from '#server/platform/db/models';
import { bind, flag, id, ref, Row, text, when } from '#server/platform/db/row';

/** What a page is to say of itself, one row for each time that was changed; append only. */
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
}

/** When an audit of an environment first saw a text on its page. */
export class IntendedSeen extends Row<IntendedSeen> {
  declare textId: number;
  declare environmentId: number;
  declare at: Date;
}

defineModels(() => {
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
  });
  bind(IntendedSeen, 'intended_seen', {
    textId: { type: ref, primaryKey: true },
    environmentId: { type: ref, primaryKey: true },
    at: when,
  });
});
