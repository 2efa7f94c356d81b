/** At the start: tables up to date, orphaned audits ended, first user or demo there. */
import { closeDatabase } from '../db/connection';
import { migrate } from '../db/migrate';
import { useModels } from '../db/models';
import { endOrphans } from '../services/audits';
import { endExtraction } from '../services/extraction';
import { ensureBuiltIn } from '../services/checklists';
import { endJudging } from '../services/judge-pool';
import { startSweeping, stopSweeping } from '../services/sweep';
import { ensurePerson } from '../services/people';
import { loadDemo, practiceControl } from '../services/practice';
import { startFailed, startFinished } from '../services/readiness';

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
