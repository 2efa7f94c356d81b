/**
 * How jobs that wait come to those who do them. What a job is and who has it stands in MariaDB with every delivery;
 * a delivery only says that there is one, and may say so twice, late, or never: what was not delivered is offered
 * again. Which one is taken up, MariaDB says: so the order holds whatever way the word took.
 */
import type { Lane } from './definition';

export interface Offered {
  id: number;
  lane: Lane;
  /** How often it was taken up already: the same job offered twice has the same number. */
  claims: number;
  /** Milliseconds until it may begin. */
  delayMs: number;
}

/** Takes up whichever comes next. @returns whether there was one */
export type RunNext = (lane: Lane) => Promise<boolean>;

export interface Delivery {
  /** Says that these wait. */
  offer(jobs: readonly Offered[]): Promise<void>;
  /** Hands jobs of a lane over as they come, so many at once. @returns how to end that */
  serve(lane: Lane, atOnce: number, runNext: RunNext): Promise<() => Promise<void>>;
  /** How many it knows of that wait; undefined where nothing can be lost on the way. */
  waiting(lane: Lane): Promise<number | undefined>;
  close(): Promise<void>;
}
