/** Brings the tables up to date, each step once, in order. */
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { up as first } from '#server/platform/db/migrations/001-first';
import { up as wayIn } from '#server/platform/db/migrations/002-way-in';
import { up as handWork } from '#server/platform/db/migrations/003-checklists-and-hand-work';
import { up as hostProfileIds } from '#server/platform/db/migrations/004-host-profile-ids';
import { up as people } from '#server/platform/db/migrations/005-people';
import { up as pointsLost } from '#server/platform/db/migrations/006-points-lost';
import { up as words } from '#server/platform/db/migrations/007-words';
import { up as editSites } from '#server/platform/db/migrations/008-edit-sites';
import { up as findingColumns } from '#server/platform/db/migrations/009-finding-columns';
import { up as savedViews } from '#server/platform/db/migrations/010-saved-views';
import { up as standing } from '#server/platform/db/migrations/011-standing';
import { up as jobs } from '#server/platform/db/migrations/012-jobs';
import { up as clockFilesSchedules } from '#server/platform/db/migrations/013-clock-files-schedules';
import { up as pages } from '#server/platform/db/migrations/014-pages';
import { up as seenByEnvironment } from '#server/platform/db/migrations/015-seen-by-environment';
import { up as pictures } from '#server/platform/db/migrations/016-pictures';
import { up as seenPictures } from '#server/platform/db/migrations/017-seen-pictures';
import { up as builds } from '#server/platform/db/migrations/018-builds';
import { up as shownToClients } from '#server/platform/db/migrations/019-shown-to-clients';
import { up as launches } from '#server/platform/db/migrations/020-launches';
import { up as bounds } from '#server/platform/db/migrations/021-bounds';
import { up as findingCodes } from '#server/platform/db/migrations/022-finding-codes';
import { up as launchTimes } from '#server/platform/db/migrations/023-launch-times';
import { up as pageLimits } from '#server/platform/db/migrations/024-page-limits';
import { TABLE } from '#server/platform/db/migrations/table';
import { database } from './connection';
import { up as eventDeliveries } from './migrations/025-event-deliveries';

/** Statements one after the other, or what does more to the data than statements can. */
type Step = string[] | ((sequelize: Sequelize, transaction: Transaction) => Promise<void>);

const STEPS: [name: string, step: Step][] = [
  ['001-first', first],
  ['002-way-in', wayIn],
  ['003-checklists-and-hand-work', handWork],
  ['004-host-profile-ids', hostProfileIds],
  ['005-people', people],
  ['006-points-lost', pointsLost],
  ['007-words', words],
  ['008-edit-sites', editSites],
  ['009-finding-columns', findingColumns],
  ['010-saved-views', savedViews],
  ['011-standing', standing],
  ['012-jobs', jobs],
  ['013-clock-files-schedules', clockFilesSchedules],
  ['014-pages', pages],
  ['015-seen-by-environment', seenByEnvironment],
  ['016-pictures', pictures],
  ['017-seen-pictures', seenPictures],
  ['018-builds', builds],
  ['019-shown-to-clients', shownToClients],
  ['020-launches', launches],
  ['021-bounds', bounds],
  ['022-finding-codes', findingCodes],
  ['023-launch-times', launchTimes],
  ['024-page-limits', pageLimits],
  ['025-event-deliveries', eventDeliveries],
];

/** Called after every statement; a test ends the process in it. */
export type AfterStatement = (statement: string) => void;

const IS_DATA = /^\s*(?:INSERT|UPDATE|DELETE)\b/i;

/**
 * Statements of one migration, each once. MariaDB commits DDL by itself, so a migration can be cut off anywhere: DDL is
 * written so that it can run again, and data change in one transaction with the note that they have.
 */
async function runStep(name: string, step: Step, sequelize: Sequelize, after: AfterStatement): Promise<void> {
  await sequelize.query(
    `CREATE TABLE IF NOT EXISTS migration_statement (
      migration VARCHAR(100) NOT NULL, statement INT UNSIGNED NOT NULL, PRIMARY KEY (migration, statement)) ${TABLE}`,
  );
  const rows = await sequelize.query<{ statement: number }>(
    'SELECT statement FROM migration_statement WHERE migration = :name',
    { type: QueryTypes.SELECT, replacements: { name } },
  );
  const done = new Set(rows.map((r) => r.statement));
  const note = (statement: number, transaction?: Transaction) =>
    sequelize.query('INSERT INTO migration_statement VALUES (:name, :statement)', {
      replacements: { name, statement },
      transaction,
    });
  const parts = typeof step === 'function' ? [step] : step;
  for (const [i, part] of parts.entries()) {
    if (done.has(i)) continue;
    if (typeof part === 'string' && !IS_DATA.test(part)) {
      await sequelize.query(part);
      after(part);
      await note(i);
    } else
      await sequelize.transaction(async (transaction) => {
        if (typeof part === 'string') await sequelize.query(part, { transaction });
        else await part(sequelize, transaction);
        after(`${name}, data`);
        await note(i, transaction);
      });
    after(`${name}, note ${i}`);
  }
}

/** @returns the names of the migrations that were run */
export async function migrate(after: AfterStatement = () => undefined): Promise<string[]> {
  const sequelize = database();
  const umzug = new Umzug({
    migrations: STEPS.map(([name, step]) => ({ name, up: () => runStep(name, step, sequelize, after) })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migration' }),
    logger: undefined,
  });
  return (await umzug.up()).map((m) => m.name);
}
