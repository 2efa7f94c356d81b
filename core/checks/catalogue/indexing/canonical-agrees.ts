import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import type { ReadPage } from '#core/checks/view/read-page';
import { noIndexCharge } from './wanted-pages';
import { canonicalRecipe } from './canonical-recipe';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed, unsure } from '#core/checks/kit/judgement';

/** A canonical that names another page: what is wrong with it; undefined when nothing is. */
function faultOf(target: string, other: PageEvidence, goal: ReadPage | undefined): string | undefined {
  const status = finalStatus(other.chain);
  if (status !== 200) return `${target} answers ${status ?? other.chain.error?.message ?? 'nothing'}`;
  if (other.url !== target) return `${target} leads on to ${other.url}`;
  if (goal?.keptOut) return `${target} is noindex`;
  const onward = goal?.canonical;
  return onward && onward !== target ? `${target} names ${onward} in turn` : undefined;
}

export const canonicalAgrees = defineCheck({
  id: 'indexing.canonical-agrees',
  title: 'Canonical targets answer 200 and name themselves',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A canonical to a dead or forbidden page takes both out of the listings.',
  source: 'RFC 6596 3; common practice',
  messages: {
    expected: 'a canonical that answers 200, may be indexed and names itself',
    none: 'no page has a canonical',
  },
  judge(context) {
    const { view, evidence, brief } = context;
    return overPages(context, (page) => {
      const link = page.canonicals[0];
      const target = page.canonical;
      if (!link || !target) return null;
      const { raw } = link;
      if (target === page.url) return page.keptOut ? null : passed(page.url, { found: 'itself', raw });
      const other = view.asked.get(target);
      if (!other) {
        const isUnread = view.within(target) && !evidence.unread.includes(target);
        return isUnread ? unsure(page.url, `${target} was not read`) : null;
      }
      const goal = view.byUrl.get(target);
      const charge = goal?.keptOut && noIndexCharge(goal, brief, view.inSitemap);
      if (charge) return unsure(page.url, `rests on ${charge}: ${target} is noindex`, { raw });
      const fault = faultOf(target, other, goal);
      if (fault) return failed(page.url, { found: fault, raw });
      return goal
        ? passed(page.url, { found: target, raw })
        : unsure(page.url, `${target} is no page that could be read`);
    });
  },
  recipe: ({ view }, finding) => ({
    steps: 'Let each page name the address under which it is to be listed, and that one name itself.',
    paste: canonicalRecipe(view, finding),
  }),
});
