/**
 * What happens in one subject and concerns others. Whoever changes something emits an event in the transaction that
 * changes it; subjects further up, which it must not import, subscribe. Screens are told once it is through.
 *
 * - `subscribe`: in the same transaction. It is done exactly once, since it is kept with the change, or neither is.
 * - `subscribeLater`: soon after, in a transaction of its own, in whichever process comes to it. What is to be done
 *   waits in a table that the first transaction writes, and goes with the second one: exactly once as well.
 */
import type { Transaction } from 'sequelize';
import type { DomainEvents, EventName } from '#core/facts/domain-events';
import { inTransaction } from './db/transaction';
import { announce } from './events';
import { addDeliveries, type Recipients } from './outbox';

type Handler<E extends EventName> = (data: DomainEvents[E], transaction: Transaction) => Promise<void>;

const handlers = new Map<EventName, Handler<EventName>[]>();
const later = new Map<EventName, string[]>();
const subscribers = new Map<string, Handler<EventName>>();

/** Calls `handler` in the transaction of each event of this name. */
export function subscribe<E extends EventName>(name: E, handler: Handler<E>): void {
  handlers.set(name, [...(handlers.get(name) ?? []), handler as Handler<EventName>]);
}

/**
 * Calls `handler` once after each event of these names.
 * @param subscriber its name in the table, which stays as long as a row may wait
 */
export function subscribeLater<E extends EventName>(
  subscriber: string,
  names: readonly E[],
  handler: Handler<E>,
): void {
  subscribers.set(subscriber, handler as Handler<EventName>);
  for (const name of names) later.set(name, [...(later.get(name) ?? []), subscriber]);
}

/**
 * Tells all subscribers, one after the other, in the order in which they subscribed.
 * @param within the transaction that changes what is told; without one, this opens one
 * @throws what they throw
 */
export function emit<E extends EventName>(
  name: E,
  data: DomainEvents[E],
  within?: Transaction,
): Promise<void> {
  return inTransaction(async (transaction) => {
    for (const handle of handlers.get(name) ?? []) await handle(data, transaction);
    await addDeliveries(
      (later.get(name) ?? []).map((subscriber) => ({ subscriber, name, data })),
      transaction,
    );
    announce(name, data, { transaction });
  }, within);
}

/** All that subscribed to something later. */
export const recipients: Recipients = {
  names: () => [...subscribers.keys()],
  handle: async ({ subscriber, data }, transaction) => {
    await subscribers.get(subscriber)!(data, transaction);
  },
};
