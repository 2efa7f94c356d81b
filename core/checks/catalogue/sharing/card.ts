import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('sharing.card', {
  'no-card-type': 'no card type',
  'empty-card-type': 'an empty card type',
});

const TYPES = new Set(['summary', 'summary_large_image', 'app', 'player']);

export const card = defineCheck({
  id: 'sharing.card',
  title: 'Card type for shared links is declared',
  fault: 'Card type for shared links is missing',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Without one, some networks show a link as bare text although a picture is there.',
  source: 'common practice (the four types, from memory)',
  messages: { expected: 'twitter:card, mostly summary_large_image' },
  judge: (context) =>
    overPages(context, (page) => {
      const meta = page.facts.metas.find((m) => m.name === 'twitter:card' || m.property === 'twitter:card');
      if (!meta) return failed(page.url, { found: msg('no-card-type') });
      return (TYPES.has(meta.content.trim().toLowerCase()) ? passed : failed)(page.url, {
        found: verbatim(meta.content || undefined) ?? msg('empty-card-type'),
        raw: meta.raw,
      });
    }),
  recipe: () => ({
    steps:
      'Put this into the head of the template; title, text and picture are taken from the Open Graph tags.',
    paste: [{ label: 'Tag', text: '<meta name="twitter:card" content="summary_large_image">' }],
  }),
});
