/** At the start: tables up to date, orphaned audits ended, first user or demo there. */
import { closeDatabase, database } from '../platform/db/connection';
import { migrate } from '../platform/db/migrate';
import { useModels } from '../platform/models';
import { endOrphans } from '../audits/audits';
import { networkSettings } from '../audits/network';
import { endExtraction } from '../audits/extraction';
import { ensureBuiltIn } from '../checklists/checklists';
import { endJudging } from '../audits/judge-pool';
import { reevaluateAfterUpdate } from '../audits/reevaluating';
import { startSweeping, stopSweeping } from '../fixes/sweep';
import { ensureFirstPerson } from '../people/people';
import { loadDemo, practiceControl } from '../practice/practice';
import { fillStandings } from '../sites/standing';
import { startFailed, startFinished } from '../platform/readiness';

const SHORTEST_SECRET = 32;

/** What cannot be mended by waiting. @throws Error */
function refuseUnsafe(): void {
  const secret = process.env.NUXT_SESSION_PASSWORD ?? '';
  if (secret.length < SHORTEST_SECRET)
    throw new Error(
      `NUXT_SESSION_PASSWORD must be set to a secret of at least ${SHORTEST_SECRET} characters, such as "openssl rand -hex 32" gives; it has ${secret.length}.`,
    );
}

/** Waits for the database, which may be started after this. @throws Error once that took too long */
async function waitForDatabase(): Promise<void> {
  const end = Date.now() + Number(process.env.ARMBAND_START_WAIT ?? 60) * 1000;
  for (let pause = 250; ; pause = Math.min(pause * 2, 5000)) {
    try {
      return await database().authenticate();
    } catch (error) {
      if (Date.now() + pause > end)
        throw new Error(`The database cannot be reached: ${(error as Error).message}`, { cause: error });
      console.info(`waiting for the database (${(error as Error).message})`);
      await new Promise((r) => setTimeout(r, pause));
    }
  }
}

async function start(): Promise<void> {
  refuseUnsafe();
  // so that a wrong setting is told now, and not by the first audit
  networkSettings();
  await waitForDatabase();
  useModels();
  for (const name of await migrate()) console.info(`database: ${name}`);
  const ended = await endOrphans();
  if (ended) console.info(`${ended} unfinished audits of the last run were ended`);
  await ensureBuiltIn();
  const { ARMBAND_FIRST_USER: email, ARMBAND_FIRST_PASSWORD: password } = process.env;
  if (practiceControl()) await loadDemo(password ?? 'marram-demo');
  else if (email && password)
    await ensureFirstPerson(email, process.env.ARMBAND_FIRST_NAME ?? email.split('@')[0]!, password);
  await fillStandings();
  await reevaluateAfterUpdate();
  startSweeping();
}

export default defineNitroPlugin((nitro) => {
  // whoever read the log has gone: an error told to nobody would be an error again, without end
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});
  // read by the server once the plugins are through: this machine alone, unless something else is said
  process.env.NITRO_HOST ||= process.env.HOST || '127.0.0.1';
  start().then(startFinished, (error: unknown) => {
    console.error(`Armband could not start: ${(error as Error).message}`);
    startFailed(new Error('Armband could not start. Its log says why.'));
    // whoever watches over it starts it again
    process.exitCode = 1;
    setTimeout(() => process.exit(1), 200);
  });
  nitro.hooks.hook('close', async () => {
    stopSweeping();
    await endExtraction();
    await endJudging();
    await closeDatabase();
  });
});
