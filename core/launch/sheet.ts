/**
 * Where a launch stands: each step’s state from evidence and from what people said, what it waits for, and whether
 * to go. Pure; times in milliseconds.
 */
import type { Outcome } from '#core/facts/finding';
import {
  PHASES,
  type Condition,
  type LaunchTemplate,
  type Phase,
  type Proof,
  type TemplateStep,
} from '#core/facts/launch';
import { quantity } from '#core/text/quantity';

/** What is kept of a step. */
export interface KeptStep {
  /** A person said that it is done. */
  said?: { by: string; at: number; note?: string };
  leftOut?: { by: string; at: number; reason: string };
  /** When all that proves it was first seen to hold, and since held. */
  provenAt?: number;
  /** What was seen then. */
  provenBy?: ProofStanding[];
}

/** What a proof says now. */
export interface Seen {
  outcome: Outcome;
  /** What it looks at, in words. */
  title: string;
  found?: string;
  /** When that was looked at. */
  at: number;
  /** The audit that looked. */
  auditId?: number;
}

export type StepState =
  'to do' | 'waits' | 'to prove' | 'went back' | 'open at go' | 'done' | 'left out' | 'not applicable';

export interface SheetInput {
  template: LaunchTemplate;
  conditions: ReadonlySet<Condition>;
  kept: ReadonlyMap<string, KeptStep>;
  /** What is known of a proof; nothing where it was never looked at. */
  seen(proof: Proof): Seen | undefined;
  /** What a proof looks at, in words. */
  titleOf(proof: Proof): string;
  /** When the change was begun: what was to be done before it stands as it did then. Nothing before. */
  wentAt?: number;
  /** When the launch is planned. */
  plannedAt: number;
  /** How long caches keep what they have after TTLs were lowered, in seconds. */
  oldTtl: number;
  /** A site of one page has a short sheet. */
  isOnePage?: boolean;
}

/** A proof as it stands. */
export interface ProofStanding extends Proof {
  title: string;
  /** `unseen`: never, or not since what the step rests on was done. */
  outcome: Outcome | 'unseen';
  found?: string;
  at?: number;
  auditId?: number;
}

export interface StepStanding extends TemplateStep {
  state: StepState;
  plannedAt: number;
  proofs: ProofStanding[];
  /** Ids of steps that have to be done first. */
  waitsFor: string[];
  /** Until when it is too early, where that can be computed. */
  notBefore?: number;
  doneAt?: number;
  /** Done on evidence, and not on somebody’s word alone. */
  isProven: boolean;
  said?: KeptStep['said'];
  leftOut?: KeptStep['leftOut'];
}

export const HOUR_MS = 3_600_000;
/** The step after which caches need a while. */
export const LOWERING = 'ttl-lowered';

const SETTLED: ReadonlySet<StepState> = new Set(['done', 'left out', 'not applicable']);
/** Whether nothing is left to do for it. */
export const isSettled = (step: Pick<StepStanding, 'state'>): boolean => SETTLED.has(step.state);

/** What a proof shows of a step that could be begun at a time: what checks saw before does not count. */
function proofStanding(
  proof: Proof,
  { seen: look, titleOf }: Pick<SheetInput, 'seen' | 'titleOf'>,
  since: number,
): ProofStanding {
  const seen = look(proof);
  if (!seen) return { ...proof, title: titleOf(proof), outcome: 'unseen' };
  const { title, found, at, outcome, auditId } = seen;
  return proof.kind === 'check' && at < since
    ? { ...proof, title, outcome: 'unseen', at }
    : { ...proof, title, outcome, at, ...(found ? { found } : {}), ...(auditId ? { auditId } : {}) };
}

/** Proofs that have something to say: what is not applicable proves nothing, and asks for nothing. */
const deciding = (proofs: readonly ProofStanding[]): ProofStanding[] =>
  proofs.filter((p) => p.outcome !== 'inapplicable');

/** When all that proves a step was seen to hold; nothing where it does not, or nothing proves it. */
function provenNow(proofs: readonly ProofStanding[]): number | undefined {
  const all = deciding(proofs);
  return all.length && all.every((p) => p.outcome === 'passed')
    ? Math.max(...all.map((p) => p.at ?? 0))
    : undefined;
}

interface Judged {
  state: StepState;
  doneAt?: number;
  isProven: boolean;
}

/** The state of a step that a person said is done, or that was proven once, where it is not proven now. */
function judgeSaid({ said, provenAt }: KeptStep, all: readonly ProofStanding[]): Judged {
  const since = Math.max(said?.at ?? 0, provenAt ?? 0);
  const failed = all.filter((p) => p.outcome === 'failed');
  if (failed.some((p) => (p.at ?? 0) >= since)) return { state: 'went back', isProven: false };
  if (!said) return { state: 'to prove', isProven: false };
  // what nobody can see is done when somebody says so; what can be seen is looked at first
  return failed.length || all.some((p) => p.outcome === 'unseen')
    ? { state: 'to prove', isProven: false }
    : { state: 'done', doneAt: said.at, isProven: false };
}

/** The state of a step that belongs on the sheet and is not left out. */
function judge(kept: KeptStep, proofs: readonly ProofStanding[], isWaiting: boolean): Judged {
  const proven = provenNow(proofs);
  // what checks see before its time was so all along; what tells of the launch itself counts whenever it is seen
  const isTimely = !isWaiting || kept.provenAt !== undefined || proofs.every((p) => p.kind !== 'check');
  if (proven !== undefined && isTimely)
    return { state: 'done', doneAt: kept.provenAt ?? proven, isProven: true };
  if (kept.said || kept.provenAt !== undefined) return judgeSaid(kept, deciding(proofs));
  return { state: isWaiting ? 'waits' : 'to do', isProven: false };
}

/** The state of a step that was to be done before the change, once that was begun: what was proven stays proven. */
function judgeBefore({ said, provenAt }: KeptStep, proofs: readonly ProofStanding[]): Judged {
  const doneAt = provenAt ?? provenNow(proofs);
  if (doneAt !== undefined) return { state: 'done', doneAt, isProven: true };
  const isRefuted = deciding(proofs).some((p) => p.outcome === 'failed');
  return said && !isRefuted
    ? { state: 'done', doneAt: said.at, isProven: false }
    : { state: 'open at go', isProven: false };
}

const BEFORE_GO: ReadonlySet<Phase> = new Set(['week before', 'day before']);

/** The whole sheet, in the order of the template within each phase. */
export function sheetOf(input: SheetInput): StepStanding[] {
  const { template, conditions, kept, plannedAt, oldTtl } = input;
  const known = new Map(template.steps.map((step) => [step.id, step]));
  const standing = new Map<string, StepStanding>();
  /** @param path the steps that ask: of two that wait for each other neither counts */
  const stand = (step: TemplateStep, path: readonly string[]): StepStanding => {
    const before = standing.get(step.id);
    if (before) return before;
    const rests = step.after.flatMap((id) => {
      const other = known.get(id);
      return other && !path.includes(id) && id !== step.id ? [stand(other, [...path, step.id])] : [];
    });
    // what was open when somebody said go holds nothing back any more
    const waitsFor = rests.filter((r) => !isSettled(r) && r.state !== 'open at go').map((r) => r.id);
    const since = Math.max(0, ...rests.map((r) => r.doneAt ?? 0));
    const lowered = rests.find((r) => r.id === LOWERING)?.doneAt;
    const own = kept.get(step.id) ?? {};
    const isOver = input.wentAt !== undefined && BEFORE_GO.has(step.phase);
    const proofs =
      isOver && own.provenBy ? own.provenBy : step.proofs.map((proof) => proofStanding(proof, input, since));
    const judgeStep = (): Judged =>
      isOver ? judgeBefore(own, proofs) : judge(own, proofs, waitsFor.length > 0);
    const judged: Judged = own.leftOut
      ? { state: 'left out', isProven: false }
      : conditions.has(step.when) && !(input.isOnePage && step.isLong)
        ? judgeStep()
        : { state: 'not applicable', isProven: false };
    const one: StepStanding = {
      ...step,
      ...judged,
      proofs,
      waitsFor,
      plannedAt: plannedAt + step.offsetHours * HOUR_MS,
      ...(lowered === undefined ? {} : { notBefore: lowered + oldTtl * 1000 }),
      ...(own.said ? { said: own.said } : {}),
      ...(own.leftOut ? { leftOut: own.leftOut } : {}),
    };
    standing.set(step.id, one);
    return one;
  };
  const all = template.steps.map((step) => stand(step, []));
  return PHASES.flatMap((phase) => all.filter((s) => s.phase === phase));
}

/** What evidence says anew of a step: since when it is proven; null where it does not hold any more. */
export interface Turn {
  id: string;
  provenAt: number | null;
  /** What was seen to hold. */
  provenBy?: ProofStanding[];
}

/** What evidence has changed since a sheet was last settled. */
export function settled(sheet: readonly StepStanding[], kept: ReadonlyMap<string, KeptStep>): Turn[] {
  return sheet.flatMap(({ id, state, isProven, doneAt, proofs }): Turn[] => {
    const before = kept.get(id)?.provenAt;
    if (isProven && before === undefined) return [{ id, provenAt: doneAt!, provenBy: proofs }];
    return before !== undefined && state === 'went back' ? [{ id, provenAt: null }] : [];
  });
}

const DOABLE: StepState[] = ['went back', 'to prove', 'to do', 'open at go'];

/** What can be done now: what went back first, then what only has to be looked at, each by its time. */
export const actionsOf = <S extends Pick<StepStanding, 'state' | 'plannedAt'>>(steps: readonly S[]): S[] =>
  steps
    .filter((s) => DOABLE.includes(s.state))
    .sort((a, b) => DOABLE.indexOf(a.state) - DOABLE.indexOf(b.state) || a.plannedAt - b.plannedAt);

export interface GoStanding {
  isGo: boolean;
  /** What stands against it, in sentences, the heaviest first. */
  against: string[];
  /** What it is, one by one, whatever the sentences say: what somebody was shown, and what is new. */
  codes: string[];
}

/** What else counts for the decision. */
export interface GoInput {
  /** Checks by their ids. */
  blockers: { failed: readonly string[]; unsure: readonly string[] };
  /** What the newest yes of the client is worth; nothing where none was said. */
  yes: Outcome | null;
  conflicts: readonly string[];
}

/** Whether to go, from the gate, the client’s yes, the plan and the steps before the launch. */
export function goOf(sheet: readonly StepStanding[], { blockers, yes, conflicts }: GoInput): GoStanding {
  const open = sheet.filter((s) => BEFORE_GO.has(s.phase) && !isSettled(s));
  const against = [
    ...(blockers.failed.length
      ? [`${quantity(blockers.failed.length, 'blocker')} open before the live environment.`]
      : []),
    ...(yes === null ? ['The client has not said yes.'] : []),
    ...(yes === 'failed' ? ['The content has changed since the client said yes.'] : []),
    ...(yes === 'cantTell' ? ['It cannot be told whether the content is what the client said yes to.'] : []),
    ...conflicts,
    ...(open.length
      ? [
          `${quantity(open.length, 'step')} before the launch ${open.length === 1 ? 'is' : 'are'} not done: ${open
            .slice(0, 3)
            .map((s) => s.title)
            .join('; ')}${open.length > 3 ? ' …' : '.'}`,
        ]
      : []),
    ...(blockers.unsure.length
      ? [
          `${quantity(blockers.unsure.length, 'blocker check')} before the live environment ${blockers.unsure.length === 1 ? 'is' : 'are'} undecided.`,
        ]
      : []),
  ];
  const codes = [
    ...blockers.failed.map((id) => `blocker ${id}`),
    ...blockers.unsure.map((id) => `undecided ${id}`),
    ...(yes === 'passed' ? [] : [`yes ${yes ?? 'none'}`]),
    ...conflicts.map((text) => `conflict ${text}`),
    ...open.map(({ id }) => `step ${id}`),
  ];
  return { isGo: against.length === 0, against, codes };
}
