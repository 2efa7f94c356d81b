import { hostOf } from '#core/extract/address';
import type { FailedRequest } from '#core/facts/rendered';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { overRendered } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.requests-fail', {
  'failed-request':
    '{status}: {path}{others, plural, =0 {} one {, and {others} other} other {, and {others} others}}',
});

/** Answers that refuse a visitor of this kind, and say nothing of the file (rule 4). */
const REFUSALS: ReadonlySet<number> = new Set([401, 403, 407, 429, 503]);

const lineOf = ({ url, type, status, error }: FailedRequest): string => `${status ?? error} ${type} ${url}`;
const isSure = ({ status }: FailedRequest): boolean => status === undefined || !REFUSALS.has(status);

export const requestsFail = defineCheck({
  id: 'delivery.requests-fail',
  title: 'Everything a page loads from its own site arrives',
  fault: 'A file of the site’s own does not load',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.failed'],
  needs: { pages: true, rendered: true },
  why: 'A file that does not come leaves a hole: a picture, a font, or a script that the page waits for.',
  source: 'common practice',
  messages: { expected: 'no request to the site’s own hosts fails' },
  judge(context) {
    const { siteHosts } = context.view;
    return overRendered(context, (views, page) => {
      const own = new Map<string, FailedRequest>();
      for (const view of views)
        for (const request of view.failed)
          if (siteHosts.has(hostOf(request.url) ?? '')) own.set(request.url, request);
      const all = [...own.values()];
      if (!all.length) return passed(page.url);
      const raw = all.map(lineOf).join('\n');
      const sure = all.filter(isSure);
      const [first] = sure.length ? sure : all;
      const found = msg('failed-request', {
        status: first!.status ?? first!.error,
        path: new URL(first!.url).pathname,
        others: Math.max(0, sure.length - 1),
      });
      if (!sure.length)
        return unsure(page.url, commonMessage('refused', { status: first!.status }), { found, raw });
      return failed(page.url, { found, raw });
    });
  },
  recipe: () => ({
    steps:
      'Upload what is missing, or take the reference out of the page. Look at upper and lower case in the name: servers tell them apart.',
  }),
});
