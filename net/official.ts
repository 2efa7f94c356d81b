/** What the sites' owners would tell the agency, and what the agency keeps of their environments. */
import {
  EDGE,
  NAME_SERVERS,
  SITES,
  counterOf,
  mailOf,
  otherHost,
  passOf,
  environmentsBefore,
  preferredHost,
  profileOf,
  subdomainOf,
  tokenOf,
  type PracticeSite,
} from './sites';
import type { FaultSwitches } from './switches';
import { FORMER_PATHS } from './web';
import { DKIM_KEY } from './zones';

const DAY = 86_400_000;
const day = (now: Date, days: number): string =>
  new Date(now.getTime() + days * DAY).toISOString().slice(0, 10);

const record = (name: string, type: string, value: string) => ({ name, type, value, ttl: 3600 });

function recordsOf(s: PracticeSite) {
  const { domain, traits } = s;
  const www = traits.includes('flattened') ? EDGE[s.address]! : domain;
  // where the name servers change, everything of today has to come along
  const carried = [
    record(domain, 'MX', `10 mail.${domain}`),
    record(domain, 'TXT', 'v=spf1 mx -all'),
    record(`_dmarc.${domain}`, 'TXT', 'v=DMARC1; p=reject'),
    record(`tide._domainkey.${domain}`, 'TXT', DKIM_KEY),
  ];
  return [
    record(domain, 'A', s.address),
    record(`www.${domain}`, 'CNAME', www),
    record(`shop.${domain}`, 'CNAME', `${s.slug}.shops.registry.example`),
    ...(traits.includes('moves') ? carried : []),
  ];
}

const reach = (s: PracticeSite): Record<string, unknown> =>
  s.traits.includes('forwarded')
    ? { reachedBy: 'forwarding', forwardTo: `https://${preferredHost(s)}/` }
    : { reachedBy: 'records' };

const mailFacts = (s: PracticeSite): Record<string, unknown> =>
  s.traits.includes('no-mail')
    ? { mail: 'none', allowedEmailDomains: ['firth-mail.example'], dkimSelectors: [] }
    : { mail: 'yes', dkimSelectors: ['tide'] };

/** Addresses of a site that was there before; what is not wanted stands with its reason. */
function formerFacts(s: PracticeSite): Record<string, unknown> {
  const hadSite = s.replaces || s.slug === 'planetarium';
  const notWanted = {
    ...(hadSite ? {} : { formerAddresses: 'there was no site before' }),
    ...(s.traits.includes('no-mail') ? { dkimSelectors: 'the domain has no mail' } : {}),
  };
  return {
    formerAddresses: hadSite ? FORMER_PATHS.map(([from, to]) => ({ from, to })) : [],
    ...(Object.keys(notWanted).length ? { notWanted } : {}),
  };
}

/** A brief. */
export function officialFacts(
  slug: string,
  now = new Date(),
  switches?: FaultSwitches,
): Record<string, unknown> {
  const s = SITES.find((x) => x.slug === slug)!;
  return {
    name: s.name,
    tagline: s.tagline,
    languages: ['en-GB'],
    timeZone: 'Europe/London',
    contactEmail: mailOf(s, switches?.isOn(slug, 'live', 'free-mail')),
    privateEmails: ['owner.private@firth-mail.example'],
    phone: s.phone.replace(/\s/g, ''),
    preferredHost: preferredHost(s),
    otherHosts: [otherHost(s)],
    stagingHosts: environmentsBefore(s).map((p) => p.host),
    knownSubdomains: [subdomainOf(s)],
    ...reach(s),
    ...mailFacts(s),
    records: recordsOf(s),
    registrar: 'Gullwing Names',
    registrationPlan: 'stays with Gullwing Names',
    nameServers: NAME_SERVERS.map((n) => n.name),
    tokens: [
      { kind: 'sallow-site-verification', value: tokenOf(s), place: 'meta' },
      { kind: 'sallow-domain-verification', value: tokenOf(s), place: 'txt' },
    ],
    analyticsIds: [counterOf(s)],
    consentScript: 'consent.tidemark.example/ask.js',
    consentClick: 'Accept all',
    necessaryCookies: ['firth_session'],
    allowedScriptHosts: ['tidemark.example'],
    scripts: [{ match: 'app.js', where: 'body-end' }],
    requiredPages: ['/about/', '/visit/', '/contact/'],
    hiddenPaths: ['/thanks/'],
    homeMark: s.tagline,
    keyPhrases: [s.tagline],
    colours: [{ role: 'main', value: s.colour }],
    profileLinks: [profileOf(s)],
    ...formerFacts(s),
    holding: { mark: 'Something is being built here', bypass: passOf(s) },
    badge: 'unwanted',
    comments: 'unwanted',
    features: ['domain', 'forms'],
    budgetBytes: 2_500_000,
    launchDate: day(now, s.launchIn),
  };
}

/** When an environment before the live one was set up and last changed. */
export function environmentDates(
  s: PracticeSite,
  switches: FaultSwitches,
  now: Date,
): { setUp: string; changed: string; endsOn?: string } {
  const old = switches.isOn(s.slug, 'staging', 'lapsing-environment');
  return {
    setUp: day(now, old ? -60 : -10),
    changed: day(now, old ? -40 : -2),
    ...(old ? { endsOn: day(now, 2) } : {}),
  };
}
