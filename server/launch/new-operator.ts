/** Asks the servers that will take a zone over whether they have every record, before anything is moved. */
import { compareServers, linesToCompare, type ComparedServer } from '#core/launch/new-operator';
import { askNamedServers } from '#probe/watching';
import { now } from '#server/platform/clock';
import { Conflict, Refused } from '#server/platform/errors';
import { networkSettings } from '#server/platform/network/network';
import { launchedFrom, planFrom } from './cut-over';

export interface ComparedOperator {
  at: string;
  servers: ComparedServer[];
}

/** @throws NotFound; Conflict where live was never looked at; Refused where no servers move */
export async function compareNewOperator(siteId: number): Promise<ComparedOperator> {
  const plan = planFrom(await launchedFrom(siteId));
  if (!plan)
    throw new Conflict('The live address was not looked at yet: an audit of it says what is served now.');
  if (!plan.move) throw new Refused('The name servers of this site do not move.');
  const asked = linesToCompare(plan.lines).map(({ name, type }): [string, string] => [name, type]);
  const servers = await askNamedServers(networkSettings(), plan.move.to, asked);
  return { at: now().toISOString(), servers: compareServers(servers, plan.lines) };
}
