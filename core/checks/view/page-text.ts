/** A page's words as checks look for them, each form made once when it is first asked for. */
import type { PageFacts } from '#core/extract/html';
import { foldLetters, foldLoosely } from '#core/text/fold';
import { memoize } from '#core/remembering';

export class PageText {
  private small: string | undefined = undefined;
  private loose: string | undefined = undefined;
  private looseTitles: string | undefined = undefined;

  constructor(private readonly facts: Pick<PageFacts, 'text' | 'textLength' | 'titles' | 'marks'>) {}

  get length(): number {
    return this.facts.textLength;
  }
  /** The text in lower case: same length and places as the text but for a few letters that change theirs. */
  get lowered(): string {
    return (this.small ??= this.facts.text.toLowerCase());
  }
  /** The text without case and accents. */
  get folded(): string {
    return (this.loose ??= foldLetters(this.facts.text, this.lowered));
  }
  /** The titles without case and accents, one a line. */
  get foldedTitles(): string {
    return (this.looseTitles ??=
      this.facts.titles.length === 1
        ? foldLoosely(this.facts.titles[0]!.text)
        : this.facts.titles.map((t) => foldLoosely(t.text)).join('\n'));
  }

  /**
   * Whether the page carries a mark: `#id` or `.class` of an element, else words in its title or text,
   * loosely folded.
   */
  carries(mark: string): boolean {
    const wanted = wantedBy(mark);
    if (wanted.element) return this.facts.marks.includes(mark);
    return (
      wanted.words !== '' && (this.foldedTitles.includes(wanted.words) || this.folded.includes(wanted.words))
    );
  }
}

/** Marks come from profiles and briefs: a few, asked for on every page. */
const wantedBy = memoize(
  (mark: string) => ({ element: /^[#.][A-Za-z_][\w-]*$/.test(mark), words: foldLoosely(mark) }),
  2000,
);
