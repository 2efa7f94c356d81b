/** The demo: loads what the practice net says of itself, and passes on its switches. */
import type { AccessDto } from '#core/entry/site';
import { PARTS } from '#core/facts/parts';
import { startAudits } from '#server/audits';
import { createProfile, profileIdOf } from '#server/hosts';
import { intendedFor } from '#server/intended';
import { ensurePerson } from '#server/people';
import { kitOf } from '#server/pictures';
import { clockRate, now, setClockRate } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { NotFound, Refused, Unreachable } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import {
  addKnownSite,
  allEnvironments,
  allSites,
  hasSites,
  findEnvironment,
  findSite,
  type Environment,
} from '#server/sites';

interface PracticeFault {
  environment: 'live' | 'staging';
  id: string;
  title: string;
  check: string;
  /** Only a browser sees it. */
  browser: boolean;
  on: boolean;
}
export interface PracticeState {
  hosts: { name: string }[];
  sites: {
    slug: string;
    client: string;
    name: string;
    stage: 'building' | 'pre-launch' | 'launched';
    replaces: boolean;
    launchIn: number;
    host: string;
    liveUrl: string;
    stagingUrl: string;
    environments: {
      name: string;
      url: string;
      dates: { setUp?: string; changed?: string; endsOn?: string };
      access?: AccessDto;
    }[];
    brief: Record<string, unknown>;
    faults: PracticeFault[];
  }[];
}

/** Base address of the practice net's control service; undefined outside the demo. */
export const practiceControl = (): string | undefined => process.env.ARMBAND_PRACTICE_NET || undefined;

export async function practiceState(): Promise<PracticeState> {
  const base = practiceControl();
  if (!base) throw new NotFound('The practice net is only there in the demo.');
  const answer = await fetch(`${base}/state`).catch(() => null);
  if (!answer?.ok) throw new Unreachable('The practice net does not answer. Start the demo again.');
  return (await answer.json()) as PracticeState;
}

async function tellPractice(
  what: 'fault' | 'text' | 'pictures' | 'desk' | 'clock',
  order: object,
): Promise<void> {
  const base = practiceControl();
  if (!base) throw new NotFound('The practice net is only there in the demo.');
  const answer = await fetch(`${base}/${what}`, { method: 'POST', body: JSON.stringify(order) }).catch(
    () => null,
  );
  if (answer?.ok) return;
  const said = answer ? ((await answer.json().catch(() => ({}))) as { error?: string }).error : undefined;
  throw answer && said ? new Refused(said) : new Unreachable('The practice net did not take it.');
}

/** What is set at a practice site’s registrar, DNS operator and host. */
export interface PracticeDesk {
  /** The zone as the operator’s form shows it, as lines of a zone file. */
  zone: string;
  /** When it was saved last, milliseconds; null while nobody has. */
  saved: number | null;
  slowMinutes: number;
  lagMinutes: number;
  refuses: boolean;
  isMoved: boolean;
  hostTold: boolean;
  holdingUp: boolean;
}

/** @throws NotFound */
export async function practiceDesk(site: string): Promise<PracticeDesk> {
  const base = practiceControl();
  const answer = base ? await fetch(`${base}/desk/${site}`).catch(() => null) : null;
  if (!answer?.ok) throw new NotFound('This is no site of the practice net.');
  return (await answer.json()) as PracticeDesk;
}

/** @throws NotFound, Refused with what the operator says */
export async function changeDesk(site: string, change: object): Promise<void> {
  await tellPractice('desk', { site, change });
  announce('PracticeNetChanged', {});
}

/** A practice net that was started anew takes over the clock as it is shown. */
export async function alignPracticeClock(): Promise<void> {
  await tellPractice('clock', { shownAt: now().getTime(), rate: clockRate() });
}

/** The clock of Armband and of the practice net together; neither jumps. @throws NotFound */
export async function setPracticeRate(rate: number): Promise<void> {
  if (!practiceControl()) throw new NotFound('The practice net is only there in the demo.');
  await setClockRate(rate);
  await alignPracticeClock();
}

export async function switchFault(input: {
  site: string;
  environment: string;
  fault: string;
  on: boolean;
}): Promise<void> {
  await tellPractice('fault', input);
  announce('PracticeNetChanged', {});
}

/** Which site of the practice net an environment shows, and as what. @throws NotFound */
async function practiceSite(
  environmentId: number,
): Promise<{ siteId: number; site: string; environment: PracticeFault['environment'] }> {
  const environment = await findEnvironment(environmentId);
  const site = environment && (await findSite(environment.siteId));
  const known = site && (await practiceState()).sites.find((s) => s.name === site.name);
  if (!environment || !known) throw new NotFound('This is no site of the practice net.');
  return { siteId: site.id, site: known.slug, environment: environment.kind === 'live' ? 'live' : 'staging' };
}

/** Types a page’s intended texts into its settings, as somebody would at the host. @throws NotFound */
export async function typeTexts(environmentId: number, paths: readonly string[]): Promise<void> {
  const { siteId, ...where } = await practiceSite(environmentId);
  for (const { path, title, description } of await intendedFor(siteId, environmentId))
    if (paths.includes(path)) await tellPractice('text', { ...where, path, title, description });
}

/** Uploads the files of the picture workshop and names them in all pages, as somebody would at the host. @throws NotFound */
export async function uploadPictures(environmentId: number): Promise<void> {
  const { siteId, ...where } = await practiceSite(environmentId);
  const { zip } = await kitOf(siteId, environmentId);
  await tellPractice('pictures', { ...where, zip: zip.toString('base64') });
}

const DEMO_PEOPLE: [string, string][] = [
  ['mara@marram-studio.example', 'Mara Quill'],
  ['joss@marram-studio.example', 'Joss Teal'],
  ['ines@marram-studio.example', 'Ines Halyard'],
];

/**
 * Fills an empty database with the demo's people, profiles and sites, and audits every site once.
 * @returns whether anything was loaded
 */
export async function loadDemo(password: string): Promise<boolean> {
  const hash = await hashPassword(password);
  for (const [i, [email, name]] of DEMO_PEOPLE.entries()) await ensurePerson(email, name, hash, i === 0);
  if (await hasSites()) return false;
  const state = await practiceState();
  const day = (n: number) => new Date(now().getTime() + n * 86_400_000).toISOString().slice(0, 10);
  await inTransaction(async (transaction) => {
    for (const host of state.hosts) await createProfile({ ...host }, 'Mara Quill', transaction);
    for (const s of state.sites) {
      await addKnownSite(
        {
          client: s.client,
          name: s.name,
          stage: s.stage,
          replaces: s.replaces,
          launchDate: day(s.launchIn),
          hostProfileId: await profileIdOf(s.host, transaction),
          liveUrl: s.liveUrl,
          environments: s.environments.map((p) => ({
            name: p.name,
            url: p.url,
            setUpOn: p.dates.setUp ?? null,
            changedOn: p.dates.changed ?? null,
            endsOn: p.dates.endsOn ?? null,
            ...(p.access ? { access: p.access } : {}),
          })),
          brief: s.brief,
          savedBy: 'Mara Quill',
        },
        transaction,
      );
    }
  });
  // a browser takes its time: at first it looks at a few sites, and at the others once somebody audits them
  const [all, sites] = await Promise.all([allEnvironments(), allSites()]);
  const names = new Map(sites.map((s) => [s.id, s.name]));
  const isShown = ({ siteId, kind }: Environment): boolean =>
    state.sites
      .find((s) => s.name === names.get(siteId))!
      .faults.some((f) => f.on && f.browser && f.environment === (kind === 'live' ? 'live' : 'staging'));
  await startAudits(
    all.filter((e) => !isShown(e)).map((e) => e.id),
    'Mara Quill',
    { scope: { parts: PARTS.filter((part) => part !== 'rendered') } },
  );
  await startAudits(
    all.filter(isShown).map((e) => e.id),
    'Mara Quill',
  );
  return true;
}
