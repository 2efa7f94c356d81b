import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed, wanted } from '#core/checks/kit/judgement';
import { escapeText } from '#core/checks/catalogue/identity/title-names-site';

export const descriptionNamesSite: Check = {
  id: 'metadata.description-names-site',
  section: 'metadata',
  title: 'The home page’s description says the name',
  severity: 'minor',
  situations: where('SL'),
  scope: 'site',
  needs: 'pages',
  why: 'Whoever searches for the name looks for it in the text below the title.',
  source: 'common practice',
  judge({ brief, view }) {
    const name = wanted(brief, 'name');
    if ('judgement' in name) return name.judgement;
    if (!view.home) return cantTell('the home page was not read');
    const meta = view.home.description;
    const expected = `“${name.value}” in the description`;
    if (!meta?.content.trim())
      return cantTell('rests on metadata.description-present: there is no description', { expected });
    return overSite(
      (foldLoosely(meta.content).includes(foldLoosely(name.value)) ? passed : failed)(view.home.url, {
        found: meta.content,
        raw: meta.raw,
      }),
      { expected },
    );
  },
  recipe: ({ brief, view }) => ({
    steps: 'Begin the description with the name.',
    paste: [
      {
        label: 'Tag',
        text: `<meta name="description" content="${escapeText(`${brief.name ?? ''}: ${view.home?.description?.content ?? ''}`)}">`,
      },
    ],
  }),
};
