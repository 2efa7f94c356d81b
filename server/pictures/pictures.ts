/** The picture workshop: what a site's share picture and icons are made from, and the files that come out. */
import { hostOf } from '#core/extract/address';
import { iconSizes, TOUCH_SIZE } from '#core/pictures/icon-sizes';
import { folderFault, type KitPlan } from '#core/pictures/kit';
import {
  MOST_PICTURE_BYTES,
  USUAL_SETTINGS,
  type IconSettings,
  type PictureSettings,
  type PictureUse,
  type ShareCrop,
  type ShareEncoding,
} from '#core/pictures/settings';
import { shareLimit } from '#core/pictures/share-limit';
import { checklistFor } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { NotFound, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { FileRow, storeFile, readStoredFile } from '#server/platform/files/files';
import { findSite, liveEnvironmentOf, newestBrief, type Environment, SITE_GONE } from '#server/sites';
import { environmentById, foundFile, iconsInPlace } from './found-pictures';
import { PicturesRow } from './models';
import type { IconsLook, PictureLook, ShareLook } from './picture-bytes';
import { inspectInProcess, renderInProcess } from './picture-processes';

/** A picture as it was given. */
export interface GivenPicture extends PictureLook {
  /** Another for each upload. */
  version: number;
  name: string;
  bytes: number;
}
const FILE_ID = { share: 'shareFileId', icon: 'iconFileId' } as const;
const LOOK = { share: 'shareLook', icon: 'iconLook' } as const;

async function given(row: PicturesRow | null, use: PictureUse): Promise<GivenPicture | undefined> {
  const id = row?.[FILE_ID[use]];
  const look = row?.[LOOK[use]];
  const file = id ? await FileRow.findByPk(id) : null;
  return file && look ? { ...look, version: file.id, name: file.name, bytes: file.bytes } : undefined;
}

/** What there is of a site, how it is set, and what the host and the checklist ask. @throws NotFound */
export async function picturesOf(siteId: number) {
  const site = await findSite(siteId);
  if (!site) throw new NotFound(SITE_GONE);
  const [row, profile, { checklist }] = await Promise.all([
    PicturesRow.findByPk(siteId),
    newestProfile(site.hostProfileId ?? null),
    checklistFor(site),
  ]);
  const [share, icon] = await Promise.all([given(row, 'share'), given(row, 'icon')]);
  return {
    settings: row?.settings ?? USUAL_SETTINGS,
    limit: shareLimit(profile?.profile, checklist),
    icons: profile?.profile.icons ?? {},
    ...(share ? { share } : {}),
    ...(icon ? { icon } : {}),
  };
}

/** The environment that a file of the site is kept with: the live one, which outlives a staging that it was given for. */
async function lastingHome(givenFor: number, siteId: number): Promise<number> {
  return (await liveEnvironmentOf(siteId))?.id ?? givenFor;
}

/** Takes a picture, once it was read. @throws Refused for what is none, or too much of one */
export async function savePicture(
  { id: environmentId, siteId }: Pick<Environment, 'id' | 'siteId'>,
  use: PictureUse,
  { name, bytes }: { name: string; bytes: Buffer },
  by: string,
): Promise<void> {
  const look = await inspectInProcess<PictureLook>({ do: 'look', bytes });
  const home = await lastingHome(environmentId, siteId);
  await inTransaction(async (transaction) => {
    const file = await storeFile(
      { siteId, environmentId: home, name, bytes, byName: by, at: now() },
      MOST_PICTURE_BYTES,
      transaction,
    );
    const before = await PicturesRow.findByPk(siteId, { transaction, lock: true });
    const { share, icon, folder } = before?.settings ?? USUAL_SETTINGS;
    // the point that mattered was one of the picture before
    const fresh = use === 'share' ? { ...share, x: 0.5, y: 0.5, zoom: 1 } : share;
    await PicturesRow.upsert(
      {
        siteId,
        shareFileId: before?.shareFileId ?? null,
        shareLook: before?.shareLook ?? null,
        iconFileId: before?.iconFileId ?? null,
        iconLook: before?.iconLook ?? null,
        settings: { folder, icon, share: fresh },
        savedBy: by,
        savedAt: now(),
        [FILE_ID[use]]: file.id,
        [LOOK[use]]: look,
      },
      { transaction },
    );
    const old = before?.[FILE_ID[use]];
    if (old) await FileRow.destroy({ where: { id: old }, transaction });
    await emit('SiteTouched', { siteId }, transaction);
  });
}

/** Takes one that the audit found. @throws Unreachable, Refused, NotFound */
export async function useFoundPicture(
  environmentId: number,
  use: PictureUse,
  url: string,
  by: string,
): Promise<void> {
  const environment = await environmentById(environmentId);
  const bytes = await foundFile(environment, url);
  const name = new URL(url).pathname.split('/').at(-1) || 'picture';
  await savePicture(environment, use, { name, bytes }, by);
}

/** @throws Refused, NotFound where there is no picture yet */
export async function setPictures(siteId: number, settings: PictureSettings, by: string): Promise<void> {
  const fault = folderFault(settings.folder);
  if (fault) throw new Refused(fault);
  const [changed] = await PicturesRow.update(
    { settings, savedBy: by, savedAt: now() },
    { where: { siteId } },
  );
  if (!changed) throw new NotFound('There is no picture yet. Upload one first.');
  announce('PicturesMade', { siteId });
}

/** @throws NotFound */
async function bytesOf(siteId: number, use: PictureUse): Promise<Buffer> {
  const row = await PicturesRow.findByPk(siteId);
  const id = row?.[FILE_ID[use]];
  if (!id) throw new NotFound('There is no picture yet. Upload one first.');
  return (await readStoredFile(id)).data;
}

const PREVIEW_WIDTH = 1200;

/** The given picture, small enough for a screen, as WebP. @throws NotFound, Refused */
export const previewOf = async (siteId: number, use: PictureUse): Promise<Buffer> =>
  renderInProcess({ do: 'thumb', bytes: await bytesOf(siteId, use), width: PREVIEW_WIDTH });

export const shareLookOf = async (siteId: number, settings: ShareCrop): Promise<ShareLook> =>
  inspectInProcess({ do: 'share', bytes: await bytesOf(siteId, 'share'), settings });

export const shareFileOf = async (siteId: number, settings: ShareEncoding): Promise<Buffer> =>
  renderInProcess({ do: 'share-file', bytes: await bytesOf(siteId, 'share'), settings });

/** What a site's files are made for. @throws NotFound */
async function plansOf(siteId: number): Promise<Pick<KitPlan, 'name' | 'icons' | 'themeColour'>> {
  const site = await findSite(siteId);
  if (!site) throw new NotFound(SITE_GONE);
  const [known, profile] = await Promise.all([
    newestBrief(siteId),
    newestProfile(site.hostProfileId ?? null),
  ]);
  const { name = site.name, colours } = known?.brief ?? {};
  const icons = profile?.profile.icons;
  const [colour] = colours ?? [];
  return { name, ...(icons ? { icons } : {}), ...(colour ? { themeColour: colour.value } : {}) };
}

/** All icons, as they would be, with what is measured in them. @throws NotFound, Refused */
export async function iconsLookOf(
  siteId: number,
  environmentId: number,
  settings: IconSettings,
): Promise<IconsLook> {
  const [bytes, { icons }, environment] = await Promise.all([
    bytesOf(siteId, 'icon'),
    plansOf(siteId),
    environmentById(environmentId),
  ]);
  const inPlace = await iconsInPlace(environment);
  const look = await inspectInProcess<IconsLook>({
    do: 'icons',
    bytes,
    settings,
    sizes: iconSizes(icons),
    touch: icons?.touch ?? TOUCH_SIZE,
    inPlace: inPlace.files,
  });
  look.inPlace.faults.push(...inPlace.faults);
  return look;
}

/**
 * The files and the tags that name them, for an environment, as ZIP.
 * @returns with a name for it; @throws NotFound
 */
export async function kitOf(siteId: number, environmentId: number): Promise<{ name: string; zip: Buffer }> {
  const environment = await environmentById(environmentId);
  const [row, plan] = await Promise.all([PicturesRow.findByPk(siteId), plansOf(siteId)]);
  if (environment.siteId !== siteId || !row || !(row.shareFileId ?? row.iconFileId))
    throw new NotFound('There is no picture yet. Upload one first.');
  const [share, icon] = await Promise.all(
    (['share', 'icon'] as const).map((use) => (row[FILE_ID[use]] ? bytesOf(siteId, use) : undefined)),
  );
  const zip = await renderInProcess({
    do: 'kit',
    ...(share ? { share } : {}),
    ...(icon ? { icon } : {}),
    settings: row.settings,
    sizes: iconSizes(plan.icons),
    plan: { ...plan, base: environment.url, folder: row.settings.folder },
    at: now().toISOString(),
  });
  return { name: `${hostOf(environment.url) ?? 'site'}-pictures.zip`, zip };
}
