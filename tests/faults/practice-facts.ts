/** What the agency would know beside the brief of a practice site, in the shapes that checks take. */
import type { IntendedText } from '#core/facts/intended-text';
import { createHash } from 'node:crypto';
import { extractPage } from '#core/extract/html';
import type { AgencyBook } from '#core/facts/agency-book';
import type { SiteBuild } from '#core/facts/environment';
import { buildFiles } from '../../net/build';
import { pagesOf } from '../../net/pages';
import { SITES, counterOf, preferredHost, profileOf, tokenOf } from '../../net/sites';

/** What the agency knows of its other clients. */
export function agencyBook(except: string): AgencyBook {
  return SITES.filter((s) => s.slug !== except).map((s) => ({
    client: s.client,
    site: s.name,
    tokens: [tokenOf(s)],
    analyticsIds: [counterOf(s)],
    privateEmails: [],
    profileLinks: [profileOf(s)],
  }));
}

/** What the agency wrote for one page of each site, which has it. */
export function intendedOf(slug: string): IntendedText[] {
  const { path, title } = pagesOf(SITES.find((x) => x.slug === slug)!)[3]!;
  return [{ path, title }];
}

/** The files of a launched site as they were built. */
export function buildOf(slug: string, year: number): SiteBuild {
  const site = SITES.find((x) => x.slug === slug)!;
  const origin = `https://${preferredHost(site)}/`;
  return {
    name: `${site.name}, build 41`,
    files: Object.entries(buildFiles(site, year)).map(([path, bytes]) => ({
      path,
      bytes: bytes.length,
      sha256: createHash('sha256').update(bytes).digest('hex'),
      ...(path.endsWith('.html')
        ? { text: extractPage(bytes.toString('utf8'), origin + path.replace(/index\.html$/, '')).text }
        : {}),
    })),
  };
}
