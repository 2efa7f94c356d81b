/** Judging what a browser saw: each page with its views. */
import { hostOf } from '#core/extract/address';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { RenderedView } from '#core/facts/rendered';
import type { ReadPage } from '#core/checks/view/read-page';
import { quantity } from '#core/text/quantity';
import type { CheckContext } from './check';
import { overPlaces, unsure } from './judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('kit.rendered', {
  'not-rendered': 'not rendered {screen, select, phone {on a phone} other {on a desktop}}: {failure}',
});

type Asked = Pick<CheckContext, 'view' | 'evidence' | 'words'>;

/**
 * Judges each page that a browser looked at, by all its views. A page that could not be shown on some screen is
 * undecided unless it fails on the other; pages that are no longer ones that can be judged are left out.
 * @param judge null leaves a page out
 */
export function overRendered(
  { view, evidence, words }: Asked,
  judge: (views: readonly RenderedView[], page: ReadPage) => PlaceResult | null,
): Judgement {
  const places: PlaceResult[] = [];
  const seen = evidence.rendered?.pages ?? [];
  for (const { url, views } of seen) {
    const page = view.byUrl.get(url);
    if (!page) continue;
    const whole = views.filter((v) => v.failure === undefined);
    const broken = views.find((v) => v.failure !== undefined);
    const result = whole.length ? judge(whole, page) : null;
    if (broken && result?.outcome !== 'failed')
      places.push(unsure(url, msg('not-rendered', { screen: broken.screen, failure: broken.failure })));
    else if (result) places.push(result);
  }
  const all = view.pages.length;
  const notes =
    places.length && places.length < all
      ? [`A browser looked at ${places.length} of ${quantity(all, 'page')}.`]
      : undefined;
  return overPlaces({ words }, places, { notes });
}

/** The view on the screen that texts are read on. */
export const mainView = (views: readonly RenderedView[]): RenderedView | undefined =>
  views.find((v) => v.screen === 'desktop');

/** Scripts from other hosts that did not come, on which the page’s own may rest: their hosts. */
export const missingScripts = ({ failed, url }: RenderedView): string[] => {
  const own = hostOf(url);
  return [
    ...new Set(
      failed.flatMap((f) => {
        const host = f.type === 'script' ? hostOf(f.url) : undefined;
        return host && host !== own ? [host] : [];
      }),
    ),
  ];
};
