/** What has happened, told to whoever listens in this process; screens that show it ask again. */
import type { Transaction } from 'sequelize';
import type { DomainEvents, EventName } from '#core/facts/domain-events';

export interface Change<E extends EventName = EventName> {
  name: E;
  data: DomainEvents[E];
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
export function announce<E extends EventName>(
  name: E,
  data: DomainEvents[E],
  { transaction, personId }: { transaction?: Transaction; personId?: number } = {},
): void {
  const say = (): void => tellAll({ name, data, personId });
  if (transaction) transaction.afterCommit(say);
  else say();
}

/** Passes on what was announced. */
export function tellAll(change: Change): void {
  for (const listener of listeners) listener(change);
}
