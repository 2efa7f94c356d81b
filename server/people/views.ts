/** Filters of a screen, kept by each person under names of their own. */
import { Conflict, NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import type { ViewDto } from './dto';
import { SavedView } from './models';

const MOST = 50;

export async function viewsOf(
  userId: number,
  screen: string,
): Promise<{ id: number; name: string; query: string }[]> {
  const rows = await SavedView.findAll({ where: { userId, screen }, order: [['name', 'ASC']] });
  return rows.map(({ id, name, query }) => ({ id, name, query }));
}

/** Keeps a view; one of the same name is replaced. @throws Conflict when there are too many */
export async function saveView(userId: number, { screen, name, query }: ViewDto): Promise<void> {
  const there = await SavedView.findOne({ where: { userId, screen, name } });
  if (!there && (await SavedView.count({ where: { userId, screen } })) >= MOST)
    throw new Conflict(`No more than ${MOST} views are kept. Delete one first.`);
  await SavedView.upsert({ userId, screen, name, query });
  announce('ViewsChanged', {}, { personId: userId });
}

/** @throws NotFound also for a view of somebody else */
export async function deleteView(userId: number, id: number): Promise<void> {
  if (!(await SavedView.destroy({ where: { id, userId } })))
    throw new NotFound('This view does not exist, or not any more.');
  announce('ViewsChanged', {}, { personId: userId });
}
