import { normaliseUrl } from '#core/extract/address';
import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

export const requiredPages = defineCheck({
  id: 'identity.required-pages',
  title: 'The required pages are there and linked',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['requiredPages'], pages: true },
  why: 'An imprint or privacy page that nobody can find counts as missing, before the law too.',
  source: 'common practice',
  messages: { expected: 'each linked from the home page and answering 200' },
  judge(context) {
    const { brief, view, evidence } = context;
    const { expected } = context.words;
    const home = view.home;
    if (!home) return cantTell('the home page was not read', { expected });
    const linked = new Set(home.facts.anchors.map((a) => home.target(a.href)));
    const base = evidence.target.kind === 'before' ? evidence.target.url : home.url;
    return overPlaces(
      context,
      brief.requiredPages.map((path) => {
        const url =
          normaliseUrl(evidence.target.kind === 'before' ? path.replace(/^\//, '') : path, base) ?? path;
        const page = view.asked.get(url);
        if (!page) return unsure(path, 'the page was not read', { expected });
        const status = finalStatus(page.chain);
        if (status === undefined) return unsure(path, page.chain.error?.message ?? 'no answer', { expected });
        if (status === 401 || status === 403 || status === 429)
          return unsure(path, `the server refused the visitor (${status})`, { expected });
        if (status !== 200) return failed(path, { found: `status ${status}` });
        return linked.has(url) || linked.has(page.url) || page.url === home.url
          ? passed(path, { found: 'linked, 200' })
          : failed(path, { found: 'not linked from the home page' });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Publish the page, and link it from the navigation or the footer of the home page.',
    paste: failedPlaces(finding).map((p) => ({
      label: p.place,
      text: `<a href="${p.place}">${p.place.split('/').filter(Boolean).pop() ?? 'Home'}</a>`,
    })),
  }),
});
