import { isPageView } from '#core/extract/measuring';
import type { Judgement } from '#core/facts/finding';
import type { RenderedView } from '#core/facts/rendered';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { mainView, missingScripts } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.hits-seen', {
  'tag-manager': '{id} names a tag manager, which counts nobody by its own ID',
  'consent-click-unknown': 'the brief does not say what visitors click to consent',
  'nothing-to-click': 'nothing on the page is “{consentClick}”, which the brief has for consent',
  'script-missing': 'a script of {missing} did not come for the audit',
  'no-visit-seen':
    'no visit was seen counted for {id}; some counters leave out browsers that a program drives: look at their live view, and attest',
  'no-page-could-shown-on': 'no page could be shown on a desktop',
  'counted-twice':
    '{id} counts {countsOf, plural, one {{countsOf} visit} other {{countsOf} visits}} on {twiceCount, plural, one {{twiceCount} page} other {{twiceCount} pages}}',
  'counted-once': '{ids} {idsCount, plural, one {counts} other {count}} one visit a page',
});

interface Seen {
  url: string;
  view: RenderedView;
}

/** How often a page was counted for an ID. */
const countsOf = ({ view }: Seen, id: string): number =>
  view.hits.filter((h) => h.id === id && isPageView(h)).length;

/** Why no hit was seen, where that is known. */
function silence(context: Pick<CheckContext, 'brief'>, pages: readonly Seen[], id: string): Judgement {
  if (/^GTM-/.test(id)) return cantTell(msg('tag-manager', { id }));
  if (context.brief.consentScript && !context.brief.consentClick)
    return cantTell(msg('consent-click-unknown'), { awaits: 'consentClick' });
  if (pages.every(({ view }) => view.consent === 'not found'))
    return cantTell(msg('nothing-to-click', { consentClick: context.brief.consentClick }));
  const missing = pages.flatMap(({ view }) => missingScripts(view))[0];
  if (missing !== undefined) return cantTell(msg('script-missing', { missing }));
  return cantTell(msg('no-visit-seen', { id }));
}

export const hitsSeen = defineCheck({
  id: 'verification.hits-seen',
  title: 'A visit is counted, and once',
  fault: 'A visit is counted twice',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  facts: ['rendered.failed', 'rendered.hits'],
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
    if (!pages.length) return cantTell(msg('no-page-could-shown-on'));
    const sent = (id: string): string =>
      pages.flatMap(({ view }) => view.hits.filter((h) => h.id === id).map((h) => h.url)).join('\n');
    for (const id of brief.analyticsIds) {
      const twice = pages.filter((p) => countsOf(p, id) > 1);
      if (twice[0])
        return overSite(
          context,
          failed(twice[0].url, {
            found: msg('counted-twice', { id, countsOf: countsOf(twice[0], id), twiceCount: twice.length }),
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
        found: msg('counted-once', { ids: ids.join(', '), idsCount: ids.length }),
        raw: ids.map(sent).join('\n'),
      }),
    );
  },
  recipe: () => ({
    steps:
      'Keep one of the two: mostly the tag is in the template and in the host’s own setting, or a tag manager loads it as well. Then look at the live view of the analytics.',
  }),
});
