/** What is wrong with a text while it is typed: by the rules of the audit’s own checks. */
import { defaultTitles } from '#core/checks/catalogue/identity/no-default-title';
import { defaultTaglines } from '#core/checks/catalogue/identity/no-default-tagline';
import { fillerIn } from '#core/checks/catalogue/identity/no-placeholder-text';
import { carriesPhrase } from '#core/checks/catalogue/metadata/key-phrases';
import { namesSite } from '#core/checks/kit/site-name';
import type { TextField } from '#core/checks/kit/default-texts';
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import { foldLoosely, foldSpace } from '#core/text/fold';
import { countCharacters } from '#core/text/width';

export interface Concern {
  /** Nothing where it holds. */
  fault?: string;
  /** The audit does not ask it of this page. */
  isHint?: true;
  /** What holds, in words. */
  label: string;
}

/** What texts are measured by, beside their length. */
export interface Wanted {
  brief: Pick<Brief, 'name' | 'keyPhrases'>;
  profile?: HostProfile;
}

/** Texts by how they are compared, with the paths of their pages. */
export type TakenText = ReadonlyMap<string, readonly string[]>;
export const takenKey = (text: string): string => foldSpace(text).toLowerCase();

/** Letters in a row without a small one among them, of more than one word: shouting. Common practice. */
const SHOUTING = /\p{Lu}{4,}[^\p{Ll}]*\s[^\p{Ll}]*\p{Lu}{4,}/u;

const concern = (label: string, fault: string | false): Concern => ({ label, ...(fault ? { fault } : {}) });

/** What the audit asks of the home page, and what is worth knowing elsewhere. */
function ofTheSite(text: string, path: string, { name, keyPhrases = [] }: Wanted['brief']): Concern[] {
  const found = [
    ...(name ? [concern('the site’s name', !namesSite(text, name) && `“${name}” is not in it`)] : []),
    ...(keyPhrases.length
      ? [concern('a key phrase', !carriesPhrase(text, keyPhrases) && 'no key phrase is in it')]
      : []),
  ];
  return path === '/' ? found : found.map((c) => ({ ...c, isHint: true as const }));
}

function ofTheHost(text: string, profile: HostProfile | undefined): Concern[] {
  const limit = profile?.descriptionLimit;
  if (limit === undefined) return [];
  return [
    concern(
      `${limit} characters at the host`,
      countCharacters(text) > limit && `the host takes ${limit} characters`,
    ),
  ];
}

/**
 * @param path the page the text is for
 * @param taken intended and live texts of the site’s other pages
 */
export function concernsOf(
  field: TextField,
  text: string,
  { path, taken, wanted }: { path: string; taken: TakenText; wanted: Wanted },
): Concern[] {
  const { profile } = wanted;
  const others = (taken.get(takenKey(text)) ?? []).filter((p) => p !== path);
  const defaults = field === 'title' ? defaultTitles(profile) : defaultTaglines(profile);
  const filler = fillerIn(text, profile);
  return [
    ...ofTheSite(text, path, wanted.brief),
    concern('unique', others.length > 0 && `${others[0]} has it too`),
    concern('no default', defaults.has(foldLoosely(text)) && 'it is a default text'),
    concern('no filler', filler !== undefined && `“${filler}” is filler`),
    concern('no shouting', SHOUTING.test(text) && 'it shouts'),
    ...(field === 'description' ? ofTheHost(text, profile) : []),
  ];
}
