import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.no-host-badge', {
  'brief-wants-badge': 'the brief wants the badge',
  'no-badge-known': 'the host profile knows no badge',
});

export const noHostBadge = defineCheck({
  id: 'identity.no-host-badge',
  title: 'Host’s badge is gone',
  fault: 'Host’s badge is on a page',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['badge'], pages: true },
  why: 'A client who pays for their own site does not want the host’s advertisement on it.',
  source: 'common practice',
  messages: { expected: 'no badge of the host' },
  judge(context) {
    if (context.brief.badge === 'wanted') return inapplicable(msg('brief-wants-badge'));
    const marks = context.profile.badge ?? [];
    if (!marks.length) return inapplicable(msg('no-badge-known'));
    return overPages(context, (page) => {
      const link = page.facts.anchors.find((a) =>
        marks.some(
          (m) => foldLoosely(a.text).includes(foldLoosely(m)) || (/[./]/.test(m) && a.href.includes(m)),
        ),
      );
      if (link)
        return failed(page.url, {
          found: verbatim(link.text || undefined) ?? verbatim(link.href),
          raw: link.raw,
          adopt: { field: 'badge', how: 'set', value: 'wanted' },
        });
      const mark = marks.find((m) => page.words.carries(m));
      return mark
        ? failed(page.url, { found: verbatim(mark), adopt: { field: 'badge', how: 'set', value: 'wanted' } })
        : page.passed;
    });
  },
  recipe: ({ profile }) => ({
    steps: `Switch the badge off in the settings of ${profile.name || 'the host'}; with many hosts that takes a paid plan.`,
  }),
});
