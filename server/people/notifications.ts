/** Messages to people of the agency, shown in the application. */
import { Op, type Transaction } from 'sequelize';
import { now } from '#server/platform/clock';
import { announce } from '#server/platform/events';
import { COUNTED } from '#server/platform/windows';
import { NotificationRow, User } from './models';

/** @param link a path of the application */
export async function notify(
  userIds: readonly number[],
  text: string,
  link: string,
  transaction?: Transaction,
): Promise<void> {
  const at = now();
  if (userIds.length)
    await NotificationRow.bulkCreate(
      [...new Set(userIds)].map((userId) => ({
        userId,
        text: text.slice(0, 600),
        link: link.slice(0, 300),
        at,
      })),
      { transaction },
    );
  for (const personId of userIds) announce('MessagesChanged', {}, { transaction, personId });
}

/** Whom a site without an owner is the business of. */
export async function accountOwners(): Promise<number[]> {
  const owners = await User.findAll({ where: { owner: true, removedAt: null }, attributes: ['id'] });
  return owners.map((u) => u.id);
}

/** Whose business a site is: its owner’s, else the account owners’. */
export const siteOwners = async ({ ownerId }: { ownerId?: number | null }): Promise<number[]> =>
  ownerId ? [ownerId] : accountOwners();

const PER_WINDOW = 30;

/** One window of a person's messages, newest first, and how many are unread, up to a point. */
export async function messagesFor(userId: number, after?: number) {
  const where = after === undefined ? { userId } : { userId, id: { [Op.lt]: after } };
  const [found, unread] = await Promise.all([
    NotificationRow.findAll({ where, order: [['id', 'DESC']], limit: PER_WINDOW + 1 }),
    NotificationRow.findAll({ where: { userId, readAt: null }, attributes: ['id'], limit: COUNTED }),
  ]);
  const shown = found.slice(0, PER_WINDOW);
  const rows = shown.map((r) => ({
    id: r.id,
    text: r.text,
    link: r.link,
    at: r.at.toISOString(),
    read: r.readAt !== null,
  }));
  return { rows, next: found.length > PER_WINDOW ? shown.at(-1)!.id : null, unread: unread.length };
}

/** Marks a person's messages as read, up to the newest that was shown. */
export async function markRead(userId: number, upTo: number): Promise<void> {
  await NotificationRow.update(
    { readAt: now() },
    { where: { userId, readAt: null, id: { [Op.lte]: upTo } } },
  );
  announce('MessagesChanged', {}, { personId: userId });
}
