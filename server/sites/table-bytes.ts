/** Reading tables of sites: what the tables thread does. */
import { readSitesCsv, type KnownSites } from '#core/formats/sites-csv';

export interface TableJob {
  text: string;
  known: KnownSites;
}

/** @returns the sites as JSON */
export const readTable = async ({ text, known }: TableJob): Promise<string> =>
  JSON.stringify(await readSitesCsv(text, known));
