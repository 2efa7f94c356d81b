import { QueryTypes } from 'sequelize';
import { database } from '#server/platform/db/connection';

/**
 * Whether this process is the one to do what is done every so often: of all that ask, one in each span.
 * @param seconds the span
 */
export async function isDue(name: string, seconds: number): Promise<boolean> {
  const change = async (sql: string, replacements: unknown[]): Promise<number> => {
    const [, count] = await database().query(sql, { type: QueryTypes.UPDATE, replacements });
    return count;
  };
  await change("INSERT IGNORE INTO timer (name, at) VALUES (?, '2000-01-01')", [name]);
  const count = await change(
    'UPDATE timer SET at = NOW(3) WHERE name = ? AND at <= NOW(3) - INTERVAL ? MICROSECOND',
    [name, Math.round(seconds * 1_000_000)],
  );
  return count > 0;
}
