import { describe, expect, it } from 'vitest';
import type { Finding } from '#core/facts/finding';
import { ledgerGroups, ledgerShows, manualLeft, type LedgerShow } from './ledger-list';

const finding = (check: string, outcome: Finding['outcome'], more: Partial<Finding> = {}): Finding => ({
  check,
  section: check.split('.')[0] as Finding['section'],
  title: check,
  severity: 'major',
  weight: 5,
  credit: null,
  outcome,
  places: [],
  ...more,
});
const findings = [
  finding('https.hsts', 'failed'),
  finding('identity.phone', 'untested'),
  finding('domain.spf', 'cantTell'),
  finding('delivery.backup', 'untested', { byHand: true }),
  finding('delivery.accounts', 'passed', { byHand: true }),
  finding('indexing.let-in', 'failed', { severity: 'blocker', accepted: true }),
];
const listed = (show: LedgerShow, words = ''): string[] =>
  ledgerGroups(findings, show, words).flatMap((g) => g.list.map((f) => f.check));

describe('the ledger lists', () => {
  it.each([
    ['faults that are not accepted', 'faults', ['https.hsts']],
    ['what is undecided', 'undecided', ['identity.phone', 'domain.spf', 'delivery.backup']],
    ['what is done by hand', 'hand', ['delivery.backup', 'delivery.accounts']],
  ] as [string, LedgerShow, string[]][])('%s', (_, show, wanted) => {
    expect(listed(show).sort()).toEqual([...wanted].sort());
  });
  it('all, a section with a fault first', () => {
    expect(listed('all')[0]).toBe('https.hsts');
    expect(listed('all')).toHaveLength(findings.length);
  });
  it('what words find', () => {
    expect(listed('all', 'spf canttell')).toEqual(['domain.spf']);
  });
  it('counts what each way shows', () => {
    expect(ledgerShows(findings).map((s) => [s.key, s.n])).toEqual([
      ['all', 6],
      ['faults', 1],
      ['undecided', 3],
      ['hand', 2],
    ]);
  });
  it('manual checks that wait for somebody', () => {
    expect(manualLeft(findings)).toBe(1);
  });
});
