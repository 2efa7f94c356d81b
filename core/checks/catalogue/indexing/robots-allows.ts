import { mayFetch } from '#core/extract/robots';
import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overPages, passed } from '#core/checks/kit/judgement';
import { mustBeListed } from './wanted-pages';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.robots-allows', {
  'no-rules': 'no rules',
  closed: 'closed to {crawler, select, everyone {everyone} other {{crawler}}} by line {line}: {raw}',
});

export const robotsAllows = defineCheck({
  id: 'indexing.robots-allows',
  title: 'robots.txt allows the pages',
  fault: 'robots.txt disallows a page',
  severity: 'blocker',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps', 'robots'],
  reads: ['files'],
  needs: { pages: true },
  why: 'A “Disallow: /” carried over from staging shuts the whole site, and the listing shrinks to a bare address.',
  source: 'RFC 9309 2.2',
  judge(context) {
    const { evidence, brief, view } = context;
    const status = finalStatus(evidence.robots.chain);
    if (status === undefined || status >= 500 || status === 429)
      return cantTell(
        restsOnCheck(
          'indexing.robots-answers',
          status === undefined
            ? (verbatim(evidence.robots.chain.error?.message) ?? commonMessage('no-answer'))
            : commonMessage('status', { status }),
        ),
      );
    const robots = evidence.robots.facts;
    const { inSitemap } = view;
    const crawlers = ['*', ...(brief.crawlers ?? [])];
    return overPages(
      context,
      (page) => {
        if (!robots) return passed(page.url, { found: msg('no-rules') });
        for (const crawler of crawlers) {
          const { allowed, rule } = mayFetch(robots, crawler, page.url);
          if (!allowed)
            return failed(page.url, {
              found: msg('closed', {
                crawler: crawler === '*' ? 'everyone' : crawler,
                line: rule!.line,
                raw: rule!.raw.trim(),
              }),
              raw: rule!.raw,
            });
        }
        return page.passed;
      },
      {
        expected: `home, required and sitemap pages allowed for ${crawlers.map((c) => (c === '*' ? 'everyone' : c)).join(', ')}`,
        only: (p) => mustBeListed(p, brief, inSitemap),
        byAddress: true,
      },
    );
  },
  recipe: ({ view }) => ({
    steps: 'Take the rule out of robots.txt, or narrow it to the paths that are meant.',
    paste: [
      {
        label: 'robots.txt',
        text: `User-agent: *\nDisallow:\n\nSitemap: https://${view.preferredHost}/sitemap.xml`,
      },
    ],
  }),
});
