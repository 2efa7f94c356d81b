/** Findings as Markdown (CommonMark), for a ticket or a wiki: faults first, the worst on top. */
import { escapeMarkdown } from '#core/formats/markdown';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { compareWorst } from '#core/score/urgency';
import { pointsLost } from '#core/score/score';
import { pointsText } from '#core/text/points';
import { quantity } from '#core/text/quantity';
import { openPlaces, saidOf, type Audited } from './audited';
import { headingOf } from '#core/facts/heading';
import { fewCommands } from '#core/verify/commands';

const MOST_PLACES = 20;

const FENCE = '```';

/** Lines to paste, in a fence: they are code, and are not to be escaped. */
const fenced = (lines: readonly string[]): string[] => (lines.length ? ['', FENCE, ...lines, FENCE] : []);

function faultLines(f: JudgedFinding, commands: Audited['commands']): string[] {
  const places = openPlaces(f);
  const shown = places.length > 1 ? places.slice(0, MOST_PLACES) : [];
  return [
    '',
    `### ${escapeMarkdown(headingOf(f))}`,
    '',
    `${f.severity}, ${f.accepted ? 'accepted' : `${escapeMarkdown(pointsText(pointsLost(f)))} points`}, \`${f.check}\``,
    '',
    `- expected: ${escapeMarkdown(f.expected ?? '')}`,
    `- found: ${escapeMarkdown(f.found ?? '')}`,
    ...shown.map((p) => `- ${escapeMarkdown(p.place)}: ${escapeMarkdown(p.found ?? '')}`),
    ...(shown.length < places.length && shown.length
      ? [`- and ${quantity(places.length - shown.length, 'more', 'more')}`]
      : []),
    ...(f.recipe ? ['', `How to fix it: ${escapeMarkdown(f.recipe.steps)}`] : []),
    ...(f.recipe?.paste ?? []).flatMap(({ label, text }) => [
      '',
      `${escapeMarkdown(label)}:`,
      ...fenced(text.split('\n').map((line) => line.replaceAll(FENCE, "'''"))),
    ]),
    ...shownBy(f, commands),
  ];
}

function shownBy(f: JudgedFinding, commands: Audited['commands']): string[] {
  const lines = openPlaces(f).flatMap((p) => commands?.(f.check, p.place) ?? []);
  const own = fewCommands(lines);
  return own.length ? ['', 'See it yourself:', ...fenced(own)] : [];
}

export function findingsMarkdown({ url, situation, at, findings, result, commands }: Audited): string {
  const of = (...outcomes: string[]): JudgedFinding[] =>
    findings.filter((f) => outcomes.includes(f.outcome)).sort(compareWorst);
  const failed = of('failed');
  const open = of('cantTell', 'untested');
  const provisional = result.provisional ? ' (provisional)' : '';
  const lines = [
    `# ${escapeMarkdown(url)}`,
    '',
    `${situation}, ${escapeMarkdown(at)}`,
    '',
    ...(result.unreached === undefined
      ? []
      : [`Nothing of the site was reached: ${escapeMarkdown(result.unreached)}`, '']),
    `Score ${result.score ?? '–'}${provisional}, ${escapeMarkdown(pointsText(result.lost))} points lost, coverage ${result.coverage ?? '–'} %, gate ${result.gateNote}`,
    '',
    `## Failed: ${failed.length}`,
    ...failed.flatMap((f) => faultLines(f, commands)),
    '',
    `## Not decided: ${open.length}`,
    '',
    ...open.map((f) => `- ${escapeMarkdown(headingOf(f))} (\`${f.check}\`): ${escapeMarkdown(saidOf(f))}`),
    '',
    `Passed: ${of('passed').length}, not applicable: ${of('inapplicable').length}`,
  ];
  return `${lines.join('\n')}\n`;
}
