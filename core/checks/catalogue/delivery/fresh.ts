import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('delivery.fresh', {
  'other-status': '{status} from the cache, {status2} anew',
  'no-text-compare': 'no text to compare',
  'same-text': 'the same text{hasAge, select, yes {, {age} seconds old} other {}}',
  stale: 'another text than after revalidating{hasAge, select, yes {, {age} seconds old} other {}}',
});

export const fresh = defineCheck({
  id: 'delivery.fresh',
  title: 'Caches hand out the current page',
  fault: 'A cache hands out an old page',
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
        if (error) return unsure(url, verbatim(error.message));
        if (ordinary.status !== revalidated.status)
          return failed(url, {
            found: msg('other-status', { status: ordinary.status, status2: revalidated.status }),
          });
        if (ordinary.text === undefined || revalidated.text === undefined)
          return unsure(url, msg('no-text-compare'));
        const age = { hasAge: ordinary.age ? 'yes' : 'no', age: ordinary.age };
        return ordinary.text === revalidated.text
          ? passed(url, { found: msg('same-text', age) })
          : failed(url, { found: msg('stale', age) });
      }),
    );
  },
  recipe: () => ({
    steps:
      'Empty the caches: plug-in first, then host, then content network. Set pages to be looked up again after each publishing.',
    paste: [{ label: 'Header for pages', text: 'Cache-Control: no-cache' }],
  }),
});
