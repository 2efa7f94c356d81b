import { IntlMessageFormat } from 'intl-messageformat';
import { describe, expect, it } from 'vitest';
import { formatMessage, defineMessages, type Wording } from './messages';

const msg = defineMessages('test.say', {
  bare: 'no record',
  one: '{count} records',
  between: 'a {first} and a {second}.',
  twice: '{x}{x}',
  plural: '{n, plural, one {{n} page} other {{n} pages}}',
  choice: 'noindex in the {inPage, select, yes {page} other {header}}',
});

describe('a sentence', () => {
  it.each([
    ['of words alone', msg('bare'), 'no record'],
    ['with a number', msg('one', { count: 2000 }), '2000 records'],
    ['with texts as they came', msg('between', { first: '{x}', second: "’'#<b>" }), "a {x} and a ’'#<b>."],
    ['with the same twice', msg('twice', { x: 'ab' }), 'abab'],
    ['with nothing where something is missing', msg('one', {}), ' records'],
    ['in the singular', msg('plural', { n: 1 }), '1 page'],
    ['in the plural', msg('plural', { n: 11 }), '11 pages'],
    ['with a choice', msg('choice', { inPage: 'no' }), 'noindex in the header'],
    [
      'with another in it',
      msg('between', { first: msg('bare'), second: msg('one', { count: 3 }) }),
      'a no record and a 3 records.',
    ],
    ['with a list', msg('one', { count: ['a', msg('bare')] }), 'a, no record records'],
  ])('%s', (_, said, text) => {
    expect(formatMessage(said)).toBe(text);
  });

  it('without plurals and choices is what the formatter makes of it', () => {
    const text = 'a {first} and a {second}.';
    const data = { first: 'b', second: '2' };
    expect(formatMessage(msg('between', data))).toBe(new IntlMessageFormat(text, 'en').format(data));
  });

  it('is said in another language where that has it, else in English', () => {
    const german: Wording = {
      language: 'de',
      sentenceOf: (code) => ({ 'test.say/plural': '{n, plural, one {{n} Seite} other {{n} Seiten}}' })[code],
    };
    expect(formatMessage(msg('plural', { n: 2 }), german)).toBe('2 Seiten');
    expect(formatMessage(msg('bare'), german)).toBe('no record');
  });
});
