/** Two states of a site, page by page: two environments, or two audits of one. Pure. */
import { nearDuplicates } from '#core/compare/near-duplicates';
import { finalStatus, type Evidence, type PageEvidence } from '#core/facts/evidence';
import { aheadOf, type Ahead, type Side } from './ahead';
import { differenceOf, type Difference } from './difference';
import { siteChanges, type SiteChange } from './site-changes';
import {
  baseOf,
  COMPARED_NAMES,
  faceOf,
  pathBelow,
  type Compared,
  type Face,
  type Ground,
} from './page-face';

export interface ComparedPage {
  path: string;
  kind: 'added' | 'gone' | 'moved' | 'changed' | 'same';
  /** Where a moved page stood before. */
  from?: string;
  /** Its addresses, on the first side and on the second. */
  urls: [string | null, string | null];
  title: string;
  differences: Difference[];
  /** It differs by nothing but what many pages have in common. */
  onlyCommon?: true;
}

/** A line that many pages lost or gained, said once. */
interface CommonLine {
  what: Difference['what'];
  kind: 'gone' | 'added';
  line: string;
  pages: number;
}

/** What has to differ between an environment before the live one and the live one, and so is not told. */
interface SetAside {
  what: string;
  pages: number;
}

export interface Comparison {
  pages: ComparedPage[];
  counts: Record<ComparedPage['kind'], number>;
  common: CommonLine[];
  setAside: SetAside[];
  /** Hosts, records, headers, certificates. */
  site: SiteChange[];
  ahead: Ahead;
  notes: string[];
}

/** Alike enough to be the same page under another address. */
const MOVED = 0.8;

/** What differs by nature where one side is not live yet. */
const BY_NATURE: Partial<Record<Compared, string>> = {
  robots: 'what keeps search engines out',
  canonical: 'canonical addresses',
  measuring: 'scripts that measure',
};

/** A page that was read, as it is compared. */
interface Faced {
  path: string;
  page: PageEvidence;
  face: Face;
}

/** Where the pages of a side stand. */
function groundOf(evidence: Evidence, hosts: ReadonlySet<string>): Ground {
  const digests = new Map(evidence.assets.flatMap((a) => (a.sha256 ? [[a.url, a.sha256] as const] : [])));
  return { base: baseOf(evidence), hosts, digests };
}

/** The pages of a side that answered, by their paths. */
function facesOf(evidence: Evidence, hosts: ReadonlySet<string>): Map<string, Faced> {
  const ground = groundOf(evidence, hosts);
  const out = new Map<string, Faced>();
  for (const page of evidence.pages) {
    const status = finalStatus(page.chain);
    if (!page.facts || status === undefined || status >= 400) continue;
    const path = pathBelow(page.url, ground.base);
    if (!out.has(path)) out.set(path, { path, page, face: faceOf(page.facts, ground, page.url) });
  }
  return out;
}

const textOf = ({ face }: Faced): string => face.text[0] ?? '';

/** Pages of one side alone that stand on the other under another address: by their text. */
function movedPages(gone: readonly Faced[], added: readonly Faced[]): Map<Faced, Faced> {
  const out = new Map<Faced, Faced>();
  const taken = new Set<Faced>();
  const all = [...gone, ...added];
  for (const { of, like } of nearDuplicates(all.map(textOf), MOVED)) {
    const [before, after] = [all[like]!, all[of]!];
    if (like >= gone.length || of < gone.length || taken.has(before) || !textOf(before)) continue;
    taken.add(before);
    out.set(after, before);
  }
  return out;
}

/** Compares pages that stand on both sides. */
class Pairs {
  readonly aside = new Map<string, number>();

  /** @param across one side is live and the other is not */
  constructor(private readonly across: boolean) {}

  /** What differs, without what has to. */
  differences(before: Faced, after: Faced): Difference[] {
    const out: Difference[] = [];
    const [then, now] = [finalStatus(before.page.chain), finalStatus(after.page.chain)];
    if (then !== now) out.push({ what: 'status', gone: [String(then)], added: [String(now)] });
    for (const what of COMPARED_NAMES) {
      const difference = differenceOf(what, before.face[what], after.face[what]);
      if (!difference) continue;
      const nature = this.across ? BY_NATURE[what] : undefined;
      if (nature === undefined) out.push(difference);
      else this.aside.set(nature, (this.aside.get(nature) ?? 0) + 1);
    }
    if (this.across && before.page.url !== after.page.url) {
      const what = 'hosts in addresses';
      this.aside.set(what, (this.aside.get(what) ?? 0) + 1);
    }
    return out;
  }
}

const RANK: Record<ComparedPage['kind'], number> = { changed: 0, moved: 1, gone: 2, added: 3, same: 4 };

function pageOf(
  kind: ComparedPage['kind'],
  before: Faced | undefined,
  after: Faced | undefined,
  differences: Difference[],
): ComparedPage {
  const shown = (after ?? before)!;
  return {
    path: shown.path,
    kind,
    ...(kind === 'moved' ? { from: before!.path } : {}),
    urls: [before?.page.url ?? null, after?.page.url ?? null],
    title: shown.face.title[0] ?? '',
    differences,
  };
}

/** So many pages make a line common, if they are half of those that differ. */
const COMMON = 3;

/** Each line that a page lost or gained, once. */
const linesOf = ({ differences }: ComparedPage): Omit<CommonLine, 'pages'>[] =>
  differences.flatMap(({ what, gone, added }) => [
    ...[...new Set(gone)].map((line) => ({ what, kind: 'gone' as const, line })),
    ...[...new Set(added)].map((line) => ({ what, kind: 'added' as const, line })),
  ]);

/** Takes lines that many pages lost or gained, such as those of a foot, out of the pages. */
function takeCommon(pages: readonly ComparedPage[]): CommonLine[] {
  const differing = pages.filter((p) => p.differences.length);
  const found = new Map<string, CommonLine>();
  const keyOf = ({ what, kind, line }: Omit<CommonLine, 'pages'>): string => `${what} ${kind} ${line}`;
  for (const line of differing.flatMap(linesOf)) {
    const known = found.get(keyOf(line));
    if (known) known.pages++;
    else found.set(keyOf(line), { ...line, pages: 1 });
  }
  const least = Math.max(COMMON, differing.length / 2);
  const common = [...found.values()].filter((c) => c.pages >= least);
  const taken = new Set(common.map(keyOf));
  for (const page of differing) {
    page.differences = page.differences.flatMap((d) => {
      const left = (kind: 'gone' | 'added'): string[] =>
        d[kind].filter((line) => !taken.has(keyOf({ what: d.what, kind, line })));
      const [gone, added] = [left('gone'), left('added')];
      return gone.length || added.length || d.more ? [{ ...d, gone, added }] : [];
    });
    if (!page.differences.length && page.kind === 'changed') page.onlyCommon = true;
  }
  return common.sort((a, b) => b.pages - a.pages);
}

/** What a reader has to know of how far the two can be compared. */
function notesOf(sides: readonly [Evidence, Evidence]): string[] {
  const names = ['first', 'second'];
  return sides.flatMap((e, i) => [
    ...(e.unread.length
      ? [
          `The ${names[i]} has ${e.unread.length} more pages that were not read: what is gone or added may be one of them.`,
        ]
      : []),
    ...(e.pages.some((p) => finalStatus(p.chain) === undefined)
      ? [`Some pages of the ${names[i]} gave no answer, and are not compared.`]
      : []),
  ]);
}

/** Compares the first side with the second: what is gone from it, and what was added. */
export function compareSites(first: Side, second: Side): Comparison {
  const hosts = new Set([...first.evidence.target.hosts, ...second.evidence.target.hosts]);
  const before = facesOf(first.evidence, hosts);
  const after = facesOf(second.evidence, hosts);
  const across = first.evidence.target.kind !== second.evidence.target.kind;
  const pairs = new Pairs(across);
  const gone = [...before.values()].filter((p) => !after.has(p.path));
  const added = [...after.values()].filter((p) => !before.has(p.path));
  const moved = movedPages(gone, added);
  const movedFrom = new Set(moved.values());
  const pages: ComparedPage[] = [];
  for (const page of after.values()) {
    const twin = before.get(page.path) ?? moved.get(page);
    if (!twin) {
      pages.push(pageOf('added', undefined, page, []));
      continue;
    }
    const differences = pairs.differences(twin, page);
    const kind = twin.path !== page.path ? 'moved' : differences.length ? 'changed' : 'same';
    pages.push(pageOf(kind, twin, page, differences));
  }
  for (const page of gone) if (!movedFrom.has(page)) pages.push(pageOf('gone', page, undefined, []));
  pages.sort((a, b) => RANK[a.kind] - RANK[b.kind] || (a.path < b.path ? -1 : Number(a.path > b.path)));
  const counts = { added: 0, gone: 0, moved: 0, changed: 0, same: 0 };
  for (const { kind } of pages) counts[kind]++;
  const common = takeCommon(pages);
  return {
    pages,
    counts,
    common,
    setAside: [...pairs.aside].map(([what, n]) => ({ what, pages: n })),
    site: siteChanges(first.evidence, second.evidence).filter(
      ({ where }) => !across || where !== 'x-robots-tag',
    ),
    ahead: aheadOf(first, second, hosts),
    notes: notesOf([first.evidence, second.evidence]),
  };
}
