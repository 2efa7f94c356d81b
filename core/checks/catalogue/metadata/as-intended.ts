import { defineCheck } from '#core/checks/kit/check';
import { intendedFor, intendedPaste } from '#core/checks/kit/intended-paste';
import { textOf } from '#core/checks/kit/default-texts';
import { failed, inapplicable, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { differing, intendedState, type IntendedText } from '#core/facts/intended-text';
import type { PlaceResult } from '#core/facts/finding';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('metadata.as-intended', {
  'as-intended': 'as intended',
  'not-utf-8': 'the page is not read as UTF-8',
  field: '{field, select, title {title} other {description}} “{text}”',
  'no-field': 'no {field, select, title {title} other {description}}',
  differs: '{state, select, other {{state}}}{hasDay, select, yes { {day}} other {}}: {found}',
  'no-texts-written': 'no texts are written for this site',
});

function judgePage(page: ReadPage, wanted: IntendedText): PlaceResult {
  const live = { title: textOf(page, 'title') ?? '', description: textOf(page, 'description') ?? '' };
  const state = intendedState(wanted, live);
  if (state === 'live') return passed(page.url, { found: msg('as-intended') });
  // letters that were read wrongly are the encoding’s fault
  if (page.evidence.charset !== 'utf-8')
    return unsure(page.url, restsOnCheck('metadata.charset', msg('not-utf-8')));
  const fields = differing(wanted, live);
  const found = fields.map((field) =>
    live[field] ? msg('field', { field, text: live[field] }) : msg('no-field', { field }),
  );
  const day = state === 'not yet' ? undefined : wanted.seenAt!.slice(0, 10);
  const [title] = page.facts.titles;
  return failed(page.url, {
    expected: fields.map((field) => `${field} “${wanted[field]}”`).join(', '),
    found: msg('differs', { state, hasDay: day ? 'yes' : 'no', day, found }),
    raw: [title && title.raw + title.text, page.description?.raw].filter(Boolean).join('\n'),
  });
}

export const asIntended = defineCheck({
  id: 'metadata.as-intended',
  title: 'Title and description are the intended ones',
  fault: 'A title or description is not the intended one',
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
    if (!context.intended?.length) return inapplicable(msg('no-texts-written'));
    const wantedFor = intendedFor(context);
    return overPages(context, (page) => {
      const wanted = wantedFor(page.url);
      return wanted ? judgePage(page, wanted) : null;
    });
  },
  recipe: (context, finding) => ({
    steps: 'Type the intended texts into the settings of these pages, and publish.',
    paste: intendedPaste(context, finding, ['title', 'description']),
  }),
});
