/**
 * What happens by itself as time goes by: acceptances and attestations end, findings count again, and people
 * are told.
 */
import { Op } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import { AcceptanceRow, AttestationRow, Environment, Fix, Site } from '../platform/db/models';
import { judgeAgain } from '../audits/judging';
import { tell } from '../people/notifications';

const TIME = { cause: 'time', by: 'Armband' } as const;
const today = (): string => new Date().toISOString().slice(0, 10);

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
  for (const environmentId of new Set([...ended, ...lapsed].map((r) => r.environmentId))) {
    const environment = await Environment.findByPk(environmentId);
    if (!environment) continue;
    const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
    await judgeAgain(environmentId, TIME);
    const where = `${site.name}, ${environment.name}`;
    const link = (check: string): string => `/sites/${site.id}?place=${environmentId}&check=${check}`;
    for (const a of ended.filter((r) => r.environmentId === environmentId)) {
      const fix = await Fix.findOne({ where: { environmentId, checkId: a.checkId } });
      await tell(
        [fix?.ownerId ?? a.byId],
        `${where}: “${checkById.get(a.checkId)?.title ?? a.checkId}” was left on purpose until ${a.until}. It counts again.`,
        link(a.checkId),
      );
      await a.update({ toldAt: new Date() });
    }
    for (const a of lapsed.filter((r) => r.environmentId === environmentId)) {
      // one that was attested again since needs no word
      const newer = await AttestationRow.count({
        where: { environmentId, checkId: a.checkId, place: a.place, id: { [Op.gt]: a.id } },
      });
      if (a.byId && !newer)
        await tell(
          [a.byId],
          `${where}: what you attested of “${checkById.get(a.checkId)?.title ?? a.checkId}” was good until ${a.goodUntil}. It is untested again.`,
          link(a.checkId),
        );
      await a.update({ toldAt: new Date() });
    }
  }
  return ended.length + lapsed.length;
}

let timer: NodeJS.Timeout | undefined;

/** Looks now and then every so many seconds (ARMBAND_SWEEP, 300 unless set). */
export function startSweeping(): void {
  const again = (): void => {
    timer = setTimeout(
      () => {
        void sweep()
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
