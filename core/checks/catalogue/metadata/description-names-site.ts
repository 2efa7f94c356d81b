import { namesSite } from '#core/checks/kit/site-name';
import { defineCheck } from '#core/checks/kit/check';
import { intendedFor } from '#core/checks/kit/intended-paste';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { textTag } from '#core/recipes/markup';
import { DESCRIPTION_LIMITS } from '#core/checks/kit/made-texts';
import { LISTING_SIZE, lineFit } from '#core/text/width';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('metadata.description-names-site', {
  'there-no-description': 'there is no description',
});

export const descriptionNamesSite = defineCheck({
  id: 'metadata.description-names-site',
  title: 'Home description contains the site’s name',
  fault: 'Home description lacks the site’s name',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { brief: ['name'], pages: true },
  why: 'Whoever searches for the name looks for it in the text below the title.',
  source: 'common practice',
  messages: { expected: ({ brief }) => `“${brief.name}” in the description` },
  judge(context) {
    const { brief, view } = context;
    if (!view.home) return cantTell(commonMessage('home-not-read'));
    const meta = view.home.description;
    const { expected } = context.words;
    if (!meta?.content.trim())
      return cantTell(restsOnCheck('metadata.description-present', msg('there-no-description')), {
        expected,
      });
    return overSite(
      context,
      (namesSite(meta.content, brief.name) ? passed : failed)(view.home.url, {
        found: verbatim(meta.content),
        raw: meta.raw,
      }),
    );
  },
  recipe(context) {
    const { brief, view } = context;
    const written = view.home && intendedFor(context)(view.home.url)?.description;
    const made = `${brief.name ?? ''}: ${view.home?.description?.content ?? ''}`;
    // one that becomes too long would be a fault of its own
    const { fits } = lineFit(made, LISTING_SIZE.description, DESCRIPTION_LIMITS);
    const text = written ?? (fits ? made : undefined);
    return {
      steps:
        'Name the site in the description, best at its beginning, and keep it short enough for a listing.',
      ...(text ? { paste: [{ label: 'Tag', text: textTag('description', text) }] } : {}),
    };
  },
});
