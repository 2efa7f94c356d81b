/** Reports for clients: what is told, in which words, and that every check has some. */
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';
import type { Finding } from '#core/facts/finding';
import { SECTIONS } from '#core/facts/finding';
import { composeReport, type ReportInput } from './report';
import { REPORT_LANGUAGES, REPORT_PARTS, type ReportSetup } from './setup';
import { reportTexts } from './texts/index';

const SETUP: ReportSetup = {
  language: 'en',
  parts: [...REPORT_PARTS],
  letter: 'Dear {client}, here is {site}.',
  signedBy: 'Mara',
  smallToo: false,
  leftOut: [],
  words: [],
};
const finding = (check: string, more: Partial<Finding> = {}): Finding => ({
  check,
  section: 'metadata',
  title: `Title of ${check}`,
  fault: `Fault of ${check}`,
  severity: 'major',
  weight: 5,
  outcome: 'failed',
  credit: { num: 0, den: 1 },
  code: 'x',
  places: [],
  ...more,
});
const failing = (n: number): Finding['places'] =>
  Array.from({ length: n }, (_, i) => ({ place: `p${i}`, outcome: 'failed' as const, code: 'x' }));

function compose(findings: Finding[], more: Partial<ReportInput> = {}) {
  return composeReport({
    site: 'Lifeboat Loft',
    client: 'The Friends',
    stage: 'pre-launch',
    environment: { name: 'Staging', isLive: false, url: 'https://draft.example/' },
    audit: { id: 7, at: '2026-11-28T10:00:00.000Z' },
    gate: 'held',
    band: [],
    findings,
    before: null,
    fixes: [],
    attestedAt: new Map(),
    pages: [],
    setup: SETUP,
    agency: { name: 'Marram Studio', colour: '#2f6b3a', hasLogo: false },
    ...more,
  });
}

describe('what is told', () => {
  const BLOCKER = finding('indexing.kept-out', { severity: 'blocker', places: failing(9) });
  const MAJOR = finding('metadata.title-present', { places: failing(1) });
  const MINOR = finding('sharing.card', { severity: 'minor' });

  it('faults, the gravest first, with who does what by when; small ones counted', () => {
    const report = compose([MINOR, MAJOR, BLOCKER], {
      fixes: [
        { check: MAJOR.check, state: 'in progress', who: 'Nell', contactId: 3, due: '2026-12-02' },
        { check: BLOCKER.check, state: 'gone', who: 'Joss', contactId: null, due: null },
      ],
    });
    expect(report.open).toEqual([
      {
        check: 'indexing.kept-out',
        about: 'The draft stays out of search engines',
        trouble: 'The draft can turn up in search results.',
        found: 'x',
        severity: 'blocker',
        failing: 9,
      },
      {
        check: 'metadata.title-present',
        about: 'Every page has a title',
        trouble: 'A page has no title in the tab and in search results.',
        found: 'x',
        severity: 'major',
        who: 'Nell',
        contactId: 3,
        due: '2026-12-02',
        state: 'in progress',
      },
    ]);
    expect(report.smallOpen).toBe(1);
    expect(report.letter).toBe('Dear The Friends, here is Lifeboat Loft.');
    expect(report.verdict).toBe('1 thing stands in the way of the launch.');
    expect(report.beside[0]).toBe('Beside it 2 things are open.');
  });
  it('what is left out is not told, but counts in the verdict', () => {
    const report = compose([MAJOR, BLOCKER], { setup: { ...SETUP, leftOut: [BLOCKER.check] } });
    expect(report.open.map((o) => o.check)).toEqual([MAJOR.check]);
    expect(report.verdict).toMatch(/^1 thing stands in the way/);
  });
  it('words of one’s own stand in place of ours, and own checks speak by their faults', () => {
    const words = [{ check: MAJOR.check, text: 'Page seven has no name.' }];
    const report = compose([MAJOR, finding('own.menus')], { setup: { ...SETUP, words } });
    expect(report.open.map((o) => [o.about, o.trouble])).toEqual([
      ['Every page has a title', 'Page seven has no name.'],
      ['Fault of own.menus', ''],
    ]);
  });
  it('what was put right and what is new since the report before', () => {
    const before = [MAJOR, finding('metadata.charset')];
    const now = [BLOCKER, MAJOR, finding('metadata.charset', { outcome: 'passed' })];
    const report = compose(now, {
      before: { at: '2026-11-01T00:00:00.000Z', isReport: true, findings: before },
    });
    expect(report.mended.map((m) => m.check)).toEqual(['metadata.charset']);
    expect(report.fresh.map((m) => m.check)).toEqual([BLOCKER.check]);
    expect(compose(now).fresh).toEqual([]);
  });
  it('what cannot be told any more is not told as put right', () => {
    const report = compose([finding('metadata.charset', { outcome: 'cantTell' })], {
      before: { at: '2026-11-01T00:00:00.000Z', isReport: true, findings: [finding('metadata.charset')] },
    });
    expect(report.mended).toEqual([]);
    expect(report.beside).toContain('1 thing could not be told from outside.');
  });
  it('what was accepted is left on purpose, without the reason that is the agency’s own', () => {
    const report = compose([{ ...MAJOR, accepted: true, reason: 'they will not pay' }]);
    expect(report.open).toEqual([]);
    expect(report.left.map((l) => l.about)).toEqual(['Every page has a title']);
    expect(JSON.stringify(report)).not.toContain('will not pay');
  });
  it('manual checks, done and not', () => {
    const manual = (check: string, outcome: Finding['outcome']): Finding =>
      finding(check, { outcome, byHand: true });
    const report = compose(
      [
        manual('delivery.backup', 'passed'),
        manual('delivery.accounts', 'untested'),
        manual('domain.access', 'inapplicable'),
      ],
      { attestedAt: new Map([['delivery.backup', '2026-11-27T09:00:00.000Z']]) },
    );
    expect(report.manual).toEqual([
      { about: 'Safe accounts', isDone: false },
      { about: 'A backup that works', isDone: true, at: '2026-11-27T09:00:00.000Z' },
    ]);
  });
  it.each([
    ['held', false, /in the way of the launch/],
    ['held', true, /put right now/],
    ['undecided', false, /stands in the way; some/],
    ['clear', false, /Nothing stands in the way/],
    ['clear', true, /in order/],
  ] as const)('%s, launched %s', (gate, launched, wanted) => {
    const more = launched
      ? { stage: 'launched' as const, environment: { name: 'Live', isLive: true, url: 'https://x.example/' } }
      : {};
    expect(compose([BLOCKER], { gate, ...more }).verdict).toMatch(wanted);
  });
});

describe.each(REPORT_LANGUAGES)('the words in %s', (language) => {
  const texts = reportTexts(language);
  it('are there for every check, and for no other', () => {
    expect(Object.keys(texts.checks).sort()).toEqual(CATALOGUE.map((c) => c.id).sort());
  });
  it('are sentences without a term of the field', () => {
    const TERMS =
      /\b(?:DNS|HSTS|TLS|SSL|HTTPS?|CNAME|AAAA|MX|SPF|DKIM|DMARC|DNSSEC|DS|SOA|TTL|noindex|canonical|hreflang|robots\.txt|sitemap|meta|og:|favicon|viewport|JSON|CSS|h1|redirects?|5xx|404)\b/i;
    const bad = Object.entries(texts.checks).filter(
      ([, [about, trouble]]) =>
        TERMS.test(`${about} ${trouble}`) || /[.:]$/.test(about) || !/^\p{Lu}.{15,160}\.$/u.test(trouble),
    );
    expect(bad.map(([check]) => check)).toEqual([]);
  });
  it('name each section and part once', () => {
    expect(new Set(SECTIONS.map((s) => texts.sections[s])).size).toBe(SECTIONS.length);
    expect(new Set(REPORT_PARTS.map((p) => texts.parts[p])).size).toBe(REPORT_PARTS.length);
  });
  it.each([1, 2, 5])('count %s', (n) => {
    for (const say of [texts.undecidedCount, texts.waitingCount, texts.smallOpen])
      expect(say(n)).toMatch(new RegExp(`\\b${n}\\b.*\\.$`));
  });
});
