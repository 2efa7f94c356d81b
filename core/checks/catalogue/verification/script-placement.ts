import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { isAtEnd, pathsOf, scriptsMatching } from './positions';

export const scriptPlacement = defineCheck({
  id: 'verification.script-placement',
  title: 'Scripts stand where the brief puts them',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
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
        if (due && !found.length) return failed(page.url, { found: `no ${match}` });
        if (!due && found.length)
          return failed(page.url, { found: `${match}, where it does not belong`, raw: found[0]!.raw });
        const wrong = found.find((s) =>
          spot === 'head' ? s.where !== 'head' : !isAtEnd(page.facts, s, badge),
        );
        if (wrong)
          return failed(page.url, {
            found: `${match} ${wrong.where === 'head' ? 'in the head' : spot === 'head' ? 'in the body' : 'in the middle of the body'}`,
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
