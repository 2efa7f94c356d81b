import { finalStatus } from '#core/facts/evidence';
import { listable } from './wanted-pages';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { formatMessage, defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';
import type { Evidence } from '#core/facts/evidence';

const msg = defineMessages('indexing.sitemap-found', {
  files: '{count, plural, one {{count} file} other {{count} files}}',
  'not-well-formed': '{url}: not well-formed ({error})',
  unread: '{url}: {why}',
  addresses: '{count, plural, one {{count} address} other {{count} addresses}}',
});

/** Why a sitemap is none. */
function faultOf({ url, facts, chain }: Evidence['sitemaps'][number]): Message {
  if (facts?.error) return msg('not-well-formed', { url, error: facts.error });
  const why = chain.error?.message ?? commonMessage('status', { status: finalStatus(chain) });
  return msg('unread', { url, why });
}

export const sitemapFound = defineCheck({
  id: 'indexing.sitemap-found',
  title: 'Sitemap is found and well-formed',
  fault: 'Sitemap is missing or malformed',
  severity: 'major',
  situations: ['live'],
  scope: 'site',
  facts: ['sitemaps'],
  reads: ['files'],
  needs: { pages: true },
  why: 'Search engines find pages by it that few links lead to, and see what has changed.',
  source: 'sitemaps.org 0.9',
  messages: { expected: 'a well-formed sitemap, named in robots.txt or at /sitemap.xml' },
  judge(context) {
    const { evidence, view } = context;
    const tops = evidence.sitemaps.filter((s) => s.from !== 'index');
    for (const map of tops) {
      if (finalStatus(map.chain) === 200 && map.facts && !map.facts.error)
        return overSite(
          context,
          passed(map.url, {
            found:
              map.facts.kind === 'index'
                ? msg('files', { count: map.facts.count })
                : msg('addresses', { count: map.facts.count }),
          }),
        );
    }
    const faults = tops.map((m) => faultOf(m));
    return overSite(
      context,
      failed(tops[0]?.url ?? `https://${view.preferredHost}/sitemap.xml`, {
        found: faults[0] ?? commonMessage('none'),
        raw: faults.map((fault) => formatMessage(fault)).join('\n'),
      }),
    );
  },
  recipe: ({ view, brief }) => ({
    steps: 'Switch the sitemap on at the host, or upload this one, and name it in robots.txt.',
    paste: [
      {
        label: 'sitemap.xml',
        text: `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${listable(
          view,
          brief,
        )
          .slice(0, 200)
          .map((p) => `  <url><loc>${p.url.replace(/&/g, '&amp;')}</loc></url>`)
          .join('\n')}\n</urlset>`,
      },
      { label: 'Line in robots.txt', text: `Sitemap: https://${view.preferredHost}/sitemap.xml` },
    ],
  }),
});
