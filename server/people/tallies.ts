/** Wrong guesses at passwords, in MariaDB: they count whichever server process was asked. */
import { QueryTypes } from 'sequelize';
import { database } from '../platform/db/connection';
import { isDue } from '../platform/due';
import type { Tallies } from './throttle';

/** After so long without a guess all is forgotten. */
const MEMORY_MINUTES = 15;
const OLD = `last_at < NOW(3) - INTERVAL ${MEMORY_MINUTES} MINUTE`;
const LONGEST_NAME = 300;

const run = (sql: string, values: unknown[]): Promise<unknown> =>
  database().query(sql, { replacements: values });

export const tallies: Tallies = {
  async count(names) {
    const counts: number[] = [];
    for (const name of names.map((n) => n.slice(0, LONGEST_NAME))) {
      await run(
        `INSERT INTO sign_in_tally (name, wrong, last_at) VALUES (?, 1, NOW(3))
          ON DUPLICATE KEY UPDATE wrong = IF(${OLD}, 1, wrong + 1), last_at = NOW(3)`,
        [name],
      );
      const [row] = await database().query<{ wrong: number }>(
        'SELECT wrong FROM sign_in_tally WHERE name = ?',
        { type: QueryTypes.SELECT, replacements: [name] },
      );
      counts.push(Math.max(0, (row?.wrong ?? 1) - 1));
    }
    if (await isDue('forget guesses', 600))
      await run(`DELETE FROM sign_in_tally WHERE ${OLD} LIMIT 20000`, []);
    return counts;
  },
  async right([account = '', ...others]) {
    await run('DELETE FROM sign_in_tally WHERE name = ?', [account.slice(0, LONGEST_NAME)]);
    for (const name of others)
      await run('UPDATE sign_in_tally SET wrong = wrong - 1 WHERE name = ? AND wrong > 0', [
        name.slice(0, LONGEST_NAME),
      ]);
  },
};
