/** The registration server of the practice net: domain objects as RFC 9083 5.3 has them. */
import { NAME_SERVERS, SITES } from './sites';
import type { FaultSwitches } from './switches';
import type { WebAnswer } from './web';

export function answerRdap(path: string, switches: FaultSwitches, now: Date): WebAnswer {
  const headers = { 'content-type': 'application/rdap+json' };
  const domain = /^\/domain\/([a-z0-9.-]+)$/i.exec(path)?.[1]?.toLowerCase();
  const site = SITES.find((s) => s.domain === domain);
  if (!site) return { status: 404, headers, body: JSON.stringify({ errorCode: 404, title: 'Not found' }) };
  const on = switches.reader(site.slug, 'live');
  const inDays = (d: number) => new Date(now.getTime() + d * 86_400_000).toISOString().replace(/\.\d+/, '');
  return {
    status: 200,
    headers,
    body: JSON.stringify({
      rdapConformance: ['rdap_level_0'],
      objectClassName: 'domain',
      handle: `D-${site.slug}`,
      ldhName: site.domain,
      status: [
        on('on-hold') ? 'client hold' : 'active',
        ...(on('unlocked-domain') ? [] : ['client transfer prohibited']),
      ],
      events: [
        { eventAction: 'registration', eventDate: inDays(-1500) },
        { eventAction: 'expiration', eventDate: inDays(on('lapsing') ? 9 : 260) },
      ],
      entities: [
        {
          objectClassName: 'entity',
          handle: 'R-1',
          roles: ['registrar'],
          vcardArray: [
            'vcard',
            [
              ['version', {}, 'text', '4.0'],
              ['fn', {}, 'text', on('other-registrar') ? 'Cormorant Domains' : 'Gullwing Names'],
            ],
          ],
        },
      ],
      secureDNS: { delegationSigned: site.traits.includes('signed') },
      nameservers: NAME_SERVERS.map((n) => ({ objectClassName: 'nameserver', ldhName: n.name })),
    }),
  };
}
