import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPages, wanted } from '#core/checks/kit/judgement';

export const noHostBadge: Check = {
  id: 'identity.no-host-badge',
  section: 'identity',
  title: 'The host’s badge is gone',
  severity: 'major',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'A client who pays for their own site does not want the host’s advertisement on it.',
  source: 'common practice',
  judge(context) {
    const badge = wanted(context.brief, 'badge');
    if ('judgement' in badge) return badge.judgement;
    if (badge.value === 'wanted') return inapplicable('the brief wants the badge');
    const marks = context.profile.badge ?? [];
    if (!marks.length) return inapplicable('the host profile knows no badge');
    return overPages(context, 'no badge of the host', (page) => {
      const link = page.facts.anchors.find((a) =>
        marks.some(
          (m) => foldLoosely(a.text).includes(foldLoosely(m)) || (/[./]/.test(m) && a.href.includes(m)),
        ),
      );
      if (link)
        return failed(page.url, {
          found: link.text || link.href,
          raw: link.raw,
          take: { field: 'badge', how: 'set', value: 'wanted' },
        });
      const mark = marks.find((m) => page.words.carries(m));
      return mark
        ? failed(page.url, { found: mark, take: { field: 'badge', how: 'set', value: 'wanted' } })
        : page.passed;
    });
  },
  recipe: ({ profile }) => ({
    steps: `Switch the badge off in the settings of ${profile.name || 'the host'}; with many hosts that takes a paid plan.`,
  }),
};
