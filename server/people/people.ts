/** People of the agency: signing in, and the first user. */
import { User } from './models';
import { NotSignedIn, TooMany } from '../platform/errors';

export interface Person {
  id: number;
  name: string;
  email: string;
}

/** Failed attempts by account and by address; in memory, since a restart is no way in for a stranger. */
const failures = new Map<string, { count: number; until: number }>();
const WINDOW = 15 * 60_000;
const ALLOWED = 8;

/** Tells how often a key failed lately. @throws TooMany when that was too often */
function throttle(keys: string[], now: number): void {
  for (const key of keys) {
    const f = failures.get(key);
    if (f && f.until > now && f.count >= ALLOWED)
      throw new TooMany(`Too many attempts. Try again in ${Math.ceil((f.until - now) / 60_000)} minutes.`);
  }
}

function noteFailure(keys: string[], now: number): void {
  if (failures.size > 10_000) failures.clear();
  for (const key of keys) {
    const f = failures.get(key);
    if (f && f.until > now) f.count++;
    else failures.set(key, { count: 1, until: now + WINDOW });
  }
}

// verified against when the account does not exist, so that both answers take as long
let decoy: Promise<string> | undefined;

/** Checks a person's password (scrypt). @throws NotSignedIn or TooMany with a sentence */
export async function signIn(
  email: string,
  password: string,
  from: string,
  now = Date.now(),
): Promise<Person> {
  const keys = [`account ${email.toLowerCase()}`, `address ${from}`];
  throttle(keys, now);
  const user = await User.findOne({ where: { email: email.trim().toLowerCase() } });
  const good = await verifyPassword(
    user?.passwordHash ?? (await (decoy ??= hashPassword('nobody'))),
    password,
  );
  if (!user || !good) {
    noteFailure(keys, now);
    throw new NotSignedIn('This address and password do not belong together.');
  }
  failures.delete(keys[0]!);
  return { id: user.id, name: user.name, email: user.email };
}

export async function listPeople(): Promise<Person[]> {
  return (await User.findAll({ order: [['name', 'ASC']] })).map((u) => ({
    id: u.id,
    name: u.name,
    email: u.email,
  }));
}

/** Adds a person unless the address is there already. */
export async function ensurePerson(email: string, name: string, password: string): Promise<void> {
  const address = email.trim().toLowerCase();
  if (await User.count({ where: { email: address } })) return;
  await User.create({
    email: address,
    name,
    passwordHash: await hashPassword(password),
    createdAt: new Date(),
  });
}
