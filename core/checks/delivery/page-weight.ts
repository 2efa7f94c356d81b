import { normaliseUrl } from '#core/extract/address';
import { lastAnswer } from '#core/facts/evidence';
import { where, type Check } from '../check';
import { failed, overPages, passed, unsure } from '../judgement';

const megabytes = (n: number): string => `${(n / 1_000_000).toFixed(2)} MB`;

export const pageWeight: Check = {
  id: 'delivery.page-weight', section: 'delivery', title: 'Pages are light enough', severity: 'minor', situations: where('L'), scope: 'page', needs: 'pages',
  why: 'On the train every megabyte is a few seconds and costs the visitor money.',
  source: 'common practice',
  parameters: { bytes: { default: 3_000_000, min: 100_000, max: 50_000_000, unit: 'bytes', meaning: 'heaviest, where the brief has no budget' } },
  judge(context) {
    const { evidence, brief, parameters } = context;
    const budget = brief.budgetBytes ?? parameters.bytes!;
    const sizes = new Map(evidence.assets.map(a => [a.url, lastAnswer(a.chain)?.bytes && a.size === lastAnswer(a.chain)!.bytes!.decoded ? lastAnswer(a.chain)!.bytes!.encoded : a.size]));
    return overPages(context, `at most ${megabytes(budget)}`, (page) => {
      const own = lastAnswer(page.evidence.chain)?.bytes?.encoded ?? 0;
      // of a picture offered in several sizes one is loaded; the tag's own address stands for it
      const loaded = [...new Set(page.facts.resources.filter(r => r.kind !== 'srcset' && r.kind !== 'frame').map(r => normaliseUrl(r.url)).filter((u): u is string => u !== undefined))];
      const known = loaded.filter(u => sizes.get(u) !== undefined);
      const sum = own + known.reduce((n, u) => n + sizes.get(u)!, 0);
      const heaviest = known.sort((a, b) => sizes.get(b)! - sizes.get(a)!)[0];
      const found = `${megabytes(sum)}${known.length < loaded.length ? ` without ${loaded.length - known.length} files from elsewhere` : ''}${heaviest && sum > budget ? `, most of it ${heaviest} (${megabytes(sizes.get(heaviest)!)})` : ''}`;
      if (sum > budget) return failed(page.url, { found, take: { field: 'budgetBytes', how: 'set', value: Math.ceil(sum / 100_000) * 100_000 } });
      const unread = loaded.filter(u => !sizes.has(u) && context.view.siteHosts.has(new URL(u).hostname));
      return unread.length ? unsure(page.url, `${unread.length} of its own files were not weighed`, { found }) : passed(page.url, { found });
    });
  },
  recipe: (_, finding) => ({ steps: 'Begin with the heaviest picture: fewer pixels, a modern format, loading="lazy" below the first screen.', paste: finding.places.filter(p => p.outcome === 'failed').slice(0, 5).map(p => ({ label: p.place, text: p.found ?? '' })) }),
};
