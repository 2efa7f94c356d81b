/** The titles and descriptions that the agency wrote for a site’s pages. */
import { Op, type Transaction } from 'sequelize';
import { asIntended } from '#core/checks/catalogue/metadata/as-intended';
import { pagePath, type IntendedText } from '#core/facts/intended-text';
import type { Finding } from '#core/facts/finding';
import { foldSpace } from '#core/text/fold';
import { now } from '../platform/clock';
import { inTransaction } from '../platform/db/transaction';
import { Conflict, NotFound } from '../platform/errors';
import { announce } from '../platform/events';
import { Site } from '../sites/models';
import { holdSites } from '../sites/standing';
import type { TextDto } from './dto';
import { IntendedRow } from './models';

const MOST = 5000;
const VERSIONS = 50;

/** The newest of each page, as checks read them. */
export async function intendedFor(siteId: number): Promise<IntendedText[]> {
  return (await newestOf(siteId)).filter((r) => r.title ?? r.description).map(asText);
}

function newestOf(siteId: number, transaction?: Transaction): Promise<IntendedRow[]> {
  return IntendedRow.findAll({ where: { siteId, newest: true }, order: [['path', 'ASC']], transaction });
}

function asText({ path, title, description, seenAt }: IntendedRow): IntendedText {
  return {
    path,
    ...(title === null ? {} : { title }),
    ...(description === null ? {} : { description }),
    ...(seenAt ? { seenAt: seenAt.toISOString() } : {}),
  };
}

const shown = (row: IntendedRow) => ({
  ...asText(row),
  version: row.version,
  by: row.savedBy,
  at: row.savedAt.toISOString(),
});

/** All of a site, for the bench. */
export async function textsOf(siteId: number) {
  return (await newestOf(siteId)).map(shown);
}

/** What was written for one page over time, the newest first. */
export async function versionsOf(siteId: number, path: string) {
  const rows = await IntendedRow.findAll({
    where: { siteId, path },
    order: [['version', 'DESC']],
    limit: VERSIONS,
  });
  return rows.map(shown);
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
      {
        path,
      },
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
    if (!(await Site.count({ where: { id: siteId }, transaction })))
      throw new NotFound('This site does not exist, or not any more.');
    await holdSites([siteId], transaction);
    const before = new Map((await newestOf(siteId, transaction)).map((r) => [r.path, r]));
    const saved = { siteId, newest: true, savedBy: by, savedAt: now() };
    const rows = texts.flatMap((text) =>
      nextVersion(text, before.get(text.path)).map((row) => ({ ...saved, ...row })),
    );
    const paths = rows.map((r) => r.path);
    if (new Set(paths).size < paths.length) throw new Conflict('One page stands there twice.');
    if (before.size + rows.filter((r) => r.version === 1).length > MOST)
      throw new Conflict(`Texts are kept for ${MOST} pages of a site at most.`);
    await IntendedRow.update({ newest: null }, { where: { siteId, path: paths, newest: true }, transaction });
    await IntendedRow.bulkCreate(rows, { transaction });
    announce([['site', siteId]], { transaction });
    return rows.length;
  });
}

/** Notes which texts an audit saw on their pages for the first time. @param base the environment’s address */
export async function noteSeen(
  siteId: number,
  findings: readonly Finding[],
  base: string,
  transaction: Transaction,
): Promise<void> {
  const places = findings.find((f) => f.check === asIntended.id)?.places ?? [];
  const paths = places.filter((p) => p.outcome === 'passed').flatMap((p) => pagePath(p.place, base) ?? []);
  if (!paths.length) return;
  await IntendedRow.update(
    { seenAt: now() },
    { where: { siteId, newest: true, seenAt: { [Op.is]: null }, path: paths }, transaction },
  );
}
