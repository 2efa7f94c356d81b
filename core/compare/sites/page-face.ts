/** What is compared of a page, with the hosts of its environment set aside. */
import { hostOf, parseUrl } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';
import type { Evidence } from '#core/facts/evidence';
import { analyticsIdIn } from '#core/checks/view/analytics-ids';
import { foldSpace } from '#core/text/fold';

/** Where a page stands: what its addresses are seen from. */
export interface Ground {
  /** The address that paths are below. */
  base: string;
  /** Hosts that are the site’s own, on either side. */
  hosts: ReadonlySet<string>;
  /** Digests of files by their address, where they were read whole. */
  digests?: ReadonlyMap<string, string>;
}

/** What the paths of an environment’s pages are below: its home page, wherever that came to rest. */
export const baseOf = ({ pages, target }: Pick<Evidence, 'pages' | 'target'>): string =>
  pages.find((p) => p.via === 'home')?.url ?? target.url;

/** The path of a page below its base, with its query: the same on every environment. */
export function pathBelow(url: string, base: string): string {
  const folder = new URL('.', base).pathname;
  const { pathname, search } = new URL(url);
  return `/${pathname.startsWith(folder) ? pathname.slice(folder.length) : pathname.slice(1)}${search}`;
}

/** An address as it stands on every environment; one of another site stays as it is. */
export function plainAddress(url: string, { base, hosts }: Ground): string {
  const host = hostOf(url);
  return host !== undefined && hosts.has(host) ? pathBelow(url, base) : url;
}

/** A page’s own ground: what its relative references are seen from too. */
interface Standing extends Ground {
  url: string;
}

/** A file with the first of its digest, so that other bytes under the same name show. */
function fileLine(reference: string, ground: Standing): string {
  const url = parseUrl(reference, ground.url)?.href ?? reference;
  const digest = ground.digests?.get(url);
  return `${plainAddress(url, ground)}${digest === undefined ? '' : ` (${digest.slice(0, 8)})`}`;
}

const sorted = (lines: Iterable<string>): string[] => [...new Set(lines)].filter(Boolean).sort();
const meta = ({ metas }: PageFacts, name: string): string =>
  foldSpace(metas.find((m) => m.name === name || m.property === name)?.content ?? '');

/** Scripts by their addresses, those that measure apart from the others. */
const scriptLines = ({ scripts }: PageFacts, ground: Standing, measuring: boolean): string[] =>
  sorted(
    scripts.flatMap((s) =>
      s.src !== undefined && (analyticsIdIn(s) !== undefined) === measuring ? [fileLine(s.src, ground)] : [],
    ),
  );

/** Own hosts within a text, such as in structured data, are the same on every environment. */
const withoutHosts = (text: string, { hosts }: Ground): string =>
  [...hosts].reduce((out, host) => out.replaceAll(`https://${host}`, ''), text);

type Read = (facts: PageFacts, ground: Standing) => string[];

/** The lines of each thing that is compared, in the order in which it is shown. */
export const COMPARED = {
  title: ({ titles }) => [foldSpace(titles[0]?.text ?? '')].filter(Boolean),
  description: (facts) => [meta(facts, 'description')].filter(Boolean),
  canonical: ({ links }, ground) =>
    sorted(links.filter((l) => l.rel.includes('canonical')).map((l) => plainAddress(l.href, ground))),
  robots: ({ metas }) =>
    sorted(metas.filter((m) => m.name === 'robots').map((m) => foldSpace(m.content.toLowerCase()))),
  language: ({ lang }) => [lang?.value ?? ''].filter(Boolean),
  headings: ({ headings }) => headings.map((h) => `h${h.level} ${foldSpace(h.text)}`),
  text: ({ text }) => [foldSpace(text)].filter(Boolean),
  links: ({ anchors }, ground) => sorted(anchors.map((a) => plainAddress(a.href, ground))),
  forms: ({ forms }, ground) =>
    forms.map(
      (f) => `${f.method} ${plainAddress(f.action, ground)}: ${f.fields.map((x) => x.name).join(', ')}`,
    ),
  scripts: (facts, ground) => scriptLines(facts, ground, false),
  measuring: (facts, ground) => scriptLines(facts, ground, true),
  pictures: ({ images }, ground) => sorted(images.map((i) => fileLine(i.src, ground))),
  icons: ({ links }, ground) =>
    sorted(links.filter((l) => l.rel.some((r) => /icon/.test(r))).map((l) => fileLine(l.href, ground))),
  sharing: (facts, ground) =>
    ['og:title', 'og:description', 'og:image'].flatMap((name) => {
      const value = meta(facts, name);
      return value ? [`${name}: ${name === 'og:image' ? fileLine(value, ground) : value}`] : [];
    }),
  'structured data': ({ jsonLd }, ground) => jsonLd.map((b) => withoutHosts(foldSpace(b.raw), ground)),
} as const satisfies Record<string, Read>;

export type Compared = keyof typeof COMPARED;
export const COMPARED_NAMES = Object.keys(COMPARED) as Compared[];

export type Face = Record<Compared, string[]>;

/** @param url the page’s own address */
export function faceOf(facts: PageFacts, ground: Ground, url: string): Face {
  const standing: Standing = { ...ground, url };
  return Object.fromEntries(COMPARED_NAMES.map((name) => [name, COMPARED[name](facts, standing)])) as Face;
}
