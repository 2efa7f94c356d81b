import { ownerOf } from '#core/facts/agency-book';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

export const analyticsOwn = defineCheck({
  id: 'verification.analytics-own',
  title: 'Analytics IDs are this client’s own',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['analyticsIds'], pages: true },
  why: 'An ID left from a template sends the visits to a stranger’s figures, or another client’s.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) => `no ID but ${brief.analyticsIds.join(', ')}`,
    none: 'no page carries an analytics ID',
  },
  judge(context) {
    return overPages(context, (page) => {
      const found = page.measuring;
      if (!found.length) return null;
      const strange = found.find((f) => !context.brief.analyticsIds.includes(f.id));
      if (!strange) return passed(page.url, { found: found[0]!.id });
      const owner = ownerOf(context.book, 'analyticsIds', strange.id);
      return failed(page.url, {
        found: `${strange.id}, ${owner ? `an ID of ${owner}` : 'which the brief does not know'}`,
        raw: strange.script.raw,
        ...(owner ? {} : { adopt: { field: 'analyticsIds', how: 'add', value: strange.id } as const }),
      });
    });
  },
  recipe: ({ brief }) => ({
    steps: 'Take the strange ID out of the template, or add it to the brief when it is the client’s.',
    paste: [{ label: 'The client’s', text: (brief.analyticsIds ?? []).join('\n') }],
  }),
});
