/** Texts that the agency wrote for pages, as tags to paste. */
import { pagePath, type IntendedText } from '#core/facts/intended-text';
import type { Finding } from '#core/facts/finding';
import { textTag } from '#core/recipes/markup';
import type { CheckContext } from './check';
import type { TextField } from './default-texts';
import { failedPlaces } from './judgement';

type Written = Pick<CheckContext, 'intended' | 'evidence'>;

/** What is intended for a page of the site that is looked at. */
export function intendedFor({ intended = [], evidence }: Written): (url: string) => IntendedText | undefined {
  const byPath = new Map(intended.map((i) => [i.path, i]));
  return (url) => byPath.get(pagePath(url, evidence.target.url) ?? '');
}

/** How many pages are written out. */
const MOST_PAGES = 10;

/**
 * The texts of failing pages: as they are written, else as they can be made up.
 * @param made a text for a page of which none is written; nothing where none can be made
 */
export function intendedPaste(
  context: Written,
  finding: Pick<Finding, 'places'>,
  fields: readonly TextField[],
  made: (url: string) => string | undefined = () => undefined,
): { label: string; text: string }[] {
  const wantedFor = intendedFor(context);
  return failedPlaces(finding, MOST_PAGES).flatMap(({ place }) =>
    fields.flatMap((field) => {
      const text = wantedFor(place)?.[field] ?? made(place);
      return text ? [{ label: `${place}, ${field}`, text: textTag(field, text) }] : [];
    }),
  );
}
