import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overSite, passed, wanted } from '#core/checks/kit/judgement';

export const titleNamesSite: Check = {
  id: 'identity.title-names-site',
  section: 'identity',
  title: 'Home title names the site',
  severity: 'major',
  situations: where('SL'),
  scope: 'site',
  needs: 'pages',
  why: 'The title is what search listings, tabs and bookmarks show; without the name nobody knows whose page it is.',
  source: 'common practice',
  judge({ brief, view }) {
    const name = wanted(brief, 'name');
    if ('judgement' in name) return name.judgement;
    const home = view.home;
    const title = home?.facts.titles[0];
    const expected = `a title that contains “${name.value}”`;
    const place = home?.url ?? view.evidence.target.url;
    if (!title) return overSite(failed(place, { found: 'no title' }), { expected });
    const good = foldLoosely(title.text).includes(foldLoosely(name.value));
    return overSite((good ? passed : failed)(place, { found: title.text, raw: title.raw + title.text }), {
      expected,
    });
  },
  recipe({ brief, view }) {
    const old = view.home?.facts.titles[0]?.text;
    const rest = brief.tagline ?? old ?? '';
    return {
      steps: 'Put the site’s name into the title of the home page, then publish.',
      paste: [
        {
          label: 'Title tag',
          text: `<title>${escapeText(brief.name ?? '')}${rest ? ` – ${escapeText(rest)}` : ''}</title>`,
        },
      ],
    };
  },
};

/** Escapes text for use inside an element or attribute that is offered for pasting. */
export function escapeText(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}
