/** What goes with a site or a client when it is deleted: said beforehand. */
import { QueryTypes } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { NotFound } from '#server/platform/errors';

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

const ids = (sql: string, id: number): Promise<{ id: number }[]> =>
  database().query(sql, { type: QueryTypes.SELECT, replacements: { id } });

/** @throws NotFound */
export async function siteContents(id: number): Promise<Contents> {
  if (!(await ids('SELECT id FROM site WHERE id = :id', id)).length)
    throw new NotFound('This site does not exist, or not any more.');
  return contentsOf([id]);
}

/** @throws NotFound */
export async function clientContents(id: number): Promise<Contents> {
  if (!(await ids('SELECT id FROM client WHERE id = :id', id)).length)
    throw new NotFound('This client does not exist, or not any more.');
  return contentsOf((await ids('SELECT id FROM site WHERE client_id = :id', id)).map((s) => s.id));
}
