import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('metadata.key-phrases', {
  'none-in':
    'none in the {lacking, select, title {title} description {description} other {title and the description}}',
  'in-both': 'in both',
});

/** Whether a text carries one of the phrases. */
export const carriesPhrase = (text: string, phrases: readonly string[]): boolean =>
  phrases.some((p) => foldLoosely(text).includes(foldLoosely(p)));

export const keyPhrases = defineCheck({
  id: 'metadata.key-phrases',
  title: 'Home title and description carry a key phrase',
  fault: 'Home title or description carries no key phrase',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { brief: ['keyPhrases'], pages: true },
  why: 'A home page whose title says only the name is found only by those who know it.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      `at least one of ${brief.keyPhrases.map((p) => `“${p}”`).join(', ')} in title and description`,
  },
  judge(context) {
    const { brief, view } = context;
    if (!view.home) return cantTell(commonMessage('home-not-read'));
    const carries = (text: string | undefined) => carriesPhrase(text ?? '', brief.keyPhrases);
    const title = view.home.facts.titles[0]?.text,
      description = view.home.description?.content;
    const lacking = [...(carries(title) ? [] : ['title']), ...(carries(description) ? [] : ['description'])];
    return overSite(
      context,
      (lacking.length ? failed : passed)(view.home.url, {
        found: lacking.length ? msg('none-in', { lacking: lacking.join('-and-') }) : msg('in-both'),
        raw: `${title ?? ''}\n${description ?? ''}`,
      }),
    );
  },
  recipe: ({ brief }) => ({
    steps:
      'Work one of the phrases into the title and into the description, in a sentence that people would say.',
    paste: [{ label: 'Phrases', text: (brief.keyPhrases ?? []).join('\n') }],
  }),
});
