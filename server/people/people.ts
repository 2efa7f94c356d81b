/** People of the agency: signing in, passwords, and who is of the team. */
import { createHash, randomBytes } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import { passwordFault } from '#core/entry/password';
import { now, realNow } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, NotSignedIn, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { PasswordLinkRow, SessionRow, User, type Person } from './models';
import { endAllSessions } from './sessions';
import { tallies } from './tallies';
import { Throttle, type Guesser } from './throttle';

const throttle = new Throttle(tallies);

// verified against when the account does not exist, so that both answers take as long
let decoy: Promise<string> | undefined;

const WRONG = 'This address and password do not belong together.';
export const addressOf = (email: string): string => email.trim().toLowerCase();

/** Where a guess comes from. */
type From = Pick<Guesser, 'address' | 'browser'>;
const personOf = (u: User): Person => ({
  id: u.id,
  name: u.name,
  email: u.email,
  owner: u.owner,
});

/**
 * Checks a person's password (scrypt), however many guesses wait for their turn.
 * @throws NotSignedIn or TooMany with a sentence
 */
export async function signIn(email: string, password: string, from: From): Promise<Person> {
  const account = addressOf(email);
  let user: User | null = null;
  const isRight = await throttle.attempt({ account, ...from }, async () => {
    user = await User.findOne({ where: { email: account, removedAt: null } });
    const kept = user?.passwordHash || (await (decoy ??= hashPassword('nobody')));
    return (await verifyPassword(kept, password)) && Boolean(user?.passwordHash);
  });
  if (!isRight || !user) throw new NotSignedIn(WRONG);
  return personOf(user);
}

export async function listPeople(): Promise<Person[]> {
  return (await User.findAll({ where: { removedAt: null }, order: [['name', 'ASC']] })).map(personOf);
}

/** The people of the agency with what their screen shows. */
export async function team() {
  const users = await User.findAll({ where: { removedAt: null }, order: [['name', 'ASC']] });
  const sessions = await SessionRow.findAll({ attributes: ['userId', 'seenAt'] });
  return users.map((u) => {
    const seen = sessions.filter((s) => s.userId === u.id).map((s) => s.seenAt.getTime());
    return {
      ...personOf(u),
      hasPassword: u.passwordHash !== '',
      since: u.createdAt.toISOString(),
      lastSeen: seen.length ? new Date(Math.max(...seen)).toISOString() : null,
    };
  });
}

/** @throws Refused for a password that is too short */
async function hashOf(password: string): Promise<string> {
  const fault = passwordFault(password);
  if (fault) throw new Refused(fault);
  return hashPassword(password);
}

async function find(id: number, transaction?: Transaction): Promise<User> {
  const user = await User.findOne({ where: { id, removedAt: null }, transaction });
  if (!user) throw new NotFound('This person is not there, or not any more.');
  return user;
}

/** Adds a person, or brings one back who was removed; they choose a password by a link. @throws Conflict */
export function addPerson(email: string, name: string): Promise<number> {
  const address = addressOf(email);
  return inTransaction(async (transaction) => {
    const known = await User.findOne({ where: { email: address }, transaction, lock: true });
    if (known && known.removedAt === null) throw new Conflict('Somebody with this address is there already.');
    if (known) {
      await known.update(
        { name: name.trim(), passwordHash: '', removedAt: null, owner: false },
        { transaction },
      );
      await emit('PersonRenamed', { personId: known.id }, transaction);
      return known.id;
    }
    const made = await User.create(
      { email: address, name: name.trim(), passwordHash: '', createdAt: now() },
      { transaction },
    );
    announce('PeopleChanged', {}, { transaction });
    return made.id;
  });
}

/** @throws NotFound; Refused where nobody would be left who may add people */
export async function changePerson(
  id: number,
  { name, owner }: { name?: string; owner?: boolean },
): Promise<void> {
  await inTransaction(async (transaction) => {
    const owners = await User.findAll({ where: { owner: true, removedAt: null }, transaction, lock: true });
    if (owner === false && owners.every((o) => o.id === id))
      throw new Refused('Somebody must stay who may add people. Make another one an owner first.');
    const user = await find(id, transaction);
    await user.update(
      { ...(name === undefined ? {} : { name: name.trim() }), ...(owner === undefined ? {} : { owner }) },
      { transaction },
    );
    await emit('PersonRenamed', { personId: id }, transaction);
  });
}

/**
 * Takes a person out: sessions and links end, open fixes lose their owner; what they did keeps their name.
 * @throws NotFound; Refused for oneself
 */
export async function removePerson(id: number, by: Person): Promise<void> {
  if (id === by.id) throw new Refused('You cannot remove yourself; somebody else of the team can.');
  const user = await find(id);
  await inTransaction(async (transaction) => {
    await user.update({ removedAt: now(), passwordHash: '' }, { transaction });
    await PasswordLinkRow.destroy({ where: { userId: id }, transaction });
    await emit('PersonLeft', { personId: id }, transaction);
  });
  await endAllSessions(id);
}

/** Changes one's own password and ends all sessions, this one too. @throws NotSignedIn, Refused, TooMany */
export async function changePassword(person: Person, old: string, wanted: string, from: From): Promise<void> {
  await signIn(person.email, old, from).catch((error: unknown) => {
    throw error instanceof NotSignedIn ? new Refused('The password you have now is another one.') : error;
  });
  await (await find(person.id)).update({ passwordHash: await hashOf(wanted) });
  await endAllSessions(person.id);
}

const LINK_LASTS_MS = 3 * 86_400_000;
const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Makes a link by which a person chooses a password, once; an older one counts no more. @throws NotFound */
export async function passwordLink(id: number, by: string): Promise<{ token: string; until: string }> {
  const user = await find(id);
  const token = randomBytes(24).toString('base64url');
  const until = new Date(realNow() + LINK_LASTS_MS);
  await inTransaction(async (transaction) => {
    await PasswordLinkRow.destroy({ where: { userId: user.id }, transaction });
    await PasswordLinkRow.create(
      { digest: digestOf(token), userId: user.id, madeBy: by, until },
      { transaction },
    );
  });
  return { token, until: until.toISOString() };
}

/** Sets a password by such a link. @throws NotFound, Refused, TooMany */
export async function setPasswordByLink(
  token: string,
  wanted: string,
  from: string,
): Promise<{ email: string }> {
  let user: User | null = null;
  // each link by itself: who tries wrong ones stands in nobody's way
  const digest = digestOf(token);
  const isGood = await throttle.attempt({ account: `password link ${digest}`, address: from }, async () => {
    const link = await PasswordLinkRow.findOne({
      where: { digest, until: { [Op.gt]: new Date(realNow()) } },
    });
    user = link && (await User.findOne({ where: { id: link.userId, removedAt: null } }));
    return user !== null;
  });
  if (!isGood || !user) throw new NotFound('This link was used already, or has ended. Ask for a new one.');
  const { id, email } = user as User;
  const passwordHash = await hashOf(wanted);
  const used = await PasswordLinkRow.destroy({ where: { digest } });
  if (!used) throw new NotFound('This link was used already, or has ended. Ask for a new one.');
  await User.update({ passwordHash }, { where: { id } });
  await endAllSessions(id);
  return { email };
}

/** Adds a person with a password unless the address is there already. */
/** @param owner whether they may add and remove people */
export async function ensurePerson(
  email: string,
  name: string,
  passwordHash: string,
  owner: boolean,
): Promise<void> {
  const address = addressOf(email);
  if (await User.count({ where: { email: address } })) return;
  await User.create({ email: address, name, passwordHash, owner, createdAt: now() });
}

/** The first person of an installation. @throws Refused for a password that is too short */
export async function ensureFirstPerson(email: string, name: string, password: string): Promise<void> {
  await ensurePerson(email, name, await hashOf(password), true);
}
