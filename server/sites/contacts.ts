/** A client’s people: who is asked, does a part, and says yes. */
import { UniqueConstraintError, type Transaction } from 'sequelize';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import type { ContactDto } from './dto';
import { assertClient, SITE_GONE } from './find';
import { Contact, Site } from './models';

const GONE = 'This contact is not there, or not any more.';

export interface ContactLine {
  id: number;
  name: string;
  email: string;
  role: string;
}

const lineOf = ({ id, name, email, role }: Contact): ContactLine => ({ id, name, email, role });

/** Those who are there, by name. */
export async function contactsOf(clientId: number): Promise<ContactLine[]> {
  const rows = await Contact.findAll({ where: { clientId, leftAt: null }, order: [['name', 'ASC']] });
  return rows.map(lineOf);
}

/** Whose a site is. @throws NotFound */
export async function clientOf(siteId: number): Promise<number> {
  const site = await Site.findByPk(siteId, { attributes: ['clientId'] });
  if (!site) throw new NotFound(SITE_GONE);
  return site.clientId;
}

/** Those of a site’s client. @throws NotFound */
export const contactsOfSite = async (siteId: number): Promise<ContactLine[]> =>
  contactsOf(await clientOf(siteId));

/** @throws NotFound where there is none, or of another client than the site’s */
export async function contactOfSite(
  contactId: number,
  siteId: number,
  transaction?: Transaction,
): Promise<Contact> {
  const contact = await Contact.findOne({ where: { id: contactId, leftAt: null }, transaction });
  const site = await Site.findByPk(siteId, { attributes: ['clientId'], transaction });
  if (!contact || contact.clientId !== site?.clientId) throw new NotFound(GONE);
  return contact;
}

const fieldsOf = ({ name, email, role }: ContactDto) => ({
  name: name.trim(),
  email: email.trim().toLowerCase(),
  role: role?.trim() ?? '',
});

/** One address stands for one person of a client. */
async function keptOnce<T>(email: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof UniqueConstraintError)
      throw new Conflict(`There is a contact with the address ${email} already.`);
    throw error;
  }
}

/** Adds a contact, or brings one back who had left. @throws NotFound, Conflict */
export async function addContact(clientId: number, input: ContactDto): Promise<ContactLine> {
  await assertClient(clientId);
  const fields = fieldsOf(input);
  const known = await Contact.findOne({ where: { clientId, email: fields.email } });
  const contact = await keptOnce(fields.email, () =>
    known?.leftAt
      ? known.update({ ...fields, leftAt: null })
      : Contact.create({ ...fields, clientId, createdAt: now() }),
  );
  announce('ContactsChanged', {});
  return lineOf(contact);
}

/** @throws NotFound, Conflict */
export async function changeContact(id: number, input: ContactDto): Promise<void> {
  const contact = await Contact.findOne({ where: { id, leftAt: null } });
  if (!contact) throw new NotFound(GONE);
  const fields = fieldsOf(input);
  await keptOnce(fields.email, () =>
    inTransaction(async (transaction) => {
      await contact.update(fields, { transaction });
      await emit('ContactRenamed', { contactId: id }, transaction);
    }),
  );
}

/** They have left: their links end, what they owned is nobody’s, and what they said stays. @throws NotFound */
export async function endContact(id: number): Promise<void> {
  await inTransaction(async (transaction) => {
    const contact = await Contact.findOne({ where: { id, leftAt: null }, transaction, lock: true });
    if (!contact) throw new NotFound(GONE);
    await emit('ContactLeft', { contactId: id }, transaction);
    await contact.update({ leftAt: now() }, { transaction });
  });
}

/** Two clients become one: so do two contacts with one address. */
export async function moveContacts(from: number, to: number, transaction: Transaction): Promise<void> {
  const there = new Map(
    (await Contact.findAll({ where: { clientId: to }, transaction })).map((c) => [c.email, c]),
  );
  for (const contact of await Contact.findAll({ where: { clientId: from }, transaction })) {
    const same = there.get(contact.email);
    if (!same) {
      await contact.update({ clientId: to }, { transaction });
      continue;
    }
    await emit('ContactMerged', { contactId: contact.id, into: same.id }, transaction);
    await contact.destroy({ transaction });
  }
}

/** The names of people who are or were contacts. */
export const contactsByIds = (ids: readonly number[]): Promise<Contact[]> =>
  Contact.findAll({ where: { id: [...ids] }, attributes: ['id', 'name'] });

/** Somebody who is a contact now. */
export const findContact = (id: number): Promise<Contact | null> =>
  Contact.findOne({ where: { id, leftAt: null } });

/** Holds a contact until the transaction ends: what they say comes one after the other. */
export const lockContact = (id: number, transaction: Transaction): Promise<Contact> =>
  Contact.findByPk(id, { transaction, lock: true, rejectOnEmpty: true });
