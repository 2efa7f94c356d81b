/** Pages as a browser showed them, for the screens. */
import type { Screen } from '#core/facts/rendered';
import { bytesInWords } from '#core/text/bytes';
import { quantity } from '#core/text/quantity';
import { pictureAddress } from './pictures';
import type { Answer } from './api';

export type SeenPage = Answer<'/api/audits/:id/seen'>['pages'][number];
export type SeenView = SeenPage['views'][number];

export const SCREEN_LABELS: Record<Screen, string> = { desktop: 'Desktop', phone: 'Phone' };

/** What a browser saw of an audit’s pages. */
export const useSeen = (siteId: () => number, auditId: () => number, when: () => boolean = () => true) =>
  useApiQuery('/api/audits/:id/seen', {
    key: () => ['site', siteId(), 'seen', auditId()],
    params: () => ({ id: auditId() }),
    when,
  });

/** Where a picture of a page is to be had. */
export const seenAddress = (auditId: number, sha256: string): string =>
  pictureAddress('/api/audits/:id/seen/picture', auditId, { sha256 });

/** How a page came up, in one line: "first paint 0.5 s, at rest after 1.6 s, 12 requests, 340 kB". */
export function seenFacts({ firstPaintMs, settledMs, restless, loads }: SeenView): string {
  const seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;
  const requests = loads.reduce((sum, l) => sum + l.requests, 0);
  const bytes = loads.reduce((sum, l) => sum + l.bytes, 0);
  return [
    ...(firstPaintMs === undefined ? [] : [`first paint ${seconds(firstPaintMs)}`]),
    ...(restless
      ? ['never at rest']
      : settledMs === undefined
        ? []
        : [`at rest after ${seconds(settledMs)}`]),
    ...(requests ? [quantity(requests, 'request'), bytesInWords(bytes)] : []),
  ].join(', ');
}
