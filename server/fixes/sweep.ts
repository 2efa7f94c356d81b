/**
 * What happens by itself as time goes by: acceptances and attestations end, findings count again, and people
 * are told.
 */
import { Op } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import {
  isAttestedAnew,
  lapsedAttestations,
  noteAttestationTold,
  type AttestationRow,
  reevaluate,
} from '#server/audits';
import { notify } from '#server/people';
import { now, today } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { IsInt, Min } from '#server/platform/http/validation';
import { defineJob, PRIORITY } from '#server/platform/jobs/definition';
import { enqueue } from '#server/platform/jobs/queue';
import { findEnvironment, getSite } from '#server/sites';
import { AcceptanceRow, Fix } from './models';

const TIME = { cause: 'time', by: 'Armband' } as const;

/** Where something ended, in words and as a link. */
interface Spot {
  where: string;
  link(check: string): string;
}

const titledAs = (check: string, as: 'title' | 'fault'): string => checkById.get(check)?.[as] ?? check;

/** Tells that a fault counts again, and notes that it was told. */
function tellAcceptance(a: AcceptanceRow, { where, link }: Spot): Promise<void> {
  return inTransaction(async (transaction) => {
    const { environmentId, checkId, until, byId } = a;
    const fix = await Fix.findOne({ where: { environmentId, checkId }, transaction });
    const text = `${where}: “${titledAs(checkId, 'fault')}” was left on purpose until ${until}. It counts again.`;
    await notify([fix?.ownerId ?? byId], text, link(checkId), transaction);
    await AcceptanceRow.update({ toldAt: now() }, { where: { id: a.id }, transaction });
  });
}

/** Tells that a check is untested again, unless it was attested anew since. */
function tellAttestation(a: AttestationRow, { where, link }: Spot): Promise<void> {
  return inTransaction(async (transaction) => {
    const { id, environmentId, checkId, place, byId } = a;
    const isNewer = await isAttestedAnew({ id, environmentId, checkId, place }, transaction);
    const text = `${where}: what you attested of “${titledAs(checkId, 'title')}” was good until ${a.goodUntil}. It is untested again.`;
    if (byId && !isNewer) await notify([byId], text, link(checkId), transaction);
    await noteAttestationTold(id, transaction);
  });
}

/** What has ended in one environment. */
async function sweepEnvironment(
  environmentId: number,
  ended: readonly AcceptanceRow[],
  lapsed: readonly AttestationRow[],
): Promise<void> {
  const environment = await findEnvironment(environmentId);
  if (!environment) return;
  const site = await getSite(environment.siteId);
  await reevaluate(environmentId, TIME);
  const spot: Spot = {
    where: `${site.name}, ${environment.name}`,
    link: (check) => `/sites/${site.id}?environment=${environmentId}&check=${check}`,
  };
  for (const a of ended) if (a.environmentId === environmentId) await tellAcceptance(a, spot);
  for (const a of lapsed) if (a.environmentId === environmentId) await tellAttestation(a, spot);
}

/** Finds what has ended, and tells it. */
async function sweep(limit: number, signal: AbortSignal): Promise<void> {
  const ended = await AcceptanceRow.findAll({
    where: { until: { [Op.lt]: today() }, withdrawnAt: null, toldAt: null },
    limit,
  });
  const lapsed = await lapsedAttestations(limit);
  for (const environmentId of new Set([...ended, ...lapsed].map((r) => r.environmentId))) {
    signal.throwIfAborted();
    await sweepEnvironment(environmentId, ended, lapsed).catch((error: unknown) =>
      console.error(`sweep: environment ${environmentId} failed`, error),
    );
  }
}

class SweepPayload {
  /** Ends of a kind that are told at once. */
  @IsInt() @Min(1) atMost!: number;
}

/** Looks for what has ended. */
const sweepJob = defineJob<SweepPayload>({
  name: 'sweep',
  lane: 'work',
  payload: SweepPayload,
  async run({ atMost }, { signal }) {
    await sweep(atMost, signal);
    return undefined;
  },
});

/** Puts one down, unless one waits already. */
export async function sweepOnce(): Promise<void> {
  await enqueue(
    sweepJob,
    { atMost: 500 },
    {
      by: 'Armband',
      title: 'Looking for what has ended',
      priority: PRIORITY.afterwards,
      onlyKey: sweepJob.name,
    },
  );
}
