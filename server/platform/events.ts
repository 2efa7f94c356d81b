/**
 * What has changed, told to whoever listens: screens that show it ask again. A key is a path of words and numbers
 * by which screens keep what they know, the widest first (`site`, its number).
 */
import type { Transaction } from 'sequelize';

export type Key = (string | number)[];
export interface Change {
  keys: Key[];
  /** The one person it concerns; everybody else's screens stay as they are. */
  personId?: number;
  /** Another process has told it. */
  fromElsewhere?: boolean;
}

const listeners = new Set<(change: Change) => void>();

/** @returns how to stop listening */
export function onChange(listener: (change: Change) => void): () => void {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}

/** Tells at once, or once the transaction is through: nobody is to ask for what is not there yet. */
export function announce(
  keys: Key[],
  { transaction, personId }: { transaction?: Transaction; personId?: number } = {},
): void {
  const say = (): void => tellAll({ keys, personId });
  if (transaction) transaction.afterCommit(say);
  else say();
}

/** Passes on what was announced. */
export function tellAll(change: Change): void {
  for (const listener of listeners) listener(change);
}
