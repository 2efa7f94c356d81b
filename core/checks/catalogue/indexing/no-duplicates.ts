import { nearDuplicates } from '#core/compare/near-duplicates';
import { finalStatus, lastAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { amongRead, isAlternate, seriesOf } from '#core/checks/kit/uniqueness';
import type { PlaceResult } from '#core/facts/finding';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.no-duplicates', {
  'same-text': 'the same text as {url}',
  'nearly-text': 'nearly the text of {url}',
  'variant-answers': '{url} answers as well, and no canonical says which counts',
});

export const noDuplicates = defineCheck({
  id: 'indexing.no-duplicates',
  title: 'No page stands at two addresses',
  fault: 'A page is at two addresses',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  facts: ['variants', 'notFound'],
  reads: ['http'],
  needs: { pages: true },
  why: 'Two addresses with the same text share what one of them could earn.',
  source: 'common practice',
  parameters: {
    likeness: {
      default: 98,
      min: 80,
      max: 100,
      unit: '%',
      meaning: 'from which share of common word runs two longer texts count as the same',
    },
  },
  messages: { expected: 'its text at one address, or one canonical for all', none: 'no page may be listed' },
  judge(context) {
    const { view, evidence, parameters } = context;
    const pages = view.countable.filter((p) => !p.shell && p.facts.textLength > 0);
    const twin = new Map(
      nearDuplicates(
        pages.map((p) => p.facts.text),
        parameters.likeness / 100,
      ).map((d) => [pages[d.of]!, { page: pages[d.like]!, share: d.share }]),
    );
    const asked = new Set(pages);
    // a server that answers everything with a page answers the other form too
    const variants = view.answersAnything ? [] : evidence.variants;
    const twoForms = variants.filter(
      (v) => finalStatus(v.chain) === 200 && lastAnswer(v.chain)?.url === v.url && v.text !== undefined,
    );
    const judge = (page: ReadPage): PlaceResult | null => {
      if (!asked.has(page)) return null;
      const same = twin.get(page);
      if (same && seriesOf(same.page.url) !== seriesOf(page.url) && !isAlternate(same.page, page))
        return failed(page.url, {
          found:
            same.share === 1
              ? msg('same-text', { url: same.page.url })
              : msg('nearly-text', { url: same.page.url }),
        });
      // the other slash form: it leads here, or names this page as canonical, or is not there
      const variant = twoForms.find((v) => v.of === page.url);
      return variant && !page.canonical
        ? failed(page.url, { found: msg('variant-answers', { url: variant.url }) })
        : page.passed;
    };
    return overPages(context, judge, { notes: amongRead(context) });
  },
  recipe: (_, finding) => ({
    steps: 'Choose one address, let the other redirect to it, or name it as canonical on both.',
    paste: failedPlaces(finding, 10).map((p) => ({
      label: p.place,
      text: `<link rel="canonical" href="${p.place}">`,
    })),
  }),
});
