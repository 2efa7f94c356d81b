import { canonicalRecipe } from './canonical-recipe';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.canonical-present', {
  several: '{tagsCount} canonicals: {list}',
  'relative-address': 'a relative address',
});

export const canonicalPresent = defineCheck({
  id: 'indexing.canonical-present',
  title: 'Every page has one absolute canonical',
  fault: 'Canonical is missing, relative or given twice',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'The same page is reached with and without parameters; the canonical says which address counts.',
  source: 'RFC 6596; RFC 8288; common practice',
  messages: { expected: 'exactly one canonical, absolute', none: 'no page may be listed' },
  judge(context) {
    return overPages(
      context,
      (page) => {
        const all = page.canonicals;
        const tags = all.filter((c) => c.where !== 'header');
        const values = new Set(all.map((c) => page.target(c.href) ?? c.href));
        const raw = all.map((c) => c.raw).join('\n');
        if (!values.size) return failed(page.url, { found: commonMessage('none') });
        if (tags.length > 1 || values.size > 1)
          return failed(page.url, {
            found: msg('several', {
              tagsCount: Math.max(tags.length, values.size),
              list: [...values].join(', '),
            }),
            raw,
          });
        if (tags.some((t) => t.relative)) return failed(page.url, { found: msg('relative-address'), raw });
        if (tags.some((t) => t.where === 'body'))
          return failed(page.url, { found: commonMessage('in-body'), raw });
        return passed(page.url, { found: verbatim([...values][0]), raw });
      },
      { only: (p) => !p.keptOut },
    );
  },
  recipe: ({ view }, finding) => ({
    steps: 'Put one canonical with the full address into the head of each page.',
    paste: canonicalRecipe(view, finding),
  }),
});
