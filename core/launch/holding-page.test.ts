/** The holding page: complete by itself, and whatever is typed stays text. */
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { AT, brief, chain, evidence, HOME, page } from '#core/checks/example-evidence';
import { judge } from '#core/checks/engine/judge';
import { fullChecklist } from '#core/checks/engine/checklist';
import {
  holdingFromBrief,
  holdingLines,
  holdingPageHtml,
  isPlainWay,
  type HoldingSettings,
} from './holding-page';

const settings = (change: Partial<HoldingSettings> = {}): HoldingSettings => ({
  ...holdingFromBrief(
    { ...brief(), tagline: 'Songs by the water', colours: [{ role: 'main', value: '#0f5a66' }] },
    { name: 'x', launchDate: '2026-12-24' },
  ),
  ...change,
});
const facts = (change: Partial<HoldingSettings> = {}) => extractPage(holdingPageHtml(settings(change)), HOME);

describe('the page', () => {
  it('says who it is, when it opens, and how to reach them, from the brief', () => {
    const f = facts();
    expect(f.titles[0]!.text).toBe('Marsh Choir');
    expect(f.lang?.value).toBe('en-GB');
    expect(f.text).toContain('Our new site opens on 24 December 2026.');
    expect(f.anchors.map((a) => a.href)).toEqual(['mailto:hello@marsh-choir.example', 'tel:+441632960111']);
    expect(f.metas.find((m) => m.name === 'robots')!.content).toBe('noindex');
  });
  it.each([
    ['de', 'öffnet am 24. Dezember 2026'],
    ['fr', 'ouvre le 24 décembre 2026'],
    ['nl-BE', 'opent op 24 december 2026'],
    ['xx', 'opens on'],
    ['not a tag', 'opens on'],
  ])('in %s', (language, words) => {
    expect(facts({ language }).text).toContain(words);
  });
  it.each([
    ['no date', { opensOn: '' }, 'opens soon'],
    ['a date that is none', { opensOn: '2026-99-99' }, 'opens soon'],
    ['words of one’s own', { text: 'Back in May.' }, 'Back in May.'],
  ])('%s', (_, change, words) => {
    expect(facts(change).text).toContain(words);
  });
  it('loads nothing from anywhere, and runs nothing', () => {
    const hostile = '"><script>alert(1)</script><img src=//evil.example>';
    const f = facts({
      name: hostile,
      tagline: hostile,
      text: hostile,
      contactEmail: hostile,
      phone: hostile,
      colour: 'red;}</style><script>1</script>',
      language: hostile,
      logo: 'javascript:alert(1)',
    });
    expect(f.scripts).toEqual([]);
    expect(f.images).toEqual([]);
    expect(f.links).toEqual([]);
    expect(f.titles[0]!.text).toBe(hostile);
  });
  it('shows a picture that it carries itself, and no other', () => {
    const logo = 'data:image/png;base64,iVBORw0KGgo=';
    expect(facts({ logo }).images.map((i) => i.src)).toEqual([logo]);
    expect(facts({ logo: 'https://evil.example/x.png' }).images).toEqual([]);
  });
  it.each([
    ['#0f5a66', '#0f5a66'],
    ['#ffe9a8', '#1b2430'],
    ['no colour', '#1b2430'],
  ])('its heading in %s can be read: %s', (colour, wanted) => {
    expect(holdingPageHtml(settings({ colour }))).toContain(`color:${wanted}}`);
  });
  it('passes what is asked of a holding page', () => {
    const html = holdingPageHtml(settings());
    const front = {
      ...page({ url: HOME, via: 'home' }),
      chain: chain([HOME], 503, [
        ['Content-Type', 'text/html; charset=utf-8'],
        ['Retry-After', '86400'],
      ]),
      facts: extractPage(html, HOME),
    };
    const findings = judge({
      evidence: evidence({ pages: [front] }),
      brief: brief(),
      checklist: fullChecklist(),
      situation: 'holding',
      at: AT,
      skipManual: true,
    });
    const of = (check: string) => findings.find((f) => f.check === check)?.outcome;
    for (const check of ['indexing.holding-page', 'indexing.kept-out', 'identity.language'])
      expect(`${check} ${of(check)}`).toBe(`${check} passed`);
  });
});

describe('what is written into a configuration', () => {
  it.each([
    ['preview', 'low-tide', true],
    ['', '', false],
    ['a b', 'x', false],
    ['x', '"; return 200;', false],
  ])('%j=%j: %s', (name, value, plain) => {
    expect(isPlainWay({ name, value })).toBe(plain);
    for (const server of ['nginx', 'Apache'] as const) {
      const lines = holdingLines(server, { name, value, addresses: ['192.0.2.7', '"; evil'] });
      expect(lines.includes(`${name}=${value}`) && value !== '').toBe(plain);
      expect(lines).not.toContain('evil');
      expect(lines).not.toContain('return 200');
    }
  });
});
