/** Pictures that an audit found on a site, fetched as the audit reached them. */
import type { AssetRole } from '#core/facts/evidence';
import { MOST_PICTURE_BYTES } from '#core/pictures/settings';
import { fetchFile } from '#probe/fetch-file';
import { portsOf } from '#probe/plan';
import { findEvidence } from '#server/audits';
import { now } from '#server/platform/clock';
import { NotFound, Unreachable } from '#server/platform/errors';
import { networkSettings } from '#server/platform/network/network';
import { readEvidence } from '#server/platform/packed';
import { findEnvironment, accessOf, type Environment } from '#server/sites';
import { drawingFault, renderInProcess } from './picture-processes';

const ICON_ROLES: readonly AssetRole[] = ['icon', 'touch-icon', 'manifest-icon'];
const SHOWN_ROLES: readonly AssetRole[] = ['share-picture', ...ICON_ROLES, 'picture'];
const MOST_SHOWN = 60;

/** Whoever turns one wheel turns the next: files of the last minutes, the oldest first. */
const remembered = new Map<string, { at: number; file: Promise<Buffer> }>();
const REMEMBERED = 40;
const REMEMBERED_MS = 5 * 60_000;
const REMEMBERED_BYTES = 1024 * 1024;

/** @throws NotFound */
export async function environmentById(id: number): Promise<Environment> {
  const environment = await findEnvironment(id);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  return environment;
}

async function fetched(environment: Environment, url: string): Promise<Buffer> {
  const answer = await fetchFile(url, MOST_PICTURE_BYTES, {
    ...networkSettings(),
    access: accessOf(environment),
    ports: portsOf(environment),
  });
  if ('fault' in answer) throw new Unreachable(`${url} gave no picture: ${answer.fault}.`);
  return answer.bytes;
}

/** A file of a site as it is served now. @throws Unreachable */
export async function foundFile(environment: Environment, url: string): Promise<Buffer> {
  const key = `${environment.id} ${url}`;
  const known = remembered.get(key);
  const at = now().getTime();
  if (known && at - known.at < REMEMBERED_MS) return known.file;
  const file = fetched(environment, url);
  remembered.delete(key);
  remembered.set(key, { at, file });
  for (const old of remembered.keys()) if (remembered.size > REMEMBERED) remembered.delete(old);
  const forget = (): void => {
    if (remembered.get(key)?.file === file) remembered.delete(key);
  };
  file.then((bytes) => bytes.length > REMEMBERED_BYTES && forget(), forget);
  return file;
}

/** A small copy, as WebP. @throws NotFound, Unreachable, Refused */
export async function thumbOf(environmentId: number, url: string, width: number): Promise<Buffer> {
  const bytes = await foundFile(await environmentById(environmentId), url);
  return renderInProcess({ do: 'thumb', bytes, width });
}

/** A picture of a site, as an audit saw it. */
export interface FoundPicture {
  url: string;
  roles: AssetRole[];
  type: string;
  width: number;
  height: number;
  bytes?: number;
}

/** The pictures that the newest audit of an environment found, those for sharing and the icons first. @throws NotFound */
export async function foundPictures(environmentId: number): Promise<FoundPicture[]> {
  const { lastAuditId } = await environmentById(environmentId);
  const stored = lastAuditId ? await findEvidence(lastAuditId) : null;
  if (!stored) return [];
  const { assets } = await readEvidence(stored.data);
  const rank = (roles: readonly AssetRole[]): number => SHOWN_ROLES.findIndex((r) => roles.includes(r));
  return assets
    .filter((a) => a.image && /^https?:/.test(a.url) && rank(a.roles) >= 0)
    .sort((a, b) => rank(a.roles) - rank(b.roles))
    .slice(0, MOST_SHOWN)
    .map(({ url, roles, image, size }) => ({
      url,
      roles,
      type: image!.type,
      width: Math.max(image!.width, ...(image!.sizes ?? []).map((s) => s.width)),
      height: Math.max(image!.height, ...(image!.sizes ?? []).map((s) => s.height)),
      ...(size === undefined ? {} : { bytes: size }),
    }));
}

const MOST_ICONS = 4;

/** The icons that stand there now, as far as they can be fetched, and why some of them cannot be drawn. */
export async function iconsInPlace(environment: Environment): Promise<{
  files: { url: string; bytes: Buffer }[];
  faults: { url: string; fault: string }[];
}> {
  const icons = (await foundPictures(environment.id))
    .filter((p) => p.roles.includes('icon'))
    .slice(0, MOST_ICONS);
  const files = await Promise.allSettled(icons.map(({ url }) => foundFile(environment, url)));
  const fetched = files.flatMap((f, i) =>
    f.status === 'fulfilled' ? [{ url: icons[i]!.url, bytes: f.value }] : [],
  );
  const faults = await Promise.all(fetched.map(({ bytes }) => drawingFault(bytes)));
  return {
    files: fetched.filter((_, i) => faults[i] === undefined),
    faults: fetched.flatMap(({ url }, i) => (faults[i] === undefined ? [] : [{ url, fault: faults[i]! }])),
  };
}
