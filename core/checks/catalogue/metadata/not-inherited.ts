import type { PlaceResult } from '#core/facts/finding';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { DefaultTexts, textOf } from '#core/checks/kit/default-texts';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('metadata.not-inherited', {
  title: 'title “{title}”, {words}',
  description: 'description “{description}”, {words}',
});

function judgePage(page: ReadPage, defaults: DefaultTexts): PlaceResult | null {
  const title = textOf(page, 'title') ?? '';
  const description = textOf(page, 'description') ?? '';
  if (!title && !description) return null;
  const tag = page.description ? `\n${page.description.raw}` : '';
  const raw = `${page.facts.titles[0]?.raw ?? ''}${title}${tag}`;
  const ofTitle = defaults.behind(page, 'title');
  if (ofTitle) return failed(page.url, { found: msg('title', { title, words: ofTitle.words }), raw });
  const ofDescription = defaults.behind(page, 'description');
  if (ofDescription)
    return failed(page.url, { found: msg('description', { description, words: ofDescription.words }), raw });
  return passed(page.url, { found: verbatim(title) });
}

export const notInherited = defineCheck({
  id: 'metadata.not-inherited',
  title: 'Title and description are the page’s own',
  fault: 'A title or description is a default',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A default that shows through says the same on every page and is easy to overlook, since something is there.',
  source: 'common practice',
  messages: {
    expected: 'neither the site’s nor the host’s default',
    none: 'no page has a title or a description',
  },
  judge(context) {
    const defaults = new DefaultTexts(context.view, context.brief, context.profile);
    return overPages(context, (page) => judgePage(page, defaults));
  },
  recipe: (context, finding) => ({
    steps:
      'Fill in title and description of these pages themselves; as long as the fields are empty, the site’s settings show through.',
    paste: intendedPaste(context, finding, ['title', 'description']),
  }),
});
