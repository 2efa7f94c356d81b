import type { PictureSettings } from '#core/pictures/settings';
import { defineModels } from '#server/platform/db/models';
import { bind, json, ref, Row, text, when } from '#server/platform/db/row';
import type { PictureLook } from './picture-bytes';

/** The pictures of a site as they were given, and how its files are made from them. */
export class PicturesRow extends Row<PicturesRow> {
  declare siteId: number;
  declare settings: PictureSettings;
  declare shareFileId: number | null;
  declare shareLook: PictureLook | null;
  declare iconFileId: number | null;
  declare iconLook: PictureLook | null;
  declare savedBy: string;
  declare savedAt: Date;
}

defineModels(() => {
  bind(PicturesRow, 'site_pictures', {
    siteId: { type: ref, primaryKey: true },
    settings: json('settings'),
    shareFileId: ref,
    shareLook: json('shareLook'),
    iconFileId: ref,
    iconLook: json('iconLook'),
    savedBy: text(120),
    savedAt: when,
  });
});
