/** At the start: tables up to date, orphaned audits ended, first user or demo there. */
import { closeDatabase } from '../platform/db/connection';
import { migrate } from '../platform/db/migrate';
import { useModels } from '../platform/models';
import { endOrphans } from '../audits/audits';
import { endExtraction } from '../audits/extraction';
import { ensureBuiltIn } from '../checklists/checklists';
import { endJudging } from '../audits/judge-pool';
import { startSweeping, stopSweeping } from '../fixes/sweep';
import { ensurePerson } from '../people/people';
import { loadDemo, practiceControl } from '../practice/practice';
import { startFailed, startFinished } from '../platform/readiness';

async function start(): Promise<void> {
  useModels();
  for (const name of await migrate()) console.info(`database: ${name}`);
  const ended = await endOrphans();
  if (ended) console.info(`${ended} unfinished audits of the last run were ended`);
  await ensureBuiltIn();
  const { ARMBAND_FIRST_USER: email, ARMBAND_FIRST_PASSWORD: password } = process.env;
  if (practiceControl()) await loadDemo(password ?? 'marram-demo');
  else if (email && password)
    await ensurePerson(email, process.env.ARMBAND_FIRST_NAME ?? email.split('@')[0]!, password);
  startSweeping();
}

export default defineNitroPlugin((nitro) => {
  start().then(startFinished, (error: unknown) => {
    console.error('Armband could not start:', error);
    startFailed(error as Error);
  });
  nitro.hooks.hook('close', async () => {
    stopSweeping();
    await endExtraction();
    await endJudging();
    await closeDatabase();
  });
});
