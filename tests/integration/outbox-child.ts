/** Causes events, or handles them, and is killed in the middle: `cause` or `handle`. */
import { database } from '../../server/platform/db/connection';
import { inTransaction } from '../../server/platform/db/transaction';
import { emit, recipients, subscribeLater } from '../../server/platform/domain-events';
import { startDelivering } from '../../server/platform/outbox';

/** One time of so many it dies here. */
const DIES = 12;
const mayDie = (): void => {
  if (Math.random() * DIES < 1) process.kill(process.pid, 'SIGKILL');
};

subscribeLater('test', ['SiteTouched'], async ({ siteId }, transaction) => {
  mayDie();
  await database().query('INSERT INTO test_handled (id) VALUES (?)', {
    replacements: [siteId],
    transaction,
  });
  mayDie();
});

if (process.argv[2] === 'handle') startDelivering(recipients);
else
  for (;;) {
    await inTransaction(async (transaction) => {
      const [id] = (await database().query('INSERT INTO test_caused () VALUES ()', {
        transaction,
      })) as unknown as [number];
      mayDie();
      await emit('SiteTouched', { siteId: Number(id) }, transaction);
      mayDie();
    });
    mayDie();
  }
