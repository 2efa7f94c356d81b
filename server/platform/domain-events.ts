/**
 * Events between subjects. Code that changes something emits an event in the transaction that changes it. Subjects
 * that it must not import subscribe. Screens are told after the commit.
 *
 * - `subscribe`: handled in the same transaction, so exactly once: the change and its handling are stored together.
 * - `subscribeLater`: handled soon after the commit, in a transaction of its own, by any process. A row of
 *   `event_delivery` is written by the first transaction and removed by the second, so this is exactly once as well.
 */
import type { Transaction } from 'sequelize';
import { screenKeys, type DomainEvents, type EventName } from '#core/facts/domain-events';
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
 * @param subscriber its name in the table: keep it as long as rows may wait
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
 * Calls all subscribers, one after the other, in the order in which they subscribed.
 * @param within the transaction of the change; without one, this opens its own
 * @throws what a subscriber throws
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
    if (screenKeys({ name, data }).length) announce(name, data, { transaction });
  }, within);
}

/** All later subscribers of this process. */
export const recipients: Recipients = {
  names: () => [...subscribers.keys()],
  handle: async ({ subscriber, data }, transaction) => {
    await subscribers.get(subscriber)!(data, transaction);
  },
};
