import { describe, expect, it } from 'vitest';
import type { Finding } from '#core/facts/finding';
import { messageOf, newsBetween, type News, type Seen } from './news';

const finding = (check: string, outcome: Finding['outcome'], more: Partial<Finding> = {}): Finding => ({
  check,
  section: 'https',
  title: `Title of ${check}`,
  fault: `Fault of ${check}`,
  severity: 'blocker',
  weight: 20,
  credit: null,
  outcome,
  found: `what ${check} found`,
  code: 'x',
  places: [],
  ...more,
});
const seen = (gate: Seen['gate'], ...findings: Finding[]): Seen => ({ gate, findings });
const NONE: ReadonlySet<string> = new Set();
const kinds = (before: Seen, after: Seen, returned = NONE, ended = NONE): string[] =>
  newsBetween(before, after, returned, ended).map((n) => `${n.kind} ${n.check}`.trim());

describe('what is news', () => {
  const minor = { severity: 'minor' as const };
  it.each<[string, Seen, Seen, string[]]>([
    ['nothing', seen('clear', finding('a', 'passed')), seen('clear', finding('a', 'passed')), []],
    [
      'a gate that closes',
      seen('clear', finding('a', 'passed')),
      seen('held', finding('a', 'failed')),
      ['gate closed a'],
    ],
    [
      'one blocker more',
      seen('held', finding('a', 'failed'), finding('b', 'passed')),
      seen('held', finding('a', 'failed'), finding('b', 'failed')),
      ['new blocker b'],
    ],
    ['a fault that stays', seen('held', finding('a', 'failed')), seen('held', finding('a', 'failed')), []],
    [
      'an accepted one',
      seen('clear', finding('a', 'passed')),
      seen('clear', finding('a', 'failed', { accepted: true })),
      [],
    ],
    [
      'a new minor',
      seen('clear', finding('a', 'passed')),
      seen('clear', finding('a', 'failed', minor)),
      ['new fault a'],
    ],
    [
      'a new minor of what was not there before',
      seen('clear', finding('a', 'inapplicable')),
      seen('clear', finding('a', 'failed', minor)),
      ['new fault a'],
    ],
    [
      'a minor that could not be told before',
      seen('clear', finding('a', 'cantTell')),
      seen('clear', finding('a', 'failed', minor)),
      [],
    ],
    ['a minor of a check that is new', seen('clear'), seen('clear', finding('a', 'failed', minor)), []],
    [
      'a certificate that nears its end',
      seen('clear', finding('https.certificate-days', 'passed')),
      seen('clear', finding('https.certificate-days', 'failed', { severity: 'major' })),
      ['ends soon https.certificate-days'],
    ],
    ['the first audit of a check', seen(null), seen('held', finding('a', 'failed')), ['new blocker a']],
  ])('%s', (_, before, after, expected) => {
    expect(kinds(before, after)).toEqual(expected);
  });
  it('a fault that came back, and one that went', () => {
    const before = seen('clear', finding('a', 'passed'), finding('b', 'failed', minor));
    const after = seen('held', finding('a', 'failed'), finding('b', 'passed', minor));
    expect(kinds(before, after, new Set(['a']), new Set(['b']))).toEqual(['back a', 'gone b']);
  });
  it('a home page that says something else', () => {
    const face = { title: 'Tarn', heading: 'Stars', description: '' };
    const [news] = newsBetween(
      { ...seen('clear'), face },
      { ...seen('clear'), face: { ...face, title: 'Buy cheap watches' } },
      NONE,
      NONE,
    );
    expect(news).toMatchObject({
      kind: 'changed',
      text: 'its title is “Buy cheap watches”, it was “Tarn”',
    });
  });
  it('what is known of a certificate’s authority joins its sites', () => {
    const places = [
      { place: 'a.example', outcome: 'failed' as const, code: 'x', data: { issuer: 'CN=Sallow CA 1' } },
    ];
    const [news] = newsBetween(
      seen('clear'),
      seen('clear', finding('https.certificate-days', 'failed', { severity: 'major', places })),
      NONE,
      NONE,
    );
    expect(news!.cause).toBe('https.certificate-days, issuer CN=Sallow CA 1');
  });
});

describe('messages', () => {
  const news = (where: string, more: Partial<News> = {}): News & { where: string } => ({
    kind: 'ends soon',
    check: 'https.certificate-days',
    title: 'Certificate ends soon',
    cause: 'https.certificate-days, issuer Sallow CA 1',
    text: '3 days left',
    where,
    ...more,
  });
  it.each<[string, (News & { where: string })[], string]>([
    ['one', [news('Tarn, Live')], 'Ends soon: Certificate ends soon. Tarn, Live: 3 days left'],
    [
      'five of one cause',
      ['A', 'B', 'C', 'D', 'E'].map((w) => news(w)),
      'Ends soon on 5 sites, one cause: issuer Sallow CA 1: Certificate ends soon. A: 3 days left; B: 3 days left; C: 3 days left and 2 more',
    ],
    [
      'two of one check',
      ['A', 'B'].map((w) => news(w, { cause: 'https.certificate-days' })),
      'Ends soon on 2 sites: Certificate ends soon. A: 3 days left; B: 3 days left',
    ],
  ])('%s', (_, list, expected) => {
    expect(messageOf(list)).toBe(expected);
  });
});
