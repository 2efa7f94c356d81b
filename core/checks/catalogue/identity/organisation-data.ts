import type { JsonLdNode } from '#core/extract/json-ld';
import { hostOf, normaliseUrl } from '#core/extract/address';
import { finalStatus, type AssetRole, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { onLive } from '#core/checks/kit/live-address';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed, unsure } from '#core/checks/kit/judgement';
import { isOrganisation, nodesOf, organisationType } from './structured-nodes';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage, andList } from '#core/text/common-messages';

const msg = defineMessages('identity.organisation-data', {
  'no-organization': 'no Organization',
  'foreign-url': '{node} url is {url}',
  'node-lacks': '{node} without {lacking}',
  'logo-status': '{node}, whose logo {url} answers {status}',
  'url-status': '{node}, whose url {url} answers {status}',
  'not-fetched': '{url} was not asked for',
});

/** What a node lacks; its `url` where that leads to another host. */
interface NodeFault {
  lacking: string[];
  url?: string;
}

/** What a node lacks, and what is wrong in it; undefined when nothing is. */
function faultOf(
  { name, url, logo }: JsonLdNode,
  base: string,
  isOwnHost: (host: string) => boolean,
): NodeFault | undefined {
  const lacking = [...(name ? [] : ['name']), ...(url ? [] : ['url']), ...(logo ? [] : ['logo'])];
  if (lacking.length) return { lacking };
  const own = isOwnHost(hostOf(normaliseUrl(url!, base) ?? '') ?? '');
  return own ? undefined : { lacking: ['url'], url };
}

const faultSaid = (node: JsonLdNode, { lacking, url }: NodeFault): Message =>
  url === undefined
    ? msg('node-lacks', { node: labelOf(node), lacking: andList(lacking) })
    : msg('foreign-url', { node: labelOf(node), url });

/** A node by the type that makes it an organisation, and its name. */
function labelOf(node: JsonLdNode): string {
  const type = organisationType(node) ?? 'Organization';
  return node.name ? `${type} “${node.name}”` : type;
}

/** How an address that the node names was answered; undefined where it was not asked for. */
function chainOf({ evidence, view }: CheckContext, url: string): Chain | undefined {
  const asset = evidence.assets.find((a) => a.url === url);
  return asset?.chain ?? view.asked.get(url)?.chain ?? evidence.links.find((l) => l.url === url)?.chain;
}

/**
 * Whether an address is one that is to answer: a logo within the page itself is none; before the launch the live address
 * says nothing; elsewhere a logo may lie that nobody asked for.
 */
function mustAnswer({ view, situation }: CheckContext, url: string, chain: Chain | undefined): boolean {
  if (!/^https?:/.test(url)) return false;
  return view.siteHosts.has(hostOf(url) ?? '') || (chain !== undefined && situation !== 'staging');
}

/** How one address that a complete node names was answered; undefined where it answers, or need not. */
function faultAt(
  context: CheckContext,
  node: JsonLdNode,
  code: 'logo-status' | 'url-status',
): PlaceResult | undefined {
  const home = context.view.home!.url;
  const given = code === 'logo-status' ? node.logo! : node.url!;
  const url = normaliseUrl(given, home);
  const chain = url ? chainOf(context, url) : undefined;
  if (!url || !mustAnswer(context, url, chain)) return undefined;
  const status = chain && finalStatus(chain);
  if (status === undefined)
    return unsure(home, verbatim(chain?.error?.message) ?? msg('not-fetched', { url }));
  if (status === 404 || status === 410)
    return failed(home, { found: msg(code, { node: labelOf(node), url, status }) });
  return status >= 400 ? unsure(home, commonMessage('refused', { status })) : undefined;
}

/** Whether logo and address of a complete node answer: the first that does not, or that could not be told. */
const answered = (context: CheckContext, node: JsonLdNode): PlaceResult | undefined =>
  faultAt(context, node, 'logo-status') ?? faultAt(context, node, 'url-status');

const LOGO_ROLES: readonly AssetRole[] = ['logo', 'touch-icon', 'icon', 'share-picture'];

/** A picture of the site that answers and may serve as the logo: one that is called so, else its largest icon. */
function logoOf(context: CheckContext): string | undefined {
  const { evidence } = context;
  const there = evidence.assets.filter(
    (a) => finalStatus(a.chain) === 200 && a.image && /^https?:/.test(a.url),
  );
  const named = there.find((a) => /\blogo\b/i.test(a.url));
  const found =
    named ?? LOGO_ROLES.map((role) => there.find((a) => a.roles.includes(role))).find((a) => a !== undefined);
  // before the launch the same file will be at the live address
  return found && onLive(context, found.url);
}

/** The site's name as its home page has it. */
const siteNameOf = ({ home }: CheckContext['view']): string =>
  home?.openGraph('og:site_name')?.content.trim() ?? home?.facts.titles[0]?.text ?? '';

export const organisationData = defineCheck({
  id: 'identity.organisation-data',
  title: 'JSON-LD Organization has name, url and logo',
  fault: 'JSON-LD Organization is missing or incomplete',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['jsonLd', 'assets', 'otherLinks'],
  needs: { pages: true },
  why: 'Search engines take name, logo and address for their own panel from here.',
  source: 'schema.org',
  judge(context) {
    const { view, brief, situation } = context;
    const host = brief.preferredHost ?? view.preferredHost;
    const expected = `an Organization with name, logo and url https://${host}/`;
    if (!view.home) return cantTell(commonMessage('home-not-read'), { expected });
    const found = nodesOf(view.home).filter(isOrganisation);
    // before the launch the environment's own host is not yet the preferred one
    const isOwnHost = (name: string): boolean =>
      name === host || (situation === 'staging' && view.siteHosts.has(name));
    if (!found.length)
      return overSite(context, failed(view.home.url, { found: msg('no-organization') }), { expected });
    const judged = found.map((node) => ({ node, fault: faultOf(node, view.home!.url, isOwnHost) }));
    const good = judged.find((j) => j.fault === undefined);
    // the node that lacks least is the one that is meant
    const nearest = judged.reduce((a, b) =>
      (b.fault?.lacking.length ?? 0) < (a.fault?.lacking.length ?? 0) ? b : a,
    );
    const raw = view.home.facts.jsonLd.find((b) => b.nodes.includes((good ?? nearest).node))?.raw;
    return overSite(
      context,
      good
        ? {
            ...(answered(context, good.node) ??
              passed(view.home.url, { found: verbatim(labelOf(good.node)) })),
            raw,
          }
        : failed(view.home.url, {
            found: faultSaid(nearest.node, nearest.fault!),
            raw,
          }),
      { expected },
    );
  },
  recipe: (context) => {
    const { brief, view } = context;
    const host = brief.preferredHost ?? view.preferredHost;
    const logo = logoOf(context);
    return {
      steps: logo
        ? 'Put this into the head of the home page, in the place of an Organization that is there.'
        : 'Put this into the head of the home page, in the place of an Organization that is there, with the address of the logo added: no picture of the site could be taken for it.',
      paste: [
        {
          label: 'JSON-LD',
          text: `<script type="application/ld+json">\n${JSON.stringify({ '@context': 'https://schema.org', '@type': 'Organization', name: brief.name ?? siteNameOf(view), url: `https://${host}/`, ...(logo ? { logo } : {}) }, null, 2).replaceAll('<', '\\u003c')}\n</script>`,
        },
      ],
    };
  },
});
