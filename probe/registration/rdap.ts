/** Registration data over RDAP (RFC 9082, 9083), the server found by the bootstrap (RFC 9224). */
import { parseUrl } from '#core/extract/address';
import type { RegistrationEvidence } from '#core/facts/evidence';
import { finalStatus } from '#core/facts/evidence';
import type { HttpClient } from '../http/client';

export interface Bootstrap {
  services: [string[], string[]][];
}

/** Reads a bootstrap file (RFC 9224 3). @throws Error with a sentence when it is none */
export function readBootstrap(data: unknown): Bootstrap {
  const o = data as { version?: unknown; services?: unknown } | null;
  if (typeof o !== 'object' || o === null || !Array.isArray(o.services))
    throw new Error('no bootstrap file: it has no services');
  const texts = (v: unknown): v is string[] => Array.isArray(v) && v.every((x) => typeof x === 'string');
  const services = o.services
    .filter((s): s is [string[], string[]] => Array.isArray(s) && texts(s[0]) && texts(s[1]))
    .map(([names, urls]): [string[], string[]] => [
      names.map((n) => n.toLowerCase()),
      urls.filter((u) => /^https?:\/\//.test(u) && parseUrl(u) !== undefined),
    ]);
  if (!services.length) throw new Error('no bootstrap file: none of its services can be read');
  return { services };
}

/** The base address for a domain: the longest entry that its labels end in; https before http. */
export function serverFor(bootstrap: Bootstrap, domain: string): string | undefined {
  const labels = domain.toLowerCase().split('.');
  for (let i = 0; i < labels.length; i++) {
    const suffix = labels.slice(i).join('.');
    const urls = bootstrap.services.find(([names]) => names.includes(suffix))?.[1];
    if (urls?.length) return urls.find((u) => u.startsWith('https:')) ?? urls[0];
  }
  return undefined;
}

const list = (v: unknown): Record<string, unknown>[] =>
  Array.isArray(v) ? v.filter((x): x is Record<string, unknown> => typeof x === 'object' && x !== null) : [];
const text = (v: unknown): string | undefined => (typeof v === 'string' ? v.slice(0, 300) : undefined);

/** Whether the registry has a DS (RFC 9083 5.3, secureDNS). */
function signed(secure: unknown): { delegationSigned?: boolean } {
  const value = (secure as { delegationSigned?: unknown } | null | undefined)?.delegationSigned;
  return typeof value === 'boolean' ? { delegationSigned: value } : {};
}

/** Reads a domain object (RFC 9083 5.3). @throws Error when it is none */
export function readDomain(
  json: string,
): Pick<
  RegistrationEvidence,
  'ldhName' | 'unicodeName' | 'delegationSigned' | 'status' | 'events' | 'registrar' | 'nameServers'
> {
  const data = JSON.parse(json) as Record<string, unknown> | null;
  if (typeof data !== 'object' || data === null || data.objectClassName !== 'domain')
    throw new Error('no domain object');
  const registrar = list(data.entities).find((e) => Array.isArray(e.roles) && e.roles.includes('registrar'));
  const vcard = Array.isArray(registrar?.vcardArray) ? (registrar.vcardArray[1] as unknown) : undefined;
  const name = Array.isArray(vcard)
    ? (vcard as unknown[]).find((p): p is unknown[] => Array.isArray(p) && p[0] === 'fn')?.[3]
    : undefined;
  return {
    ldhName: text(data.ldhName)?.toLowerCase(),
    ...(text(data.unicodeName) ? { unicodeName: text(data.unicodeName)!.toLowerCase() } : {}),
    ...signed(data.secureDNS),
    status: Array.isArray(data.status)
      ? data.status.filter((s): s is string => typeof s === 'string').slice(0, 30)
      : [],
    events: list(data.events)
      .map((e) => ({ action: text(e.eventAction) ?? '', date: text(e.eventDate) ?? '' }))
      .slice(0, 50),
    registrar: text(name) ?? text(registrar?.handle),
    nameServers: list(data.nameservers)
      .map((n) => text(n.ldhName)?.toLowerCase())
      .filter((n): n is string => n !== undefined)
      .slice(0, 20),
  };
}

/**
 * Asks for one domain; redirects between registries are followed, and a registry that asks for patience is
 * given it (RFC 9082, RFC 7480 5.5). Never throws.
 */
export async function collectRegistration(
  client: HttpClient,
  bootstrap: Bootstrap,
  domain: string,
): Promise<RegistrationEvidence> {
  const out: RegistrationEvidence = { domain, served: false, status: [], events: [], nameServers: [] };
  const base = serverFor(bootstrap, domain);
  if (!base) return out;
  out.served = true;
  const { chain, body } = await client.followTwice(`${base.replace(/\/?$/, '/')}domain/${domain}`, {
    headers: { accept: 'application/rdap+json' },
  });
  out.chain = chain;
  const status = finalStatus(chain);
  if (status === undefined)
    out.error = `the registration server gave no answer: ${chain.error?.message ?? 'unknown reason'}`;
  else if (status === 429) out.error = 'the registration server asks for patience (429); ask again later';
  else if (status === 404) out.error = 'the registration server does not know this domain';
  else if (status !== 200 || !body) out.error = `the registration server answered ${status}`;
  else
    try {
      Object.assign(out, readDomain(body.toString('utf8')));
    } catch (error) {
      out.error = `the registration server’s answer cannot be read: ${(error as Error).message.slice(0, 100)}`;
    }
  return out;
}
