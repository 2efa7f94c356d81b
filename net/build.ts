/** The files of a site as somebody built them, before a host had its hands on them. */
import { zipSync } from 'fflate';
import { pagesOf, renderPage } from './pages';
import { preferredHost, SITES, type PracticeSite } from './sites';
import { asset } from './web';

const ASSETS = ['app.js', 'style.3f9a1c2b.css', 'pictures/winter.png', 'programme.txt'];
const none = (): boolean => false;

/** @returns bytes by path; the last are what the host reads and does not serve */
export function buildFiles(site: PracticeSite, year: number): Record<string, Buffer> {
  const all = pagesOf(site);
  const pages = all.map((page): [string, Buffer] => {
    const html = renderPage(page, all, {
      site,
      origin: `https://${preferredHost(site)}`,
      prefix: '/',
      environment: 'live',
      on: none,
      year,
      stagingOrigin: '',
    });
    return [`${page.path.slice(1)}index.html`, Buffer.from(html)];
  });
  const assets = ASSETS.map((path): [string, Buffer] => {
    const { body } = asset(site, `/${path}`, none)!;
    return [path, Buffer.from(body as Buffer)];
  });
  return Object.fromEntries([...pages, ...assets, ['_headers', Buffer.from('/*')]]);
}

/** The same as a ZIP. @throws RangeError when there is no such site */
export function buildZip(slug: string, year: number): Buffer {
  const site = SITES.find((s) => s.slug === slug);
  if (!site) throw new RangeError('no such site');
  return Buffer.from(zipSync(buildFiles(site, year)));
}
