import { textTag } from '#core/recipes/markup';
import { namesSite } from '#core/checks/kit/site-name';
import { defineCheck } from '#core/checks/kit/check';
import { intendedFor } from '#core/checks/kit/intended-paste';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

export const titleNamesSite = defineCheck({
  id: 'identity.title-names-site',
  title: 'Home title contains the site’s name',
  fault: 'Home title lacks the site’s name',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { brief: ['name'], pages: true },
  why: 'The title is what search listings, tabs and bookmarks show; without the name nobody knows whose page it is.',
  source: 'common practice',
  messages: { expected: ({ brief }) => `a title that contains “${brief.name}”` },
  judge(context) {
    const { brief, view } = context;
    const home = view.home;
    const title = home?.facts.titles[0];
    const place = home?.url ?? view.evidence.target.url;
    if (!title) return overSite(context, failed(place, { found: commonMessage('no-title') }));
    const good = namesSite(title.text, brief.name);
    return overSite(
      context,
      (good ? passed : failed)(place, { found: verbatim(title.text), raw: title.raw + title.text }),
    );
  },
  recipe(context) {
    const { brief, view } = context;
    const written = view.home && intendedFor(context)(view.home.url)?.title;
    const old = view.home?.facts.titles[0]?.text;
    const rest = brief.tagline ?? old ?? '';
    return {
      steps: 'Put the site’s name into the title of the home page, then publish.',
      paste: [
        {
          label: 'Title tag',
          text: textTag('title', written ?? [brief.name ?? '', ...(rest ? [rest] : [])].join(' – ')),
        },
      ],
    };
  },
});
