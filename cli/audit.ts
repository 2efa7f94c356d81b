/** The audit without a database: what the command does once its words are read. */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { partsFor } from '#core/checks/engine/parts-of';
import { checksOf, fullChecklist } from '#core/checks/engine/checklist';
import { judge, type JudgedFinding } from '#core/checks/engine/judge';
import { checklistFaults } from '#core/checks/engine/checklist-faults';
import { askedFor } from '#core/checks/engine/own-check';
import { asciiHost } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import type { Attestation, Checklist } from '#core/facts/checklist';
import type { Evidence } from '#core/facts/evidence';
import type { Situation } from '#core/facts/situation';
import type { SiteBuild } from '#core/facts/environment';
import type { HostProfile } from '#core/facts/host-profile';
import { commandsFor } from '#core/verify/commands';
import type { Check } from '#core/checks/kit/check';
import { unreachedBy } from '#core/score/reached';
import { scoreOf } from '#core/score/score';
import { fileOnDisk, siteBuild } from '#probe/build-files';
import { collect } from '#probe/collect';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import type { RenderOptions } from '#probe/rendering/render';
import { hostsOf } from '#probe/plan';
import { UsageError, type Arguments, type FailOn } from './arguments';
import type { Audited } from '#core/formats/findings/audited';
import { FINDING_FORMATS } from '#core/formats/findings/index';
import { evidenceFromHar } from '#core/formats/har/evidence';
import { toHar } from '#core/formats/har/write';
import { answersFromZone } from '#core/formats/zone-file/answers';
import { dnsToZoneFile } from '#core/formats/zone-file/write';
import { readZoneFile } from '#core/formats/zone-file/read';
import { readBootstrapFile, readDocument, readEvidence, readAccess } from './documents';
import { resultJson, resultText } from './result';

const say = (text: string): void => {
  process.stderr.write(`${text}\n`);
};

/** The catalogue as data. */
export function catalogueList() {
  return CATALOGUE.map((c) => ({
    id: c.id,
    section: c.section,
    title: c.title,
    fault: c.fault,
    severity: c.severity,
    situations: c.situations,
    scope: c.scope,
    source: c.source,
    parameters: c.parameters ?? {},
  }));
}

function readFile(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch (error) {
    throw new UsageError(`${file} cannot be read: ${(error as Error).message}`);
  }
}

/** @throws UsageError */
export function writeFile(file: string, text: string): void {
  try {
    writeFileSync(file, text);
  } catch (error) {
    throw new UsageError(`${file} cannot be written: ${(error as Error).message}`);
  }
}

/** @throws UsageError for checks that do not exist, parameters out of range, blocks that are not whole */
function readChecklistFile(file: string): Checklist {
  const checklist = readDocument<Checklist>(file, 'checklist');
  const faults = checklistFaults(checklist);
  if (faults.length)
    throw new UsageError(
      `${file}: ${faults
        .slice(0, 3)
        .map((f) => f.message)
        .join('; ')}`,
    );
  return checklist;
}

/** What kind of environment an address is: as the situation says, else as the brief does. */
function kindOf(args: Arguments, brief: Brief): 'before' | 'live' {
  const host = new URL(args.url!).hostname;
  return (
    args.situation
      ? args.situation === 'staging'
      : (brief.stagingHosts ?? []).some((h) => asciiHost(h) === host)
  )
    ? 'before'
    : 'live';
}

/** Evidence out of files that were recorded elsewhere. */
function fromFiles(args: Arguments, brief: Brief): Evidence {
  const kind = kindOf(args, brief);
  let answers;
  if (args.fromZone) {
    const zone = readZoneFile(readFile(args.fromZone));
    for (const e of zone.errors.slice(0, 5)) say(`${args.fromZone}, line ${e.line}: ${e.message}`);
    answers = answersFromZone(zone.records, args.fromZone);
  }
  try {
    return evidenceFromHar(readFile(args.fromHar!), {
      url: args.url!,
      kind,
      hosts: hostsOf(args.url!, kind, brief),
      at: new Date().toISOString(),
      answers,
    });
  } catch (error) {
    throw new UsageError(`${args.fromHar}: ${(error as Error).message}`);
  }
}

/** @throws UsageError where pictures cannot be kept */
function renderOptions(pages: number, { browserKeys, pictures }: Arguments): RenderOptions {
  if (pictures !== undefined) {
    try {
      mkdirSync(pictures, { recursive: true });
    } catch (error) {
      throw new UsageError(`${pictures} cannot be made: ${(error as Error).message}`);
    }
  }
  return {
    browser: { ...USUAL_BROWSER, keys: browserKeys },
    pages,
    ...(pictures === undefined
      ? {}
      : {
          keepPicture: (sha256: string, bytes: Buffer) =>
            writeFileSync(join(pictures, `${sha256}.webp`), bytes),
        }),
  };
}

/** The files of a folder, as a build. @throws UsageError */
async function readBuild(folder: string): Promise<SiteBuild> {
  try {
    const files = readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => join(entry.parentPath, entry.name));
    return await siteBuild(
      folder,
      files.map((file) => fileOnDisk(relative(folder, file).split(sep).join('/'), file)),
    );
  } catch (error) {
    throw new UsageError(`--build ${folder}: ${(error as Error).message}`);
  }
}

/** Looks at the network. */
async function gather(args: Arguments, given: Given): Promise<Evidence> {
  const { brief, profile, checklist } = given;
  const host = new URL(args.url!).hostname;
  const checkOf = checksOf(checklist);
  let last = '';
  try {
    return await collect({
      url: args.url!,
      kind: kindOf(args, brief),
      brief,
      profile,
      asked: askedFor(checklist, brief.preferredHost ?? host),
      resolvers: args.resolver,
      map: args.map,
      allowPrivate: args.allowPrivate,
      timeoutMs: args.timeout * 1000,
      maxPages: args.pages,
      ca: args.ca.map(readFile),
      delayMs: args.delay,
      concurrency: args.concurrency,
      outside: args.outside,
      ...(args.only
        ? {
            again: {
              parts: partsFor(
                args.only.flatMap((id) => checkOf(id) ?? []),
                true,
              ),
            },
          }
        : {}),
      ...(given.build ? { build: given.build.files.map((f) => f.path) } : {}),
      ...(args.render === undefined ? {} : { render: renderOptions(args.render, args) }),
      ...(args.agent ? { agent: args.agent } : {}),
      ...(args.access ? { access: readAccess(args.access, new URL(args.url!).origin) } : {}),
      ...(args.rdapBootstrap ? { bootstrap: readBootstrapFile(args.rdapBootstrap) } : {}),
      onProgress: (p) => {
        const line = `${p.phase} ${p.done} of ${p.total}`;
        if (line !== last && process.stderr.isTTY) process.stderr.write(`\r${line}\x1b[K`);
        last = line;
      },
    });
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(error.message);
    throw error;
  } finally {
    if (process.stderr.isTTY) process.stderr.write('\r\x1b[K');
  }
}

/** What the command line was given beside the address. */
interface Given {
  brief: Brief;
  profile?: HostProfile;
  checklist: Checklist;
  attestations?: Attestation[];
  build?: SiteBuild;
}

/** A checklist with these checks and no others. @throws UsageError for one that it does not have */
function narrowed(checklist: Checklist, only: readonly string[]): Checklist {
  const unknown = only.find((id) => !checklist.items.some((i) => i.check === id));
  if (unknown !== undefined) throw new UsageError(`--only: the checklist has no check “${unknown}”`);
  return { ...checklist, items: checklist.items.filter((i) => only.includes(i.check)) };
}

async function givenBy(args: Arguments): Promise<Given> {
  const checklist = args.checklist ? readChecklistFile(args.checklist) : fullChecklist();
  return {
    brief: args.brief ? readDocument<Brief>(args.brief, 'brief') : {},
    profile: args.hostProfile ? readDocument<HostProfile>(args.hostProfile, 'host-profile') : undefined,
    checklist: args.only ? narrowed(checklist, args.only) : checklist,
    attestations: args.attestations
      ? readDocument<Attestation[]>(args.attestations, 'attestations')
      : undefined,
    ...(args.build === undefined ? {} : { build: await readBuild(args.build) }),
  };
}

/** Stored, recorded elsewhere, or collected now. */
function evidenceFor(args: Arguments, given: Given): Evidence | Promise<Evidence> {
  if (args.fromEvidence) return readEvidence(args.fromEvidence);
  return args.fromHar ? fromFiles(args, given.brief) : gather(args, given);
}

function keepEvidence(args: Arguments, evidence: Evidence): void {
  if (args.evidence) writeFile(args.evidence, JSON.stringify(evidence));
  if (args.har) writeFile(args.har, JSON.stringify(toHar(evidence)));
  if (args.zone) writeFile(args.zone, dnsToZoneFile(evidence.dns));
}

const EXIT_CODES = { clear: 0, held: 1, undecided: 3 };
const NOTHING_JUDGED = 3;

/** @param failOn from which open fault on it fails; by the gate where nothing is said */
export function exitCodeOf(findings: readonly JudgedFinding[], failOn?: FailOn): number {
  const { coverage, gate, counts } = scoreOf(findings);
  if (coverage === 0) return NOTHING_JUDGED;
  if (!failOn) return EXIT_CODES[gate];
  const { blockers, majors, minors, undecidedBlockers } = counts;
  const failing: Record<FailOn, number> = {
    blocker: blockers,
    major: blockers + majors,
    minor: blockers + majors + minors,
    undecided: blockers + undecidedBlockers,
  };
  if (failing[failOn]) return EXIT_CODES.held;
  return gate === 'undecided' ? EXIT_CODES.undecided : EXIT_CODES.clear;
}
const UNREACHABLE = 2;
const HAND_LEFT_OUT = 'Manual checks are left out: give --attestations to count them.';

/** The result in the form that was asked for. */
function written(
  { format, brief, attestations, commands: isAsked }: Arguments,
  evidence: Evidence,
  situation: Situation,
  findings: JudgedFinding[],
  checkOf: (id: string) => Check | undefined,
): string {
  const commands = (id: string, place: string): string[] => {
    const check = isAsked ? checkOf(id) : undefined;
    return check ? commandsFor(check, place, evidence).map((c) => c.line) : [];
  };
  if (format === 'text') {
    const handLeftOut = attestations === undefined;
    return resultText(evidence, situation, findings, {
      handLeftOut,
      hasBrief: brief !== undefined,
      commands,
    });
  }
  if (format === 'json') return JSON.stringify(resultJson(evidence, situation, findings), null, 2);
  const audited: Audited = {
    url: evidence.target.url,
    situation,
    at: evidence.finishedAt,
    findings,
    result: scoreOf(findings, unreachedBy(evidence)),
    commands,
  };
  return FINDING_FORMATS[format].write(audited).replace(/\r?\n$/, '');
}

/** An address that is not dialled for its kind: which option lets it through. */
const hintFor = ({ pages, hosts }: Evidence): string => {
  const errors = [...pages.map((p) => p.chain.error), ...hosts.flatMap((h) => [h.https.error, h.http.error])];
  return errors.some((e) => e?.code === 'forbidden-address')
    ? ' --allow-private dials such addresses too.'
    : '';
};

/** @returns the exit code */
export async function audit(args: Arguments, put: (text: string) => void): Promise<number> {
  const given = await givenBy(args);
  const { attestations } = given;
  const evidence = await evidenceFor(args, given);
  keepEvidence(args, evidence);
  // with some parts only, the home page may not have been asked for
  const unreached = args.only ? undefined : unreachedBy(evidence);
  // the reason first: all else follows from it
  if (unreached !== undefined) say(`Nothing was reachable: ${unreached}.${hintFor(evidence)}`);
  const situation = args.situation ?? (evidence.target.kind === 'before' ? 'staging' : 'live');
  // judged at the time of collecting, so that stored evidence gives the same findings for ever
  const at = new Date(evidence.finishedAt);
  const findings = judge({ ...given, evidence, situation, at, skipManual: !attestations });
  put(written(args, evidence, situation, findings, checksOf(given.checklist)));
  if (unreached !== undefined) return UNREACHABLE;
  if (!attestations && args.format !== 'text') say(HAND_LEFT_OUT);
  return exitCodeOf(findings, args.failOn);
}
