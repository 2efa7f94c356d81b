import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { textOf, type TextField } from '#core/checks/kit/default-texts';
import { failed, inapplicable, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { pagePath, type IntendedText } from '#core/facts/intended-text';
import type { PlaceResult } from '#core/facts/finding';
import type { ReadPage } from '#core/checks/view/read-page';
import { escapeText } from '#core/recipes/markup';
import { foldSpace } from '#core/text/fold';

const FIELDS: readonly TextField[] = ['title', 'description'];

/** The tag that holds a text. */
const tagOf = (field: TextField, text: string): string =>
  field === 'title'
    ? `<title>${escapeText(text)}</title>`
    : `<meta name="description" content="${escapeText(text)}">`;

/** What is intended for a page of the site that is looked at. */
const intendedFor = ({ intended = [], evidence }: Pick<CheckContext, 'intended' | 'evidence'>) => {
  const byPath = new Map(intended.map((i) => [i.path, i]));
  return (page: { url: string }): IntendedText | undefined =>
    byPath.get(pagePath(page.url, evidence.target.url) ?? '');
};

function judgePage(page: ReadPage, wanted: IntendedText): PlaceResult {
  const expected: string[] = [];
  const found: string[] = [];
  for (const field of FIELDS) {
    const text = wanted[field];
    if (text === undefined) continue;
    const live = textOf(page, field) ?? '';
    if (live === foldSpace(text)) continue;
    expected.push(`${field} “${text}”`);
    found.push(live ? `${field} “${live}”` : `no ${field}`);
  }
  if (!found.length) return passed(page.url, { found: 'as intended' });
  // letters that were read wrongly are the encoding’s fault
  if (page.evidence.charset !== 'utf-8')
    return unsure(page.url, 'rests on metadata.charset: the page is not read as UTF-8');
  const since = wanted.seenAt ? `changed since ${wanted.seenAt.slice(0, 10)}` : 'not yet';
  return failed(page.url, {
    expected: expected.join(', '),
    found: `${since}: ${found.join(', ')}`,
    raw: [page.facts.titles[0] && page.facts.titles[0].raw + page.facts.titles[0].text, page.description?.raw]
      .filter(Boolean)
      .join('\n'),
  });
}

export const asIntended = defineCheck({
  id: 'metadata.as-intended',
  title: 'Title and description are the intended ones',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A text that was written and never typed in, or typed over since, is work that nobody sees.',
  source: 'common practice',
  messages: {
    expected: 'the title and description that the agency wrote for the page',
    none: 'no page that was read has an intended text',
  },
  judge(context) {
    if (!context.intended?.length) return inapplicable('no texts are written for this site');
    const wantedFor = intendedFor(context);
    return overPages(context, (page) => {
      const wanted = wantedFor(page);
      return wanted ? judgePage(page, wanted) : null;
    });
  },
  recipe(context, finding) {
    const wantedFor = intendedFor(context);
    const failing = finding.places.filter((p) => p.outcome === 'failed' && !p.accepted);
    return {
      steps: 'Type the intended texts into the settings of these pages, and publish.',
      paste: failing.slice(0, 10).flatMap(({ place }) =>
        FIELDS.flatMap((field) => {
          const text = wantedFor({ url: place })?.[field];
          return text === undefined ? [] : [{ label: `${place}, ${field}`, text: tagOf(field, text) }];
        }),
      ),
    };
  },
});
