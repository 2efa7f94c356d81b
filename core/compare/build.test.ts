/** A build against what is served: what a host puts in, and in what a page differs. */
import { describe, expect, it } from 'vitest';
import type { BuiltFile } from '#core/facts/environment';
import type { Evidence } from '#core/facts/evidence';
import { evidence, HOME, page } from '#core/checks/example-evidence';
import { compareBuild, isLitter } from './build';
import { faceOf } from './sites/page-face';

const BASE = 'https://build.example/';
const PATHS = ['', 'about/', 'songs/', 'dates/'];
const SITE = new URL(HOME).origin;

/** The file of a page as it was built. */
function built(path: string, body = '', title?: string): BuiltFile {
  const facts = page({ url: BASE + path, body, title }).facts!;
  const ground = { base: BASE, hosts: new Set(['build.example']) };
  return {
    path: `${path}index.html`,
    bytes: 1,
    sha256: 'built',
    text: facts.text,
    face: faceOf(facts, ground, BASE + path),
  };
}
/** The same pages as a host serves them. */
const served = (bodies: readonly string[], titles: readonly (string | undefined)[] = []): Evidence => ({
  ...evidence(),
  pages: PATHS.map((path, i) => ({
    ...page({
      url: HOME + path,
      body: bodies[i] ?? '',
      title: titles[i],
      head: `<link rel="canonical" href="${HOME}${path}">`,
    }),
    sha256: 'served',
  })),
});
const states = (files: BuiltFile[], e: Evidence): string[] =>
  compareBuild({ name: 'site', files }, e, SITE).files.map((f) => f.state + (f.why ? ` ${f.why}` : ''));

describe('what a host puts into pages', () => {
  const files = PATHS.map((path) => built(path));
  it('is the host’s where the same words stand in many', () => {
    const badge = '<p>Piled with Cairn</p>';
    expect(states(files, served([badge, badge, badge, badge]))).toEqual(
      PATHS.map(() => 'injected “Piled with Cairn”'),
    );
  });
  it('is a difference where it stands in two, or other words in each', () => {
    const two = ['<p>News</p>', '<p>News</p>', '', ''];
    expect(states(files, served(two))).toEqual(['differs', 'differs', 'injected', 'injected']);
    const each = ['<p>One</p>', '<p>Two</p>', '<p>Three</p>', '<p>Four</p>'];
    expect(states(files, served(each))).toEqual(['differs', 'differs', 'differs', 'differs']);
  });
  it('hides no words that were taken away', () => {
    const long = PATHS.map((path) => built(path, '<p>Come and sing.</p>'));
    const badge = '<p>Piled with Cairn</p>';
    expect(new Set(states(long, served([badge, badge, badge, badge])))).toEqual(new Set(['differs']));
  });
});

describe('a page that differs', () => {
  it('says in what, the site’s own host aside', () => {
    const files = [built('', '<p>Come and sing.</p>', 'Old name')];
    const { differences = [] } = compareBuild(
      { name: 'site', files },
      served(['<p>Come and dance.</p>'], ['New name']),
      SITE,
    ).files[0]!;
    const of = (what: string) => differences.find((d) => d.what === what);
    expect(of('title')).toEqual({ what: 'title', gone: ['Old name'], added: ['New name'] });
    expect(of('text')!.gone.join(' ')).toContain('Come and sing.');
    expect(of('links')).toBeUndefined();
    expect(of('headings')).toBeUndefined();
  });
});

it.each([
  ['.DS_Store', true],
  ['pictures/Thumbs.db', true],
  ['__MACOSX/index.html', true],
  ['.git/HEAD', true],
  ['.gitignore', false],
  ['index.html', false],
])('%s is litter: %s', (path, wanted) => {
  expect(isLitter(path)).toBe(wanted);
});
