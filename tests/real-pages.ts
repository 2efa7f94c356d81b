/**
 * Real HTML pages: those that come inside npm packages (documentation, test pages) and, where it is
 * installed, in Debian's documentation.
 */
import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

export interface RealPage {
  file: string;
  bytes: Buffer;
}

/** @param folders where to look, in this order @param fits which sizes in bytes are taken */
export function realPages(
  limit = 400,
  folders = ['node_modules', '/usr/share/doc'],
  fits: (size: number) => boolean = (size) => size > 200 && size < 400_000,
): RealPage[] {
  const out: RealPage[] = [];
  const walk = (folder: string, depth: number): void => {
    let names: string[];
    try {
      names = readdirSync(folder).sort();
    } catch {
      return;
    }
    for (const name of names) {
      if (out.length >= limit) return;
      if (name.startsWith('.')) continue;
      const path = join(folder, name);
      const info = statSync(path, { throwIfNoEntry: false });
      if (!info) continue;
      if (info.isDirectory()) {
        if (depth < 7) walk(path, depth + 1);
      } else if (/\.html?$/.test(name) && fits(info.size))
        out.push({ file: path, bytes: readFileSync(path) });
    }
  };
  for (const folder of folders) walk(folder, 0);
  return out;
}
