import { normaliseUrl } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { isOrganisation, nodesOf } from './structured-nodes';

export const organisationData = defineCheck({
  id: 'identity.organisation-data',
  title: 'Structured data name the organisation',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'Search engines take name, logo and address for their own panel from here.',
  source: 'schema.org',
  judge(context) {
    const { view, brief, situation } = context;
    const host = brief.preferredHost ?? view.preferredHost;
    const expected = `an Organization with name, logo and url https://${host}/`;
    if (!view.home) return cantTell('the home page was not read', { expected });
    const found = nodesOf(view.home).filter(isOrganisation);
    if (!found.length)
      return overSite(context, failed(view.home.url, { found: 'no Organization' }), { expected });
    const faults = found.map((n) => {
      const url = n.url === undefined ? undefined : normaliseUrl(n.url, view.home!.url);
      const lacking = [...(n.name ? [] : ['name']), ...(n.url ? [] : ['url']), ...(n.logo ? [] : ['logo'])];
      if (lacking.length) return `without ${lacking.join(', ')}`;
      // before the launch the place's own host is not yet the preferred one
      const good =
        url !== undefined &&
        (new URL(url).hostname === host ||
          (situation === 'staging' && view.siteHosts.has(new URL(url).hostname)));
      return good ? null : `url is ${n.url}`;
    });
    const good = faults.indexOf(null);
    const raw = view.home.facts.jsonLd.find((b) => b.nodes.some(isOrganisation))?.raw;
    return overSite(
      context,
      good >= 0
        ? passed(view.home.url, { found: `${found[good]!.types[0]} “${found[good]!.name}”`, raw })
        : failed(view.home.url, { found: `${found[0]!.types[0]} ${faults[0]}`, raw }),
      { expected },
    );
  },
  recipe: ({ brief, view }) => {
    const host = brief.preferredHost ?? view.preferredHost;
    return {
      steps: 'Put this into the head of the home page; the logo has to be reachable.',
      paste: [
        {
          label: 'JSON-LD',
          text: `<script type="application/ld+json">\n${JSON.stringify({ '@context': 'https://schema.org', '@type': 'Organization', name: brief.name ?? '', url: `https://${host}/`, logo: `https://${host}/logo.png` }, null, 2).replaceAll('<', '\\u003c')}\n</script>`,
        },
      ],
    };
  },
});
