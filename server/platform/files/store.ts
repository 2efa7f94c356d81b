/** Where the bytes of files lie. What a file is called and whose it is stands in its row, wherever its bytes are. */
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { QueryTypes, type Transaction } from 'sequelize';
import { database } from '#server/platform/db/connection';

export interface FileStore {
  /** The word that a file's row keeps. */
  readonly name: 'database' | 'folder';
  /** Keeps bytes under a number that has none yet. */
  put(id: number, bytes: Buffer, transaction: Transaction): Promise<void>;
  /** @returns undefined where there is nothing */
  get(id: number): Promise<Buffer | undefined>;
  /** Drops the bytes of files that are not there any more. @param isKept which of these are there */
  tidy(isKept: (ids: readonly number[]) => Promise<ReadonlySet<number>>): Promise<number>;
}

/** In MariaDB: one backup has all. */
export const databaseStore: FileStore = {
  name: 'database',
  async put(id, bytes, transaction) {
    await database().query('INSERT INTO file_content (file_id, data) VALUES (?, ?)', {
      replacements: [id, bytes],
      transaction,
    });
  },
  async get(id) {
    const [row] = await database().query<{ data: Buffer }>(
      'SELECT data FROM file_content WHERE file_id = ?',
      {
        type: QueryTypes.SELECT,
        replacements: [id],
      },
    );
    return row?.data;
  },
  // they go with their rows
  tidy: () => Promise.resolve(0),
};

const AT_ONCE = 500;

/** In a folder that all processes share. */
export function folderStore(folder: string): FileStore {
  const pathOf = (id: number): string => join(folder, String(id % 256), String(id));
  return {
    name: 'folder',
    async put(id, bytes) {
      const path = pathOf(id);
      await mkdir(join(path, '..'), { recursive: true });
      // never half a file under its own name
      await writeFile(`${path}.new`, bytes);
      await rename(`${path}.new`, path);
    },
    get: (id) =>
      readFile(pathOf(id)).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return undefined;
        throw error;
      }),
    async tidy(isKept) {
      const entries = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []);
      const there = entries.filter((e) => e.isFile() && /^\d+$/.test(e.name)).map((e) => Number(e.name));
      let gone = 0;
      for (let i = 0; i < there.length; i += AT_ONCE) {
        const some = there.slice(i, i + AT_ONCE);
        const kept = await isKept(some);
        for (const id of some.filter((n) => !kept.has(n))) {
          await rm(pathOf(id), { force: true });
          gone++;
        }
      }
      return gone;
    },
  };
}

/** MariaDB, or the folder that ARMBAND_FILES names. */
export function getStore(): FileStore {
  const { ARMBAND_FILES: folder } = process.env;
  return folder ? folderStore(folder) : databaseStore;
}
