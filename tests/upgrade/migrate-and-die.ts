/** Brings a database up to date and is killed after so many statements, before it is noted that they ran. */
import { closeDatabase } from '../../server/platform/db/connection';
import { migrate } from '../../server/platform/db/migrate';

let left = Number(process.env.ARMBAND_DIE_AFTER);
await migrate((statement) => {
  if (!statement.includes(', note ') && --left === 0) process.kill(process.pid, 'SIGKILL');
});
await closeDatabase();
