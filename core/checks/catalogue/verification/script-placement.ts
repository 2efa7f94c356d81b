import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { isAtEnd, pathsOf, scriptsMatching } from './positions';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.script-placement', {
  missing: 'no {match}',
  'out-of-place': '{match}, where it does not belong',
  'wrong-place':
    '{match} {isInHead, select, yes {in the head} other {{wantsHead, select, yes {in the body} other {in the middle of the body}}}}',
});

export const scriptPlacement = defineCheck({
  id: 'verification.script-placement',
  title: 'Scripts stand where the brief puts them',
  fault: 'A script is not where the brief puts it',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['images'],
  needs: { brief: ['scripts'], pages: true },
  why: 'A script in the wrong place, or on the wrong pages, works by luck.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      brief.scripts
        .map(
          (s) =>
            `${s.match} ${s.where === 'head' ? 'in the head' : 'at the end of the body'}${s.pages ? ` of ${s.pages}` : ''}`,
        )
        .join('; '),
  },
  judge(context) {
    const { badge } = context.profile;
    const rules = context.brief.scripts.map((s) => ({ ...s, belongs: pathsOf(s.pages) }));
    return overPages(context, (page): PlaceResult => {
      for (const { match, where: spot, belongs } of rules) {
        const found = scriptsMatching(page.facts, match);
        const due = belongs(page.path);
        if (due && !found.length) return failed(page.url, { found: msg('missing', { match }) });
        if (!due && found.length)
          return failed(page.url, { found: msg('out-of-place', { match }), raw: found[0]!.raw });
        const wrong = found.find((s) =>
          spot === 'head' ? s.where !== 'head' : !isAtEnd(page.facts, s, badge),
        );
        if (wrong)
          return failed(page.url, {
            found: msg('wrong-place', {
              match,
              isInHead: wrong.where === 'head' ? 'yes' : 'no',
              wantsHead: spot === 'head' ? 'yes' : 'no',
            }),
            raw: wrong.raw,
          });
      }
      return page.passed;
    });
  },
  recipe: ({ brief }) => ({
    steps: 'Move the script in the template, or in the product’s settings for code.',
    paste: (brief.scripts ?? []).map((s) => ({
      label: s.where === 'head' ? 'Before </head>' : 'Before </body>',
      text: `<script src="${s.match}"></script>`,
    })),
  }),
});
