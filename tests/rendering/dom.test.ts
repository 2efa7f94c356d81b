/** What is read of a rendered page, against the document that Chromium itself holds at that moment. */
import { chromium } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RenderedView } from '#core/facts/rendered';
import { Dialer } from '#probe/dialer';
import { extractHere } from '#probe/extractor';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { render } from '#probe/rendering/render';
import { LocalServers } from '../local-servers';

const servers = new LocalServers();
afterAll(() => servers.close());

const SITE = 'http://front.example';
/** Pages that scripts change after they have come, each in another way. */
const PAGES: Record<string, string> = {
  '/built': `<!doctype html><title>Loading</title><div id="app"></div><script>
    document.title = 'Built & finished';
    document.documentElement.lang = 'de';
    document.head.insertAdjacentHTML('beforeend', '<meta name="description" content="By a script"><link rel="canonical" href="/built">');
    document.getElementById('app').innerHTML = '<h1>One</h1><h2>Two</h2><p>Text <b>bold</b> end.</p><a href="/a">A</a><a href="b?x=1#y">B</a><img src="/p.png" alt="Pier"><form action="/send" method="post"><input name="mail"><textarea name="said"></textarea></form>';
  </script>`,
  '/taken-away': `<!doctype html><html lang="en"><title>Before</title><meta name="robots" content="noindex">
    <h1>Gone</h1><p>Kept.</p><script>
    document.querySelector('meta[name=robots]').remove();
    document.querySelector('h1').remove();
    document.title = '';
  </script>`,
  '/odd': `<!doctype html><title>Odd</title><table><tr><td>cell<p>in a table<table><tr><td>twice</table></table>
    <svg><title>Not the title</title></svg><template><h1>Never</h1><a href="/never">x</a></template>
    <h1>Un<i>closed</h1><p>after</i><noscript><h2>No</h2></noscript><a href="https://out.example/">out</a>`,
};

/** The same things, asked of the document by its own interfaces. */
function askDocument() {
  const all = (selector: string): Element[] => [...document.querySelectorAll(selector)];
  const meta = (name: string): string[] =>
    all(`meta[name="${name}"]`).map((m) => m.getAttribute('content') ?? '');
  return {
    title: document.title,
    lang: document.documentElement.lang,
    description: meta('description'),
    robots: meta('robots'),
    canonical: (all('link[rel=canonical]') as HTMLLinkElement[]).map((l) => l.href),
    headings: all('h1,h2,h3,h4,h5,h6').map(
      (h) => `${h.tagName.toLowerCase()} ${(h.textContent ?? '').replace(/\s+/g, ' ').trim()}`,
    ),
    links: (all('a[href]') as HTMLAnchorElement[]).map((a) => a.href),
    pictures: (all('img') as HTMLImageElement[]).map((i) => `${i.src} ${i.alt}`),
    forms: (all('form') as HTMLFormElement[]).map(
      (f) => `${f.method} ${f.action} ${[...f.elements].map((e) => e.getAttribute('name')).join(',')}`,
    ),
  };
}
type Asked = ReturnType<typeof askDocument>;

/** What the evidence says of it. */
function factsOf({ facts }: RenderedView): Asked {
  const f = facts!;
  const meta = (name: string): string[] => f.metas.filter((m) => m.name === name).map((m) => m.content);
  const absolute = (href: string): string => new URL(href, f.base ?? SITE).href;
  return {
    title: f.titles[0]?.text ?? '',
    lang: f.lang?.value ?? '',
    description: meta('description'),
    robots: meta('robots'),
    canonical: f.links.filter((l) => l.rel.includes('canonical')).map((l) => absolute(l.href)),
    headings: f.headings.map((h) => `h${h.level} ${h.text.replace(/\s+/g, ' ').trim()}`),
    links: f.anchors.map((a) => absolute(a.href)),
    pictures: f.images.map((i) => `${absolute(i.src)} ${i.alt ?? ''}`),
    forms: f.forms.map((x) => `${x.method} ${absolute(x.action)} ${x.fields.map((y) => y.name).join(',')}`),
  };
}

let views: Map<string, RenderedView>;
const documents = new Map<string, Asked>();
beforeAll(async () => {
  const site = await servers.http((req, res) => {
    const page = PAGES[req.url!];
    res.writeHead(page ? 200 : 404, { 'content-type': 'text/html; charset=utf-8' }).end(page ?? 'none');
  });
  const map = [`front.example=127.0.0.1:${new URL(site).port}`];
  const { evidence } = await render(
    Object.keys(PAGES).map((path) => SITE + path),
    { browser: USUAL_BROWSER, pages: 0, keepPicture: () => {} },
    { dialer: new Dialer({ map }), extract: extractHere, selectors: [], ids: [] },
  );
  views = new Map(evidence.pages.map((p) => [new URL(p.url).pathname, p.views[0]!]));
  // beside it, a browser that is asked by no code of ours
  const browser = await chromium.launch({
    executablePath: USUAL_BROWSER.path,
    args: [
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      `--host-resolver-rules=MAP front.example 127.0.0.1`,
    ],
  });
  const { port } = new URL(site);
  for (const path of Object.keys(PAGES)) {
    const page = await browser.newPage();
    await page.goto(`http://front.example:${port}${path}`, { waitUntil: 'networkidle' });
    const asked = await page.evaluate(askDocument);
    documents.set(
      path,
      JSON.parse(JSON.stringify(asked).replaceAll(`front.example:${port}`, 'front.example')) as Asked,
    );
  }
  await browser.close();
}, 120_000);

describe.each(Object.keys(PAGES))('%s', (path) => {
  it.each([
    'title',
    'lang',
    'description',
    'robots',
    'canonical',
    'headings',
    'links',
    'pictures',
    'forms',
  ] as const)('%s', (what) => {
    expect(factsOf(views.get(path)!)[what]).toEqual(documents.get(path)![what]);
  });
});
it('a document of many parts was asked', () => {
  expect(documents.get('/built')).toMatchObject({
    title: 'Built & finished',
    headings: ['h1 One', 'h2 Two'],
    links: [`${SITE}/a`, `${SITE}/b?x=1#y`],
  });
});
