/** Titles and descriptions that somebody typed into the settings of a page; kept in a file when one is given. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

export interface TypedText {
  title?: string;
  description?: string;
}

const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const keyOf = (slug: string, environment: string, path: string): string => `${slug} ${environment} ${path}`;

export class TypedTexts {
  private readonly texts: Map<string, TypedText>;

  constructor(private readonly file?: string) {
    this.texts = new Map(
      file && existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as [string, TypedText][]) : [],
    );
  }

  /** Types them in; what is not given stays. */
  set(slug: string, environment: string, path: string, text: TypedText): void {
    const key = keyOf(slug, environment, path);
    this.texts.set(key, { ...this.texts.get(key), ...text });
    if (this.file) writeFileSync(this.file, JSON.stringify([...this.texts]));
  }

  /** A page as it is served, with what was typed in for it. */
  in(html: string, slug: string, environment: string, path: string): string {
    const typed = this.texts.get(keyOf(slug, environment, path));
    if (!typed) return html;
    const { title, description } = typed;
    let out = html;
    if (title !== undefined)
      out = out
        .replace(/<title>[^<]*<\/title>/, '')
        .replace('<meta name="viewport"', () => `<title>${escaped(title)}</title><meta name="viewport"`);
    if (description !== undefined)
      out = out
        .replace(/<meta name="description"[^>]*>/, '')
        .replace(
          '<meta name="viewport"',
          () => `<meta name="description" content="${escaped(description)}"><meta name="viewport"`,
        );
    return out;
  }
}
