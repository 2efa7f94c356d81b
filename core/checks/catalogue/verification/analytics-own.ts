import { ownerOf } from '#core/facts/agency-book';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed, wanted } from '#core/checks/kit/judgement';

export const analyticsOwn: Check = {
  id: 'verification.analytics-own',
  section: 'verification',
  title: 'Visits are counted for this client only',
  severity: 'major',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'An ID left from a template sends the visits to a stranger’s figures, or another client’s.',
  source: 'common practice',
  judge(context) {
    const ids = wanted(context.brief, 'analyticsIds');
    if ('judgement' in ids) return ids.judgement;
    return overPages(
      context,
      `no ID but ${ids.value.join(', ')}`,
      (page) => {
        const found = page.measuring;
        if (!found.length) return null;
        const strange = found.find((f) => !ids.value.includes(f.id));
        if (!strange) return passed(page.url, { found: found[0]!.id });
        const owner = ownerOf(context.book, 'analyticsIds', strange.id);
        return failed(page.url, {
          found: `${strange.id}, ${owner ? `an ID of ${owner}` : 'which the brief does not know'}`,
          raw: strange.script.raw,
          ...(owner ? {} : { take: { field: 'analyticsIds', how: 'add', value: strange.id } as const }),
        });
      },
      { none: 'no page carries an analytics ID' },
    );
  },
  recipe: ({ brief }) => ({
    steps: 'Take the strange ID out of the template, or add it to the brief when it is the client’s.',
    paste: [{ label: 'The client’s', text: (brief.analyticsIds ?? []).join('\n') }],
  }),
};
