import { finalStatus, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

/** Files that configure a server and are not served. */
const CONFIGURATION =
  /(?:^|\/)(?:\.(?:htaccess|nojekyll)|_(?:headers|redirects|routes\.json)|nginx\.conf|web\.config|[^/]+\.toml|CNAME)$/;

export const matchesBuild = defineCheck({
  id: 'delivery.matches-build',
  title: 'Served files are those of the build',
  severity: 'major',
  situations: ['live'],
  scope: 'file',
  needs: { pages: true },
  why: 'One file that did not go up, or came from an old cache, breaks what was tested.',
  source: 'common practice',
  messages: {
    expected: ({ build }) => `the bytes of ${build?.name}`,
    none: 'the build holds no file that is served',
  },
  judge(context) {
    const { evidence, view, build } = context;
    if (!build) return inapplicable('no build was uploaded');
    const origin = `https://${view.preferredHost}`;
    const served = new Map<string, { chain: Chain; sha256?: string; text?: string; html: boolean }>();
    for (const p of evidence.pages)
      served.set(p.url, {
        chain: p.chain,
        sha256: p.sha256,
        text: p.facts?.text,
        html: p.facts !== undefined,
      });
    for (const a of evidence.assets)
      if (!served.has(a.url)) served.set(a.url, { chain: a.chain, sha256: a.sha256, html: false });
    const unread = new Set(evidence.unread);
    const places: PlaceResult[] = build.files
      .filter((f) => !CONFIGURATION.test(f.path))
      .flatMap((file) => {
        const path = `/${file.path.replace(/^\//, '')}`;
        const addresses = [
          path,
          path.replace(/index\.html?$/, ''),
          path.replace(/\.html?$/, ''),
          path.replace(/\.html?$/, '/'),
        ].map((p) => origin + (p || '/'));
        const hit = addresses.map((a) => served.get(a)).find((s) => s !== undefined);
        // what the page limit left unread is said beside the score
        if (!hit) return addresses.some((a) => unread.has(a)) ? [] : unsure(path, 'it was not fetched');
        const status = finalStatus(hit.chain);
        if (status === undefined) return unsure(path, hit.chain.error?.message ?? 'no answer');
        if (status >= 400) return failed(path, { found: `status ${status}` });
        if (!hit.sha256) return unsure(path, 'only its first bytes were fetched');
        if (hit.sha256 === file.sha256) return passed(path);
        // hosts put scripts of their own into pages; the text is the site's
        if (hit.html && file.text !== undefined && hit.text === file.text)
          return passed(path, { found: 'the same text, with something put in' });
        return failed(path, { found: 'other bytes' });
      });
    return overPlaces(context, places);
  },
  recipe: () => ({ steps: 'Upload these files again, then empty the caches of host and content network.' }),
});
