import tags from 'language-tags';
import { where, type Check } from '../check';
import { failed, overPages, passed } from '../judgement';

/** What language-tags reports and RFC 5646 does not forbid: deprecated tags and subtags, and a script that need not be said. */
const HARMLESS = new Set([1, 10, 11]);

/** Whether a tag is valid: well-formed, every subtag in the registry (RFC 5646 2.2.9; the registry comes with the language-tags package). */
export function validLanguageTag(tag: string): boolean {
  let valid = known.get(tag);
  if (valid === undefined) {
    valid = tag !== '' && tags(tag).errors().every(e => HARMLESS.has(e.code));
    if (known.size < 1000) known.set(tag, valid);
  }
  return valid;
}
/** Every page of a site says the same tag. */
const known = new Map<string, boolean>();

export const language: Check = {
  id: 'identity.language', section: 'identity', title: 'Pages say which language they are in', severity: 'major', situations: where('SHL'), scope: 'page', needs: 'pages',
  why: 'Screen readers choose their voice by it and browsers offer translation by it.',
  source: 'HTML; BCP 47 (RFC 5646); WCAG 2.2 SC 3.1.1',
  judge(context) {
    const languages = (context.brief.languages ?? []).map(l => l.toLowerCase().split('-')[0]!);
    const expected = languages.length ? `html lang, valid, ${languages.join(' or ')}` : 'html lang, valid';
    return overPages(context, expected, (page) => {
      const lang = page.facts.lang;
      if (!lang || !lang.value.trim()) return failed(page.url, { found: lang ? 'an empty lang' : 'no lang', raw: lang?.raw });
      const value = lang.value.trim();
      if (!validLanguageTag(value)) return failed(page.url, { found: `${value} is no valid language tag`, raw: lang.raw });
      if (languages.length && !languages.includes(value.toLowerCase().split('-')[0]!)) return failed(page.url, { found: value, raw: lang.raw, take: { field: 'languages', how: 'add', value } });
      return passed(page.url, { found: value, raw: lang.raw });
    });
  },
  recipe({ brief }) {
    return { steps: 'Set the language of the site in its general settings, or in the template’s html tag.', paste: [{ label: 'Opening tag', text: `<html lang="${brief.languages?.[0] ?? 'en'}">` }] };
  },
};
