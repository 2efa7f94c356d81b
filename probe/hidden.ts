/** The brief's hidden pages: no link need lead there, so the crawl may never meet them. */
import { normaliseUrl } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import type { PageEvidence } from '#core/facts/evidence';
import { HAS_EFFECT, readPage } from './crawl';
import type { Extract } from './extractor';
import type { SiteFiles } from './site-files';

const MOST = 50;

/** @returns those that are not among the pages read already, as they answer now */
export async function readHidden(
  { client, origin, ask }: SiteFiles,
  extract: Extract,
  brief: Brief,
  pages: readonly PageEvidence[],
): Promise<PageEvidence[]> {
  const known = new Set(pages.flatMap((p) => [p.url, p.requested]));
  const urls = [...new Set((brief.hiddenPaths ?? []).map((path) => normaliseUrl(path, `${origin}/`)))]
    .filter(
      (u): u is string =>
        u !== undefined &&
        u.startsWith(`${origin}/`) &&
        !known.has(u) &&
        !HAS_EFFECT.test(u.slice(origin.length)),
    )
    .slice(0, MOST);
  return Promise.all(
    urls.map(async (url) =>
      readPage({ url, from: null, via: 'brief', depth: 0 }, await client.follow(url, ask), extract),
    ),
  );
}
