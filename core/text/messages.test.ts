import { IntlMessageFormat } from 'intl-messageformat';
import { describe, expect, it } from 'vitest';
import { say, sentences, type Wording } from './sentences';

const says = sentences('test.say', {
  bare: 'no record',
  one: '{count} records',
  between: 'a {first} and a {second}.',
  twice: '{x}{x}',
  plural: '{n, plural, one {{n} page} other {{n} pages}}',
  choice: 'noindex in the {inPage, select, yes {page} other {header}}',
});

describe('a sentence', () => {
  it.each([
    ['of words alone', says('bare'), 'no record'],
    ['with a number', says('one', { count: 2000 }), '2000 records'],
    ['with texts as they came', says('between', { first: '{x}', second: "’'#<b>" }), "a {x} and a ’'#<b>."],
    ['with the same twice', says('twice', { x: 'ab' }), 'abab'],
    ['with nothing where something is missing', says('one', {}), ' records'],
    ['in the singular', says('plural', { n: 1 }), '1 page'],
    ['in the plural', says('plural', { n: 11 }), '11 pages'],
    ['with a choice', says('choice', { inPage: 'no' }), 'noindex in the header'],
    [
      'with another in it',
      says('between', { first: says('bare'), second: says('one', { count: 3 }) }),
      'a no record and a 3 records.',
    ],
    ['with a list', says('one', { count: ['a', says('bare')] }), 'a, no record records'],
  ])('%s', (_, said, text) => {
    expect(say(said)).toBe(text);
  });

  it('without plurals and choices is what the formatter makes of it', () => {
    const text = 'a {first} and a {second}.';
    const data = { first: 'b', second: '2' };
    expect(say(says('between', data))).toBe(new IntlMessageFormat(text, 'en').format(data));
  });

  it('is said in another language where that has it, else in English', () => {
    const german: Wording = {
      language: 'de',
      sentenceOf: (code) => ({ 'test.say/plural': '{n, plural, one {{n} Seite} other {{n} Seiten}}' })[code],
    };
    expect(say(says('plural', { n: 2 }), german)).toBe('2 Seiten');
    expect(say(says('bare'), german)).toBe('no record');
  });
});
