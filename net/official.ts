/** What the sites' owners would tell the agency, and what the agency keeps of their places. */
import {
  EDGE,
  NAME_SERVERS,
  SITES,
  counterOf,
  mailOf,
  otherHost,
  passOf,
  placesBefore,
  preferredHost,
  profileOf,
  subdomainOf,
  tokenOf,
} from './sites';
import type { FaultSwitches } from './switches';
import { FORMER_PATHS } from './web';
import { DKIM_KEY } from './zones';

const DAY = 86_400_000;
const day = (now: Date, days: number): string =>
  new Date(now.getTime() + days * DAY).toISOString().slice(0, 10);

/** A brief. */
export function officialFacts(
  slug: string,
  now = new Date(),
  switches?: FaultSwitches,
): Record<string, unknown> {
  const s = SITES.find((x) => x.slug === slug)!;
  const www = `www.${s.domain}`;
  const record = (name: string, type: string, value: string) => ({ name, type, value, ttl: 3600 });
  return {
    name: s.name,
    tagline: s.tagline,
    languages: ['en-GB'],
    timeZone: 'Europe/London',
    contactEmail: mailOf(s, switches?.isOn(slug, 'live', 'free-mail')),
    ...(s.traits.includes('no-mail') ? { allowedEmailDomains: ['firth-mail.example'] } : {}),
    privateEmails: ['owner.private@firth-mail.example'],
    phone: s.phone.replace(/\s/g, ''),
    preferredHost: preferredHost(s),
    otherHosts: [otherHost(s)],
    stagingHosts: placesBefore(s).map((p) => p.host),
    knownSubdomains: [subdomainOf(s)],
    reachedBy: s.traits.includes('forwarded') ? 'forwarding' : 'records',
    ...(s.traits.includes('forwarded') ? { forwardTo: `https://${preferredHost(s)}/` } : {}),
    mail: s.traits.includes('no-mail') ? 'none' : 'yes',
    dkimSelectors: s.traits.includes('no-mail') ? [] : ['tide'],
    ...(s.traits.includes('no-mail') ? { notWanted: { dkimSelectors: 'the domain has no mail' } } : {}),
    records: [
      record(s.domain, 'A', s.address),
      s.traits.includes('flattened')
        ? record(www, 'CNAME', EDGE[s.address]!)
        : record(www, 'CNAME', s.domain),
      record(`shop.${s.domain}`, 'CNAME', `${s.slug}.shops.registry.example`),
      // where the name servers change, everything of today has to come along
      ...(s.traits.includes('moves')
        ? [
            record(s.domain, 'MX', `10 mail.${s.domain}`),
            record(s.domain, 'TXT', 'v=spf1 mx -all'),
            record(`_dmarc.${s.domain}`, 'TXT', 'v=DMARC1; p=reject'),
            record(`tide._domainkey.${s.domain}`, 'TXT', DKIM_KEY),
          ]
        : []),
    ],
    registrar: 'Gullwing Names',
    registrationPlan: 'stays with Gullwing Names',
    nameServers: NAME_SERVERS.map((n) => n.name),
    tokens: [
      { kind: 'sallow-site-verification', value: tokenOf(s), place: 'meta' },
      { kind: 'sallow-domain-verification', value: tokenOf(s), place: 'txt' },
    ],
    analyticsIds: [counterOf(s)],
    consentScript: 'consent.tidemark.example/ask.js',
    allowedScriptHosts: ['tidemark.example'],
    scripts: [{ match: 'app.js', where: 'body-end' }],
    requiredPages: ['/about/', '/visit/', '/contact/'],
    hiddenPaths: ['/thanks/'],
    homeMark: s.tagline,
    keyPhrases: [s.tagline],
    colours: [{ role: 'main', value: s.colour }],
    profileLinks: [profileOf(s)],
    formerAddresses:
      s.replaces || s.slug === 'planetarium' ? FORMER_PATHS.map(([from, to]) => ({ from, to })) : [],
    ...(s.replaces || s.slug === 'planetarium'
      ? {}
      : {
          notWanted: {
            formerAddresses: 'there was no site before',
            ...(s.traits.includes('no-mail') ? { dkimSelectors: 'the domain has no mail' } : {}),
          },
        }),
    holding: { mark: 'Something is being built here', bypass: passOf(s) },
    badge: 'unwanted',
    comments: 'unwanted',
    features: ['domain', 'forms'],
    budgetBytes: 2_500_000,
    launchDate: day(now, s.launchIn),
  };
}

/** When a place before the live one was set up and last changed. */
export function placeDates(
  s: (typeof SITES)[number],
  switches: FaultSwitches,
  now: Date,
): { setUp: string; changed: string; endsOn?: string } {
  const old = switches.isOn(s.slug, 'staging', 'lapsing-place');
  return {
    setUp: day(now, old ? -60 : -10),
    changed: day(now, old ? -40 : -2),
    ...(old ? { endsOn: day(now, 2) } : {}),
  };
}
