/** What the servers of the site's zone, and of the zone above it, say about every name the audit asks for. */
import { asciiHost } from '#core/extract/address';
import { caaClimb } from '#core/extract/caa';
import { isSpf, spfTargets } from '#core/extract/spf';
import { joinedText } from '#core/facts/dns-text';
import type { DnsAnswer, DnsEvidence, NameServer } from '#core/facts/evidence';
import type { Dialer } from '../dialer';

export interface NamesToAsk {
  hosts: string[];
  /** The zone whose servers are asked; null where there is none of the site's own. */
  zone: string | null;
  /** Records of the brief, expected and of today. */
  records: { name: string; type: string; value: string }[];
  /** Domain of the contact address, whose mail must arrive. */
  mailDomain?: string;
  dkimSelectors: string[];
  knownSubdomains: string[];
  /** Name servers that the brief says will take over. */
  coming: string[];
  /** A label nobody has set a record for. */
  randomLabel: string;
}

const ASKABLE = new Set(['A', 'AAAA', 'CNAME', 'NS', 'MX', 'TXT', 'CAA', 'SOA', 'SRV', 'HTTPS']);
const SERVERS = 8;
const SPF_FOLLOWED = 20;
/** A name as it is asked for: names of the brief may be beyond ASCII. */
function bare(name: string): string {
  const plain = name.toLowerCase().replace(/\.$/, '');
  return /[^\0-\x7f]/.test(plain) ? (asciiHost(plain) ?? plain) : plain;
}

/** The names of NS records in an answer or referral. */
export function serversIn(answer: DnsAnswer, zone: string): string[] {
  return [
    ...new Set(
      [...answer.records, ...(answer.authority ?? [])]
        .filter((r) => r.type === 'NS' && bare(r.name) === zone)
        .map((r) => bare(r.value)),
    ),
  ];
}

/**
 * Asks the zone above for the delegation, each of its servers for itself.
 * The walk begins at the nearest zone above that has NS records; the resolvers' word for those is enough.
 */
async function askParent(
  dialer: Dialer,
  zone: string,
): Promise<{ parent: DnsEvidence['parent']; referrals: DnsAnswer[] }> {
  for (const above of caaClimb(zone).slice(1)) {
    const ns = await dialer.lookup(above, 'NS');
    const names = serversIn(ns, above).slice(0, SERVERS).sort();
    if (!names.length) continue;
    const servers = await Promise.all(
      names.map(async (name) => ({ name, addresses: await dialer.resolve(name).catch(() => []) })),
    );
    const asked = await Promise.all(
      servers.flatMap((s) =>
        s.addresses
          .slice(0, 1)
          .flatMap((a) => [
            dialer.askAuthority(s.name, a, zone, 'NS', 'parent'),
            dialer.askAuthority(s.name, a, zone, 'DS', 'parent'),
          ]),
      ),
    );
    return { parent: { zone: above, servers }, referrals: asked.filter((a) => a.type === 'NS') };
  }
  return { parent: null, referrals: [] };
}

/** The servers that the zone above and the zone itself name; glue is used where the name does not resolve. */
async function nameServersOf(dialer: Dialer, zone: string, referrals: DnsAnswer[]): Promise<NameServer[]> {
  const byParent = new Set(referrals.flatMap((r) => serversIn(r, zone)));
  const glue = referrals.flatMap((r) => r.additional ?? []);
  const byZone = new Set(serversIn(await dialer.lookup(zone, 'NS'), zone));
  const addressesOf = async (name: string): Promise<string[]> => {
    const found = await dialer.resolve(name).catch(() => []);
    return found.length ? found : [...new Set(glue.filter((g) => bare(g.name) === name).map((g) => g.value))];
  };
  // what a server of the zone says of itself counts more than a resolver's memory
  const first = [...byParent, ...byZone][0];
  if (first)
    for (const address of (await addressesOf(first)).slice(0, 1))
      for (const name of serversIn(await dialer.askAuthority(first, address, zone, 'NS'), zone))
        byZone.add(name);
  const names = [...new Set([...byParent, ...byZone])].sort().slice(0, SERVERS);
  return Promise.all(
    names.map(async (name) => ({
      name,
      addresses: await addressesOf(name),
      namedBy: [
        ...(byParent.has(name) ? ['parent' as const] : []),
        ...(byZone.has(name) ? ['zone' as const] : []),
      ],
    })),
  );
}

/** Who serves a zone: what the servers above say of it, and its own servers. */
export async function delegationOf(
  dialer: Dialer,
  zone: string,
): Promise<{ parent: DnsEvidence['parent']; referrals: DnsAnswer[]; nameServers: NameServer[] }> {
  const { parent, referrals } = await askParent(dialer, zone);
  return { parent, referrals, nameServers: await nameServersOf(dialer, zone, referrals) };
}

/** Follows SPF records through their includes and redirects, asking what evaluating them would ask. */
async function followSpf(dialer: Dialer, domain: string): Promise<void> {
  const seen = new Set<string>();
  const queue = [bare(domain)];
  while (queue.length && seen.size < SPF_FOLLOWED) {
    const name = queue.shift()!;
    if (seen.has(name)) continue;
    seen.add(name);
    const answer = await dialer.lookup(name, 'TXT');
    for (const text of answer.records
      .filter((r) => r.type === 'TXT')
      .map((r) => joinedText(r.value))
      .filter(isSpf)) {
      const { follow, ask } = spfTargets(text, name);
      queue.push(...follow.map(bare));
      await Promise.all(ask.slice(0, 20).map((a) => dialer.lookup(bare(a.name), a.type)));
    }
  }
}

/** Questions, each once. */
class Questions {
  private readonly all = new Map<string, [name: string, type: string]>();

  add(name: string, ...types: string[]): void {
    const n = bare(name);
    for (const type of types) this.all.set(`${n} ${type}`, [n, type]);
  }

  list(): [name: string, type: string][] {
    return [...this.all.values()];
  }
}

const WEB_TYPES = ['A', 'AAAA', 'CNAME', 'HTTPS'];

function addHosts(q: Questions, hosts: readonly string[], zone: string | null): void {
  for (const host of hosts) {
    q.add(host, ...WEB_TYPES);
    for (const name of caaClimb(host))
      if (zone === null || name === zone || name.endsWith(`.${zone}`)) q.add(name, 'CAA');
  }
}

function addRecords(q: Questions, records: NamesToAsk['records']): void {
  for (const { name, type, value } of records) {
    if (!ASKABLE.has(type)) continue;
    q.add(name, type);
    if (type === 'A' || type === 'AAAA' || type === 'CNAME') q.add(name, ...WEB_TYPES);
    // what an alias resolves to, for hosts that flatten it
    if (type === 'CNAME') q.add(value, 'A', 'AAAA');
  }
}

/** All questions about a zone, each once. */
function questionsOf(names: NamesToAsk, zone: string | null): [name: string, type: string][] {
  const q = new Questions();
  addHosts(q, names.hosts, zone);
  addRecords(q, names.records);
  for (const host of names.knownSubdomains) q.add(host, 'A', 'AAAA');
  if (zone) {
    q.add(zone, 'NS', 'SOA', 'MX', 'TXT', 'CAA', 'DS', 'DNSKEY', 'CNAME');
    q.add(`_dmarc.${zone}`, 'TXT');
    q.add(`_mta-sts.${zone}`, 'TXT');
    q.add(`_smtp._tls.${zone}`, 'TXT');
    q.add(`${names.randomLabel}.${zone}`, 'A', 'AAAA', 'CNAME');
    for (const selector of names.dkimSelectors) q.add(`${selector}._domainkey.${zone}`, 'TXT');
  }
  if (names.mailDomain) {
    q.add(names.mailDomain, 'MX', 'A', 'AAAA', 'TXT');
    q.add(`_dmarc.${names.mailDomain}`, 'TXT');
  }
  return q.list();
}

/** Asks a server that will take the zone over whether it has it, and signs it. */
async function askComing(dialer: Dialer, name: string, zone: string): Promise<void> {
  const [address] = await dialer.resolve(name).catch(() => []);
  if (address)
    await Promise.all(
      ['SOA', 'DNSKEY'].map((type) => dialer.askAuthority(name, address, zone, type, 'coming')),
    );
}

/**
 * Finds the zone's servers by walking the delegation and asks each of them. Resolver answers are kept beside
 * theirs.
 */
export async function collectDns(dialer: Dialer, names: NamesToAsk): Promise<Omit<DnsEvidence, 'answers'>> {
  const { zone } = names;
  const { parent, nameServers } = zone ? await delegationOf(dialer, zone) : { parent: null, nameServers: [] };
  const inZone = (name: string): boolean => zone !== null && (name === zone || name.endsWith(`.${zone}`));
  const askAll = (name: string, type: string): Promise<DnsAnswer>[] => [
    dialer.lookup(name, type),
    // the DS of a zone stands above it
    ...(inZone(name) && type !== 'DS'
      ? nameServers.flatMap((s) =>
          s.addresses.slice(0, 1).map((address) => dialer.askAuthority(s.name, address, name, type)),
        )
      : []),
  ];
  await Promise.all([
    ...questionsOf(names, zone).flatMap(([name, type]) => askAll(name, type)),
    ...(zone
      ? [dialer.lookup(zone, 'A', true), dialer.lookup(zone, 'SOA', true), followSpf(dialer, zone)]
      : []),
    ...(names.mailDomain && names.mailDomain !== zone ? [followSpf(dialer, names.mailDomain)] : []),
    ...(zone
      ? names.coming
          .filter((n) => !nameServers.some((s) => s.name === n))
          .slice(0, SERVERS)
          .map((n) => askComing(dialer, n, zone))
      : []),
    // aliases are no name servers, and no mail exchangers (RFC 2181 10.3)
    ...nameServers.map((s) => dialer.lookup(s.name, 'CNAME')),
  ]);
  const exchangers = [
    ...new Set(
      dialer.answers
        .filter((a) => a.type === 'MX')
        .flatMap((a) => a.records)
        .filter((r) => r.type === 'MX')
        .map((r) => bare(r.value.split(' ')[1] ?? ''))
        .filter(Boolean),
    ),
  ].slice(0, 12);
  const aliases = [
    ...new Set(
      dialer.answers
        .flatMap((a) => a.records)
        .filter((r) => r.type === 'CNAME')
        .map((r) => bare(r.value)),
    ),
  ].slice(0, 30);
  await Promise.all([
    // those within the zone may share an address that moves
    ...exchangers.flatMap((x) => ['A', 'AAAA', 'CNAME'].flatMap((type) => askAll(x, type))),
    ...aliases.flatMap((x) => [dialer.lookup(x, 'A'), dialer.lookup(x, 'AAAA')]),
  ]);
  return {
    resolvers: dialer.resolvers.map((r) => `${r.address}:${r.port}`),
    zone,
    nameServers,
    parent,
    randomLabel: names.randomLabel,
  };
}
