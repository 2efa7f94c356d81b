/** The newest build of a site: taken, kept, and held against what the live site serves. */
import { compareBuild } from '#core/compare/build';
import type { BuildComparison } from '#core/compare/build';
import type { SiteBuild } from '#core/facts/environment';
import { isAuditing, findEvidence } from '#server/audits';
import { now } from '#server/platform/clock';
import { emit } from '#server/platform/domain-events';
import { Refused } from '#server/platform/errors';
import { readEvidence, packJson, unpackJson } from '#server/platform/packed';
import { serverWorkers } from '#server/platform/workers';
import { assertSite, liveEnvironmentOf } from '#server/sites';
import { BuildRow } from './models';
import { readBuild } from './read-build';

/** Of the archive. */
export const MOST_BUILD_BYTES = 100 * 1024 * 1024;

const threads = serverWorkers('builds-worker.mjs', {
  timeoutMs: 120_000,
  workers: 1,
  words: {
    late: 'The build took too long to read. Leave out what is not served.',
    broken: 'The build broke what reads it. Pack it anew as a plain ZIP.',
  },
});

/** What is said of a build. */
export interface BuildLine {
  name: string;
  files: number;
  bytes: number;
  by: string;
  at: string;
}

const lineOf = ({ name, files, bytes, byName, at }: BuildRow): BuildLine => ({
  name,
  files,
  bytes: Number(bytes),
  by: byName,
  at: at.toISOString(),
});

/**
 * Keeps a build in place of the one before.
 * @throws NotFound, Refused for what is none
 */
export async function saveBuild(siteId: number, name: string, zip: Buffer, by: string): Promise<BuildLine> {
  await assertSite(siteId);
  let read: string;
  try {
    read = await (threads.run({ name, zip }) ?? readBuild({ name, zip }));
  } catch (error) {
    throw new Refused((error as Error).message);
  }
  const build = JSON.parse(read) as SiteBuild;
  const row = {
    siteId,
    name: name.slice(0, 200),
    files: build.files.length,
    bytes: build.files.reduce((sum, f) => sum + f.bytes, 0),
    byName: by,
    at: now(),
    data: await packJson(build),
  };
  await BuildRow.upsert(row);
  await emit('SiteTouched', { siteId });
  return lineOf(BuildRow.build(row));
}

/** Forgets the build of a site. */
export async function deleteBuild(siteId: number): Promise<void> {
  await BuildRow.destroy({ where: { siteId } });
  await emit('SiteTouched', { siteId });
}

/** The manifest of a site’s build, where it has one, as it is judged by: with no more than the words of its pages. */
export async function buildOf(siteId: number): Promise<SiteBuild | undefined> {
  const row = await BuildRow.findByPk(siteId, { attributes: ['siteId', 'data'] });
  if (!row) return undefined;
  const { name, files } = await unpackJson<SiteBuild>(row.data);
  return { name, files: files.map(({ face: _, ...file }) => file) };
}

export interface BuildState {
  build: BuildLine | null;
  /** Against what the newest audit of the live environment saw. */
  compared: (BuildComparison & { at: string; url: string }) | null;
  /** The environment that an audit would look at. */
  live: { id: number; isAuditing: boolean } | null;
}

export async function buildState(siteId: number): Promise<BuildState> {
  const row = await BuildRow.findByPk(siteId);
  const environment = await liveEnvironmentOf(siteId);
  const live = environment && {
    id: environment.id,
    isAuditing: await isAuditing(environment.id),
  };
  if (!row) return { build: null, compared: null, live };
  const stored = environment?.lastAuditId ? await findEvidence(environment.lastAuditId) : null;
  if (!stored) return { build: lineOf(row), compared: null, live };
  const [build, evidence] = await Promise.all([unpackJson<SiteBuild>(row.data), readEvidence(stored.data)]);
  const [host] = evidence.target.hosts;
  const url = `https://${host}`;
  return {
    build: lineOf(row),
    compared: { ...compareBuild(build, evidence, url), at: evidence.finishedAt, url },
    live,
  };
}

export const hasBuild = async (siteId: number): Promise<boolean> =>
  (await BuildRow.count({ where: { siteId } })) > 0;
