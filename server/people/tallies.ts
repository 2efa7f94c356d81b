/** Wrong guesses at passwords, in MariaDB: they count whichever server process was asked. */
import { createHash } from 'node:crypto';
import { QueryTypes, type Transaction } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { inTransaction } from '#server/platform/db/transaction';
import { isDue } from '#server/platform/due';
import { HOURLY, type Tallies } from './throttle';

/** After so long without a guess all is forgotten. */
const MEMORY_MINUTES = 15;
const OLD = `last_at < NOW(3) - INTERVAL ${MEMORY_MINUTES} MINUTE`;
const LONGEST_NAME = 300;

const run = (sql: string, values: unknown[], transaction?: Transaction): Promise<unknown> =>
  database().query(sql, { replacements: values, transaction });
/** What was typed is not kept: it may be a password in the wrong field. */
const digestOf = (account: string): string => createHash('sha256').update(account).digest('hex');

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
    if (await isDue('forget guesses', 600)) {
      await run(`DELETE FROM sign_in_tally WHERE ${OLD} LIMIT 20000`, []);
      await run('DELETE FROM sign_in_guess WHERE at < NOW(3) - INTERVAL 1 HOUR LIMIT 20000', []);
    }
    return counts;
  },
  async right([account = '', ...others]) {
    await run('DELETE FROM sign_in_tally WHERE name = ?', [account.slice(0, LONGEST_NAME)]);
    for (const name of others)
      await run('UPDATE sign_in_tally SET wrong = wrong - 1 WHERE name = ? AND wrong > 0', [
        name.slice(0, LONGEST_NAME),
      ]);
  },
  admit(account, network) {
    const digest = digestOf(account);
    return inTransaction(async (transaction) => {
      // one after the other for each account: the row is held until the guess is written down
      await run(
        `INSERT INTO sign_in_tally (name, wrong, last_at) VALUES (?, 0, NOW(3))
          ON DUPLICATE KEY UPDATE last_at = NOW(3)`,
        [`unknown at ${digest}`],
        transaction,
      );
      const [row] = await database().query<{ total: number; own: number }>(
        `SELECT COUNT(*) AS total, COALESCE(SUM(network = ?), 0) AS own FROM sign_in_guess
          WHERE account = ? AND at > NOW(3) - INTERVAL 1 HOUR`,
        { type: QueryTypes.SELECT, replacements: [network, digest], transaction },
      );
      const [total, own] = [Number(row?.total ?? 0), Number(row?.own ?? 0)];
      if (total >= HOURLY.all || (own > 0 && total >= HOURLY.repeated)) return false;
      await run(
        'INSERT INTO sign_in_guess (account, network, at) VALUES (?, ?, NOW(3))',
        [digest, network.slice(0, 64)],
        transaction,
      );
      return true;
    });
  },
  async forget(account, network) {
    await run('DELETE FROM sign_in_guess WHERE account = ? AND network = ?', [digestOf(account), network]);
  },
};
