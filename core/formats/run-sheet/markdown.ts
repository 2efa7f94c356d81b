/** A run sheet in Markdown (CommonMark), to print or to pass on. */
import { ACCOUNT_WORDS, PERFORMER_WORDS, PHASES, PHASE_WORDS, type SiteAccount } from '#core/facts/launch';
import { escapeMarkdown } from '#core/formats/markdown';
import { isSettled, type GoStanding, type StepStanding } from '#core/launch/sheet';

interface PrintedStep extends StepStanding {
  owner: { name: string } | null;
  text: string;
}

export interface PrintedSheet {
  siteName: string;
  when: string;
  /** A moment as people read it. */
  moment(at: number): string;
  steps: readonly PrintedStep[];
  go: GoStanding;
  accounts: readonly SiteAccount[];
}

/** A block of text as it is, whatever it holds (CommonMark 4.5). */
function fenced(text: string): string {
  const longest = Math.max(2, ...[...text.matchAll(/`+/g)].map((m) => m[0].length));
  const fence = '`'.repeat(longest + 1);
  return `${fence}\n${text}\n${fence}`;
}

const indented = (text: string): string => text.replace(/^(?=.)/gm, '  ');

function stepLines(
  step: PrintedStep,
  titles: ReadonlyMap<string, string>,
  moment: PrintedSheet['moment'],
): string {
  const { title, what, state, owner, who, where, waitsFor, leftOut, back, text, said } = step;
  const facts = [
    moment(step.plannedAt),
    owner?.name ?? PERFORMER_WORDS[who],
    where && ACCOUNT_WORDS[where],
    state === 'done' && said ? `done by ${said.by}` : state,
    waitsFor.length && `after: ${waitsFor.map((id) => titles.get(id) ?? id).join('; ')}`,
    leftOut && `left out by ${leftOut.by}: ${leftOut.reason}`,
  ].filter((f): f is string => Boolean(f));
  return [
    `- [${isSettled(step) ? 'x' : ' '}] **${escapeMarkdown(title)}** (${escapeMarkdown(facts.join(' · '))})`,
    what && indented(escapeMarkdown(what)),
    back && indented(`The way back: ${escapeMarkdown(back)}`),
    text && indented(`\n${fenced(text)}`),
  ]
    .filter(Boolean)
    .join('\n');
}

/** Steps that are not applicable are left out. */
export function launchMarkdown({ siteName, when, moment, steps, go, accounts }: PrintedSheet): string {
  const shown = steps.filter((s) => s.state !== 'not applicable');
  const titles = new Map(steps.map((s) => [s.id, s.title]));
  const phases = PHASES.flatMap((phase) => {
    const own = shown.filter((s) => s.phase === phase);
    return own.length
      ? [`## ${PHASE_WORDS[phase]}`, own.map((s) => stepLines(s, titles, moment)).join('\n')]
      : [];
  });
  const owned = accounts.map(
    (a) =>
      `- **${ACCOUNT_WORDS[a.kind]}**: ${escapeMarkdown(
        [
          a.operator,
          a.holder && `held by ${a.holder}`,
          a.access && `access: ${a.access}`,
          a.payer && `paid by ${a.payer}`,
        ]
          .filter(Boolean)
          .join(', '),
      )}`,
  );
  return `${[
    `# Launch of ${escapeMarkdown(siteName)}`,
    `Planned for ${escapeMarkdown(when)}.`,
    go.isGo
      ? 'Nothing stands against it.'
      : `Against it:\n\n${go.against.map((a) => `- ${escapeMarkdown(a)}`).join('\n')}`,
    ...(owned.length ? ['## Accounts', owned.join('\n')] : []),
    ...phases,
  ].join('\n\n')}\n`;
}
