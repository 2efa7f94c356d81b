import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import type { ReadPage } from '#core/checks/view/read-page';
import { noIndexCharge } from './wanted-pages';
import { canonicalRecipe } from './canonical-recipe';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.canonical-agrees', {
  itself: 'itself',
  'target-not-read': '{target} was not read',
  'target-answers': '{target} answers {status}',
  'target-leads-on': '{target} leads on to {url}',
  'target-names-another': '{target} names {onward} in turn',
  'target-noindex': '{target} is noindex',
  'target-no-page': '{target} is no page that could be read',
});

/** A canonical that names another page: what is wrong with it; undefined when nothing is. */
function faultOf(target: string, other: PageEvidence, goal: ReadPage | undefined): Message | undefined {
  const status = finalStatus(other.chain);
  if (status !== 200)
    return msg('target-answers', {
      target,
      status: status ?? other.chain.error?.message ?? commonMessage('nothing'),
    });
  if (other.url !== target) return msg('target-leads-on', { target, url: other.url });
  if (goal?.keptOut) return msg('target-noindex', { target });
  const onward = goal?.canonical;
  return onward && onward !== target ? msg('target-names-another', { target, onward }) : undefined;
}

export const canonicalAgrees = defineCheck({
  id: 'indexing.canonical-agrees',
  title: 'Canonical targets answer 200 and name themselves',
  fault: 'Canonical target does not answer 200 or names another',
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
      if (target === page.url) return page.keptOut ? null : passed(page.url, { found: msg('itself'), raw });
      const other = view.asked.get(target);
      if (!other) {
        const isUnread = view.within(target) && !evidence.unread.includes(target);
        return isUnread ? unsure(page.url, msg('target-not-read', { target })) : null;
      }
      const goal = view.byUrl.get(target);
      const charge = goal?.keptOut && noIndexCharge(goal, brief, view.inSitemap);
      if (charge) return unsure(page.url, restsOnCheck(charge, msg('target-noindex', { target })), { raw });
      const fault = faultOf(target, other, goal);
      if (fault) return failed(page.url, { found: fault, raw });
      return goal
        ? passed(page.url, { found: verbatim(target), raw })
        : unsure(page.url, msg('target-no-page', { target }));
    });
  },
  recipe: ({ view }, finding) => ({
    steps: 'Let each page name the address under which it is to be listed, and that one name itself.',
    paste: canonicalRecipe(view, finding),
  }),
});
