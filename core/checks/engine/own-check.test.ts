/**
 * The agency's own checks: each building block passes, fails and cannot tell; none of them runs foreign code.
 */
import { describe, expect, it } from 'vitest';
import { selectElements } from '#core/extract/selected';
import type { Checklist, OwnCheck, OwnTest } from '#core/facts/checklist';
import type { Evidence } from '#core/facts/evidence';
import { checklistFaults } from './checklist-faults';
import { judge } from './judge';
import { AT, brief, chain, brokenChain, dnsAnswer, evidence, page } from '#core/checks/example-evidence';
import { askedFor, inWords, matchesPattern } from './own-check';

const own = (test?: OwnTest, change: Partial<OwnCheck> = {}): OwnCheck => ({
  id: 'own.mine',
  section: 'delivery',
  title: 'Mine',
  severity: 'major',
  situations: ['live'],
  ...(test ? { test } : {}),
  ...change,
});
const list = (...checks: OwnCheck[]): Checklist => ({
  name: 'Ours',
  version: 1,
  items: checks.map((c) => ({ check: c.id })),
  own: checks,
});
const ask = (test: OwnTest, e: Evidence = evidence()) =>
  judge({ evidence: e, brief: brief(), checklist: list(own(test)), situation: 'live', at: AT })[0]!;
const BASE = 'https://marsh-choir.example/';

/** Pages with what the selectors find on them. */
function withSelected(selectors: string[], bodies: string[]): Evidence {
  return evidence({
    pages: bodies.map((body, i) => {
      const p = page({ url: i ? `${BASE}p${i}/` : BASE, via: i ? 'link' : 'home', body });
      return { ...p, facts: { ...p.facts!, selected: selectElements(body, selectors) } };
    }),
  });
}

describe('an element by CSS selector', () => {
  const at = 'footer a[href="/imprint/"]';
  const e = withSelected(
    [at],
    ['<footer><a href="/imprint/" rel="author">Imprint</a></footer>', '<footer></footer>'],
  );
  it.each<[OwnTest, string]>([
    [{ look: 'element', at, is: 'there', on: 'home' }, 'passed'],
    [{ look: 'element', at, is: 'there', on: 'pages' }, 'failed'],
    [{ look: 'element', at, is: 'missing', on: 'home' }, 'failed'],
    [{ look: 'element', at, is: 'equals', value: 'Imprint', on: 'home' }, 'passed'],
    [{ look: 'element', at, is: 'differs', value: 'Imprint', on: 'home' }, 'failed'],
    [{ look: 'element', at, is: 'contains', value: 'PRINT', on: 'home' }, 'passed'],
    [{ look: 'element', at, is: 'matches', value: 'im*', on: 'home' }, 'passed'],
    [{ look: 'element', at, is: 'matches', value: 'mp*', on: 'home' }, 'failed'],
    [{ look: 'element', at, attribute: 'rel', is: 'equals', value: 'author', on: 'home' }, 'passed'],
    [{ look: 'element', at, attribute: 'title', is: 'there', on: 'home' }, 'failed'],
  ])('%j: %s', (test, outcome) => {
    expect(ask(test, e).outcome).toBe(outcome);
  });
  it('a page without it is named, and shows what stands there', () => {
    const f = ask({ look: 'element', at, is: 'there', on: 'pages' }, e);
    expect(f.places.map((p) => [p.place, p.outcome, p.found])).toEqual([
      [BASE, 'passed', 'Imprint'],
      [`${BASE}p1/`, 'failed', 'nothing there'],
    ]);
    expect(f.places[0]!.raw).toBe('<a href="/imprint/" rel="author">Imprint</a>');
  });
  it('what is no selector, and what was not looked for, cannot be told', () => {
    expect(
      ask({ look: 'element', at: 'a[[', is: 'there', on: 'home' }, withSelected(['a[['], ['<p>'])).reason,
    ).toMatch(/is no selector/);
    expect(ask({ look: 'element', at: 'b', is: 'there', on: 'home' }, e).reason).toMatch(/audit again/);
  });
});

describe('header, text, status, record', () => {
  it.each<[OwnTest, string]>([
    [{ look: 'header', at: 'x-content-type-options', is: 'equals', value: 'nosniff', on: 'pages' }, 'passed'],
    [{ look: 'header', at: 'X-Powered-By', is: 'missing', on: 'pages' }, 'passed'],
    [{ look: 'header', at: 'Permissions-Policy', is: 'there', on: 'home' }, 'failed'],
    [{ look: 'header', at: 'Content-Type', is: 'matches', value: 'text/html*', on: 'pages' }, 'passed'],
    [{ look: 'text', is: 'there', value: 'sings on  MONDAYS', on: 'pages' }, 'passed'],
    [{ look: 'text', is: 'missing', value: 'sings on mondays', on: 'home' }, 'failed'],
    [{ look: 'text', is: 'there', value: 'brass band', on: 'home' }, 'failed'],
    [{ look: 'text', is: 'missing', value: 'brass band', on: 'home' }, 'passed'],
  ])('%j: %s', (test, outcome) => {
    expect(ask(test).outcome).toBe(outcome);
  });
  const asked = evidence({
    asked: [
      { path: '/imprint/', chain: chain([`${BASE}imprint/`], 200) },
      { path: '/old/', chain: chain([`${BASE}old/`], 410) },
      { path: '/slow/', chain: brokenChain(`${BASE}slow/`, 'timeout', 'no answer in 10 s') },
    ],
  });
  it.each<[string, OwnTest['is'], string | undefined, string]>([
    ['/imprint/', 'equals', '200', 'passed'],
    ['/old/', 'equals', '200', 'failed'],
    ['/old/', 'matches', '4*', 'passed'],
    ['/old/', 'differs', '200', 'passed'],
    ['/slow/', 'equals', '200', 'cantTell'],
    ['/never/', 'equals', '200', 'cantTell'],
  ])('status of %s %s %s: %s', (at, is, value, outcome) => {
    expect(ask({ look: 'status', at, is, value }, asked).outcome).toBe(outcome);
  });
  const e = evidence();
  e.dns.answers.push(
    dnsAnswer('_note.marsh-choir.example', 'TXT', ['"tide=" "high"']),
    dnsAnswer('gone.marsh-choir.example', 'A', [], { rcode: 'NXDOMAIN' }),
    dnsAnswer('sick.marsh-choir.example', 'A', [], { rcode: 'SERVFAIL' }),
  );
  it.each<[string, string, OwnTest['is'], string | undefined, string]>([
    ['_note.{domain}', 'TXT', 'equals', 'tide=high', 'passed'],
    ['_note.{host}.', 'TXT', 'equals', 'tide=low', 'failed'],
    ['gone.{domain}', 'A', 'missing', undefined, 'passed'],
    ['gone.{domain}', 'A', 'there', undefined, 'failed'],
    ['sick.{domain}', 'A', 'there', undefined, 'cantTell'],
    ['never.{domain}', 'A', 'there', undefined, 'cantTell'],
    ['{domain}', 'A', 'equals', '192.0.2.10', 'passed'],
  ])('record %s %s %s %s: %s', (at, type, is, value, outcome) => {
    expect(ask({ look: 'record', at, type, is, value }, e).outcome).toBe(outcome);
  });
});

describe('what goes with them', () => {
  it('an audit is told what to look for, but only for checks that are on', () => {
    const checks = [
      own({ look: 'element', at: 'b', is: 'there' }, { id: 'own.a' }),
      own({ look: 'status', at: '/x', is: 'equals', value: '200' }, { id: 'own.b' }),
      own({ look: 'record', at: '{www}', type: 'CNAME', is: 'there' }, { id: 'own.c' }),
      own({ look: 'status', at: '/off', is: 'equals', value: '200' }, { id: 'own.d' }),
    ];
    const l = list(...checks);
    l.items[3]!.on = false;
    expect(askedFor(l, 'kites.example')).toEqual({
      selectors: ['b'],
      paths: ['/x'],
      records: [{ name: 'www.kites.example', type: 'CNAME' }],
      outsideLinks: false,
    });
  });
  it.each<[string, string, boolean]>([
    ['a*c', 'ABC', true],
    ['a*c', 'abcd', false],
    ['*b*', 'abc', true],
    ['abc', ' ABC ', true],
    ['abc', 'abcd', false],
    ['*', '', true],
    ['a*b*c', 'a1b2b3c', true],
    ['a*a', 'a', false],
  ])('pattern %s on %s: %s', (pattern, text, hit) => {
    expect(matchesPattern(pattern, text)).toBe(hit);
  });
  it('many stars on a long text end at once', () => {
    const t = performance.now();
    matchesPattern('*a'.repeat(300), 'a'.repeat(100_000));
    expect(performance.now() - t).toBeLessThan(10_000);
  });
  it('says itself in words', () => {
    expect(inWords({ look: 'header', at: 'Server', is: 'missing' })).toBe('header Server is not there');
    expect(
      inWords({ look: 'record', at: '{domain}', type: 'CAA', is: 'contains', value: 'ca.example' }),
    ).toBe('CAA of {domain} contains ca.example');
  });
  it('situations are kept, by-hand ones wait for a person, and severity and note are the checklist’s', () => {
    const checks = [
      own(undefined, { id: 'own.hand', steps: 'Ring them.' }),
      own({ look: 'text', is: 'there', value: 'x' }, { id: 'own.early', situations: ['staging'] }),
    ];
    const found = judge({
      evidence: evidence(),
      brief: brief(),
      checklist: {
        ...list(...checks),
        items: [
          { check: 'own.hand', severity: 'blocker', weight: 7.5, title: 'Call', note: 'before noon' },
          { check: 'own.early' },
        ],
      },
      situation: 'live',
      at: AT,
    });
    expect(found.map((f) => f.check)).toEqual(['own.hand']);
    expect(found[0]).toMatchObject({
      outcome: 'untested',
      severity: 'blocker',
      weight: 7.5,
      title: 'Call',
      note: 'before noon',
      byHand: true,
      recipe: { steps: 'Ring them.' },
    });
  });
});

describe('faults of a checklist that its fields alone do not show', () => {
  it.each<[string, Checklist, RegExp]>([
    [
      'a check that does not exist',
      { name: 'x', version: 1, items: [{ check: 'https.magic' }] },
      /there is no such check/,
    ],
    [
      'a check twice',
      { name: 'x', version: 1, items: [{ check: 'https.answers' }, { check: 'https.answers' }] },
      /twice/,
    ],
    [
      'a parameter out of range',
      { name: 'x', version: 1, items: [{ check: 'https.certificate-days', parameters: { days: 91 } }] },
      /(between 1 and 90 days|has no parameter)/,
    ],
    [
      'a parameter that does not exist',
      { name: 'x', version: 1, items: [{ check: 'https.answers', parameters: { days: 3 } }] },
      /has no parameter days/,
    ],
    ['a block without its place', list(own({ look: 'element', is: 'there' })), /say the selector/],
    ['a block without its value', list(own({ look: 'status', at: '/x', is: 'equals' })), /say the value/],
    [
      'a path without a slash',
      list(own({ look: 'status', at: 'x', is: 'equals', value: '200' })),
      /begins with \//,
    ],
    ['two own checks of one id', list(own(), own()), /two checks with the id own\.mine/],
  ])('%s', (_, checklist, message) => {
    expect(
      checklistFaults(checklist)
        .map((f) => f.message)
        .join('\n'),
    ).toMatch(message);
  });
  it('a whole one has none', () => {
    expect(checklistFaults(list(own({ look: 'text', is: 'there', value: 'x' })))).toEqual([]);
  });
});
