/** What goes with a site or a client when it is deleted: said beforehand. */
import { QueryTypes } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { assertClient, assertSite } from '#server/sites';

/** How many of each thing go with what is deleted. */
export interface Contents {
  sites: number;
  environments: number;
  audits: number;
  fixes: number;
  attestations: number;
  files: number;
  /** Reports that clients were shown, and yeses that they gave. */
  reports: number;
  yeses: number;
  /** Launches with their run sheets and logs. */
  launches: number;
}

const OF_ENVIRONMENTS = { audits: 'audit', fixes: 'fix', attestations: 'attestation', files: 'file' };
const OF_SITES = { reports: 'report_edition', yeses: 'approval', launches: 'launch' };

async function contentsOf(siteIds: readonly number[]): Promise<Contents> {
  const counts = [
    'SELECT COUNT(*) FROM site WHERE id IN (:ids)',
    'SELECT COUNT(*) FROM environment WHERE site_id IN (:ids)',
    ...Object.values(OF_ENVIRONMENTS).map(
      (table) =>
        `SELECT COUNT(*) FROM ${table} t JOIN environment e ON e.id = t.environment_id WHERE e.site_id IN (:ids)`,
    ),
    ...Object.values(OF_SITES).map((table) => `SELECT COUNT(*) FROM ${table} WHERE site_id IN (:ids)`),
  ];
  const names = ['sites', 'environments', ...Object.keys(OF_ENVIRONMENTS), ...Object.keys(OF_SITES)];
  const [row] = await database().query<Contents>(
    `SELECT ${counts.map((sql, i) => `(${sql}) AS ${names[i]}`).join(', ')}`,
    // nothing is IN an empty list
    { type: QueryTypes.SELECT, replacements: { ids: siteIds.length ? [...siteIds] : [0] } },
  );
  return row!;
}

async function siteIdsOf(clientId: number): Promise<number[]> {
  const rows = await database().query<{ id: number }>('SELECT id FROM site WHERE client_id = :clientId', {
    type: QueryTypes.SELECT,
    replacements: { clientId },
  });
  return rows.map((r) => r.id);
}

/** @throws NotFound */
export async function siteContents(id: number): Promise<Contents> {
  await assertSite(id);
  return contentsOf([id]);
}

/** @throws NotFound */
export async function clientContents(id: number): Promise<Contents> {
  await assertClient(id);
  return contentsOf(await siteIdsOf(id));
}
