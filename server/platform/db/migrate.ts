/** Brings the tables up to date, each step once, in order. */
import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { database } from './connection';
import { up as first } from './migrations/001-first';
import { up as handWork } from './migrations/003-checklists-and-hand-work';
import { up as hostProfileIds } from './migrations/004-host-profile-ids';
import { up as people } from './migrations/005-people';
import { up as pointsLost } from './migrations/006-points-lost';
import { up as savedViews } from './migrations/010-saved-views';
import { up as standing } from './migrations/011-standing';
import { up as clockFilesSchedules } from './migrations/013-clock-files-schedules';
import { up as jobs } from './migrations/012-jobs';
import { up as pages } from './migrations/014-pages';
import { up as seenByEnvironment } from './migrations/015-seen-by-environment';
import { up as pictures } from './migrations/016-pictures';
import { up as seenPictures } from './migrations/017-seen-pictures';
import { up as builds } from './migrations/018-builds';
import { up as shownToClients } from './migrations/019-shown-to-clients';
import { up as launches } from './migrations/020-launches';
import { up as bounds } from './migrations/021-bounds';
import { up as findingColumns } from './migrations/009-finding-columns';
import { up as editSites } from './migrations/008-edit-sites';
import { up as words } from './migrations/007-words';
import { up as wayIn } from './migrations/002-way-in';

/** Statements one after the other, or what does more than statements can. */
type Step = string[] | ((sequelize: Sequelize) => Promise<void>);

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
];

export async function migrate(): Promise<string[]> {
  const sequelize = database();
  const umzug = new Umzug({
    migrations: STEPS.map(([name, step]) => ({
      name,
      up: async () => {
        if (typeof step === 'function') return step(sequelize);
        for (const statement of step) await sequelize.query(statement);
      },
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migration' }),
    logger: undefined,
  });
  return (await umzug.up()).map((m) => m.name);
}
