import { describe, expect, it } from 'vitest';
import { extractPage } from './html';
import { refusalOf } from './refusal';

const html = (title: string, body: string) =>
  extractPage(`<!doctype html><title>${title}</title>${body}`, 'https://a.example/');
const challenge = html(
  'One moment, please',
  '<p>Checking your browser before you go on.<script src="/c.js"></script>',
);

describe('answers that refuse', () => {
  it.each([
    [401, 'credentials'],
    [407, 'credentials'],
    [403, 'forbidden'],
    [429, 'too-many'],
  ] as const)('%i is %s', (status, kind) => {
    expect(refusalOf({ status, headers: [], facts: html('x', '<p>y') })).toBe(kind);
  });
  it.each([200, 403, 429, 503])(
    'a page that wants proof of a person is a challenge with status %i',
    (status) => {
      expect(refusalOf({ status, headers: [], facts: challenge })).toBe('challenge');
    },
  );
  it('a header that says so, on any page', () => {
    expect(refusalOf({ status: 403, headers: [['X-Mitigated', 'challenge']], facts: html('x', '') })).toBe(
      'challenge',
    );
  });
  it('a WWW-Authenticate header is no challenge of that kind', () => {
    expect(
      refusalOf({
        status: 200,
        headers: [
          ['Proxy-Challenge-Info', 'x'],
          ['content-type', 'text/html'],
        ],
        facts: html('x', ''),
      }),
    ).toBeNull();
  });
});
describe('answers that do not', () => {
  it('an article about captchas', () => {
    expect(
      refusalOf({
        status: 200,
        headers: [],
        facts: html(
          'Why a captcha?',
          `<p>Are you human? ${'We wondered long about that. '.repeat(60)}<script src="a.js"></script>`,
        ),
      }),
    ).toBeNull();
  });
  describe('a short page of a site with a menu, whose form has a captcha', () => {
    const page = (links: number) =>
      refusalOf({
        status: 200,
        headers: [],
        facts: html(
          'Write to us',
          `${Array.from({ length: links }, (_, i) => `<a href="/${i}">${i}</a>`).join('')}<p>Are you human? Then answer.<form></form>`,
        ),
      });
    it.each([
      [5, 'challenge'],
      [6, null],
    ])('%s: %s', (links, wanted) => {
      expect(page(links)).toBe(wanted);
    });
  });
  describe('a short page whose own form asks one more question', () => {
    const form = (fields: string) =>
      refusalOf({
        status: 200,
        headers: [],
        facts: html(
          'Write to us',
          `<h1>Write to us</h1><form action="/send">${fields}<button>Send</button></form>`,
        ),
      });
    it.each([
      ['sum', '<label>Mail<input type=email></label><label>Captcha: three and four are<input></label>', null],
      ['robot', '<textarea></textarea><label><input type=checkbox> Are you a robot?</label>', null],
      ['nothing but the captcha', '<label>Captcha: three and four are<input></label>', 'challenge'],
    ])('%s', (_, fields, wanted) => {
      expect(form(fields)).toBe(wanted);
    });
  });
  it('a long page that a header of its captcha comes with', () => {
    const facts = html('Kites', `<p>${'Kites for every wind. '.repeat(80)}`);
    expect(refusalOf({ status: 200, headers: [['X-Captcha-Key', '1']], facts })).toBeNull();
  });
  it('a short page that has the word and nothing to get on with', () => {
    expect(
      refusalOf({ status: 200, headers: [], facts: html('Captcha', '<p>Our choir is called Captcha.') }),
    ).toBeNull();
  });
  it('a holding page with 503 is a page', () => {
    expect(
      refusalOf({
        status: 503,
        headers: [['Retry-After', '3600']],
        facts: html('Soon', '<p>Back on Monday.'),
      }),
    ).toBeNull();
  });
  it('no page at all', () => {
    expect(refusalOf({ status: 500, headers: [] })).toBeNull();
  });
});
