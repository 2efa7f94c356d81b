/** Share links: one contact, one site, a secret; and who may see what behind one. */
import { createHash, randomBytes } from 'node:crypto';
import type { H3Event } from 'h3';
import { getCookie, getRouterParam, setCookie } from 'h3';
import { QueryTypes } from 'sequelize';
import { tallies, Throttle } from '#server/people';
import { now } from '#server/platform/clock';
import { database } from '#server/platform/db/connection';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Forbidden, NotFound, TooMany } from '#server/platform/errors';
import { clientAddress } from '#server/platform/http/client-address';
import { contactsByIds, findContact, contactOfSite } from '#server/sites';
import type { Guest } from './guest';
import { ShareLink, ShareVisit } from './models';

const SECRET_BYTES = 32;
const DAY_MS = 86_400_000;
/** How long an opened link stays open in one browser, and how long the browser is known again. */
const VISIT_MS = DAY_MS / 2;
const BROWSER_MS = 30 * DAY_MS;
/** Browsers that open one link within a day: more is a program. */
const MOST_BROWSERS_A_DAY = 100;
const COOKIE = 'armband-shared';
/** One answer to whatever does not open: it tells nobody whether a link ever was. */
const ENDED = 'This link does not open anything, or not any more. Ask for a new one.';
const LOCKED = 'Open the link first.';

const throttle = new Throttle(tallies);
const digest = (secret: string): string => createHash('sha256').update(secret).digest('hex');

export interface LinkLine {
  id: number;
  contactId: number;
  contact: string;
  hasPassphrase: boolean;
  by: string;
  at: string;
  expiresAt: string;
  state: 'open' | 'expired' | 'revoked';
  opened: number;
  lastOpened: string | null;
}

const stateOf = ({ revokedAt, expiresAt }: ShareLink): LinkLine['state'] =>
  revokedAt ? 'revoked' : expiresAt <= now() ? 'expired' : 'open';

/** How often each link was opened, once a browser and day, and when last. */
async function visitsOf(linkIds: readonly number[]): Promise<Map<number, { opened: number; lastAt: Date }>> {
  if (!linkIds.length) return new Map();
  const rows = await database().query<{ linkId: number; opened: number; lastAt: Date }>(
    `SELECT link_id AS linkId, COUNT(*) AS opened, MAX(at) AS lastAt FROM share_visit
      WHERE link_id IN (?) GROUP BY link_id`,
    { type: QueryTypes.SELECT, replacements: [linkIds] },
  );
  return new Map(rows.map((r) => [r.linkId, { opened: Number(r.opened), lastAt: new Date(r.lastAt) }]));
}

/** The links of a site with how often each was opened, the newest first. */
export async function linksOf(siteId: number): Promise<LinkLine[]> {
  const rows = await ShareLink.findAll({ where: { siteId }, order: [['id', 'DESC']], limit: 100 });
  const [contacts, visits] = await Promise.all([
    contactsByIds(rows.map((r) => r.contactId)),
    visitsOf(rows.map((r) => r.id)),
  ]);
  const names = new Map(contacts.map((c) => [c.id, c.name]));
  return rows.map((r) => {
    const own = visits.get(r.id);
    return {
      id: r.id,
      contactId: r.contactId,
      contact: names.get(r.contactId) ?? '',
      hasPassphrase: r.passphraseHash !== null,
      by: r.createdBy,
      at: r.createdAt.toISOString(),
      expiresAt: r.expiresAt.toISOString(),
      state: stateOf(r),
      opened: own?.opened ?? 0,
      lastOpened: own?.lastAt.toISOString() ?? null,
    };
  });
}

/**
 * @returns the secret, which nobody can be told again: only its digest is kept
 * @throws NotFound where the contact is none of the site’s client
 */
export async function createLink(
  siteId: number,
  { contactId, days, passphrase }: { contactId: number; days: number; passphrase?: string },
  by: string,
): Promise<{ secret: string }> {
  const contact = await contactOfSite(contactId, siteId);
  const secret = randomBytes(SECRET_BYTES).toString('base64url');
  const at = now();
  await ShareLink.create({
    siteId,
    contactId: contact.id,
    secretSha256: digest(secret),
    passphraseHash: passphrase ? await hashPassword(passphrase) : null,
    createdBy: by,
    createdAt: at,
    expiresAt: new Date(at.getTime() + days * DAY_MS),
  });
  await emit('SiteTouched', { siteId });
  return { secret };
}

/** @throws NotFound */
export async function revokeLink(id: number): Promise<void> {
  const link = await ShareLink.findByPk(id);
  if (!link) throw new NotFound('This link is not there.');
  await link.update({ revokedAt: link.revokedAt ?? now() });
  await emit('SiteTouched', { siteId: link.siteId });
}

/** The link in the path. @throws NotFound for one that does not open anything, whyever */
async function linkIn(event: H3Event): Promise<ShareLink> {
  const secret = getRouterParam(event, 'secret') ?? '';
  const link = /^[\w-]{20,100}$/.test(secret)
    ? await ShareLink.findOne({ where: { secretSha256: digest(secret) } })
    : null;
  if (!link || stateOf(link) !== 'open') throw new NotFound(ENDED);
  return link;
}

async function hasVisit(event: H3Event, link: ShareLink): Promise<boolean> {
  const key = getCookie(event, COOKIE);
  const visit = key
    ? await ShareVisit.findOne({
        where: { linkId: link.id, keySha256: digest(key) },
        order: [['id', 'DESC']],
      })
    : null;
  return visit !== null && now().getTime() - visit.at.getTime() < VISIT_MS;
}

/** Whether a link opens, and what it asks for. @throws NotFound */
export async function linkStatus(event: H3Event): Promise<{ isOpen: boolean; hasPassphrase: boolean }> {
  const link = await linkIn(event);
  return { isOpen: await hasVisit(event, link), hasPassphrase: link.passphraseHash !== null };
}

/**
 * Opens a link in this browser and notes when. Guesses at a passphrase are slowed down like those at a password.
 * @throws NotFound, Forbidden, TooMany
 */
export async function openLink(event: H3Event, passphrase: string): Promise<void> {
  const link = await linkIn(event);
  if (await hasVisit(event, link)) return;
  const { passphraseHash } = link;
  const isRight =
    passphraseHash === null ||
    (await throttle.attempt(
      { account: `share link ${link.id}`, address: clientAddress(event.node.req) },
      () => verifyPassword(passphraseHash, passphrase),
    ));
  if (!isRight) throw new Forbidden('This is not the passphrase.');
  const key = await noteVisit(link, getCookie(event, COOKIE));
  setCookie(event, COOKIE, key, {
    httpOnly: true,
    sameSite: 'strict',
    secure: process.env.ARMBAND_BEHIND_HTTPS === '1',
    path: `/api/shared/${getRouterParam(event, 'secret')}`,
    maxAge: BROWSER_MS / 1000,
  });
  await emit('SiteTouched', { siteId: link.siteId });
}

/**
 * Notes that a link was opened, once for each browser and day.
 * @param known the key that the browser has from an earlier day
 * @returns its key; @throws TooMany
 */
function noteVisit(link: ShareLink, known: string | undefined): Promise<string> {
  const at = now();
  const day = at.toISOString().slice(0, 10);
  return inTransaction(async (transaction) => {
    // counted one after the other for each link
    await ShareLink.findByPk(link.id, { attributes: ['id'], transaction, lock: true });
    const isOwn =
      known !== undefined &&
      (await ShareVisit.count({ where: { linkId: link.id, keySha256: digest(known) }, transaction })) > 0;
    const key = isOwn ? known : randomBytes(SECRET_BYTES).toString('base64url');
    const keySha256 = digest(key);
    const [again] = await ShareVisit.update(
      { at },
      { where: { linkId: link.id, keySha256, day }, transaction },
    );
    if (again) return key;
    if ((await ShareVisit.count({ where: { linkId: link.id, day }, transaction })) >= MOST_BROWSERS_A_DAY)
      throw new TooMany('This link was opened too often today. Try again tomorrow, or ask for a new one.');
    await ShareVisit.create({ linkId: link.id, keySha256, at, day }, { transaction });
    return key;
  });
}

/** Who asks, where the link was opened in this browser. @throws NotFound, Forbidden */
export async function guestOf(event: H3Event): Promise<Guest> {
  const link = await linkIn(event);
  if (!(await hasVisit(event, link))) throw new Forbidden(LOCKED);
  const contact = await findContact(link.contactId);
  if (!contact) throw new NotFound(ENDED);
  return { link, contact };
}
