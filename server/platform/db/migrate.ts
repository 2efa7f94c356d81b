/** Brings the tables up to date, each step once, in order. */
import { SequelizeStorage, Umzug } from 'umzug';
import { database } from './connection';
import { up as first } from './migrations/001-first';
import { up as handWork } from './migrations/003-checklists-and-hand-work';
import { up as hostProfileIds } from './migrations/004-host-profile-ids';
import { up as people } from './migrations/005-people';
import { up as wayIn } from './migrations/002-way-in';

const STEPS: [name: string, statements: string[]][] = [
  ['001-first', first],
  ['002-way-in', wayIn],
  ['003-checklists-and-hand-work', handWork],
  ['004-host-profile-ids', hostProfileIds],
  ['005-people', people],
];

export async function migrate(): Promise<string[]> {
  const sequelize = database();
  const umzug = new Umzug({
    migrations: STEPS.map(([name, statements]) => ({
      name,
      up: async () => {
        for (const s of statements) await sequelize.query(s);
      },
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migration' }),
    logger: undefined,
  });
  return (await umzug.up()).map((m) => m.name);
}
