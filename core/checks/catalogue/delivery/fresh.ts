import { where, type Check } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

export const fresh: Check = {
  id: 'delivery.fresh',
  section: 'delivery',
  title: 'No cache hands out an old copy',
  severity: 'major',
  situations: where('L'),
  scope: 'page',
  needs: 'pages',
  why: 'The agency sees the new page and the visitors the old one, for hours.',
  source: 'RFC 9111 5.2.1.4',
  judge({ evidence }) {
    return overPlaces(
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
      { expected: 'the same text for both', unit: ['page', 'pages'] },
    );
  },
  recipe: () => ({
    steps:
      'Empty the caches: plug-in first, then host, then content network. Set pages to be looked up again after each publishing.',
    paste: [{ label: 'Header for pages', text: 'Cache-Control: no-cache' }],
  }),
};
