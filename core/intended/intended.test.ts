/** The text bench: where a listing cuts, what is wrong with a text, patterns, CSV, the client’s note. */
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { ask, brief, HOME, page, withPages } from '#core/checks/example-evidence';
import { pagePath } from '#core/facts/intended-text';
import type { PageLine } from '#core/pages/page-line';
import { textWidth } from '#core/text/width';
import { noteHtml, noteMarkdown } from './client-note';
import { concernsOf, takenKey, type Wanted } from './concerns';
import { applyPattern, unknownFields } from './patterns';
import { isMeasured, rulerOf, standing } from './ruler';
import { readTextsCsv, writeTextsCsv } from './texts-csv';

const TITLE = { least: 15, most: 60, width: 560, size: 20 };

describe('the ruler', () => {
  it('shows all that fits, and says what is left', () => {
    expect(rulerOf('Songs by the water', 560, 20)).toMatchObject({ shown: 'Songs by the water', cut: '' });
    const { px, left } = rulerOf('Songs by the water', 560, 20);
    expect(px + left).toBe(560);
  });

  it('cuts at the very letter with which the text becomes too wide', () => {
    const text = 'iiii '.repeat(200).trim();
    const width = 300;
    const last = Array.from(text, (_, i) => i).find((i) => textWidth(text.slice(0, i + 1), 20) > width)!;
    expect(rulerOf(text.slice(0, last), width, 20).cut).toBe('');
    expect(rulerOf(text.slice(0, last + 1), width, 20).cut).not.toBe('');
  });

  it.each([
    ['behind a word', 'Choir singing beside water', 150, 'Choir singing'],
    ['within the only word', 'Unbelievablylongwordwithoutanyspace', 150, 'Unbelievablyl'],
    ['nowhere in nothing', '', 150, ''],
  ])('%s', (_, text, width, shown) => {
    expect(rulerOf(text, width, 20).shown).toBe(shown);
  });

  it('loses no letter, and what is shown fits with its mark', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 120 }),
        fc.integer({ min: 20, max: 600 }),
        (text, width) => {
          const { shown, cut } = rulerOf(text, width, 20);
          expect(shown + cut).toBe(text);
          if (cut && shown) expect(textWidth(`${shown}…`, 20)).toBeLessThanOrEqual(width);
        },
      ),
    );
  });

  it.each([
    ['', 'nothing written', false],
    ['Short title', 'thin: 11 of 15 characters', false],
    ['Songs by the water', /^fits: \d+ px left$/, true],
    ['i'.repeat(61), 'long: 1 character over 60', false],
    ['The whole programme of all our concerts by the water this season', 'cut after “water this”', false],
  ])('says in words how “%s” stands', (text, words, isGood) => {
    const found = standing(text, TITLE);
    if (typeof words === 'string') expect(found.words).toBe(words);
    else expect(found.words).toMatch(words);
    expect(found.isGood).toBe(isGood);
  });

  it.each([
    ['Songs – à la carte', true],
    ['Τραγούδια', true],
    ['Песни', true],
    ['שירים', true],
    ['歌', false],
    ['أغاني', false],
  ])('knows whether it has the letters of “%s”: %s', (text, is) => {
    expect(isMeasured(text)).toBe(is);
  });
});

describe('concerns', () => {
  const wanted: Wanted = {
    brief: { name: 'Marsh Choir', keyPhrases: ['evening songs'] },
    profile: {
      name: 'Host',
      descriptionLimit: 60,
      defaults: { titles: ['My site'], texts: ['Made with us'] },
    },
  };
  const taken = new Map([[takenKey('Songs  for all'), ['/songs/']]]);
  const faults = (field: 'title' | 'description', text: string, path = '/'): string[] =>
    concernsOf(field, text, { path, taken, wanted }).flatMap((c) => c.fault ?? []);

  it.each([
    ['title', 'Evening songs – MARSH choir', []],
    ['title', 'Evening songs', ['“Marsh Choir” is not in it']],
    ['title', 'Marsh Choir', ['no key phrase is in it']],
    ['title', 'Marsh Choir evening songs lorem ipsum', ['“lorem ipsum” is filler']],
    ['title', 'MARSH CHOIR EVENING SONGS', ['it shouts']],
    ['description', 'Evening songs of the Marsh Choir, made  with us', ['“made with us” is filler']],
    ['description', `Marsh Choir evening songs ${'x'.repeat(40)}`, ['the host takes 60 characters']],
  ] as const)('%s “%s”', (field, text, wantedFaults) => {
    expect(faults(field, text)).toEqual(wantedFaults);
  });

  it('a text that another page has is not unique, the page’s own is', () => {
    expect(faults('title', 'songs for ALL')).toContain('/songs/ has it too');
    expect(faults('title', 'songs for ALL', '/songs/')).not.toContain('/songs/ has it too');
  });

  it('asks for name and phrase on the home page, and only hints at them elsewhere', () => {
    const hints = (path: string) =>
      concernsOf('title', 'Dates', { path, taken, wanted }).map((c) => c.isHint ?? false);
    expect(hints('/').some(Boolean)).toBe(false);
    expect(hints('/a/').filter(Boolean)).toHaveLength(2);
  });

  it('a default title is one', () => {
    expect(faults('title', 'Home')).toContain('it is a default text');
    expect(faults('title', 'my  SITE')).toContain('it is a default text');
  });
});

describe('patterns', () => {
  const line = (url: string, heading: string): PageLine =>
    ({ url: HOME + url, heading, title: { text: 'Old' }, description: { text: '' } }) as PageLine;
  const options = { brief: { name: 'Marsh Choir' }, room: TITLE, dropLast: true };

  it('fills the facts of each page in', () => {
    const [a, b] = applyPattern('{heading} · {name}', [line('a', 'Songs'), line('old-things/', '')], options);
    expect(a).toMatchObject({ text: 'Songs · Marsh Choir', empty: [], clashes: false });
    expect(b!.empty).toEqual(['heading']);
    expect(applyPattern('{word}', [line('old-things/', '')], options)[0]!.text).toBe('Old things');
  });

  it('drops the last part where the whole is too long, and only there', () => {
    const long = 'All our evening concerts beside the quiet water this year';
    expect(applyPattern('{heading} · {name}', [line('a', long)], options)[0]!.text).toBe(long);
    const kept = applyPattern('{heading} · {name}', [line('a', long)], { ...options, dropLast: false })[0]!;
    expect(kept).toMatchObject({ text: `${long} · Marsh Choir`, isTooLong: true });
  });

  it('names pages that would get the same text, whatever its case', () => {
    const found = applyPattern(
      '{heading}',
      [line('a', 'Songs'), line('b', 'songs'), line('c', 'Dates')],
      options,
    );
    expect(found.map((f) => f.clashes)).toEqual([true, true, false]);
  });

  it('leaves unknown fields as they are, and names them', () => {
    expect(unknownFields('{heading} {colour} {colour}')).toEqual(['colour']);
    expect(applyPattern('{colour}', [line('a', 'Songs')], options)[0]!.text).toBe('{colour}');
  });

  it('takes no text of a page for a pattern', () => {
    expect(applyPattern('{heading}', [line('a', '{name} $& $1')], options)[0]!.text).toBe('{name} $& $1');
  });
});

describe('CSV', () => {
  const known = new Set(['/', '/songs/']);

  it('comes back as it went, through any spreadsheet that keeps cells', () => {
    const texts = fc.record({
      title: fc.string({ maxLength: 80 }),
      description: fc.string({ maxLength: 80 }),
    });
    fc.assert(
      fc.property(texts, ({ title, description }) => {
        const fold = (t: string): string => t.replace(/[\s\u200b\ufeff]+/g, ' ').trim();
        const { texts: back, bad } = readTextsCsv(
          writeTextsCsv([{ path: '/', title: fold(title), description: fold(description) }]),
          known,
        );
        expect(bad).toEqual([]);
        const found = back[0];
        expect(found?.title ?? '').toBe(fold(title).normalize('NFC'));
        expect(found?.description ?? '').toBe(fold(description).normalize('NFC'));
      }),
    );
  });

  it('is read by another reader, and holds no formula', () => {
    const { data } = Papa.parse<string[]>(writeTextsCsv([{ path: '/', title: '=1+1', liveTitle: 'a,"b"' }]));
    expect(data[1]).toEqual(['/', "'=1+1", '', 'a,"b"', '']);
  });

  it.each([
    ['no head', 'a,b\n', 1, ''],
    ['a page that is not there', 'path,title\n/gone/,A title\n', 2, 'path'],
    ['a path that is none', 'path,title\nsongs,A title\n', 2, 'path'],
    ['a page twice', 'path,title\n/,A\n/,B\n', 3, 'path'],
    ['a title without end', `path,title\n/,${'x'.repeat(501)}\n`, 2, 'title'],
    ['too many rows', `path,title\n${'/,A\n'.repeat(5001)}`, 5002, ''],
  ])('marks %s', (_, text, line, column) => {
    expect(readTextsCsv(text, known).bad).toEqual([expect.objectContaining({ line, column })]);
  });

  it('columns may come in any order, and an empty cell says nothing', () => {
    const { texts } = readTextsCsv('\ufeffDescription,PATH,Title\r\n,/songs/,New\r\n,/,\r\n', known);
    expect(texts).toEqual([{ path: '/songs/', title: 'New' }]);
  });
});

describe('the note to the client', () => {
  const rows = [
    { path: '/', title: 'New | *title*', liveTitle: 'Old', description: 'Same', liveDescription: 'Same' },
  ];
  it('has old and new in a table, and none of the texts is taken for markup', () => {
    expect(noteMarkdown('Marsh Choir', rows)).toContain('| / | Title | Old | New \\| \\*title\\* |');
    const html = noteHtml('Marsh <Choir>', [{ path: '/', title: '<script>' }]);
    expect(html).not.toContain('<script>');
    expect(html).toContain('Marsh &lt;Choir&gt;');
  });
  it('leaves out what stays as it is', () => {
    expect(noteMarkdown('Marsh Choir', rows)).not.toContain('Description |');
  });
});

describe('metadata.as-intended', () => {
  const evidence = withPages(
    page({ url: HOME, via: 'home', title: 'Marsh  Choir', description: 'As written' }),
    page({ url: `${HOME}songs/`, title: 'Old' }),
  );
  const judged = (intended: { path: string; title?: string; description?: string; seenAt?: string }[]) =>
    ask('metadata.as-intended', { evidence, intended, brief: brief() });

  it.each([
    ['nothing written', [], 'inapplicable', undefined],
    ['as intended', [{ path: '/', title: 'Marsh Choir', description: 'As written' }], 'passed', undefined],
    ['one of two written', [{ path: '/', title: 'Marsh Choir' }], 'passed', undefined],
    ['not yet', [{ path: '/songs/', title: 'New' }], 'failed', 'not yet: title “Old”'],
    [
      'changed since it was seen',
      [{ path: '/songs/', title: 'New', seenAt: '2026-11-20T10:00:00Z' }],
      'failed',
      'changed since 2026-11-20: title “Old”',
    ],
    ['a page that is not there', [{ path: '/gone/', title: 'New' }], 'inapplicable', undefined],
  ] as const)('%s', (_, intended, outcome, found) => {
    const finding = judged([...intended]);
    expect(finding.outcome).toBe(outcome);
    if (found) expect(finding.places.find((p) => p.outcome === 'failed')?.found).toBe(found);
  });

  it('rests on the encoding where a page is not read as UTF-8', () => {
    const latin = { ...page({ url: HOME, via: 'home', title: 'Old' }), charset: 'windows-1252' };
    const finding = ask('metadata.as-intended', {
      evidence: withPages(latin),
      intended: [{ path: '/', title: 'New' }],
    });
    expect(finding.outcome).toBe('cantTell');
    expect(finding.places[0]!.reason).toMatch(/metadata\.charset/);
  });

  it('gives the tags to paste', () => {
    expect(judged([{ path: '/songs/', title: 'A & B' }]).recipe?.paste).toEqual([
      { label: `${HOME}songs/, title`, text: '<title>A &amp; B</title>' },
    ]);
  });

  it.each([
    ['https://a.example/songs/?p=1', 'https://a.example/', '/songs/?p=1'],
    ['https://host.example/draft/songs/', 'https://host.example/draft/', '/songs/'],
    ['https://host.example/other/', 'https://host.example/draft/', undefined],
  ])('%s below %s is %s', (url, base, path) => {
    expect(pagePath(url, base)).toBe(path);
  });
});
