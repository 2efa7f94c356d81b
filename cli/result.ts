/** The result of an audit as JSON and as text. */
import type { Evidence } from '#core/facts/evidence';
import { SECTIONS, SECTION_TITLES } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { failedPlaces } from '#core/checks/kit/judgement';
import { scoreOf } from '#core/score/score';
import { urgency } from '#core/score/urgency';

/** The published JSON shape. */
export function resultJson(evidence: Evidence, situation: Situation, findings: JudgedFinding[]) {
  const r = scoreOf(findings);
  return {
    version: 1,
    target: evidence.target.url,
    situation,
    at: evidence.finishedAt,
    score: r.score,
    ...(r.scoreAsFound !== undefined ? { scoreAsFound: r.scoreAsFound } : {}),
    coverage: r.coverage,
    provisional: r.provisional,
    gate: r.gate,
    gateNote: r.gateNote,
    sections: Object.fromEntries(
      SECTIONS.map((s) => [
        s,
        { score: r.sections[s].score, coverage: r.sections[s].coverage, gate: r.sections[s].gate },
      ]),
    ),
    findings: findings.map((f) => ({
      check: f.check,
      outcome: f.outcome,
      severity: f.severity,
      weight: f.weight,
      credit: f.credit ? f.credit.num / f.credit.den : null,
      expected: f.expected ?? null,
      found: f.found ?? null,
      reason: f.reason ?? null,
      places: f.places.map((p) => ({
        place: p.place,
        outcome: p.outcome,
        expected: p.expected ?? f.expected ?? null,
        found: p.found ?? p.reason ?? null,
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

/** What the outcome of one finding rests on. */
function detailOf(f: JudgedFinding): string {
  if (f.outcome === 'failed')
    return `: expected ${plainText(f.expected ?? '')}; found ${plainText(f.found ?? '')}`;
  return f.reason ? `: ${plainText(f.reason)}` : '';
}

const MOST_PLACES = 5;

/** A finding's line, and where it failed at several places. */
function linesOf(f: JudgedFinding): string[] {
  const line = `  ${f.outcome.padEnd(12)} ${f.severity.padEnd(7)} ${f.check}${detailOf(f)}`;
  if (f.outcome !== 'failed' || f.places.length < 2) return [line];
  const bad = failedPlaces(f, MOST_PLACES);
  return [line, ...bad.map((p) => `      ${plainText(p.place)}: ${plainText(p.found ?? '')}`)];
}

/** For reading in a terminal. Control characters from audited sites never reach it. */
export function resultText(
  evidence: Evidence,
  situation: Situation,
  findings: JudgedFinding[],
  handLeftOut: boolean,
): string {
  const r = scoreOf(findings);
  const provisional = r.provisional ? ' (provisional)' : '';
  const lines = [
    `${plainText(evidence.target.url)} (${situation}), ${evidence.finishedAt}`,
    `Score ${r.score ?? '–'}${provisional}, coverage ${r.coverage ?? '–'} %, gate ${r.gateNote}`,
    '',
  ];
  for (const section of SECTIONS) {
    const own = findings.filter((f) => f.section === section).sort((a, b) => urgency(a) - urgency(b));
    if (!own.length) continue;
    lines.push(`${SECTION_TITLES[section]}: ${r.sections[section].score ?? '–'}`);
    lines.push(...own.flatMap(linesOf));
  }
  for (const note of evidence.notes) lines.push('', note);
  if (handLeftOut) lines.push('', 'Checks by hand are left out: give --attestations to count them.');
  return lines.join('\n');
}
