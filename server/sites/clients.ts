/** The agency's customers: renaming, merging two that are one, and what a new site would double. */
import { Op } from 'sequelize';
import { parseUrl } from '#core/extract/address';
import { isAlike } from '#core/text/alike';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import type { SomeRows } from '#server/platform/windows';
import { moveContacts } from './contacts';
import type { ClientsDto } from './dto';
import { CLIENT_GONE } from './find';
import { Contact, Client, Environment, Site } from './models';
import { namesChanged } from './names';

const PER_WINDOW = 100;

/** One window of the clients by name, each with how many sites and contacts it has. */
export async function listClients({
  words = '',
  after,
}: ClientsDto): Promise<SomeRows<{ id: number; name: string; sites: number; contacts: number }>> {
  const where = [
    ...words
      .split(/\s+/)
      .filter(Boolean)
      .map((word) => ({ name: { [Op.like]: `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%` } })),
  ];
  const [found, total] = await Promise.all([
    Client.findAll({
      where: { [Op.and]: [...where, ...(after === undefined ? [] : [{ name: { [Op.gt]: after } }])] },
      order: [['name', 'ASC']],
      limit: PER_WINDOW + 1,
    }),
    Client.count({ where: { [Op.and]: where } }),
  ]);
  const shown = found.slice(0, PER_WINDOW);
  const sites = await Site.count({
    where: { clientId: shown.map((c) => c.id) },
    group: ['clientId'],
  });
  const contacts = await Contact.count({
    where: { clientId: shown.map((c) => c.id), leftAt: null },
    group: ['clientId'],
  });
  const counted = new Map(sites.map((s) => [s.clientId, s.count]));
  const people = new Map(contacts.map((c) => [c.clientId, c.count]));
  return {
    rows: shown.map(({ id, name }) => ({
      id,
      name,
      sites: counted.get(id) ?? 0,
      contacts: people.get(id) ?? 0,
    })),
    next: found.length > PER_WINDOW ? shown.at(-1)!.name : null,
    total,
  };
}

/** @throws NotFound, Conflict when another client has the name */
export async function renameClient(id: number, name: string): Promise<void> {
  await inTransaction(async (transaction) => {
    const client = await Client.findByPk(id, { transaction, lock: true });
    if (!client) throw new NotFound(CLIENT_GONE);
    const other = await Client.findOne({ where: { name }, transaction });
    if (other && other.id !== id)
      throw new Conflict(`There is a client named ${other.name} already. Merge the two instead.`);
    await client.update({ name }, { transaction });
    announce('ClientsChanged', {}, { transaction });
    await namesChanged({ clientId: id }, transaction);
  });
}

/**
 * Makes one client of two: the sites of the first go to the second, and the first is gone.
 * @throws NotFound, Conflict when both have a site of one name
 */
export async function mergeClients(id: number, into: number): Promise<void> {
  if (id === into) throw new Refused('Choose another client to merge it with.');
  await inTransaction(async (transaction) => {
    const rows = await Client.findAll({ where: { id: [id, into] }, transaction, lock: true });
    const [from, to] = [rows.find((c) => c.id === id), rows.find((c) => c.id === into)];
    if (!from || !to) throw new NotFound(CLIENT_GONE);
    const taken = new Set(
      (await Site.findAll({ where: { clientId: into }, transaction })).map((s) => s.name),
    );
    const both = (await Site.findAll({ where: { clientId: id }, transaction })).find((s) =>
      taken.has(s.name),
    );
    if (both)
      throw new Conflict(`Both have a site named ${both.name}. Rename one of them, then merge the clients.`);
    await Site.update({ clientId: into }, { where: { clientId: id }, transaction });
    await moveContacts(id, into, transaction);
    await emit('ClientMerged', { clientId: id, into }, transaction);
    await from.destroy({ transaction });
    await namesChanged({ clientId: into }, transaction);
  });
}

/** What is there already and looks like what is being entered. */
export interface Alike {
  /** Clients whose name is nearly the one given. */
  clients: string[];
  /** Sites that are seen at the same address. */
  sites: { id: number; name: string; client: string; environment: string }[];
}

/** Where an address leads, whatever its scheme, www, port or trailing slash. */
function addressKey(url: string): string | undefined {
  const parsed = parseUrl(url);
  if (!parsed) return undefined;
  return `${parsed.hostname.replace(/^www\./, '')}${parsed.pathname.replace(/\/+$/, '')}`;
}

/**
 * Names and addresses that a new or changed site would double, so that it can be said before it is saved.
 * @param except the site that is being changed
 */
export async function alikeTo(
  asked: { client?: string; urls: readonly string[] },
  except?: number,
): Promise<Alike> {
  const name = asked.client?.trim() ?? '';
  const keys = new Set(asked.urls.map(addressKey).filter((k) => k !== undefined));
  const [clients, environments] = await Promise.all([
    name ? Client.findAll({ attributes: ['name'] }) : [],
    keys.size ? Environment.findAll({ attributes: ['siteId', 'name', 'url'] }) : [],
  ]);
  const names = clients.map((c) => c.name);
  const same = environments.filter((e) => e.siteId !== except && keys.has(addressKey(e.url)!));
  const sites = same.length ? await Site.findAll({ where: { id: same.map((e) => e.siteId) } }) : [];
  const owners = sites.length ? await Client.findAll({ where: { id: sites.map((s) => s.clientId) } }) : [];
  return {
    clients: names.includes(name) ? [] : names.filter((n) => isAlike(n, name)),
    sites: same.map((e) => {
      const site = sites.find((s) => s.id === e.siteId)!;
      const client = owners.find((c) => c.id === site.clientId)!;
      return { id: site.id, name: site.name, client: client.name, environment: e.name };
    }),
  };
}
