/** The titles and descriptions that the agency wrote for a site’s pages. */
import type { Transaction } from 'sequelize';
import { asIntended } from '#core/checks/catalogue/metadata/as-intended';
import type { Finding } from '#core/facts/finding';
import { MOST_TEXTS, pagePath, type IntendedText } from '#core/facts/intended-text';
import { foldSpace } from '#core/text/fold';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict } from '#server/platform/errors';
import { assertSite, type Environment, lockSites } from '#server/sites';
import type { TextDto } from './dto';
import { IntendedRow, IntendedSeen } from './models';

const VERSIONS = 50;

/** The newest of each page, as the checks of one environment read them. */
export async function intendedFor(siteId: number, environmentId: number): Promise<IntendedText[]> {
  const rows = (await newestOf(siteId)).filter((r) => r.title ?? r.description);
  const seen = await seenIn(environmentId, rows);
  return rows.map((r) => asText(r, seen.get(r.id)));
}

function newestOf(siteId: number, transaction?: Transaction): Promise<IntendedRow[]> {
  return IntendedRow.findAll({ where: { siteId, newest: true }, order: [['path', 'ASC']], transaction });
}

/** When an environment's audits first saw each of these texts on its page. */
async function seenIn(environmentId: number, texts: readonly IntendedRow[]): Promise<Map<number, Date>> {
  if (!texts.length) return new Map();
  const rows = await IntendedSeen.findAll({ where: { environmentId, textId: texts.map((t) => t.id) } });
  return new Map(rows.map((r) => [r.textId, r.at]));
}

function asText({ path, title, description }: IntendedRow, seenAt?: Date): IntendedText {
  return {
    path,
    ...(title === null ? {} : { title }),
    ...(description === null ? {} : { description }),
    ...(seenAt ? { seenAt: seenAt.toISOString() } : {}),
  };
}

const shown = (row: IntendedRow, seenAt?: Date) => ({
  ...asText(row, seenAt),
  version: row.version,
  by: row.savedBy,
  at: row.savedAt.toISOString(),
});

/** All of a site, for the bench. @param environmentId where it is told whether they were seen */
export async function textsOf(siteId: number, environmentId: number) {
  const rows = await newestOf(siteId);
  const seen = await seenIn(environmentId, rows);
  return rows.map((r) => shown(r, seen.get(r.id)));
}

/** What was written for one page over time, the newest first. */
export async function versionsOf(siteId: number, path: string) {
  const rows = await IntendedRow.findAll({
    where: { siteId, path },
    order: [['version', 'DESC']],
    limit: VERSIONS,
  });
  return rows.map((r) => shown(r));
}

type Text = Pick<IntendedRow, 'title' | 'description'>;
const NOTHING: Text = { title: null, description: null };

/** What a text becomes: what is not given stays, what is empty goes. */
const next = (given: string | undefined, old: string | null): string | null =>
  given === undefined ? old : foldSpace(given) || null;

/** A page’s next version; nothing where it says what is there already. @throws Conflict */
function nextVersion({ path, title, description, from }: TextDto, old: IntendedRow | undefined) {
  const version = old?.version ?? 0;
  if (from !== undefined && from !== version)
    throw new Conflict(
      `${old?.savedBy ?? 'Somebody'} changed the text of ${path} meanwhile. Look at it first.`,
      { path },
    );
  const before: Text = old ?? NOTHING;
  const now: Text = { title: next(title, before.title), description: next(description, before.description) };
  const isSame = now.title === before.title && now.description === before.description;
  return isSame ? [] : [{ path, version: version + 1, ...now }];
}

/**
 * Keeps texts of many pages at once, each as its next version; what is not given stays, what is empty goes.
 * @returns how many were changed; @throws Conflict where somebody changed one meanwhile, NotFound
 */
export async function saveTexts(siteId: number, texts: readonly TextDto[], by: string): Promise<number> {
  return inTransaction(async (transaction) => {
    await assertSite(siteId, transaction);
    await lockSites([siteId], transaction);
    const before = new Map((await newestOf(siteId, transaction)).map((r) => [r.path, r]));
    const saved = { siteId, newest: true, savedBy: by, savedAt: now() };
    const rows = texts.flatMap((text) =>
      nextVersion(text, before.get(text.path)).map((row) => ({ ...saved, ...row })),
    );
    const paths = rows.map((r) => r.path);
    if (new Set(paths).size < paths.length) throw new Conflict('One page stands there twice.');
    if (before.size + rows.filter((r) => r.version === 1).length > MOST_TEXTS)
      throw new Conflict(`Texts are kept for ${MOST_TEXTS} pages of a site at most.`);
    await IntendedRow.update({ newest: null }, { where: { siteId, path: paths, newest: true }, transaction });
    await IntendedRow.bulkCreate(rows, { transaction });
    await emit('SiteTouched', { siteId }, transaction);
    return rows.length;
  });
}

/** Notes which texts an audit of an environment saw on their pages for the first time. */
export async function recordSeen(
  { id: environmentId, siteId, url }: Pick<Environment, 'id' | 'siteId' | 'url'>,
  findings: readonly Finding[],
  transaction: Transaction,
): Promise<void> {
  const places = findings.find((f) => f.check === asIntended.id)?.places ?? [];
  const paths = new Set(
    places.filter((p) => p.outcome === 'passed').flatMap((p) => pagePath(p.place, url) ?? []),
  );
  if (!paths.size) return;
  const at = now();
  const seen = (await newestOf(siteId, transaction)).filter((r) => paths.has(r.path));
  await IntendedSeen.bulkCreate(
    seen.map(({ id: textId }) => ({ textId, environmentId, at })),
    { ignoreDuplicates: true, transaction },
  );
}
