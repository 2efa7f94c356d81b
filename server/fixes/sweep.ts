/**
 * What happens by itself as time goes by: acceptances and attestations end, findings count again, and people
 * are told.
 */
import { Op } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import { AcceptanceRow, Fix } from './models';
import { AttestationRow } from '../checklists/models';
import { Environment, Site } from '../sites/models';
import { reconcile } from '../audits/audits';
import { reevaluate } from '../audits/judging';
import { inTransaction } from '../platform/db/transaction';
import { tell } from '../people/notifications';

const TIME = { cause: 'time', by: 'Armband' } as const;
const today = (): string => new Date().toISOString().slice(0, 10);

/** Where something ended, in words and as a link. */
interface Spot {
  where: string;
  link(check: string): string;
}

const titleOf = (check: string): string => checkById.get(check)?.title ?? check;

/** Tells that a fault counts again, and notes that it was told. */
function tellAcceptance(a: AcceptanceRow, { where, link }: Spot): Promise<void> {
  return inTransaction(async (transaction) => {
    const { environmentId, checkId, until, byId } = a;
    const fix = await Fix.findOne({ where: { environmentId, checkId }, transaction });
    const text = `${where}: “${titleOf(checkId)}” was left on purpose until ${until}. It counts again.`;
    await tell([fix?.ownerId ?? byId], text, link(checkId), transaction);
    await AcceptanceRow.update({ toldAt: new Date() }, { where: { id: a.id }, transaction });
  });
}

/** Tells that a check is untested again, unless it was attested anew since. */
function tellAttestation(a: AttestationRow, { where, link }: Spot): Promise<void> {
  return inTransaction(async (transaction) => {
    const { id, environmentId, checkId, place, byId } = a;
    const newer = await AttestationRow.count({
      where: { environmentId, checkId, place, id: { [Op.gt]: id } },
      transaction,
    });
    const text = `${where}: what you attested of “${titleOf(checkId)}” was good until ${a.goodUntil}. It is untested again.`;
    if (byId && !newer) await tell([byId], text, link(checkId), transaction);
    await AttestationRow.update({ toldAt: new Date() }, { where: { id }, transaction });
  });
}

/** What has ended in one environment. */
async function sweepEnvironment(
  environmentId: number,
  ended: readonly AcceptanceRow[],
  lapsed: readonly AttestationRow[],
): Promise<void> {
  const environment = await Environment.findByPk(environmentId);
  if (!environment) return;
  const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
  await reevaluate(environmentId, TIME);
  const spot: Spot = {
    where: `${site.name}, ${environment.name}`,
    link: (check) => `/sites/${site.id}?environment=${environmentId}&check=${check}`,
  };
  for (const a of ended) if (a.environmentId === environmentId) await tellAcceptance(a, spot);
  for (const a of lapsed) if (a.environmentId === environmentId) await tellAttestation(a, spot);
}

/** @returns how many ends were found and told */
export async function sweep(): Promise<number> {
  const ended = await AcceptanceRow.findAll({
    where: { until: { [Op.lt]: today() }, withdrawnAt: null, toldAt: null },
    limit: 500,
  });
  const lapsed = await AttestationRow.findAll({
    where: { goodUntil: { [Op.lt]: today() }, toldAt: null },
    limit: 500,
  });
  for (const environmentId of new Set([...ended, ...lapsed].map((r) => r.environmentId)))
    await sweepEnvironment(environmentId, ended, lapsed).catch((error: unknown) =>
      console.error(`sweep: environment ${environmentId} failed`, error),
    );
  return ended.length + lapsed.length;
}

let timer: NodeJS.Timeout | undefined;

/** Looks now and then every so many seconds (ARMBAND_SWEEP, 300 unless set). */
export function startSweeping(): void {
  const again = (): void => {
    timer = setTimeout(
      () => {
        void reconcile()
          .then(sweep)
          .catch((error: unknown) => console.error('sweep failed', error))
          .finally(again);
      },
      Number(process.env.ARMBAND_SWEEP ?? 300) * 1000,
    );
    timer.unref();
  };
  void sweep()
    .catch((error: unknown) => console.error('sweep failed', error))
    .finally(again);
}
export function stopSweeping(): void {
  clearTimeout(timer);
}
