import { finalStatus, lastAnswer, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.links-direct', {
  moved: 'moved to {to}, linked from {url}',
});

/**
 * The last address of a chain whose first step says that the address has moved for good (RFC 9110 15.4.2,
 * 15.4.9); undefined for others.
 */
function movedTo(chain: Chain): string | undefined {
  const first = chain.hops[0]?.status;
  return first === 301 || first === 308 ? lastAnswer(chain)?.url : undefined;
}

export const linksDirect = defineCheck({
  id: 'indexing.links-direct',
  title: 'Internal links lead there without a redirect',
  fault: 'An internal link leads through a redirect',
  severity: 'minor',
  situations: ['live'],
  scope: 'link',
  facts: ['otherLinks'],
  needs: { pages: true },
  why: 'A link to an address that has moved costs every visitor a round trip, and breaks on the day the redirect is tidied away.',
  source: 'RFC 9110 15.4.2, 15.4.9; common practice',
  messages: {
    expected: 'an address that has not moved',
    none: 'the pages have no links inside the site that answer',
  },
  judge(context) {
    const { view } = context;
    const places = view.followed.flatMap(({ url, chain, page, anchor }): PlaceResult[] => {
      const status = finalStatus(chain);
      // what is dead or refused is another check's business, and so is http inside the site
      if (status === undefined || status >= 400 || url.startsWith('http:')) return [];
      const to = movedTo(chain);
      return [
        to === undefined
          ? passed(url)
          : failed(url, { expected: to, found: msg('moved', { to, url: page.url }), raw: anchor.raw }),
      ];
    });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps:
      'Change these links to the address they end at; mostly they stand in the menu, the footer or an old text.',
    paste: [
      {
        label: 'From and to',
        text: failedPlaces(finding, 50)
          .map((p) => `${p.place} -> ${p.expected}`)
          .join('\n'),
      },
    ],
  }),
});
