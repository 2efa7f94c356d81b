import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed, unsure } from '#core/checks/kit/judgement';

export const canonicalAgrees = defineCheck({
  id: 'indexing.canonical-agrees',
  title: 'Canonicals lead to pages that stand by them',
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
    const { view, evidence } = context;
    return overPages(context, (page) => {
      const link = page.canonicals[0],
        target = page.canonical;
      if (!link || !target) return null;
      if (target === page.url)
        return page.keptOut ? null : passed(page.url, { found: 'itself', raw: link.raw });
      const other = view.asked.get(target);
      if (!other)
        return view.within(target) && !evidence.unread.includes(target)
          ? unsure(page.url, `${target} was not read`)
          : null;
      const status = finalStatus(other.chain);
      if (status !== 200)
        return failed(page.url, {
          found: `${target} answers ${status ?? other.chain.error?.message ?? 'nothing'}`,
          raw: link.raw,
        });
      if (other.url !== target)
        return failed(page.url, { found: `${target} leads on to ${other.url}`, raw: link.raw });
      const goal = view.byUrl.get(target);
      if (!goal) return unsure(page.url, `${target} is no page that could be read`);
      if (goal.keptOut) return failed(page.url, { found: `${target} is noindex`, raw: link.raw });
      const onward = goal.canonical;
      return onward && onward !== target
        ? failed(page.url, { found: `${target} names ${onward} in turn`, raw: link.raw })
        : passed(page.url, { found: target, raw: link.raw });
    });
  },
  recipe: (_, finding) => ({
    steps: 'Let each page name the address under which it is to be listed, and that one name itself.',
    paste: failedPlaces(finding, 10).map((p) => ({
      label: p.place,
      text: `<link rel="canonical" href="${p.place}">`,
    })),
  }),
});
