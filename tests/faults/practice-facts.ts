/** What the agency would know beside the brief of a practice site, in the shapes that checks take. */
import type { IntendedText } from '#core/facts/intended-text';
import { createHash } from 'node:crypto';
import { extractPage } from '#core/extract/html';
import type { AgencyBook } from '#core/facts/agency-book';
import type { SiteBuild } from '#core/facts/environment';
import { pagesOf, renderPage } from '../../net/pages';
import { SITES, counterOf, preferredHost, profileOf, tokenOf } from '../../net/sites';
import { SCRIPT, asset } from '../../net/web';

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
  const none = () => false;
  const all = pagesOf(site);
  const file = (path: string, bytes: Buffer, text?: string) => ({
    path,
    bytes: bytes.length,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    ...(text === undefined ? {} : { text }),
  });
  const origin = `https://${preferredHost(site)}`;
  const pages = all.map((p) => {
    const html = renderPage(p, all, {
      site,
      origin,
      prefix: '/',
      environment: 'live',
      on: none,
      year,
      stagingOrigin: '',
    });
    return file(`${p.path.slice(1)}index.html`, Buffer.from(html), extractPage(html, origin + p.path).text);
  });
  const style = asset(site, '/style.3f9a1c2b.css', none)!.body;
  return {
    name: `${site.name}, build 41`,
    files: [
      ...pages,
      file('app.js', Buffer.from(SCRIPT)),
      file('style.3f9a1c2b.css', Buffer.from(style)),
      file('_headers', Buffer.from('/*')),
    ],
  };
}
