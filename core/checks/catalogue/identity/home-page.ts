import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed, unsure } from '#core/checks/kit/judgement';

export const homePage = defineCheck({
  id: 'identity.home-page',
  title: 'The home page is the right one',
  severity: 'blocker',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'A new site often starts on a post list, a sample page or a sign-in form instead of the page that was made for it.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      brief.homeMark ? `200 and “${brief.homeMark}” on the page` : '200 and the site’s own home page',
  },
  judge(context) {
    const { brief, view } = context;
    const { expected } = context.words;
    const status = view.homeEvidence ? finalStatus(view.homeEvidence.chain) : undefined;
    const place = view.homeEvidence?.url ?? view.evidence.target.url;
    if (status === undefined)
      return cantTell(view.homeEvidence?.chain.error?.message ?? 'the home page was not read', { expected });
    const home = view.home;
    if (!view.within(place)) return overSite(context, failed(place, { found: `leads away to ${place}` }));
    if (!home)
      return overSite(
        context,
        failed(place, { found: status === 200 ? 'no HTML page' : `status ${status}` }),
      );
    if (status !== 200) return overSite(context, failed(place, { found: `status ${status}` }));
    const title = home.facts.titles[0]?.text ?? 'no title';
    for (const [kind, words] of [
      ['samplePage', 'a sample page'],
      ['signIn', 'a sign-in page'],
      ['postList', 'a list of posts'],
    ] as const) {
      const mark = view.markOn(home, kind);
      if (mark)
        return overSite(
          context,
          failed(place, {
            found: `${words} (“${mark}”), titled “${title}”`,
            raw: home.facts.text.slice(0, 300),
          }),
        );
    }
    if (home.shell)
      return overSite(
        context,
        unsure(place, 'an empty shell that scripts fill: nothing to read without rendering'),
      );
    if (brief.homeMark && !home.words.carries(brief.homeMark))
      return overSite(
        context,
        failed(place, {
          found: `no “${brief.homeMark}” on the page titled “${title}”`,
          raw: home.facts.text.slice(0, 300),
        }),
      );
    return overSite(context, passed(place, { found: title }));
  },
  recipe({ brief }) {
    return {
      steps: `Choose the page made for it as the home page in the site’s reading or publishing settings, publish, and look at the address in a private window.${brief.homeMark ? ` It should show “${brief.homeMark}”.` : ''}`,
    };
  },
});
