/** The canonical that each of the pages at fault is to have. */
import type { Finding } from '#core/facts/finding';
import { failedPlaces } from '#core/checks/kit/judgement';
import type { SiteView } from '#core/checks/view/site-view';
import { escapeText } from '#core/recipes/markup';

/** A page that shows what a made-up address shows is none, and is mended by its status (indexing.not-found-status). */
const isNotThere = (view: SiteView, url: string): boolean => {
  const page = view.byUrl.get(url);
  return page !== undefined && view.isStandIn(page);
};

export const canonicalRecipe = (view: SiteView, finding: Finding): { label: string; text: string }[] =>
  failedPlaces(finding)
    .filter((p) => !isNotThere(view, p.place))
    .slice(0, 10)
    .map((p) => ({ label: p.place, text: `<link rel="canonical" href="${escapeText(p.place)}">` }));
