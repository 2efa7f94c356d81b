/** What changed on a page between two audits. */
import { textOf } from '#core/checks/kit/default-texts';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { finalStatus } from '#core/facts/evidence';

export interface PageChange {
  what: string;
  before: string;
  now: string;
}

const headings = (page: ReadPage): string =>
  page.facts.headings.map((h) => `${h.level} ${h.text}`).join('\n');
const LONGEST = 4000;

/** What is compared, in the order in which it is shown. */
const COMPARED: Record<string, (page: ReadPage) => string> = {
  title: (p) => textOf(p, 'title') ?? '',
  description: (p) => textOf(p, 'description') ?? '',
  canonical: (p) => p.canonicals.map((c) => c.href).join('\n'),
  robots: (p) => p.statements.map((s) => s.text.trim()).join('\n'),
  language: (p) => p.facts.lang?.value ?? '',
  headings,
  'og:title': (p) => p.openGraph('og:title')?.content ?? '',
  'og:description': (p) => p.openGraph('og:description')?.content ?? '',
  'og:image': (p) => p.openGraph('og:image')?.content ?? '',
  text: (p) => p.facts.text.slice(0, LONGEST),
};

/** @returns what differs; nothing where both could not be read; null where the page was not seen before */
export function overChanges(
  before: SiteView | undefined,
  url: string,
  read: ReadPage | undefined,
  status: number | null,
): PageChange[] | null {
  const was = before?.evidence.pages.find((p) => p.url === url);
  if (!before || !was) return null;
  const changes: PageChange[] = [];
  const statusBefore = finalStatus(was.chain) ?? null;
  if (statusBefore !== status)
    changes.push({
      what: 'status',
      before: String(statusBefore ?? 'no answer'),
      now: String(status ?? 'no answer'),
    });
  const old = before.byUrl.get(url);
  if (!old || !read) return changes;
  for (const [what, of] of Object.entries(COMPARED)) {
    const [then, now] = [of(old), of(read)];
    if (then !== now) changes.push({ what, before: then, now });
  }
  return changes;
}
