/** What all processes ask: the time, and the store of files. */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { now, readClock, setClockRate, clockRate } from '../../server/platform/clock';
import { closeDatabase, database } from '../../server/platform/db/connection';
import { migrate } from '../../server/platform/db/migrate';
import { FileRow, storeFile, readStoredFile, tidyFiles } from '../../server/platform/files/files';
import { useModels } from '../../server/platform/db/models';

const FOLDER = resolve('.test/clock-and-files');
const parts: { stop(): Promise<void> }[] = [];
const files = mkdtempSync(join(tmpdir(), 'armband-files-'));
beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  Object.assign(process.env, env);
  useModels();
  await migrate();
  const sql = (text: string) => database().query(text);
  await sql("INSERT INTO client (id, name) VALUES (1, 'Kites')");
  await sql(
    "INSERT INTO site (id, client_id, name, stage, replaces, created_at) VALUES (1, 1, 'Kites', 'launched', 0, NOW(3))",
  );
  await sql(
    "INSERT INTO environment (id, site_id, name, kind, url, access, position) VALUES (1, 1, 'Live', 'live', 'https://a.example/', 'open', 0)",
  );
});
afterAll(async () => {
  await closeDatabase();
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
  rmSync(files, { recursive: true, force: true });
});

describe('the clock', () => {
  afterEach(() => setClockRate(1));
  it('is the database\u2019s, whatever this machine\u2019s own says', async () => {
    const real = Date.now;
    try {
      // three hours ahead from now on
      Date.now = () => real() + 3 * 3_600_000;
      await readClock();
      expect(Math.abs(now().getTime() - real())).toBeLessThan(2000);
    } finally {
      Date.now = real;
      await readClock();
    }
  });
  it('runs fast from where it was, for every process that asks', async () => {
    const before = now().getTime();
    await setClockRate(3600);
    expect(clockRate()).toBe(3600);
    const later = now().getTime();
    expect(later).toBeGreaterThanOrEqual(before);
    expect(later - before).toBeLessThan(3_600_000);
    // another process reads what was set
    await setClockRate(3600);
    await readClock();
    expect(now().getTime()).toBeGreaterThan(later);
    await setClockRate(1);
    const at = now().getTime();
    expect(now().getTime() - at).toBeLessThan(1000);
  });
});

const PNG = Buffer.from('89504e470d0a1a0a0000', 'hex');
const file = (bytes: Buffer) => ({
  siteId: 1,
  environmentId: 1,
  name: '../a\\b.png',
  bytes,
  byName: 'Mara',
  at: new Date(),
});

describe.each([
  ['in MariaDB', undefined],
  ['in a folder', files],
])('files %s', (_, folder) => {
  beforeAll(() => {
    if (folder) process.env.ARMBAND_FILES = folder;
  });
  afterAll(async () => {
    await FileRow.destroy({ where: {} });
    delete process.env.ARMBAND_FILES;
    delete process.env.ARMBAND_FILES_QUOTA;
  });
  it('come back as they were, under a plain name', async () => {
    const row = await storeFile(file(PNG), 1000);
    expect(row.stored).toBe(folder ? 'folder' : 'database');
    expect(await readStoredFile(row.id)).toEqual({ name: '..ab.png', type: 'image/png', data: PNG });
  });
  it.each<[string, Buffer, RegExp]>([
    ['nothing', Buffer.alloc(0), /empty/],
    ['more than is taken', Buffer.alloc(2000, 0x20), /larger/],
    ['a program', Buffer.from('7f454c460000', 'hex'), /not this file/],
  ])('refuses %s', async (__, bytes, why) => {
    await expect(Promise.resolve().then(() => storeFile(file(bytes), 1000))).rejects.toThrow(why);
  });
  it('are no more than a site may have', async () => {
    process.env.ARMBAND_FILES_QUOTA = '0.001';
    await storeFile(file(Buffer.alloc(900, 0x20)), 1000);
    await expect(storeFile(file(Buffer.alloc(900, 0x20)), 1000)).rejects.toThrow('would take more than');
    delete process.env.ARMBAND_FILES_QUOTA;
  });
  it('go with what they belong to', async () => {
    const row = await storeFile(file(PNG), 1000);
    await FileRow.destroy({ where: { id: row.id } });
    expect(await tidyFiles()).toBe(folder ? 1 : 0);
    await expect(readStoredFile(row.id)).rejects.toThrow('does not exist');
    if (folder)
      expect(readdirSync(folder, { recursive: true }).map(String)).not.toContain(`${row.id % 256}/${row.id}`);
  });
});
