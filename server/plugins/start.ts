/** At the start: tables up to date, audits that were left open taken up, first user or demo there; then the work. */
import { removeLeftProfiles } from '#probe/rendering/profiles';
import { reevaluateAfterUpdate, requeueOrphans } from '#server/audits';
import { ensureBuiltIn } from '#server/checklists';
import { sweepOnce } from '#server/fixes';
import { enqueueDueWatches } from '#server/launch';
import { ensureFirstPerson } from '#server/people';
import { warmPictures } from '#server/pictures';
import { publishChanges } from '#server/platform/change-feed';
import { syncClock, readClock } from '#server/platform/clock';
import { closeDatabase, database } from '#server/platform/db/connection';
import { migrate } from '#server/platform/db/migrate';
import { useModels } from '#server/platform/db/models';
import { oneAtATime } from '#server/platform/db/one-at-a-time';
import { recipients } from '#server/platform/domain-events';
import { tidyFiles } from '#server/platform/files/files';
import { closeDelivery } from '#server/platform/jobs/queue';
import { JobWorker } from '#server/platform/jobs/worker';
import { networkSettings, numberOf } from '#server/platform/network/network';
import { startDelivering } from '#server/platform/outbox';
import { isWorkerOnly, startFailed, startFinished } from '#server/platform/readiness';
import { closeAll } from '#server/platform/shutdown';
import { startTicking } from '#server/platform/ticking';
import { alignPracticeClock, loadDemo, practiceControl } from '#server/practice';
import { fillStandings } from '#server/reads/standing';
import { notifyNews, deleteOldPlans, runDueSchedules, ensureProposal } from '#server/schedules';
import { connectSubjects } from '#server/subjects';

const SHORTEST_SECRET = 32;

/** What cannot be mended by waiting. @throws Error */
function refuseUnsafe(): void {
  const secret = process.env.NUXT_SESSION_PASSWORD ?? '';
  if (secret.length < SHORTEST_SECRET)
    throw new Error(
      `NUXT_SESSION_PASSWORD must be set to a secret of at least ${SHORTEST_SECRET} characters, such as "openssl rand -hex 32" gives; it has ${secret.length}.`,
    );
}

/** What would go unnoticed: roots that audits trust, and the browser does not. */
function warnOfRoots(): void {
  if (process.env.ARMBAND_CA && !process.env.ARMBAND_BROWSER_KEYS)
    console.warn(
      'ARMBAND_CA: audits trust these roots, the browser does not. Name their keys in ARMBAND_BROWSER_KEYS, or sites behind them look broken in it.',
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

/** @throws Error for anything but a whole number of 0 or more */
function wholeNumber(name: string, usual: number): number {
  const value = numberOf(name, usual);
  if (!Number.isInteger(value)) throw new Error(`${name} must be a whole number; it is “${value}”.`);
  return value;
}

/** Tables up to date, and what must be there before anybody looks. */
async function prepare(): Promise<void> {
  for (const name of await migrate()) console.info(`database: ${name}`);
  await readClock();
  const orphans = await requeueOrphans();
  if (orphans) console.info(`${orphans} audits that were left open begin again`);
  await ensureBuiltIn();
  if (isWorkerOnly()) return;
  const { ARMBAND_FIRST_USER: email, ARMBAND_FIRST_PASSWORD: password } = process.env;
  if (practiceControl()) {
    await alignPracticeClock();
    await loadDemo(password ?? 'marram-demo');
  } else if (email && password)
    await ensureFirstPerson(email, process.env.ARMBAND_FIRST_NAME ?? email.split('@')[0]!, password);
  await ensureProposal();
  await fillStandings();
  await reevaluateAfterUpdate();
}

/** What runs until the process ends, in the order opposite to that of its end. */
const ends: (() => Promise<void> | void)[] = [];

async function start(): Promise<void> {
  refuseUnsafe();
  warnOfRoots();
  // so that a wrong setting is told now, and not by the first audit
  networkSettings();
  const left = removeLeftProfiles();
  if (left) console.info(`${left} folders of browsers were left behind, and are removed`);
  connectSubjects();
  const worker = new JobWorker({
    atOnce: wholeNumber('ARMBAND_WORKERS', 2),
    leaseMs: Math.max(1, numberOf('ARMBAND_LEASE', 20)) * 1000,
  });
  await waitForDatabase();
  useModels();
  await oneAtATime('armband start', prepare);
  ends.push(syncClock());
  ends.push(publishChanges());
  ends.push(startDelivering(recipients));
  warmPictures();
  await worker.start();
  ends.push(() => worker.stop());
  ends.push(
    startTicking([
      { name: 'sweep', seconds: numberOf('ARMBAND_SWEEP', 300), work: sweepOnce },
      { name: 'tidy files', seconds: 3600, work: tidyFiles },
      { name: 'forget nights', seconds: 86_400, work: deleteOldPlans },
      // often enough for a clock that runs fast
      { name: 'night', seconds: numberOf('ARMBAND_NIGHT', 5), work: runDueSchedules },
      { name: 'watches', seconds: 1, work: enqueueDueWatches },
      { name: 'news', seconds: numberOf('ARMBAND_NIGHT', 5), work: notifyNews },
    ]),
  );
}

/** By when the process has ended that was told to, whatever it was doing. */
const LATEST_END_MS = 8000;

/** A library that does not return, or a server that does not answer, is not waited for. */
function endInTime(): void {
  const kill = (): void => void process.kill(process.pid, 'SIGKILL');
  for (const signal of ['SIGTERM', 'SIGINT'])
    process.once(signal, () => setTimeout(kill, LATEST_END_MS).unref());
}

export default defineNitroPlugin((nitro) => {
  endInTime();
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
    for (const end of ends.reverse()) await end();
    await closeDelivery();
    await closeAll();
    await closeDatabase();
  });
});
