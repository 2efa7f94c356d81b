import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { validLanguageTag } from '#core/checks/kit/language-tag';
import { defineMessages } from '#core/text/messages';
import { normaliseUrl } from '#core/extract/address';
import { otherLanguageOf } from '#core/text/language-of';
import type { ReadPage } from '#core/checks/view/read-page';
import { verbatim, type Message } from '#core/facts/message';

const msg = defineMessages('identity.language', {
  'empty-lang': 'an empty lang',
  'no-lang': 'no lang',
  'invalid-tag': '{value} is no valid language tag',
  'other-hreflang': '{value}, while the page’s own hreflang says {other}',
  'other-address': '{value}, while the page’s address says {other}',
  'other-text': '{value}, while the page’s text is in {other}',
});

const baseOf = (tag: string): string => tag.toLowerCase().split('-')[0]!;

/**
 * What else says of a page which language it is in, and says another one: its own line among its alternates, or the
 * first part of its address, where that is one of the languages that the page is there in, or its text.
 */
function contradiction(page: ReadPage, value: string): Message | undefined {
  const named = page.alternates.filter((l) => l.hreflang && l.hreflang.toLowerCase() !== 'x-default');
  const own = named.find((l) => normaliseUrl(l.href) === page.url)?.hreflang;
  if (own !== undefined && baseOf(own) !== baseOf(value)) return msg('other-hreflang', { value, other: own });
  const first = new URL(page.url).pathname.split('/')[1]?.toLowerCase() ?? '';
  const isLanguage = named.some((l) => baseOf(l.hreflang!) === baseOf(first));
  if (isLanguage && baseOf(first) !== baseOf(value)) return msg('other-address', { value, other: first });
  const other = otherLanguageOf(page.facts.text, baseOf(value));
  return other === undefined ? undefined : msg('other-text', { value, other });
}

export const language = defineCheck({
  id: 'identity.language',
  title: 'html lang is valid and the page’s own language',
  fault: 'html lang is missing, invalid or another language’s',
  severity: 'major',
  situations: ['staging', 'holding', 'live'],
  scope: 'page',
  facts: ['lang'],
  needs: { pages: true },
  why: 'Screen readers choose their voice by it and browsers offer translation by it.',
  source: 'HTML; BCP 47 (RFC 5646); WCAG 2.2 SC 3.1.1',
  judge(context) {
    const languages = (context.brief.languages ?? []).map((l) => l.toLowerCase().split('-')[0]!);
    const expected = languages.length ? `html lang, valid, ${languages.join(' or ')}` : 'html lang, valid';
    return overPages(
      context,
      (page) => {
        const lang = page.facts.lang;
        if (!lang || !lang.value.trim())
          return failed(page.url, { found: lang ? msg('empty-lang') : msg('no-lang'), raw: lang?.raw });
        const value = lang.value.trim();
        if (!validLanguageTag(value))
          return failed(page.url, { found: msg('invalid-tag', { value }), raw: lang.raw });
        if (languages.length && !languages.includes(value.toLowerCase().split('-')[0]!))
          return failed(page.url, {
            found: verbatim(value),
            raw: lang.raw,
            adopt: { field: 'languages', how: 'add', value },
          });
        const against = contradiction(page, value);
        if (against) return failed(page.url, { found: against, raw: lang.raw });
        return passed(page.url, { found: verbatim(value), raw: lang.raw });
      },
      { expected: expected },
    );
  },
  recipe({ brief }) {
    return {
      steps: 'Set the language of the site in its general settings, or in the template’s html tag.',
      paste: [{ label: 'Opening tag', text: `<html lang="${brief.languages?.[0] ?? 'en'}">` }],
    };
  },
});
