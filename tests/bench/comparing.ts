/** Comparing two audits of a site of two thousand pages, and looking at pages in a browser. */
import { compareSites } from '#core/compare/sites/compare-sites';
import { extractPage } from '#core/extract/html';
import type { Brief } from '#core/facts/brief';
import type { Evidence, PageEvidence } from '#core/facts/evidence';
import { chain, evidence } from '#core/checks/example-evidence';
import { Dialer } from '#probe/dialer';
import { extractHere } from '#probe/extractor';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { render } from '#probe/rendering/render';
import { officialFacts, startPracticeNet } from '../../net/practice-net';
import { pagesOf } from '../../net/pages';
import { SITES } from '../../net/sites';
import { readEvidence, packJson } from '../../server/platform/packed';

const PAGES = 2000;
const GOAL_MS = 1500;

/** A site of many pages, of which one in ten says something else. */
function large(changed: boolean): Evidence {
  const base = 'https://marsh-choir.example/';
  const words = 'Songs by the water for everybody who comes along on a Monday evening. '.repeat(12);
  const pages = Array.from({ length: PAGES }, (_, n): PageEvidence => {
    const url = n ? `${base}songs/${n}/` : base;
    const own = changed && n % 10 === 0 ? 'New this week. ' : '';
    const links = Array.from({ length: 20 }, (_, k) => `<a href="/songs/${(n + k) % PAGES}/">Song ${k}</a>`);
    const html = `<title>Song ${n}</title><meta name="description" content="All about song ${n}"><h1>Song ${n}</h1><p>${own}Number ${n}. ${words}</p>${links.join('')}`;
    return {
      url,
      requested: url,
      from: null,
      via: n ? 'link' : 'home',
      depth: 1,
      chain: chain([url]),
      facts: extractPage(html, url),
    };
  });
  return evidence({ pages, rendered: { pages: [] } });
}

async function benchCompare(): Promise<boolean> {
  const [first, second] = [await packJson(large(false)), await packJson(large(true))];
  const times: number[] = [];
  let bare = Infinity;
  for (let round = 0; round < 5; round++) {
    const before = performance.now();
    await Promise.all([readEvidence(first), readEvidence(second)]);
    bare = Math.min(bare, performance.now() - before);
    const started = performance.now();
    const [a, b] = await Promise.all([readEvidence(first), readEvidence(second)]);
    compareSites({ evidence: a }, { evidence: b });
    times.push(performance.now() - started);
  }
  const median = times.sort((x, y) => x - y)[2]!;
  process.stdout.write(
    `comparing two audits of ${PAGES} pages, unpacked and compared: ${Math.round(median)} ms, goal < ${GOAL_MS} ms (unpacking alone ${Math.round(bare)} ms)\n`,
  );
  return median < GOAL_MS;
}

async function benchRender(): Promise<boolean> {
  const net = await startPracticeNet({ planted: false });
  try {
    const site = SITES.find((s) => s.slug === 'planetarium')!;
    const brief = officialFacts('planetarium') as Brief;
    const urls = pagesOf(site)
      .slice(0, 8)
      .map((p) => `https://${site.domain}${p.path}`);
    const started = performance.now();
    const { evidence: seen, peakBytes } = await render(
      urls,
      { browser: { ...USUAL_BROWSER, keys: [net.keyDigest] }, pages: 0, keepPicture: () => {} },
      {
        dialer: new Dialer({ resolvers: [net.resolver], map: net.map, ports: [80, 443] }),
        extract: extractHere,
        selectors: [],
        ids: brief.analyticsIds ?? [],
        consentClick: brief.consentClick,
      },
    );
    const seconds = (performance.now() - started) / 1000;
    const whole = seen.pages.every((p) => p.views.every((v) => v.failure === undefined));
    process.stdout.write(
      `${urls.length} pages at two widths in a browser: ${seconds.toFixed(1)} s, ${(seconds / urls.length).toFixed(1)} s a page; the browser took at most ${Math.round(peakBytes / 1e6)} MB\n`,
    );
    return whole;
  } finally {
    await net.close();
  }
}

export async function benchComparing(): Promise<boolean> {
  const compared = await benchCompare();
  return (await benchRender()) && compared;
}

if (process.argv[1]?.endsWith('comparing.ts')) await benchComparing();
