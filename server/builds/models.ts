import { defineModels } from '#server/platform/db/models';
import { amount, bind, bytes, ref, Row, text, when } from '#server/platform/db/row';

/** The newest build of a site. */
export class BuildRow extends Row<BuildRow> {
  declare siteId: number;
  declare name: string;
  declare files: number;
  declare bytes: number;
  declare byName: string;
  declare at: Date;
  /** Its manifest, packed. */
  declare data: Buffer;
}

defineModels(() => {
  bind(BuildRow, 'site_build', {
    siteId: { type: ref, primaryKey: true },
    name: text(200),
    files: ref,
    bytes: amount,
    byName: text(120),
    at: when,
    data: bytes,
  });
});
