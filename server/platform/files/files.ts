/** Files of a site: kept with a cap, a known type and a quota, and gone with what they belong to. */
import type { CreationOptional, Transaction } from 'sequelize';
import { quantity } from '#core/text/quantity';
import { now } from '#server/platform/clock';
import { defineModels } from '#server/platform/db/models';
import { bind, id, ref, Row, text, when } from '#server/platform/db/row';
import { inTransaction } from '#server/platform/db/transaction';
import { NotFound, Refused } from '#server/platform/errors';
import { databaseStore, folderStore, getStore, type FileStore } from './store';

export class FileRow extends Row<FileRow> {
  declare id: CreationOptional<number>;
  declare siteId: number | null;
  declare environmentId: number;
  declare name: string;
  declare type: string;
  declare bytes: number;
  declare byName: string;
  declare at: Date;
  declare stored: FileStore['name'];
}

defineModels(() => {
  bind(FileRow, 'file', {
    id,
    siteId: ref,
    environmentId: ref,
    name: text(200),
    type: text(60),
    bytes: ref,
    byName: text(120),
    at: when,
    stored: text(10),
  });
});

/** Kinds of file by their first bytes; what is none of them is kept only as plain text. */
const KINDS: { type: string; starts: (b: Buffer) => boolean }[] = [
  {
    type: 'image/png',
    starts: (b) => b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  },
  { type: 'image/jpeg', starts: (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff },
  {
    type: 'image/webp',
    starts: (b) => b.toString('latin1', 0, 4) === 'RIFF' && b.toString('latin1', 8, 12) === 'WEBP',
  },
  { type: 'image/avif', starts: (b) => /^ftypavi[fs]/.test(b.toString('latin1', 4, 12)) },
  { type: 'image/gif', starts: (b) => /^GIF8[79]a/.test(b.toString('latin1', 0, 6)) },
  { type: 'application/pdf', starts: (b) => b.toString('latin1', 0, 5) === '%PDF-' },
];

/** @returns the type by the bytes themselves; undefined for what is not kept */
export function typeOfFile(bytes: Buffer): string | undefined {
  const kind = KINDS.find((k) => k.starts(bytes));
  if (kind) return kind.type;
  if (bytes.includes(0)) return undefined;
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'text/plain; charset=utf-8';
  } catch {
    return undefined;
  }
}

const MEGABYTE = 1024 * 1024;
/** What all files of one site may take, unless ARMBAND_FILES_QUOTA (MB) says otherwise. */
const QUOTA_MB = 200;

export interface NewFile {
  siteId: number;
  environmentId: number;
  name: string;
  bytes: Buffer;
  byName: string;
  at: Date;
}

/**
 * Keeps a file.
 * @param mostBytes the largest that is taken
 * @param within a transaction that is open already, of which this becomes a part
 * @throws Refused for what is empty, too large, of no known kind, or more than a site may have
 */
export function storeFile(
  { bytes, name, ...of }: NewFile,
  mostBytes: number,
  within?: Transaction,
): Promise<FileRow> {
  if (!bytes.length) throw new Refused('The file is empty.');
  if (bytes.length > mostBytes) throw new Refused(`The file is larger than ${mostBytes / MEGABYTE} MB.`);
  const type = typeOfFile(bytes);
  if (!type)
    throw new Refused(
      'Pictures (PNG, JPEG, WebP, AVIF, GIF), PDF and plain text can be kept, not this file.',
    );
  const plain =
    name
      .replace(/[\u0000-\u001f\u007f/\\]/g, '')
      .trim()
      .slice(0, 200) || 'file';
  const quota = Number(process.env.ARMBAND_FILES_QUOTA ?? QUOTA_MB) * MEGABYTE;
  const store = getStore();
  return inTransaction(async (transaction) => {
    const taken = Number((await FileRow.sum('bytes', { where: { siteId: of.siteId }, transaction })) || 0);
    if (taken + bytes.length > quota)
      throw new Refused(
        `The files of this site would take more than ${quantity(quota / MEGABYTE, 'megabyte')}. Delete some first.`,
      );
    const row = await FileRow.create(
      { ...of, name: plain, type, bytes: bytes.length, stored: store.name },
      { transaction },
    );
    await store.put(row.id, bytes, transaction);
    return row;
  }, within);
}

/**
 * Keeps what an audit made itself: it is of its environment, and nothing of the site’s quota.
 * @param within the transaction that it becomes a part of
 */
export async function storeSeenPicture(
  { environmentId, name, bytes }: Pick<NewFile, 'environmentId' | 'name' | 'bytes'>,
  within: Transaction,
): Promise<FileRow> {
  const type = typeOfFile(bytes);
  if (!type) throw new Refused('A picture of a page came in a form that is not known.');
  const store = getStore();
  const row = await FileRow.create(
    {
      siteId: null,
      environmentId,
      name,
      type,
      bytes: bytes.length,
      byName: '',
      at: now(),
      stored: store.name,
    },
    { transaction: within },
  );
  await store.put(row.id, bytes, within);
  return row;
}

const GONE = 'This file does not exist, or not any more.';

/** A file with its bytes, wherever they lie. @throws NotFound */
export async function readStoredFile(fileId: number): Promise<{ name: string; type: string; data: Buffer }> {
  const row = await FileRow.findByPk(fileId);
  if (!row) throw new NotFound(GONE);
  const { name, type, stored } = row;
  const { ARMBAND_FILES: folder } = process.env;
  const store = stored === 'folder' && folder ? folderStore(folder) : databaseStore;
  const data = await store.get(fileId);
  if (!data) throw new NotFound(GONE);
  return { name, type, data };
}

/** Drops bytes that belong to nothing any more. @returns of how many files */
export function tidyFiles(): Promise<number> {
  return getStore().tidy(async (ids) => {
    const rows = await FileRow.findAll({ where: { id: [...ids] }, attributes: ['id'] });
    return new Set(rows.map((r) => r.id));
  });
}
