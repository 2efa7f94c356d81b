import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

const TYPES = new Set(['summary', 'summary_large_image', 'app', 'player']);

export const card: Check = {
  id: 'sharing.card',
  section: 'sharing',
  title: 'A card type is declared',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Without one, some networks show a link as bare text although a picture is there.',
  source: 'common practice (the four types, from memory)',
  judge: (context) =>
    overPages(context, 'twitter:card, mostly summary_large_image', (page) => {
      const meta = page.facts.metas.find((m) => m.name === 'twitter:card' || m.property === 'twitter:card');
      if (!meta) return failed(page.url, { found: 'no card type' });
      return (TYPES.has(meta.content.trim().toLowerCase()) ? passed : failed)(page.url, {
        found: meta.content || 'an empty card type',
        raw: meta.raw,
      });
    }),
  recipe: () => ({
    steps:
      'Put this into the head of the template; title, text and picture are taken from the Open Graph tags.',
    paste: [{ label: 'Tag', text: '<meta name="twitter:card" content="summary_large_image">' }],
  }),
};
