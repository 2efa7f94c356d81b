/** Pages of two audits as a browser showed them, side by side, with how far they differ. */
import { baseOf, pathBelow } from '#core/compare/sites/page-face';
import { SCREENS, type RenderedView, type Screen } from '#core/facts/rendered';
import { findEvidence, seenPicture } from '#server/audits';
import { inspectInProcess } from '#server/pictures';
import { NotFound } from '#server/platform/errors';
import { readEvidence } from '#server/platform/packed';
import { checkedSides } from './comparing';

interface PicturePair {
  path: string;
  screen: Screen;
  /** Digests of the pictures, on the first side and on the second. */
  first: string;
  second: string;
  /** Of the pixels that count, how many differ; nothing where they could not be compared. */
  share?: number;
  /** Of all pixels, how many change by themselves and were left out. */
  masked?: number;
  fault?: string;
}

export interface PicturePairs {
  /** Why there is nothing to see. */
  missing: string | null;
  pairs: PicturePair[];
}

/** A page on one screen of one audit. */
interface Shown {
  auditId: number;
  view: RenderedView;
}

/** What a browser saw of an audit, by path and screen. */
async function shownBy(auditId: number): Promise<{ missing?: string; shown: Map<string, Shown> }> {
  const stored = await findEvidence(auditId);
  if (!stored) throw new NotFound('This audit has no evidence, or not any more.');
  const { rendered, pages, target } = await readEvidence(stored.data);
  if (!rendered?.pages.length)
    return { missing: rendered?.missing ?? 'no browser has looked at its pages yet', shown: new Map() };
  const base = baseOf({ pages, target });
  return {
    shown: new Map(
      rendered.pages.flatMap(({ url, views }) =>
        views
          .filter((view) => view.first)
          .map((view) => [`${view.screen} ${pathBelow(url, base)}`, { auditId, view }] as const),
      ),
    ),
  };
}

const pictureOf = ({ view }: Shown): string => (view.whole ?? view.first!).sha256;

/** Two takes of the first screen, where it changes by itself. */
async function takesOf({ auditId, view }: Shown): Promise<[Buffer, Buffer][]> {
  if (!view.first || !view.again) return [];
  return [[await seenPicture(auditId, view.first.sha256), await seenPicture(auditId, view.again.sha256)]];
}

interface Measured {
  share: number;
  masked: number;
  /** WebP as base64, where it was asked for. */
  picture?: string;
}

async function measured(a: Shown, b: Shown, drawn: boolean): Promise<Measured> {
  return inspectInProcess<Measured>({
    do: 'difference',
    first: await seenPicture(a.auditId, pictureOf(a)),
    second: await seenPicture(b.auditId, pictureOf(b)),
    takes: [...(await takesOf(a)), ...(await takesOf(b))],
    drawn,
  });
}

/** @throws NotFound */
export async function picturePairs(siteId: number, first: number, second: number): Promise<PicturePairs> {
  await checkedSides(siteId, first, second);
  const [here, there] = [await shownBy(first), await shownBy(second)];
  const missing = here.missing ?? there.missing ?? null;
  const pairs: PicturePair[] = [];
  for (const [key, a] of here.shown) {
    const b = there.shown.get(key);
    if (!b) continue;
    const [screen, path] = [a.view.screen, key.slice(a.view.screen.length + 1)];
    const pair: PicturePair = { path, screen, first: pictureOf(a), second: pictureOf(b) };
    try {
      const { share, masked } = await measured(a, b, false);
      pairs.push({ ...pair, share, masked });
    } catch (error) {
      pairs.push({ ...pair, fault: (error as Error).message });
    }
  }
  const order = Object.keys(SCREENS);
  pairs.sort((a, b) => (b.share ?? 0) - (a.share ?? 0) || order.indexOf(a.screen) - order.indexOf(b.screen));
  return { missing: pairs.length ? null : (missing ?? 'no page was seen on both sides'), pairs };
}

/** The pair laid over each other, with what differs marked, as WebP. @throws NotFound, Refused */
export async function drawnDifference(
  siteId: number,
  { first, second, path, screen }: { first: number; second: number; path: string; screen: Screen },
): Promise<Buffer> {
  await checkedSides(siteId, first, second);
  const [here, there] = [await shownBy(first), await shownBy(second)];
  const [a, b] = [here.shown.get(`${screen} ${path}`), there.shown.get(`${screen} ${path}`)];
  if (!a || !b) throw new NotFound('This page was not seen on both sides.');
  return Buffer.from((await measured(a, b, true)).picture!, 'base64');
}
