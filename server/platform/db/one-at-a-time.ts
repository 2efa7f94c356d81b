import { QueryTypes } from 'sequelize';
import { database } from './connection';

const PATIENCE_SECONDS = 50;

/**
 * Does what only one process of all may do at a time; the others wait for it.
 * @throws Error when the others took too long
 */
export function oneAtATime<R>(name: string, work: () => Promise<R>): Promise<R> {
  // a named lock belongs to a connection, and a transaction keeps one
  return database().transaction(async (transaction) => {
    const ask = async (sql: string, values: unknown[]): Promise<number> =>
      (
        await database().query<{ got: number }>(sql, {
          type: QueryTypes.SELECT,
          replacements: values,
          transaction,
        })
      )[0]!.got;
    for (let tries = 1; !(await ask('SELECT GET_LOCK(?, ?) AS got', [name, PATIENCE_SECONDS])); tries++)
      if (tries === 10) throw new Error(`Another process has been busy for too long (${name}).`);
    try {
      return await work();
    } finally {
      await ask('SELECT RELEASE_LOCK(?) AS got', [name]);
    }
  });
}
