import { finalStatus } from '#core/facts/evidence';
import type { ReadPage } from '#core/checks/view/read-page';
import { refuses } from '#core/checks/kit/chains';
import { hereOf, onLive } from '#core/checks/kit/live-address';
import { validLanguageTag } from '#core/checks/kit/language-tag';
import { escapeText } from '#core/recipes/markup';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.alternates', {
  'invalid-tag': 'hreflang “{hreflang}” is no valid language tag',
  'target-status': '{url} answers {status}',
  'does-not-point-back': '{url} does not point back',
});

/**
 * The complete set of a page's group: what it names, what names it, itself, and which of them stands for all others.
 * The group's page in the brief's first language is that one where no page says so.
 */
function setOf(url: string, context: Pick<CheckContext, 'view' | 'brief'>): string[] {
  const { view, brief } = context;
  const page = view.byUrl.get(url);
  if (!page) return [];
  const found = new Map<string, string>();
  const take = (from: ReadPage): void => {
    for (const { hreflang = '', href } of from.alternates) {
      const target = hereOf(context, href, from.url);
      const isTag = hreflang.toLowerCase() === 'x-default' || validLanguageTag(hreflang);
      if (target && isTag && !found.has(hreflang)) found.set(hreflang, target);
    }
  };
  const own = page.facts.lang?.value.trim();
  take(page);
  for (const other of view.pages)
    if (other.alternates.some((l) => hereOf(context, l.href, other.url) === url)) take(other);
  if (own && validLanguageTag(own) && ![...found.values()].includes(url)) found.set(own, url);
  const first = brief.languages?.[0]?.toLowerCase().split('-')[0];
  const main = [...found].find(([tag]) => tag.toLowerCase().split('-')[0] === first) ?? [...found][0];
  if (main && !found.has('x-default')) found.set('x-default', main[1]);
  return [...found]
    .sort(([a], [b]) => (a === 'x-default' ? 1 : b === 'x-default' ? -1 : a < b ? -1 : 1))
    .map(
      ([tag, target]) =>
        `<link rel="alternate" hreflang="${tag}" href="${escapeText(onLive(context, target))}">`,
    );
}

export const alternates = defineCheck({
  id: 'indexing.alternates',
  title: 'hreflang sets are complete and mutual',
  fault: 'hreflang set is incomplete or one-sided',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['lang'],
  needs: { pages: true },
  why: 'Alternates that are not returned are passed over, and readers get the wrong language.',
  source: 'BCP 47 (RFC 5646); HTML; common practice',
  messages: {
    expected: 'valid language tags, absolute addresses, returned by the other side',
    none: 'no page names an alternate',
  },
  judge(context) {
    const { view } = context;
    return overPages(context, (page) => {
      const links = page.alternates;
      if (!links.length) return null;
      for (const link of links) {
        const valid = link.hreflang!.toLowerCase() === 'x-default' || validLanguageTag(link.hreflang!);
        if (!valid)
          return failed(page.url, {
            found: msg('invalid-tag', { hreflang: link.hreflang }),
            raw: link.raw,
          });
        const url = hereOf(context, link.href);
        if (!url || link.relative)
          return failed(page.url, {
            found: commonMessage('not-absolute', { given: link.href }),
            raw: link.raw,
          });
        const other = view.byUrl.get(url);
        const answer = view.asked.get(url);
        const status = answer && finalStatus(answer.chain);
        if (status !== undefined && status >= 400 && status < 500 && !refuses(status))
          return failed(page.url, { found: msg('target-status', { url, status }), raw: link.raw });
        if (!other || other === page) continue;
        if (!other.alternates.some((l) => hereOf(context, l.href) === page.url))
          return failed(page.url, { found: msg('does-not-point-back', { url }), raw: link.raw });
      }
      return passed(page.url, { found: verbatim(links.map((l) => l.hreflang).join(', ')) });
    });
  },
  recipe: (context, finding) => ({
    steps: 'Put the whole set into the head of every page of the group, the same lines on each.',
    paste: failedPlaces(finding, 5).flatMap(({ place }) => {
      const set = setOf(place, context);
      return set.length ? [{ label: `Tags for ${place}`, text: set.join('\n') }] : [];
    }),
  }),
});
