/** What a kind of long work says of itself. Work is named, and what it is given is plain JSON: it outlives a process. */
import type { Transaction } from 'sequelize';

/** What somebody sits and waits for has workers of its own, so that no night's work stands in its way. */
export const LANES = ['waited', 'work'] as const;
export type Lane = (typeof LANES)[number];

/** The lower, the sooner. */
export const PRIORITY = { waiting: 5, person: 10, afterwards: 20, night: 30 } as const;

/** How far work is, in words. */
export interface Progress {
  phase: string;
  done: number;
  total: number;
  current?: string;
}

/** A job as whoever does it sees it. */
export interface Work {
  readonly id: number;
  /** Aborted when somebody stops it, when this process ends, and when another has taken it over. */
  readonly signal: AbortSignal;
  /** How often it was cut off and begun again. */
  readonly losses: number;
  readonly by: string;
  progress(progress: Progress): void;
  /**
   * One step for each item, a few at once. What a step gives is kept; items that were done before it was cut off
   * are not done again. Where one fails the others go on.
   */
  each<T>(
    items: readonly T[],
    step: (item: T) => Promise<object | undefined>,
    atOnce?: number,
  ): Promise<void>;
  /** Holds the job until the transaction ends. @throws LeaseLost where another has it by now */
  hold(transaction: Transaction): Promise<void>;
}

export interface JobDefinition<P extends object> {
  name: string;
  lane: Lane;
  /** What the payload is checked by, when it is put down and when it is taken up. */
  payload: new () => P;
  /** How often it is tried before it counts as failed; 1 unless said. */
  attempts?: number;
  /** @returns what whoever asked for it is told */
  run(payload: P, work: Work): Promise<object | undefined>;
  /** Tidies up where it will not be tried again and did not come to its end, in the transaction that ends it. */
  ended?(payload: P, how: 'stopped' | 'failed', why: string, transaction: Transaction): Promise<void>;
}

export const STOPPED = 'Stopped by a person.';

/** The job went to another worker: whatever this one still does counts no more. */
export class LeaseLost extends Error {
  constructor() {
    super('Another worker has taken this over.');
    this.name = 'LeaseLost';
  }
}

const known = new Map<string, JobDefinition<object>>();

/** Makes a kind of work known to this process. @throws Error for a name that is taken */
export function defineJob<P extends object>(definition: JobDefinition<P>): JobDefinition<P> {
  if (known.has(definition.name)) throw new Error(`two kinds of work are named ${definition.name}`);
  known.set(definition.name, definition as JobDefinition<object>);
  return definition;
}

/** Tidies up after a job that did not come to its end. */
export async function tidyUp(
  { name, payload }: { name: string; payload: string },
  how: 'stopped' | 'failed',
  why: string,
  transaction: Transaction,
): Promise<void> {
  await definitionOf(name).ended?.(JSON.parse(payload) as object, how, why, transaction);
}

/** @throws Error for what is not known to this version */
export function definitionOf(name: string): JobDefinition<object> {
  const definition = known.get(name);
  if (!definition) throw new Error(`this version knows no work named ${name}`);
  return definition;
}
