import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed, wanted } from '#core/checks/kit/judgement';

export const keyPhrases: Check = {
  id: 'metadata.key-phrases',
  section: 'metadata',
  title: 'The home page says what the client wants to be found for',
  severity: 'minor',
  situations: where('SL'),
  scope: 'site',
  needs: 'pages',
  why: 'A home page whose title says only the name is found only by those who know it.',
  source: 'common practice',
  judge({ brief, view }) {
    const phrases = wanted(brief, 'keyPhrases');
    if ('judgement' in phrases) return phrases.judgement;
    if (!view.home) return cantTell('the home page was not read');
    const expected = `at least one of ${phrases.value.map((p) => `“${p}”`).join(', ')} in title and description`;
    const carries = (text: string | undefined) =>
      phrases.value.some((p) => foldLoosely(text ?? '').includes(foldLoosely(p)));
    const title = view.home.facts.titles[0]?.text,
      description = view.home.description?.content;
    const lacking = [...(carries(title) ? [] : ['title']), ...(carries(description) ? [] : ['description'])];
    return overSite(
      (lacking.length ? failed : passed)(view.home.url, {
        found: lacking.length ? `none in the ${lacking.join(' and the ')}` : 'in both',
        raw: `${title ?? ''}\n${description ?? ''}`,
      }),
      { expected },
    );
  },
  recipe: ({ brief }) => ({
    steps:
      'Work one of the phrases into the title and into the description, in a sentence that people would say.',
    paste: [{ label: 'Phrases', text: (brief.keyPhrases ?? []).join('\n') }],
  }),
};
