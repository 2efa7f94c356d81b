/** A checklist as a plain list in Markdown (CommonMark) that people can print and tick off. */
import { escapeMarkdown } from './markdown';
import { checksOf } from '#core/checks/engine/checklist';
import type { Checklist } from '#core/facts/checklist';
import { SECTION_TITLES, SECTIONS } from '#core/facts/finding';
import { SITUATION_WORDS } from '#core/facts/situation';

export function checklistMarkdown(checklist: Checklist): string {
  const checkOf = checksOf(checklist);
  const lines = [
    `# ${escapeMarkdown(checklist.name)}`,
    '',
    ...(checklist.description ? [escapeMarkdown(checklist.description), ''] : []),
    `Version ${checklist.version}`,
  ];
  for (const section of SECTIONS) {
    const own = checklist.items
      .filter((i) => i.on !== false)
      .map((item) => ({ item, check: checkOf(item.check) }))
      .filter((x) => x.check?.section === section);
    if (!own.length) continue;
    lines.push('', `## ${SECTION_TITLES[section]}`, '');
    for (const { item, check } of own) {
      const limits = Object.entries(check!.parameters ?? {}).map(
        ([k, p]) => `${Number(item.parameters?.[k] ?? p.default)} ${p.unit}`,
      );
      lines.push(
        `- [ ] ${escapeMarkdown(item.title || check!.title)} (${item.severity ?? check!.severity}${check!.byHand ? ', manual' : ''}${limits.length ? `, ${escapeMarkdown(limits.join(', '))}` : ''}; ${check!.situations.map((s) => SITUATION_WORDS[s]).join(', ')})${item.note ? `  \n  ${escapeMarkdown(item.note)}` : ''}`,
      );
    }
  }
  return `${lines.join('\n')}\n`;
}
