/** What the audits of the night found beyond those before them: noted with each, told once with all of one cause. */
import { Op, type Transaction } from 'sequelize';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { messageOf, newsBetween, type Face, type Seen } from '#core/compare/news';
import { type SavedVerdict, isAnythingAuditing, findAudit, findFindings, type Audit } from '#server/audits';
import { checksMovedBy } from '#server/fixes';
import { accountOwners, notify } from '#server/people';
import { clockRate, now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { countWaiting } from '#server/platform/jobs/job-table';
import { unpackJson } from '#server/platform/packed';
import { environmentsByIds, sitesByIds } from '#server/sites';
import { NewsRow, PlannedAudit } from './models';

/** Whether an audit is one of the night's, whose news somebody who was not looking should hear. */
const isScheduled = async (auditId: number): Promise<boolean> =>
  (await PlannedAudit.count({ where: { auditId } })) > 0;

const faceOf = (audit: Audit): Face | undefined => (audit.result as { face?: Face } | null)?.face;

/** Checks whose fix this audit moved in one of these ways. */
async function checksWith(auditId: number, kinds: string[], transaction: Transaction): Promise<Set<string>> {
  return new Set(await checksMovedBy(auditId, kinds, transaction));
}

/** Notes what an audit found beyond the one before. Called once it is kept, in the same transaction. */
export async function recordNews(after: SavedVerdict, transaction: Transaction): Promise<void> {
  const { before: beforeId, auditId, environment } = after;
  if (!beforeId || beforeId === auditId || !(await isScheduled(auditId))) return;
  const [last, stored] = await Promise.all([findAudit(beforeId), findFindings(beforeId)]);
  if (!last || !stored) return;
  const before: Seen = {
    gate: last.gate ?? null,
    findings: await unpackJson<JudgedFinding[]>(stored.data),
    face: faceOf(last),
  };
  const returned = await checksWith(auditId, ['came back'], transaction);
  const ended = await checksWith(auditId, ['verified', 'gone'], transaction);
  const at = now();
  await NewsRow.bulkCreate(
    newsBetween(before, after, returned, ended).map((n) => ({
      kind: n.kind,
      cause: n.cause.slice(0, 200),
      environmentId: environment.id,
      auditId,
      checkId: n.check,
      title: n.title.slice(0, 200),
      text: n.text.slice(0, 400),
      at,
    })),
    { transaction, ignoreDuplicates: true },
  );
}

/** News wait so long for others of their cause, by the clock. */
const TOGETHER_MS = 90 * 60_000;
/** At least so long in real time: audits take as long as ever while the demo's clock runs fast. */
const TOGETHER_REAL_MS = 120_000;
/** Nothing of the same cause was found for so long, and no turn comes for as long: the night is over. */
const QUIET_MS = TOGETHER_MS / 6;
const AT_ONCE = 2000;

/** Whether an audit waits, runs, or has its turn soon. */
async function isNightRunning(at: number): Promise<boolean> {
  const soon = new Date(at + QUIET_MS);
  return (
    (await countWaiting({ name: 'audit' })) > 0 ||
    (await isAnythingAuditing()) ||
    (await PlannedAudit.count({ where: { state: 'planned', runAt: { [Op.lte]: soon } } })) > 0
  );
}

/** Tells what waits, once the night's audits are through or the first has waited long enough. */
export async function notifyNews(): Promise<void> {
  const waiting = await NewsRow.findAll({ where: { told: false }, order: [['id', 'ASC']], limit: AT_ONCE });
  const [first] = waiting;
  if (!first) return;
  const at = now().getTime();
  const longest = Math.max(TOGETHER_MS, TOGETHER_REAL_MS * clockRate());
  if (at - first.at.getTime() < longest) {
    const isQuiet = at - waiting.at(-1)!.at.getTime() > QUIET_MS;
    if (!isQuiet || (await isNightRunning(at))) return;
  }
  const environments = new Map(
    (await environmentsByIds(waiting.map((n) => n.environmentId))).map((e) => [e.id, e]),
  );
  const sites = new Map(
    (await sitesByIds([...environments.values()].map((e) => e.siteId))).map((s) => [s.id, s]),
  );
  // a site without an owner is the account's owners'
  const owners = await accountOwners();
  const groups = new Map<string, { people: number[]; list: NewsRow[] }>();
  for (const news of waiting) {
    const site = sites.get(environments.get(news.environmentId)?.siteId ?? 0);
    const people = site?.ownerId ? [site.ownerId] : owners;
    const key = JSON.stringify([people, news.kind, news.cause || `${news.environmentId}`]);
    const group = groups.get(key) ?? { people, list: [] };
    group.list.push(news);
    groups.set(key, group);
  }
  for (const { people, list } of groups.values())
    await inTransaction(async (transaction) => {
      // another process may have told some meanwhile
      const mine = await NewsRow.findAll({
        where: { id: list.map((n) => n.id), told: false },
        order: [['id', 'ASC']],
        lock: true,
        transaction,
      });
      const [one] = mine;
      if (!one) return;
      await NewsRow.update({ told: true }, { where: { id: mine.map((n) => n.id) }, transaction });
      const named = mine.map((n) => {
        const environment = environments.get(n.environmentId)!;
        const where = `${sites.get(environment.siteId)?.name ?? ''}, ${environment.name}`;
        return { kind: n.kind, check: n.checkId, title: n.title, cause: n.cause, text: n.text, where };
      });
      const environment = environments.get(one.environmentId)!;
      const link =
        mine.length > 1 && one.checkId
          ? `/fixes?check=${one.checkId}`
          : `/sites/${environment.siteId}?environment=${environment.id}${one.checkId ? `&check=${one.checkId}` : ''}`;
      await notify(people, messageOf(named), link, transaction);
    });
}
