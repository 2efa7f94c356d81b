import { lastAnswer, type AssetEvidence } from '#core/facts/evidence';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';

const msg = defineMessages('delivery.page-weight', {
  weight:
    '{sum} MB{elsewhere, select, 0 {} other { without {elsewhere} files from elsewhere}}{hasHeaviest, select, yes {, most of it {heaviest} ({megabytes} MB)} other {}}',
  'not-weighed': '{unread} of its own files were not weighed',
});

const inMegabytes = (n: number): string => (n / 1_000_000).toFixed(2);
const megabytes = (n: number): string => `${inMegabytes(n)} MB`;

/** What a file weighs on the way, where all of it was fetched; else what it says of its size. */
function weightOf({ chain, size }: AssetEvidence): number | undefined {
  const bytes = lastAnswer(chain)?.bytes;
  return bytes && size === bytes.decoded ? bytes.encoded : size;
}

/** A page with all that it loads. */
interface Weighed {
  sum: number;
  /** Files whose weight is not known, mostly from other hosts. */
  elsewhere: number;
  /** Files of the site's own among them that were not looked at. */
  unread: number;
  heaviest: { url: string; bytes: number } | undefined;
}

function weigh(
  page: ReadPage,
  sizes: ReadonlyMap<string, number | undefined>,
  ownHosts: ReadonlySet<string>,
): Weighed {
  // of a picture offered in several sizes one is loaded; the tag's own address stands for it
  const loaded = new Map<string, string>();
  for (const { url, host, resource } of page.loads)
    if (!['srcset', 'frame', 'other'].includes(resource.kind)) loaded.set(url, host);
  const out: Weighed = {
    sum: page.answer?.bytes?.encoded ?? 0,
    elsewhere: 0,
    unread: 0,
    heaviest: undefined,
  };
  for (const [url, host] of loaded) {
    const bytes = sizes.get(url);
    if (bytes === undefined) {
      out.elsewhere++;
      if (!sizes.has(url) && ownHosts.has(host)) out.unread++;
      continue;
    }
    out.sum += bytes;
    if (bytes > (out.heaviest?.bytes ?? -1)) out.heaviest = { url, bytes };
  }
  return out;
}

function weightOfPage({ sum, elsewhere, heaviest }: Weighed, budget: number): Message {
  const most = heaviest && sum > budget ? heaviest : undefined;
  return msg('weight', {
    sum: inMegabytes(sum),
    elsewhere,
    hasHeaviest: most ? 'yes' : 'no',
    heaviest: most?.url,
    megabytes: most && inMegabytes(most.bytes),
  });
}

export const pageWeight = defineCheck({
  id: 'delivery.page-weight',
  title: 'Page weight is within the budget',
  fault: 'Page weight exceeds the budget',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  facts: ['assets', 'resources'],
  needs: { pages: true },
  why: 'On the train every megabyte is a few seconds and costs the visitor money.',
  source: 'common practice',
  parameters: {
    bytes: {
      default: 3_000_000,
      min: 100_000,
      max: 50_000_000,
      unit: 'bytes',
      meaning: 'heaviest, where the brief has no budget',
    },
  },
  messages: {
    expected: ({ brief, parameters }) => `at most ${megabytes(brief.budgetBytes ?? parameters.bytes)}`,
  },
  judge(context) {
    const { evidence, view, brief, parameters } = context;
    const budget = brief.budgetBytes ?? parameters.bytes;
    const sizes = new Map(evidence.assets.map((a) => [a.url, weightOf(a)]));
    return overPages(context, (page) => {
      const weighed = weigh(page, sizes, view.siteHosts);
      const found = weightOfPage(weighed, budget);
      if (weighed.sum > budget)
        return failed(page.url, {
          found,
          adopt: { field: 'budgetBytes', how: 'set', value: Math.ceil(weighed.sum / 100_000) * 100_000 },
        });
      return weighed.unread
        ? unsure(page.url, msg('not-weighed', { unread: weighed.unread }), { found })
        : passed(page.url, { found });
    });
  },
  recipe: (_, finding) => ({
    steps:
      'Begin with the heaviest picture: fewer pixels, a modern format, loading="lazy" below the first screen.',
    paste: failedPlaces(finding, 5).map((p) => ({ label: p.place, text: p.found ?? '' })),
  }),
});
