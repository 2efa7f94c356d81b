/** Sites in bulk: a look at a table before anything is saved, then all or nothing. */
import { writeSitesCsv, type CsvSites } from '#core/formats/sites-csv';
import { allProfiles } from '#server/hosts';
import { inTransaction } from '#server/platform/db/transaction';
import { Refused } from '#server/platform/errors';
import { IsBoolean, IsString } from '#server/platform/http/validation';
import { defineJob } from '#server/platform/jobs/definition';
import type { Work } from '#server/platform/jobs/definition';
import { jobResult } from '#server/platform/jobs/queue';
import { serverWorkers } from '#server/platform/workers';
import { accessesByName, accessName } from './access';
import { newestBrief } from './briefs';
import { Client, Environment, Site } from './models';
import { addSite } from './sites';
import { readTable, type TableJob } from './table-bytes';

async function known() {
  const [profiles, sites, clients, environments] = await Promise.all([
    allProfiles(),
    Site.findAll({ attributes: ['name', 'clientId'] }),
    Client.findAll(),
    Environment.findAll({ attributes: ['access', 'accessSealed'] }),
  ]);
  const names = new Map(clients.map((c) => [c.id, c.name]));
  const accesses = accessesByName(environments);
  return {
    accesses,
    profiles: profiles.map((p) => p.name),
    taken: new Set(sites.map((s) => `${names.get(s.clientId)}\n${s.name}`.toLowerCase())),
  };
}

/** Millions of letters take a second: others are answered meanwhile. */
const threads = serverWorkers('tables-worker.mjs', {
  timeoutMs: 60_000,
  workers: 1,
  words: {
    late: 'The table took too long to read. Split it.',
    broken: 'The table broke what reads it. Split it.',
  },
});

async function read(
  text: string,
  { accesses, ...beside }: Awaited<ReturnType<typeof known>>,
): Promise<CsvSites> {
  const job: TableJob = {
    text,
    known: {
      ...beside,
      accesses: new Map([...accesses].map(([name, access]) => [name, access ? 'one' : 'many'])),
    },
  };
  return JSON.parse(await (threads.run(job) ?? readTable(job))) as CsvSites;
}

/** What the table says, every bad cell marked. */
export async function previewCsv(text: string): Promise<CsvSites> {
  return read(text, await known());
}

class ImportPayload {
  @IsString() text!: string;
  @IsBoolean() onlyGood!: boolean;
}
interface Imported {
  taken: number;
  left: number;
}

/** Adding the sites of a table. */
const importJob = defineJob<ImportPayload>({
  name: 'import',
  lane: 'waited',
  payload: ImportPayload,
  run: ({ text, onlyGood }, { by, hold }) => addRows(text, onlyGood, by, hold),
});

/**
 * Takes on every row that is right.
 * @param onlyGood leave bad rows out instead of refusing all.
 * @throws Refused
 */
export function importCsv(text: string, onlyGood: boolean, by: string): Promise<Imported> {
  return jobResult(importJob, { text, onlyGood }, { by, title: 'Adding sites from a table' });
}

/** @param hold throws where another worker adds them by now */
async function addRows(text: string, onlyGood: boolean, by: string, hold: Work['hold']): Promise<Imported> {
  const there = await known();
  const { rows, faults } = await read(text, there);
  const good = rows.filter((r) => r.site);
  if (faults.length || !good.length || (good.length < rows.length && !onlyGood))
    throw new Refused(
      faults[0] ??
        (good.length
          ? `${rows.length - good.length} rows have faults; correct them, or take only the good ones.`
          : 'No row can be added.'),
    );
  await inTransaction(async (transaction) => {
    await hold(transaction);
    for (const { site, access } of good) {
      const [staging] = site!.environments;
      const kept = access ? there.accesses.get(access) : undefined;
      if (staging && kept) staging.access = kept;
      await addSite(site!, by, transaction);
    }
  });
  return { taken: good.length, left: rows.length - good.length };
}

/** All sites as the table that the import reads. */
export async function sitesCsv(): Promise<string> {
  const [sites, clients, environments, hosts] = await Promise.all([
    Site.findAll({ order: [['name', 'ASC']] }),
    Client.findAll(),
    Environment.findAll({ order: [['position', 'ASC']] }),
    allProfiles(),
  ]);
  const profiles = new Map(hosts.map((h) => [h.id, h.name]));
  const names = new Map(clients.map((c) => [c.id, c.name]));
  const briefs = new Map<number, Record<string, unknown>>();
  for (const s of sites)
    briefs.set(s.id, ((await newestBrief(s.id))?.brief ?? {}) as Record<string, unknown>);
  return writeSitesCsv(
    sites.map((s) => {
      const own = environments.filter((p) => p.siteId === s.id);
      const staging = own.filter((p) => p.kind === 'before').at(-1);
      return {
        name: s.name,
        client: names.get(s.clientId) ?? '',
        liveUrl: own.find((p) => p.kind === 'live')?.url ?? '',
        staging: staging?.url ?? '',
        access: (staging && accessName(staging)) ?? '',
        stage: s.stage,
        launchDate: s.launchDate ?? '',
        replaces: s.replaces,
        hostProfile: profiles.get(s.hostProfileId ?? 0) ?? '',
        brief: briefs.get(s.id)!,
      };
    }),
  );
}
