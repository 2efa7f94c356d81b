import { RESTS_ON } from '#core/text/common-messages';
import { describe, expect, it } from 'vitest';
import {
  holding,
  isManualOpen,
  isResting,
  ledgerFolds,
  ledgerGroups,
  ledgerShows,
  type LedgerLine,
  type LedgerShow,
} from './ledger';

const POINTS = { blocker: 20, major: 5, minor: 1 };
const finding = (
  check: string,
  outcome: LedgerLine['outcome'],
  more: Partial<LedgerLine> = {},
): LedgerLine => ({
  check,
  section: check.split('.')[0] as LedgerLine['section'],
  title: check,
  fault: `not ${check}`,
  code: 'x',
  severity: 'major',
  outcome,
  accepted: false,
  byHand: false,
  expected: null,
  found: null,
  points: outcome === 'failed' && !more.accepted ? POINTS[more.severity ?? 'major'] : 0,
  ...more,
});
const findings = [
  finding('https.hsts', 'failed'),
  finding('identity.phone', 'untested'),
  finding('domain.spf', 'cantTell'),
  finding('domain.caa', 'passed'),
  finding('domain.dkim', 'inapplicable'),
  finding('delivery.backup', 'untested', { byHand: true }),
  finding('delivery.accounts', 'passed', { byHand: true }),
  finding('delivery.no-server-errors', 'failed', { severity: 'blocker' }),
  finding('indexing.let-in', 'failed', { severity: 'blocker', accepted: true }),
];
const listed = (show: LedgerShow, words = ''): string[] =>
  ledgerGroups(findings, show, words).flatMap((g) => g.list.map((f) => f.check));

describe('the ledger lists', () => {
  it.each<[string, LedgerShow, string[]]>([
    [
      'what needs a person, worst first over all sections, manual checks last',
      'needs',
      ['delivery.no-server-errors', 'https.hsts', 'domain.spf', 'identity.phone', 'delivery.backup'],
    ],
    ['faults that are not accepted', 'faults', ['delivery.no-server-errors', 'https.hsts']],
    ['what is undecided without a person', 'undecided', ['domain.spf', 'identity.phone']],
    ['manual checks', 'hand', ['delivery.backup', 'delivery.accounts']],
  ])('%s', (_, show, wanted) => {
    expect(listed(show)).toEqual(wanted);
  });
  it('what needs a person under three headings', () => {
    expect(ledgerGroups(findings, 'needs', '').map((g) => g.title)).toEqual([
      'Failed',
      'Undecided',
      'Manual checks left',
    ]);
  });
  it('all by section, the one with a blocker first', () => {
    expect(ledgerGroups(findings, 'all', '').map((g) => g.title)).toEqual([
      'Delivery',
      'HTTPS',
      'Identity',
      'Domain',
      'Indexing',
    ]);
    expect(listed('all')).toHaveLength(findings.length);
  });
  it('what words find, a section’s name too', () => {
    expect(listed('all', 'spf canttell')).toEqual(['domain.spf']);
    expect(listed('needs', 'domain')).toEqual(['domain.spf']);
  });
  it('folds what needs nobody into one line a section', () => {
    expect(ledgerFolds(findings, '').map((f) => [f.title, f.words])).toEqual([
      ['Domain', '1 passed, 1 not applicable'],
      ['Indexing', '1 accepted'],
      ['Delivery', '1 passed'],
    ]);
    expect(ledgerFolds(findings, 'caa').map((f) => f.words)).toEqual(['1 passed']);
  });
  it('counts what each way shows', () => {
    expect(ledgerShows(findings).map((s) => [s.key, s.n])).toEqual([
      ['needs', 5],
      ['faults', 2],
      ['undecided', 2],
      ['hand', 2],
      ['all', 9],
    ]);
  });
  it('what holds the gate', () => {
    expect(holding(findings).map((f) => f.check)).toEqual(['delivery.no-server-errors']);
  });
  it.each([
    ['rests on another', 'cantTell', RESTS_ON, true],
    ['cannot tell by itself', 'cantTell', 'kit/no-answer', false],
    ['failed', 'failed', RESTS_ON, false],
  ] as const)('%s: %s', (_, outcome, code, wanted) => {
    expect(isResting(finding('domain.spf', outcome, { code }))).toBe(wanted);
  });
  it('manual checks that wait for somebody', () => {
    expect(findings.filter(isManualOpen).map((f) => f.check)).toEqual(['delivery.backup']);
    expect(isManualOpen(finding('delivery.backup', 'failed', { byHand: true }))).toBe(true);
  });
});
