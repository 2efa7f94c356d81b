/** The result of an audit as JSON and as text. */
import type { Evidence } from '#core/facts/evidence';
import { SECTIONS } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { failedPlaces } from '#core/checks/kit/judgement';
import { rootOf } from '#core/text/common-messages';
import { formatMessage } from '#core/text/messages';
import { unreachedBy } from '#core/score/reached';
import { pointsLost, scoreOf } from '#core/score/score';
import { quantity } from '#core/text/quantity';
import { compareWorst } from '#core/score/urgency';
import { pointsText } from '#core/text/points';
import { headingOf } from '#core/facts/heading';
import { fewCommands } from '#core/verify/commands';

/** The published JSON shape. */
export function resultJson(evidence: Evidence, situation: Situation, findings: JudgedFinding[]) {
  const r = scoreOf(findings, unreachedBy(evidence));
  return {
    version: 2,
    target: evidence.target.url,
    situation,
    at: evidence.finishedAt,
    score: r.score,
    lost: r.lost,
    ...(r.scoreAsFound !== undefined ? { scoreAsFound: r.scoreAsFound } : {}),
    coverage: r.coverage,
    provisional: r.provisional,
    gate: r.gate,
    gateNote: r.gateNote,
    ...(r.unreached === undefined ? {} : { unreached: r.unreached }),
    ...(r.unscored === undefined ? {} : { unscored: r.unscored }),
    sections: Object.fromEntries(
      SECTIONS.map((s) => [
        s,
        {
          score: r.sections[s].score,
          lost: r.sections[s].lost,
          coverage: r.sections[s].coverage,
          gate: r.sections[s].gate,
        },
      ]),
    ),
    findings: findings.map((f) => ({
      check: f.check,
      title: f.title,
      fault: f.fault,
      outcome: f.outcome,
      severity: f.severity,
      weight: f.weight,
      credit: f.credit ? f.credit.num / f.credit.den : null,
      lost: pointsLost(f),
      expected: f.expected ?? null,
      found: f.found ?? null,
      reason: f.reason ?? null,
      code: f.code,
      data: f.data ?? {},
      notes: f.notes ?? [],
      places: f.places.map((p) => ({
        place: p.place,
        outcome: p.outcome,
        expected: p.expected ?? f.expected ?? null,
        found: p.found ?? p.reason ?? null,
        code: p.code,
        data: p.data ?? {},
      })),
    })),
    notes: evidence.notes,
  };
}

const plainText = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069]/g, '�')
    .replace(/\s+/g, ' ')
    .slice(0, 200);

const MOST_PLACES = 5;

/** A finding with its title, what was found, where, and the first line of how to fix it. */
type Commands = (check: string, place: string) => readonly string[];

/** The commands that show a fault, each once. */
function commandLines(f: JudgedFinding, commands: Commands): string[] {
  const lines = failedPlaces(f).flatMap((p) => commands(f.check, p.place));
  return fewCommands(lines).map((line) => `      $ ${plainText(line)}`);
}

function faultLines(f: JudgedFinding, commands: Commands): string[] {
  const bad = f.places.length > 1 ? failedPlaces(f, MOST_PLACES) : [];
  const more = failedPlaces(f).length - bad.length;
  return [
    `  ${f.severity.toUpperCase()}  ${plainText(headingOf(f))} (${f.check})${f.accepted ? ', accepted' : `, ${pointsText(pointsLost(f))} points`}`,
    `      expected ${plainText(f.expected ?? '')}; found ${plainText(f.found ?? '')}`,
    ...bad.map((p) => `      ${plainText(p.place)}: ${plainText(p.found ?? '')}`),
    ...(bad.length && more > 0 ? [`      and ${more} more`] : []),
    ...(f.notes ?? []).map((note) => `      note: ${plainText(note)}`),
    ...(f.recipe ? [`      how to fix it: ${plainText(f.recipe.steps.split('\n')[0]!)}`] : []),
    ...commandLines(f, commands),
  ];
}

/** What could not be judged: those with a reason of their own each, those that rest on another check counted. */
function undecidedLines(findings: readonly JudgedFinding[]): string[] {
  const own = findings.filter((f) => rootOf(f) === undefined);
  const resting = new Map<string, number>();
  for (const f of findings) {
    const root = rootOf(f);
    if (!root) continue;
    const text = plainText(`${root.check}: ${formatMessage(root.reason)}`);
    resting.set(text, (resting.get(text) ?? 0) + 1);
  }
  return [
    ...[...resting].map(([root, n]) => `  ${quantity(n, 'check rests', 'checks rest')} on ${root}`),
    ...own.map(
      (f) =>
        `  ${f.severity.padEnd(7)} ${plainText(headingOf(f))} (${f.check}): ${plainText(f.reason ?? f.outcome)}`,
    ),
  ];
}

/** For reading in a terminal. Control characters from audited sites never reach it. */
export function resultText(
  evidence: Evidence,
  situation: Situation,
  findings: JudgedFinding[],
  {
    handLeftOut,
    hasBrief,
    commands = () => [],
  }: { handLeftOut: boolean; hasBrief: boolean; commands?: Commands },
): string {
  const r = scoreOf(findings, unreachedBy(evidence));
  const of = (...outcomes: string[]): JudgedFinding[] =>
    findings.filter((f) => outcomes.includes(f.outcome)).sort(compareWorst);
  const [failed, undecided, untested] = [of('failed'), of('cantTell'), of('untested')];
  const provisional = r.provisional ? ' (provisional)' : '';
  const list = (title: string, lines: readonly string[]): string[] =>
    lines.length ? ['', title, ...lines] : [];
  return [
    `${plainText(evidence.target.url)} (${situation}), ${evidence.finishedAt}`,
    ...(r.unreached === undefined ? [] : [`Nothing of the site was reached: ${plainText(r.unreached)}`]),
    `Score ${r.score ?? '–'}${provisional}, ${pointsText(r.lost)} points lost, coverage ${r.coverage ?? '–'} %, gate ${r.gateNote}`,
    ...list(
      `Failed: ${failed.length}`,
      failed.flatMap((f) => faultLines(f, commands)),
    ),
    ...list(`Could not tell: ${undecided.length}`, undecidedLines(undecided)),
    ...list(
      `Untested: ${untested.length}`,
      hasBrief
        ? untested.map((f) => `  ${plainText(headingOf(f))} (${f.check}): ${plainText(f.reason ?? '')}`)
        : [],
    ),
    ...(hasBrief ? [] : ['', withoutBrief(untested)]),
    '',
    `Passed: ${of('passed').length}, not applicable: ${of('inapplicable').length}`,
    ...evidence.notes.flatMap((note) => ['', plainText(note)]),
    ...(handLeftOut ? ['', 'Manual checks are left out: give --attestations to count them.'] : []),
  ].join('\n');
}

/** What a brief would decide. */
function withoutBrief(untested: readonly JudgedFinding[]): string {
  const ids = untested.map((f) => f.check);
  return ids.length
    ? `Without a brief nobody knows what should be there: ${quantity(ids.length, 'check is', 'checks are')} untested, among them ${ids.slice(0, 6).join(', ')}. Give --brief FILE (docs/schemas/brief.schema.json).`
    : 'Give --brief FILE to hold the site against what is officially so.';
}
