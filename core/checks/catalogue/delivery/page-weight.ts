import { lastAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed, unsure } from '#core/checks/kit/judgement';

const megabytes = (n: number): string => `${(n / 1_000_000).toFixed(2)} MB`;

export const pageWeight = defineCheck({
  id: 'delivery.page-weight',
  title: 'Pages are light enough',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
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
  judge(context) {
    const { evidence, view, brief, parameters } = context;
    const budget = brief.budgetBytes ?? parameters.bytes;
    const sizes = new Map(
      evidence.assets.map((a) => [
        a.url,
        lastAnswer(a.chain)?.bytes && a.size === lastAnswer(a.chain)!.bytes!.decoded
          ? lastAnswer(a.chain)!.bytes!.encoded
          : a.size,
      ]),
    );
    return overPages(
      context,
      (page) => {
        const own = page.answer?.bytes?.encoded ?? 0;
        // of a picture offered in several sizes one is loaded; the tag's own address stands for it
        const loaded = new Map<string, string>();
        for (const { url, host, resource } of page.loads)
          if (resource.kind !== 'srcset' && resource.kind !== 'frame') loaded.set(url, host);
        let sum = own,
          elsewhere = 0,
          unread = 0,
          heaviest = '',
          most = -1;
        for (const [url, host] of loaded) {
          const size = sizes.get(url);
          if (size !== undefined) {
            sum += size;
            if (size > most) {
              most = size;
              heaviest = url;
            }
            continue;
          }
          elsewhere++;
          if (!sizes.has(url) && view.siteHosts.has(host)) unread++;
        }
        const found = `${megabytes(sum)}${elsewhere ? ` without ${elsewhere} files from elsewhere` : ''}${heaviest && sum > budget ? `, most of it ${heaviest} (${megabytes(most)})` : ''}`;
        if (sum > budget)
          return failed(page.url, {
            found,
            take: { field: 'budgetBytes', how: 'set', value: Math.ceil(sum / 100_000) * 100_000 },
          });
        return unread
          ? unsure(page.url, `${unread} of its own files were not weighed`, { found })
          : passed(page.url, { found });
      },
      { expected: `at most ${megabytes(budget)}` },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Begin with the heaviest picture: fewer pixels, a modern format, loading="lazy" below the first screen.',
    paste: failedPlaces(finding, 5).map((p) => ({ label: p.place, text: p.found ?? '' })),
  }),
});
