import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.analytics-present', {
  missing: 'no {gone}',
});

export const analyticsPresent = defineCheck({
  id: 'verification.analytics-present',
  title: 'Analytics ID is on every page',
  fault: 'Analytics ID is missing on a page',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { brief: ['analyticsIds'], pages: true },
  why: 'A template without the script leaves a hole in the figures that nobody notices.',
  source: 'common practice',
  messages: { expected: ({ brief }) => `${brief.analyticsIds.join(' and ')} on every page` },
  judge(context) {
    return overPages(context, (page) => {
      const gone = context.brief.analyticsIds.filter((id) => !page.scriptsWith(id).length);
      return gone.length
        ? failed(page.url, { found: msg('missing', { gone: gone.join(', ') }) })
        : passed(page.url, { raw: page.scriptsWith(context.brief.analyticsIds[0]!)[0]!.raw });
    });
  },
  recipe({ brief }, finding) {
    const good = finding.places.find((p) => p.outcome === 'passed' && p.raw);
    return {
      steps: 'Put the script into the template that these pages use, not into single pages.',
      paste: [
        { label: 'ID', text: (brief.analyticsIds ?? []).join('\n') },
        ...(good ? [{ label: 'As it stands on another page', text: good.raw! }] : []),
      ],
    };
  },
});
