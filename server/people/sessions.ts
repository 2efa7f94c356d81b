/**
 * Sessions: a sealed cookie names one, and it counts only while its row is there and its person's session
 * version is the one it was made under. So signing out, a new password and removal end it at once.
 */
import { randomBytes } from 'node:crypto';
import type { H3Event } from 'h3';
import { Op } from 'sequelize';
import { realNow } from '#server/platform/clock';
import { NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { clientAddress } from '#server/platform/http/client-address';
import { SessionRow, User, type Person } from './models';

/** How long a session lasts without being used. */
const LASTS_MS = 7 * 86_400_000;
/** How exactly it is kept when a session was last used. */
const SEEN_EVERY_MS = 5 * 60_000;

/** The cookie is for https alone where the application stands behind it; a setting of the start. */
const cookie = () => ({ cookie: { secure: process.env.ARMBAND_BEHIND_HTTPS === '1' } }) as never;

/** Begins a session and gives the browser its cookie. */
export async function beginSession(event: H3Event, person: Person): Promise<void> {
  const { sessionVersion } = await User.findByPk(person.id, { rejectOnEmpty: true });
  const id = randomBytes(16).toString('hex');
  const at = new Date(realNow());
  await SessionRow.destroy({ where: { seenAt: { [Op.lt]: new Date(at.getTime() - LASTS_MS) } } });
  await SessionRow.create({
    id,
    userId: person.id,
    version: sessionVersion,
    agent: (getHeader(event, 'user-agent') ?? '').slice(0, 300),
    address: clientAddress(event.node.req).slice(0, 60),
    createdAt: at,
    seenAt: at,
  });
  announce('PeopleChanged', {}, { personId: person.id });
  // what is secure is not told to the browser's scripts
  await replaceUserSession(
    event,
    { user: person, secure: { session: id }, loggedInAt: at.getTime() },
    cookie(),
  );
}

/** Whose a session is, while it lasts. */
async function userOf(session: string): Promise<User | undefined> {
  const row = await SessionRow.findByPk(session);
  const user = row && (await User.findByPk(row.userId));
  const now = realNow();
  const isGood =
    row &&
    user &&
    user.removedAt === null &&
    row.version === user.sessionVersion &&
    now - row.seenAt.getTime() < LASTS_MS;
  if (!isGood) return undefined;
  if (now - row.seenAt.getTime() > SEEN_EVERY_MS) await row.update({ seenAt: new Date(now) });
  return user;
}

/** Whether a session lasts still, for what goes on after the answer has begun. */
export const isSessionGood = async (session: string): Promise<boolean> => Boolean(await userOf(session));

/** The person whose session this is; undefined for strangers and for sessions that have ended. */
export async function sessionPerson(event: H3Event): Promise<Person | undefined> {
  const { secure } = (await getUserSession(event)) as { secure?: { session?: unknown } };
  const session = secure?.session;
  if (typeof session !== 'string') return undefined;
  const user = await userOf(session);
  if (!user) {
    await clearUserSession(event, cookie());
    return undefined;
  }
  event.context.session = session;
  return { id: user.id, name: user.name, email: user.email, owner: user.owner };
}

export async function endSession(event: H3Event): Promise<void> {
  const { session } = event.context;
  if (session) await SessionRow.destroy({ where: { id: session } });
  await clearUserSession(event, cookie());
}

/** A person's sessions, the one that asks marked; by a part of their id, since the whole is a key. */
export async function sessionsOf(userId: number, own: string | undefined) {
  const rows = await SessionRow.findAll({
    where: { userId, seenAt: { [Op.gt]: new Date(Date.now() - LASTS_MS) } },
    order: [['seenAt', 'DESC']],
    limit: 100,
  });
  return rows.map((r) => ({
    key: r.id.slice(0, KEY),
    isThis: r.id === own,
    agent: r.agent,
    address: r.address,
    since: r.createdAt.toISOString(),
    lastSeen: r.seenAt.toISOString(),
  }));
}
const KEY = 12;

/** @throws NotFound */
export async function endSessionByKey(userId: number, key: string): Promise<void> {
  const id = { [Op.startsWith]: key.slice(0, KEY) };
  if (key.length !== KEY || !(await SessionRow.destroy({ where: { userId, id } })))
    throw new NotFound('This session has ended already.');
  announce('SessionsChanged', {}, { personId: userId });
}

/** Ends all sessions of a person: a cookie made under an older version counts no more. */
export async function endAllSessions(userId: number): Promise<void> {
  await User.increment('sessionVersion', { where: { id: userId } });
  await SessionRow.destroy({ where: { userId } });
  announce('SessionsChanged', {}, { personId: userId });
}
