import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { describe, expect, it } from 'vitest';
import '#core/checks/engine/judge';
import type { Finding } from '#core/facts/finding';
import { englishMessages, formatMessage } from '#core/text/messages';
import { composeReport, type ReportInput } from './report';
import { REPORT_PARTS } from './setup';
import { FOUND_DE } from './texts/found-de';
import { WORDINGS } from './texts/wordings';

const namesIn = (elements: readonly MessageFormatElement[]): string[] =>
  elements.flatMap((e) =>
    e.type === TYPE.argument
      ? [e.value]
      : e.type === TYPE.select || e.type === TYPE.plural
        ? [e.value, ...Object.values(e.options).flatMap((o) => namesIn(o.value))]
        : [],
  );
const namesOf = (text: string): Set<string> => new Set(namesIn(parse(text, { ignoreTag: true })));

describe('what was found, in German', () => {
  it('has the codes of the English sentences, and no other braces', () => {
    for (const [code, german] of Object.entries(FOUND_DE)) {
      const english = englishMessages().get(code);
      expect(english, code).toBeDefined();
      const known = namesOf(english!);
      expect(
        [...namesOf(german)].filter((name) => !known.has(name)),
        code,
      ).toEqual([]);
    }
  });

  it.each([
    ['one', { code: 'metadata.description-present/several', data: { allCount: 2 } }, '2 Beschreibungen'],
    [
      'several pages',
      {
        code: 'kit/some-fail',
        data: {
          bad: 2,
          all: 11,
          unit: { code: 'unit/page', data: { n: 11 } },
          first: { code: 'kit/noindex-in', data: { inPage: 'yes', everyone: 'yes' } },
          more: 'yes',
        },
      },
      '2 von 11 Seiten: noindex in der Seite …',
    ],
    ['as it came', { code: 'verbatim', data: { value: '<b>Home</b>' } }, '<b>Home</b>'],
  ])('%s', (_, said, german) => {
    expect(formatMessage(said, WORDINGS.de)).toBe(german);
  });
});

describe('in a report', () => {
  const finding = (data: Finding['data'], code = 'verification.tokens-own/foreign-token'): Finding => ({
    check: 'verification.tokens-own',
    section: 'verification',
    title: 'T',
    fault: 'F',
    severity: 'blocker',
    weight: 20,
    outcome: 'failed',
    credit: { num: 0, den: 1 },
    places: [],
    code,
    data,
  });
  const foundIn = (language: 'en' | 'de', f: Finding): string | undefined =>
    composeReport({
      ...BASE,
      findings: [f],
      setup: { ...BASE.setup, language },
    }).open[0]!.found;

  it('another client is not named, in no language and at no depth', () => {
    const data = { value: 'abc', owner: 'The Rope Walk' };
    expect(foundIn('en', finding(data))).toBe('abc, a token of somebody else');
    expect(foundIn('de', finding(data))).toBe('abc, ein Schlüssel von jemand anderem');
    const first = { code: 'verification.tokens-own/foreign-token', data };
    const unit = { code: 'unit/token', data: { n: 3 } };
    expect(foundIn('en', finding({ bad: 1, all: 3, unit, first, more: 'no' }, 'kit/some-fail'))).toBe(
      '1 of 3 tokens: abc, a token of somebody else',
    );
  });

  it.each([
    ['of a manual check', { byHand: true }],
    ['of a check that somebody vouched for', {}],
  ])('what a person of the agency noted stays there: %s', (_, more) => {
    const noted = finding(
      { what: 'done', by: 'Mara', day: '2026-11-01', hasNote: 'yes', note: 'ask Joss' },
      'attested/said',
    );
    expect(foundIn('en', { ...noted, ...more })).toBeUndefined();
  });

  it('what was stored without a code is left out', () => {
    expect(foundIn('de', { ...finding({}), code: undefined as unknown as string })).toBeUndefined();
  });
});

const BASE: ReportInput = {
  site: 'Lifeboat Loft',
  client: 'The Friends',
  stage: 'launched',
  environment: { name: 'Live', isLive: true, url: 'https://lifeboat-loft.example/' },
  audit: { id: 1, at: '2026-12-01T08:00:00Z' },
  gate: 'held',
  band: [],
  findings: [],
  before: null,
  fixes: [],
  attestedAt: new Map(),
  pages: [],
  setup: {
    language: 'en',
    parts: [...REPORT_PARTS],
    letter: '',
    signedBy: '',
    smallToo: false,
    leftOut: [],
    words: [],
  },
  agency: { name: 'Marram Studio', colour: '#3a3f8f', hasLogo: false },
};
