/** Messages to people of the agency, shown in the application. */
import { Op, type Transaction } from 'sequelize';
import { NotificationRow } from './models';

/** @param link a path of the application */
export async function tell(
  userIds: readonly number[],
  text: string,
  link: string,
  transaction?: Transaction,
): Promise<void> {
  const at = new Date();
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
}

/** A person's messages, newest first. */
export async function messagesFor(userId: number) {
  const rows = await NotificationRow.findAll({ where: { userId }, order: [['id', 'DESC']], limit: 50 });
  return rows.map((r) => ({
    id: r.id,
    text: r.text,
    link: r.link,
    at: r.at.toISOString(),
    read: r.readAt !== null,
  }));
}

/** Marks a person's messages as read, up to the newest that was shown. */
export async function markRead(userId: number, upTo: number): Promise<void> {
  await NotificationRow.update(
    { readAt: new Date() },
    { where: { userId, readAt: null, id: { [Op.lte]: upTo } } },
  );
}
