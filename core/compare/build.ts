/** A build as somebody uploaded it, against what a site serves: is what I uploaded what they see? */
import { finalStatus, type Chain, type Evidence } from '#core/facts/evidence';
import type { BuiltFile, SiteBuild } from '#core/facts/environment';
import { hostOf, splitAddress } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';
import { differenceOf, type Difference } from './sites/difference';
import { COMPARED_NAMES, faceOf } from './sites/page-face';

/** Files that configure a server and are not served. */
const CONFIGURATION =
  /(?:^|\/)(?:\.(?:htaccess|nojekyll)|_(?:headers|redirects|routes\.json)|nginx\.conf|web\.config|[^/]+\.toml|CNAME)$/;

/** What systems leave in folders, and no site. */
export const isLitter = (path: string): boolean =>
  /(?:^|\/)(?:\.DS_Store|Thumbs\.db|desktop\.ini)$|^__MACOSX\/|(?:^|\/)\.git\//.test(path);

export type BuildState = 'same' | 'injected' | 'differs' | 'missing' | 'unknown' | 'unread' | 'not served';

export interface BuildFile {
  /** From the root, with a slash. */
  path: string;
  state: BuildState;
  /** Where it was met. */
  url?: string;
  /** The status of what is missing, or why nothing is known. */
  why?: string;
  /** The answer to what is missing. */
  status?: number;
  /** Of a page that differs: in what. */
  differences?: Difference[];
}

export interface BuildComparison {
  files: BuildFile[];
  counts: Record<BuildState, number>;
  /** What the site serves that the build has not. */
  extra: string[];
}

/** A file as the site serves it. */
interface Served {
  url: string;
  chain: Chain;
  sha256?: string;
  /** The words of a page. */
  text?: string;
  facts?: PageFacts;
}

function servedBy({ pages, assets, built = [] }: Evidence): Map<string, Served> {
  const served = new Map<string, Served>();
  for (const { url, chain, sha256, facts } of pages)
    served.set(url, { url, chain, sha256, ...(facts ? { text: facts.text, facts } : {}) });
  for (const { url, chain, sha256 } of assets) if (!served.has(url)) served.set(url, { url, chain, sha256 });
  for (const { url, chain, sha256, text } of built)
    if (!served.has(url)) served.set(url, { url, chain, sha256, ...(text === undefined ? {} : { text }) });
  return served;
}

/**
 * Addresses that a file of a build may be served at, the likeliest first; none for what configures a server.
 * @param given its path, with or without a slash at its beginning
 * @param origin without a slash at its end
 */
export function builtAddresses(given: string, origin: string): string[] {
  const path = pathOf(given);
  if (CONFIGURATION.test(path)) return [];
  const all = [
    path.replace(/index\.html?$/, ''),
    path,
    path.replace(/\.html?$/, ''),
    path.replace(/\.html?$/, '/'),
  ].map((p) => origin + encodeURI(p || '/'));
  return [...new Set(all)];
}

const pathOf = (path: string): string => `/${path.replace(/^\//, '')}`;

function stateOf(file: BuiltFile, hit: Served): Pick<BuildFile, 'state' | 'why' | 'status'> {
  const status = finalStatus(hit.chain);
  if (status === undefined) return { state: 'unknown', why: hit.chain.error?.message ?? 'no answer' };
  if (status >= 400) return { state: 'missing', why: `status ${status}`, status };
  if (!hit.sha256) return { state: 'unknown', why: 'only its first bytes were fetched' };
  if (hit.sha256 === file.sha256) return { state: 'same' };
  // hosts put scripts of their own into pages; the text is the site's
  return { state: putIn(file, hit) === '' ? 'injected' : 'differs' };
}

/** What stands in a served page that its file has not, where that is all that differs in its words. */
function putIn({ text: built }: BuiltFile, { text: served }: Served): string | undefined {
  if (built === undefined || served === undefined || served.length < built.length) return undefined;
  let before = 0;
  while (before < built.length && built[before] === served[before]) before++;
  const after = built.length - before;
  return built.slice(before) === served.slice(served.length - after)
    ? served.slice(before, served.length - after).trim()
    : undefined;
}

/** On so many pages the same words are the host’s and nobody’s who built them. */
const MOST_LIKELY_HOSTS = 3;

interface Differing {
  file: BuildFile;
  built: BuiltFile;
  hit: Served;
}

/** Pages that differ by the same words put into many of them, such as a badge. */
function markInjected(differing: readonly Differing[]): void {
  const byWords = new Map<string, BuildFile[]>();
  for (const { file, built, hit } of differing) {
    const words = putIn(built, hit);
    if (words) byWords.set(words, [...(byWords.get(words) ?? []), file]);
  }
  for (const [words, files] of byWords) {
    if (files.length < MOST_LIKELY_HOSTS) continue;
    for (const file of files) Object.assign(file, { state: 'injected', why: `“${words.slice(0, LONGEST)}”` });
  }
}
const LONGEST = 120;

/** In what a page differs from its file, the site’s own hosts aside. */
function differencesOf({ built, hit }: Differing, hosts: ReadonlySet<string>): Difference[] {
  if (!built.face || !hit.facts) return [];
  const base = new URL('/', hit.url).href;
  const served = faceOf(hit.facts, { base, hosts }, hit.url);
  const plain = (lines: readonly string[]): string[] =>
    lines.map((line) => [...hosts].reduce((out, host) => out.replaceAll(`https://${host}/`, '/'), line));
  return COMPARED_NAMES.flatMap(
    (what) => differenceOf(what, plain(built.face![what] ?? []), plain(served[what])) ?? [],
  );
}

/** What the site’s own host serves that no file of the build accounts for. */
function extraOf(served: ReadonlyMap<string, Served>, met: ReadonlySet<string>, origin: string): string[] {
  const host = hostOf(origin);
  return [...served.values()]
    .filter(({ url, chain }) => hostOf(url) === host && !met.has(url) && (finalStatus(chain) ?? 500) < 400)
    .map(({ url }) => splitAddress(url).path)
    .sort();
}

/** @param origin of the live site, without a slash at its end */
export function compareBuild(build: SiteBuild, evidence: Evidence, origin: string): BuildComparison {
  const served = servedBy(evidence);
  const unread = new Set(evidence.unread);
  const met = new Set<string>();
  const differing: Differing[] = [];
  const files = build.files.map((file): BuildFile => {
    const path = pathOf(file.path);
    const addresses = builtAddresses(path, origin);
    if (!addresses.length) return { path, state: 'not served' };
    const hit = addresses.map((a) => served.get(a)).find((s) => s !== undefined);
    // what the page limit left unread is said beside the score
    if (!hit)
      return addresses.some((a) => unread.has(a))
        ? { path, state: 'unread' }
        : { path, state: 'unknown', why: 'it was not fetched' };
    met.add(hit.url);
    const compared: BuildFile = { path, url: hit.url, ...stateOf(file, hit) };
    if (compared.state === 'differs') differing.push({ file: compared, built: file, hit });
    return compared;
  });
  markInjected(differing);
  const hosts = new Set(evidence.target.hosts);
  for (const one of differing) {
    const differences = one.file.state === 'differs' ? differencesOf(one, hosts) : [];
    if (differences.length) one.file.differences = differences;
  }
  const counts: BuildComparison['counts'] = {
    same: 0,
    injected: 0,
    differs: 0,
    missing: 0,
    unknown: 0,
    unread: 0,
    'not served': 0,
  };
  for (const { state } of files) counts[state]++;
  return { files, counts, extra: extraOf(served, met, origin) };
}
