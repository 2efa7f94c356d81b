/** Texts that recipes propose pass the checks they are meant for: over real pages, of npm packages and Debian. */
import { describe, expect, it } from 'vitest';
import { ask, brief, page, withPages } from '#core/checks/example-evidence';
import { extractPage } from '#core/extract/html';
import type { PageEvidence } from '#core/facts/evidence';
import { realPages } from '../../../tests/real-pages';

const home = 'https://marsh-choir.example/';
const FOOTER =
  '<footer>© 2026 Marsh Choir. We sing on Mondays by the water, whatever the weather may be.</footer>';

/** Three pages of one site, with the heads that are given. */
function siteOf(bodies: readonly string[], headOf: (i: number) => string) {
  const pages = bodies.map((body, i): PageEvidence => {
    const url = i ? `${home}page-${i}` : home;
    const p = page({ url, via: i ? 'link' : 'home' });
    p.facts = extractPage(
      `<!doctype html><html lang="en"><head>${headOf(i)}</head><body>${body}${FOOTER}</body></html>`,
      url,
    );
    return p;
  });
  return withPages(...pages);
}

/** The bodies of real pages, with no title or description of their own. */
const bodies = realPages(300)
  .map(({ bytes }) => /<body[^>]*>([\s\S]*?)(?:<\/body>|$)/i.exec(bytes.toString('utf8'))?.[1] ?? '')
  .filter((body) => body.length > 500);

/** What a recipe proposes for each page, by its address. */
function proposed(check: string, evidence: ReturnType<typeof siteOf>, pattern: RegExp): Map<string, string> {
  const { recipe } = ask(check, { evidence, brief: brief() });
  return new Map(
    (recipe?.paste ?? []).flatMap(({ label, text }) => {
      const found = pattern.exec(text)?.[1];
      return found === undefined ? [] : [[label.split(',')[0]!, text]];
    }),
  );
}

const FOR = {
  description: {
    check: 'metadata.description-present',
    pattern: /content="([^"]*)"/,
    passes: ['metadata.description-present', 'metadata.description-length', 'metadata.description-unique'],
  },
  title: {
    check: 'metadata.title-present',
    pattern: /<title>([^<]*)</,
    passes: [
      'metadata.title-present',
      'metadata.title-length',
      'metadata.title-unique',
      'identity.no-default-title',
      'identity.title-names-site',
    ],
  },
};

describe.each(Object.entries(FOR))('a %s that a recipe proposes', (kind, { check, pattern, passes }) => {
  const groups = Array.from({ length: Math.floor(bodies.length / 3) }, (_, i) =>
    bodies.slice(3 * i, 3 * i + 3),
  );
  it('passes what it is meant for, on real pages', () => {
    let made = 0;
    for (const group of groups) {
      const texts = proposed(
        check,
        siteOf(group, () => ''),
        pattern,
      );
      made += texts.size;
      const urls = [home, `${home}page-1`, `${home}page-2`];
      const after = siteOf(group, (i) => texts.get(urls[i]!) ?? '');
      for (const id of passes) {
        const bad = ask(id, { evidence: after }).places.filter(
          (p) => p.outcome === 'failed' && texts.has(p.place),
        );
        expect(bad.map((p) => [id, texts.get(p.place), p.found])).toEqual([]);
      }
    }
    // most pages have something to make a title of; few begin with sentences that fit
    expect(made).toBeGreaterThan(kind === 'title' ? groups.length : 10);
  });
});

describe('a description that a recipe proposes', () => {
  const at = (body: string): string | undefined =>
    /content="([^"]*)"/.exec(
      [
        ...proposed(
          'metadata.description-present',
          siteOf(['<h1>Home</h1><p>Other words here.', body], () => ''),
          /content="([^"]*)"/,
        ).values(),
      ].at(-1) ?? '',
    )?.[1];
  const FIRST = 'The choir was founded in a boat shed and still meets there when the tide is out.';
  const SECOND = 'Anybody may come and listen.';

  it('is made of whole sentences, without headings and footers', () =>
    expect(at(`<h1>History</h1><h2>How it began</h2><p>${FIRST} ${SECOND}</p>`)).toBe(`${FIRST} ${SECOND}`));
  it('ends before a sentence that no longer fits', () =>
    expect(
      at(
        `<h1>History</h1><p>${FIRST} ${'It sings and sings and sings on. '.repeat(1)}${'and on '.repeat(30)}.</p>`,
      ),
    ).toMatch(/\.$/));
  it('is none where the page says nothing of its own', () => expect(at('<h1>History</h1>')).toBeUndefined());
  it('is none where only half a sentence would fit', () =>
    expect(at(`<h1>History</h1><p>${'The choir sings and '.repeat(20)}rests.</p>`)).toBeUndefined());
});
