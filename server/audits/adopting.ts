/** Using in the brief what a finding saw. */
import type { JudgedFinding } from '#core/checks/engine/judge';
import { applyAdoption } from '#core/facts/adoption';
import type { Brief } from '#core/facts/brief';
import { Conflict, NotFound } from '#server/platform/errors';
import { findEnvironment, newestBrief } from '#server/sites';
import { findFinding } from './find';

/** The change that takes what a finding saw at a place into the brief. @throws NotFound, Conflict */
export async function changeByFinding(
  environmentId: number,
  check: string,
  place: string,
): Promise<{ siteId: number; field: string; change: Partial<Brief> }> {
  const [environment, row] = await Promise.all([
    findEnvironment(environmentId),
    findFinding(environmentId, check),
  ]);
  if (!environment || !row) throw new NotFound('This finding does not exist, or not any more.');
  const adoption = (row.data as JudgedFinding).places.find((p) => p.place === place)?.adopt;
  if (!adoption) throw new Conflict('What was found there is nothing that the brief could take.');
  return {
    siteId: environment.siteId,
    field: adoption.field,
    change: applyAdoption((await newestBrief(environment.siteId))?.brief ?? {}, adoption),
  };
}
