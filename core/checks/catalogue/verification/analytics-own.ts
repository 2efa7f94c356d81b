import { ownerOf } from '#core/facts/agency-book';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('verification.analytics-own', {
  'strange-id': '{id}, {hasOwner, select, yes {an ID of {owner}} other {which the brief does not know}}',
});

export const analyticsOwn = defineCheck({
  id: 'verification.analytics-own',
  title: 'Analytics IDs are this client’s own',
  fault: 'An analytics ID is not this client’s',
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
      if (!strange) return passed(page.url, { found: verbatim(found[0]!.id) });
      const owner = ownerOf(context.book, 'analyticsIds', strange.id);
      return failed(page.url, {
        found: msg('strange-id', {
          id: strange.id,
          hasOwner: owner ? 'yes' : 'no',
          owner: owner ? owner : undefined,
        }),
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
