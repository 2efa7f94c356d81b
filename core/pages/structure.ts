/** How a site’s pages lie in folders. */
import { SEVERITIES, type Severity } from '#core/facts/finding';
import type { PageLine } from './page-line';

export interface FolderNode {
  /** The last part of its address, as it stands there; the host for the topmost. */
  name: string;
  /** What all addresses below it begin with. */
  path: string;
  /** The page at this very address. */
  page?: string;
  pages: number;
  bytes: number;
  faults: number;
  worst?: Severity;
  children: FolderNode[];
}

const newNode = (name: string, path: string): FolderNode => ({
  name,
  path,
  pages: 0,
  bytes: 0,
  faults: 0,
  children: [],
});

const graver = (a: Severity | undefined, b: Severity | undefined): Severity | undefined =>
  SEVERITIES.find((s) => s === a || s === b);

/** Deeper folders are counted with the one they lie in. */
const MOST_DEEP = 12;

/** @returns one tree for each host, the one with most pages first; each node counts all below it */
export function structureOf(pages: readonly PageLine[]): FolderNode[] {
  const hosts = new Map<string, FolderNode>();
  const known = new Map<string, FolderNode>();
  for (const { url, bytes, faults, worst } of pages) {
    const { origin, host, pathname } = new URL(url);
    let at = hosts.get(origin);
    if (!at) hosts.set(origin, (at = newNode(host, `${origin}/`)));
    const way = [at];
    for (const part of pathname.split('/').filter(Boolean).slice(0, MOST_DEEP)) {
      const path: string = `${at.path}${part}/`;
      let next = known.get(path);
      if (!next) {
        next = newNode(part, path);
        known.set(path, next);
        at.children.push(next);
      }
      at = next;
      way.push(at);
    }
    at.page ??= url;
    for (const node of way) {
      node.pages++;
      node.bytes += bytes ?? 0;
      node.faults += faults;
      const gravest = graver(node.worst, worst);
      if (gravest) node.worst = gravest;
    }
  }
  return [...hosts.values()].sort((a, b) => b.pages - a.pages);
}

/** Whether a page lies in a folder, or is its page. */
export const liesIn = (url: string, path: string): boolean =>
  url.startsWith(path) || `${url.split(/[?#]/)[0]}/` === path;
