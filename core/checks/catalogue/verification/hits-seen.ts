import { isPageView } from '#core/extract/measuring';
import type { Judgement } from '#core/facts/finding';
import type { RenderedView } from '#core/facts/rendered';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { mainView, missingScripts } from '#core/checks/kit/rendered';
import { inNumber, quantity } from '#core/text/quantity';

interface Seen {
  url: string;
  view: RenderedView;
}

/** How often a page was counted for an ID. */
const countsOf = ({ view }: Seen, id: string): number =>
  view.hits.filter((h) => h.id === id && isPageView(h)).length;

/** Why no hit was seen, where that is known. */
function silence(context: Pick<CheckContext, 'brief'>, pages: readonly Seen[], id: string): Judgement {
  if (/^GTM-/.test(id)) return cantTell(`${id} names a tag manager, which counts nobody by its own ID`);
  if (context.brief.consentScript && !context.brief.consentClick)
    return cantTell('the brief does not say what visitors click to consent', { awaits: 'consentClick' });
  if (pages.every(({ view }) => view.consent === 'not found'))
    return cantTell(
      `nothing on the page is “${context.brief.consentClick}”, which the brief has for consent`,
    );
  const missing = pages.flatMap(({ view }) => missingScripts(view))[0];
  if (missing !== undefined) return cantTell(`a script of ${missing} did not come for the audit`);
  return cantTell(
    `no visit was seen counted for ${id}; some counters leave out browsers that a program drives: look at their live view, and attest`,
  );
}

export const hitsSeen = defineCheck({
  id: 'verification.hits-seen',
  title: 'A visit is counted, and once',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  needs: { brief: ['analyticsIds'], pages: true, rendered: true },
  attestedForDays: 180,
  why: 'A script that is there may still count nothing, or everybody twice.',
  source: 'common practice',
  messages: { expected: 'one counted visit a page for each analytics ID (stopped before it left)' },
  judge(context) {
    const { evidence, brief, view: site } = context;
    const pages: Seen[] = (evidence.rendered?.pages ?? []).flatMap(({ url, views }) => {
      const view = mainView(views);
      return view && view.failure === undefined && site.byUrl.has(url) ? [{ url, view }] : [];
    });
    if (!pages.length) return cantTell('no page could be shown on a desktop');
    const sent = (id: string): string =>
      pages.flatMap(({ view }) => view.hits.filter((h) => h.id === id).map((h) => h.url)).join('\n');
    for (const id of brief.analyticsIds) {
      const twice = pages.filter((p) => countsOf(p, id) > 1);
      if (twice[0])
        return overSite(
          context,
          failed(twice[0].url, {
            found: `${id} counts ${quantity(countsOf(twice[0], id), 'visit')} on ${quantity(twice.length, 'page')}`,
            raw: sent(id),
          }),
        );
    }
    for (const id of brief.analyticsIds) {
      const silent = pages.filter((p) => countsOf(p, id) === 0);
      if (silent.length) return silence(context, silent, id);
    }
    const ids = brief.analyticsIds;
    return overSite(
      context,
      passed(pages[0]!.url, {
        found: `${ids.join(', ')} ${inNumber(ids.length, 'counts', 'count')} one visit a page`,
        raw: ids.map(sent).join('\n'),
      }),
    );
  },
  recipe: () => ({
    steps:
      'Keep one of the two: mostly the tag is in the template and in the host’s own setting, or a tag manager loads it as well. Then look at the live view of the analytics.',
  }),
});
