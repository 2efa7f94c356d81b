import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('metadata.structured-data', {
  error: 'line {line}: {error}',
  empty: 'line {line}: nothing in it',
  'no-context': 'line {line}: no @context',
  'node-without-type': 'line {line}: a node without @type',
});

export const structuredData = defineCheck({
  id: 'metadata.structured-data',
  title: 'JSON-LD parses, with type and context',
  fault: 'JSON-LD does not parse or lacks type or context',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['jsonLd'],
  needs: { pages: true },
  why: 'One stray comma, and the whole block is passed over.',
  source: 'JSON-LD 1.1; common practice',
  messages: {
    expected: 'every block parses, every node with type and context',
    none: 'no page carries JSON-LD',
  },
  judge: (context) =>
    overPages(context, (page) => {
      if (!page.facts.jsonLd.length) return null;
      for (const b of page.facts.jsonLd) {
        const { line } = b;
        if (b.error) return failed(page.url, { found: msg('error', { line, error: b.error }), raw: b.raw });
        if (!b.nodes.length) return failed(page.url, { found: msg('empty', { line }), raw: b.raw });
        if (b.nodes.some((n) => !n.hasContext))
          return failed(page.url, { found: msg('no-context', { line }), raw: b.raw });
        if (b.nodes.some((n) => !n.types.length))
          return failed(page.url, { found: msg('node-without-type', { line }), raw: b.raw });
      }
      const types = new Set<string>();
      for (const b of page.facts.jsonLd) for (const n of b.nodes) for (const t of n.types) types.add(t);
      return passed(page.url, { found: verbatim([...types].join(', ')) });
    }),
  recipe: () => ({
    steps:
      'Correct the block; mostly it is a comma before a closing bracket, a quote inside a text, or HTML in it.',
    paste: [
      {
        label: 'Frame',
        text: '<script type="application/ld+json">\n{ "@context": "https://schema.org", "@type": "…" }\n</script>',
      },
    ],
  }),
});
