/** The result of an audit as JSON and as text. */
import type { Evidence } from '#core/facts/evidence';
import { SECTIONS, SECTION_TITLES } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import type { JudgedFinding } from '#core/checks/engine/judge';
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

/** For reading in a terminal. Control characters from audited sites never reach it. */
export function resultText(
  evidence: Evidence,
  situation: Situation,
  findings: JudgedFinding[],
  handLeftOut: boolean,
): string {
  const r = scoreOf(findings);
  const lines = [
    `${plainText(evidence.target.url)} (${situation}), ${evidence.finishedAt}`,
    `Score ${r.score ?? '–'}${r.provisional ? ' (provisional)' : ''}, coverage ${r.coverage ?? '–'} %, gate ${r.gateNote}`,
    '',
  ];
  for (const section of SECTIONS) {
    const own = findings.filter((f) => f.section === section).sort((a, b) => urgency(a) - urgency(b));
    if (!own.length) continue;
    lines.push(`${SECTION_TITLES[section]}: ${r.sections[section].score ?? '–'}`);
    for (const f of own) {
      lines.push(
        `  ${f.outcome.padEnd(12)} ${f.severity.padEnd(7)} ${f.check}${f.outcome === 'failed' ? `: expected ${plainText(f.expected ?? '')}; found ${plainText(f.found ?? '')}` : f.reason ? `: ${plainText(f.reason)}` : ''}`,
      );
      if (f.outcome === 'failed' && f.places.length > 1)
        for (const p of f.places.filter((x) => x.outcome === 'failed').slice(0, 5))
          lines.push(`      ${plainText(p.place)}: ${plainText(p.found ?? '')}`);
    }
  }
  for (const note of evidence.notes) lines.push('', note);
  if (handLeftOut) lines.push('', 'Checks by hand are left out: give --attestations to count them.');
  return lines.join('\n');
}
