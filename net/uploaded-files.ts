/**
 * Files that somebody uploaded at a site's host, and the tags that they put into the head of all its pages; kept in a
 * file when one is given.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { unzipSync } from 'fflate';

interface Upload {
  /** By path, as base64. */
  files: Record<string, string>;
  tags: string;
}
interface FileAnswer {
  status: number;
  headers: Record<string, string>;
  body: Buffer;
}

const TYPES: Record<string, string> = {
  ico: 'image/x-icon',
  jpg: 'image/jpeg',
  png: 'image/png',
  svg: 'image/svg+xml',
  webmanifest: 'application/manifest+json',
};
const TAGS = 'tags.html';
const MOST_BYTES = 30_000_000;
const keyOf = (slug: string, environment: string): string => `${slug} ${environment}`;

/** What a tag is there for: a page has one of a kind from its host, or from its owner. */
const kindOf = (tag: string): string | undefined => /\b(?:rel|property|name)="([^"]+)"/.exec(tag)?.[1];

export class UploadedFiles {
  private readonly uploads: Map<string, Upload>;

  constructor(private readonly file?: string) {
    this.uploads = new Map(
      file && existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as [string, Upload][]) : [],
    );
  }

  /** @throws RangeError for names that lead out of the folder, and for what is too much */
  unpack(slug: string, environment: string, zip: Buffer): void {
    let left = MOST_BYTES;
    const found = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        if (name.startsWith('/') || /[\\:]/.test(name) || name.split('/').includes('..'))
          throw new RangeError(`${name} is no name of a file here`);
        left -= originalSize;
        if (left < 0) throw new RangeError('more than a site may have');
        return true;
      },
    });
    const tags = Object.entries(found).find(([name]) => name.endsWith(TAGS));
    const files = Object.entries(found).filter(([name]) => !name.endsWith(TAGS) && !name.endsWith('/'));
    this.uploads.set(keyOf(slug, environment), {
      files: Object.fromEntries(
        files.map(([name, data]) => [`/${name}`, Buffer.from(data).toString('base64')]),
      ),
      tags: tags ? Buffer.from(tags[1]).toString('utf8') : '',
    });
    if (this.file) writeFileSync(this.file, JSON.stringify([...this.uploads]));
  }

  get(slug: string, environment: string, path: string): FileAnswer | undefined {
    const files = this.uploads.get(keyOf(slug, environment))?.files;
    if (!files || !Object.hasOwn(files, path)) return undefined;
    const type = TYPES[path.split('.').at(-1)!] ?? 'application/octet-stream';
    return {
      status: 200,
      headers: { 'content-type': type, 'cache-control': 'public, max-age=3600' },
      body: Buffer.from(files[path]!, 'base64'),
    };
  }

  /** A page as it is served, with the tags in place of those of the same kind. */
  in(html: string, slug: string, environment: string): string {
    const tags = this.uploads.get(keyOf(slug, environment))?.tags;
    if (!tags) return html;
    const kinds = new Set(tags.split('\n').flatMap((tag) => kindOf(tag) ?? []));
    return html
      .replace(/<(?:link|meta)\b[^>]*>/g, (tag) => (kinds.has(kindOf(tag) ?? '') ? '' : tag))
      .replace('<meta name="viewport"', () => `${tags}<meta name="viewport"`);
  }
}
