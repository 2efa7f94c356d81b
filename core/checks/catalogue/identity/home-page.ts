import { finalStatus } from '#core/facts/evidence';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed, unsure } from '#core/checks/kit/judgement';

export const homePage: Check = {
  id: 'identity.home-page',
  section: 'identity',
  title: 'The home page is the right one',
  severity: 'blocker',
  situations: where('SL'),
  scope: 'site',
  needs: 'pages',
  why: 'A new site often starts on a post list, a sample page or a sign-in form instead of the page that was made for it.',
  source: 'common practice',
  judge({ brief, view }) {
    const expected = brief.homeMark
      ? `200 and “${brief.homeMark}” on the page`
      : '200 and the site’s own home page';
    const status = view.homeEvidence ? finalStatus(view.homeEvidence.chain) : undefined;
    const place = view.homeEvidence?.url ?? view.evidence.target.url;
    if (status === undefined)
      return cantTell(view.homeEvidence?.chain.error?.message ?? 'the home page was not read', { expected });
    const home = view.home;
    if (!view.within(place))
      return overSite(failed(place, { found: `leads away to ${place}` }), { expected });
    if (!home)
      return overSite(failed(place, { found: status === 200 ? 'no HTML page' : `status ${status}` }), {
        expected,
      });
    if (status !== 200) return overSite(failed(place, { found: `status ${status}` }), { expected });
    const title = home.facts.titles[0]?.text ?? 'no title';
    for (const [kind, words] of [
      ['samplePage', 'a sample page'],
      ['signIn', 'a sign-in page'],
      ['postList', 'a list of posts'],
    ] as const) {
      const mark = view.markOn(home, kind);
      if (mark)
        return overSite(
          failed(place, {
            found: `${words} (“${mark}”), titled “${title}”`,
            raw: home.facts.text.slice(0, 300),
          }),
          { expected },
        );
    }
    if (home.shell)
      return overSite(unsure(place, 'an empty shell that scripts fill: nothing to read without rendering'), {
        expected,
      });
    if (brief.homeMark && !home.words.carries(brief.homeMark))
      return overSite(
        failed(place, {
          found: `no “${brief.homeMark}” on the page titled “${title}”`,
          raw: home.facts.text.slice(0, 300),
        }),
        { expected },
      );
    return overSite(passed(place, { found: title }), { expected });
  },
  recipe({ brief }) {
    return {
      steps: `Choose the page made for it as the home page in the site’s reading or publishing settings, publish, and look at the address in a private window.${brief.homeMark ? ` It should show “${brief.homeMark}”.` : ''}`,
    };
  },
};
