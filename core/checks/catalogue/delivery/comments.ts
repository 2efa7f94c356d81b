import type { PageFacts } from '#core/extract/html';
import { readLinkHeader } from '#core/extract/link-header';
import { headerValues, type Exchange } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.comments', {
  'comment-form': 'a comment form',
  'no-page-has-comment-form': 'no page has a comment form',
  'link-notifications': 'link notifications are taken',
});

/** A form that takes comments: by its id, its address or its fields (common practice). */
const commentForm = (facts: PageFacts) =>
  facts.forms.find(
    (f) =>
      /comment/i.test(f.id ?? '') ||
      /comment/i.test(f.action) ||
      f.fields.some((x) => /^comment$/i.test(x.name)),
  );
/** Where the page takes link notifications (Pingback 1.0; W3C Webmention). */
const notified = (facts: PageFacts) =>
  facts.links.find((l) => l.rel.includes('pingback') || l.rel.includes('webmention')) ??
  facts.anchors.find((a) => /(?:^|\s)webmention(?:$|\s)/i.test(a.rel ?? ''));
/** The same, where a header says it (W3C Webmention 3.1.2). */
function notifiedByHeader(answer: Exchange | undefined): string | undefined {
  const pingback = headerValues(answer, 'x-pingback')[0];
  if (pingback) return `X-Pingback: ${pingback}`;
  const link = headerValues(answer, 'link').find((value) =>
    readLinkHeader(value).some(({ rel }) =>
      rel.some((r) => /^(?:https?:\/\/webmention\.org\/?|webmention)$/.test(r)),
    ),
  );
  return link && `Link: ${link.slice(0, 300)}`;
}

export const comments = defineCheck({
  id: 'delivery.comments',
  title: 'Comments and link notifications are as agreed',
  fault: 'Comments or link notifications are not as agreed',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['comments'], pages: true },
  why: 'An open comment box that nobody reads is full of advertisements within a month.',
  source: 'common practice',
  judge(context) {
    if (context.brief.comments === 'wanted') {
      const page = context.view.pages.find((p) => commentForm(p.facts));
      return overSite(
        context,
        page
          ? passed(page.url, { found: msg('comment-form'), raw: commentForm(page.facts)!.raw })
          : failed(context.evidence.target.url, {
              found: msg('no-page-has-comment-form'),
              adopt: { field: 'comments', how: 'set', value: 'unwanted' },
            }),
        { expected: 'a comment form' },
      );
    }
    return overPages(
      context,
      (page) => {
        const form = commentForm(page.facts);
        if (form)
          return failed(page.url, {
            found: msg('comment-form'),
            raw: form.raw,
            adopt: { field: 'comments', how: 'set', value: 'wanted' },
          });
        const link = notified(page.facts);
        if (link) return failed(page.url, { found: msg('link-notifications'), raw: link.raw });
        const header = notifiedByHeader(page.answer);
        return header ? failed(page.url, { found: msg('link-notifications'), raw: header }) : page.passed;
      },
      { expected: 'no comment form and no link notifications' },
    );
  },
  recipe: ({ brief }) => ({
    steps:
      brief.comments === 'wanted'
        ? 'Open comments in the product’s settings and in the template.'
        : 'Close comments and link notifications in the product’s settings, for the pages that are there as well as for new ones.',
  }),
});
