/**
 * What happens in one subject and concerns others. Whoever changes something emits an event in the transaction that
 * changes it; subjects further up, which it must not import, subscribe. What a subscriber does in that transaction
 * is done exactly once: it is kept with the change, or neither is.
 */
import type { Transaction } from 'sequelize';
import type { DomainEvents, EventName } from '#core/facts/domain-events';

type Handler<E extends EventName> = (data: DomainEvents[E], transaction: Transaction) => Promise<void>;

const handlers = new Map<EventName, Handler<EventName>[]>();

/** Calls `handler` in the transaction of each event of this name. */
export function subscribe<E extends EventName>(name: E, handler: Handler<E>): void {
  handlers.set(name, [...(handlers.get(name) ?? []), handler as Handler<EventName>]);
}

/** Tells all subscribers, one after the other, in the order in which they subscribed. @throws what they throw */
export async function emit<E extends EventName>(
  name: E,
  data: DomainEvents[E],
  transaction: Transaction,
): Promise<void> {
  for (const handle of handlers.get(name) ?? []) await handle(data, transaction);
}
