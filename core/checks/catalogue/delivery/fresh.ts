import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

export const fresh = defineCheck({
  id: 'delivery.fresh',
  title: 'Caches hand out the current page',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['freshness'],
  needs: { pages: true },
  why: 'The agency sees the new page and the visitors the old one, for hours.',
  source: 'RFC 9111 5.2.1.4',
  messages: { expected: 'the same text for both' },
  judge(context) {
    const { evidence } = context;
    return overPlaces(
      context,
      evidence.freshness.map(({ url, ordinary, revalidated }) => {
        const error = ordinary.error ?? revalidated.error;
        if (error) return unsure(url, error.message);
        if (ordinary.status !== revalidated.status)
          return failed(url, { found: `${ordinary.status} from the cache, ${revalidated.status} anew` });
        if (ordinary.text === undefined || revalidated.text === undefined)
          return unsure(url, 'no text to compare');
        const age = ordinary.age ? `, ${ordinary.age} seconds old` : '';
        return ordinary.text === revalidated.text
          ? passed(url, { found: `the same text${age}` })
          : failed(url, { found: `another text than after revalidating${age}` });
      }),
    );
  },
  recipe: () => ({
    steps:
      'Empty the caches: plug-in first, then host, then content network. Set pages to be looked up again after each publishing.',
    paste: [{ label: 'Header for pages', text: 'Cache-Control: no-cache' }],
  }),
});
