/**
 * The made-up sites of the Sallow Firth. Names under .example (RFC 2606), addresses from the documentation
 * ranges (RFC 5737, RFC 3849), phone numbers from a range reserved for fiction.
 */
import { createHash } from 'node:crypto';
import { png } from './pictures';

export type Stage = 'building' | 'pre-launch' | 'launched';
export interface Spot {
  name: string;
  host: string;
  path: string;
}

export interface PracticeSite {
  slug: string;
  client: string;
  domain: string;
  name: string;
  tagline: string;
  colour: string;
  stage: Stage;
  replaces: boolean;
  /** Days from now to the launch; negative when it is past. */
  launchIn: number;
  host: string;
  address: string;
  www: 'preferred' | 'other';
  staging: Spot;
  /** Places before staging: drafts, tests. */
  drafts: Spot[];
  phone: string;
  kind: string;
  things: { label: string; path: string; items: string[] };
  /**
   * Signed with DNSSEC; moves to other name servers; its other host is flattened into changing addresses;
   * takes no mail; is reached by forwarding; answers for every name.
   */
  traits: ('signed' | 'moves' | 'flattened' | 'no-mail' | 'forwarded' | 'wildcard')[];
  /** Faults planted in a fresh demo. */
  live: string[];
  before: string[];
}

const V4 = {
  'Fennel Hosting': '192.0.2.10',
  'Quayside Pages': '192.0.2.20',
  'Cairn Builder': '192.0.2.30',
  'Samphire Servers': '192.0.2.40',
};
/** A second address of a host, for aliases that it flattens into one or the other. */
export const SECOND: Record<string, string> = {
  '192.0.2.10': '192.0.2.11',
  '192.0.2.20': '192.0.2.21',
  '192.0.2.30': '192.0.2.31',
  '192.0.2.40': '192.0.2.41',
};
/** The name that each host gives for aliases. */
export const EDGE: Record<string, string> = {
  '192.0.2.10': 'edge.fennel-hosting.example',
  '192.0.2.20': 'edge.quayside-pages.example',
  '192.0.2.30': 'edge.cairn-draft.example',
  '192.0.2.40': 'edge.samphire-servers.example',
};
export const PARKING = '192.0.2.99';
export const FORMER = '192.0.2.77';
export const STAGING = '198.51.100.10';
export const REGISTRY = '203.0.113.10';
export const NAME_SERVERS = [
  { name: 'ns1.registry.example', address: '203.0.113.53' },
  { name: 'ns2.registry.example', address: '203.0.113.54' },
] as const;
/** The operator that sites move away from. */
export const OLD_SERVERS = [
  { name: 'ns1.old-oak-dns.example', address: '203.0.113.63' },
  { name: 'ns2.old-oak-dns.example', address: '203.0.113.64' },
] as const;
/** The server of the zone above. */
export const PARENT = { name: 'a.nic.example', address: '203.0.113.60' } as const;
export const WEB_ADDRESSES = [
  ...Object.values(V4),
  ...Object.values(SECOND),
  PARKING,
  FORMER,
  STAGING,
  REGISTRY,
];

const slugged = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '-');
type More = Partial<
  Pick<PracticeSite, 'replaces' | 'www' | 'traits' | 'live' | 'before' | 'client' | 'staging'>
> & { drafts?: string[] };
const DRAFTS: Record<string, string> = {
  'Fennel Hosting': 'preview.fennel-hosting.example',
  'Quayside Pages': 'draft.quayside-pages.example',
  'Cairn Builder': 'cairn-draft.example',
  'Samphire Servers': 'lab.samphire-servers.example',
};

/** One site in a line: what is said of it, and what it has to show. */
function site(
  slug: string,
  domain: string,
  name: string,
  tagline: string,
  kind: string,
  colour: string,
  host: keyof typeof V4,
  stage: Stage,
  launchIn: number,
  digits: string,
  label: string,
  items: string[],
  more: More = {},
): PracticeSite {
  const before = `${slug}.${DRAFTS[host]}`;
  return {
    slug,
    domain,
    name,
    tagline,
    kind,
    colour,
    host,
    stage,
    launchIn,
    address: V4[host],
    phone: `+44 1632 960${digits}`,
    things: { label, path: slugged(label), items },
    client: more.client ?? name,
    replaces: more.replaces ?? false,
    www: more.www ?? 'other',
    traits: more.traits ?? [],
    live: more.live ?? [],
    before: more.before ?? [],
    staging: more.staging ?? { name: 'Staging', host: before, path: '/' },
    drafts: (more.drafts ?? []).map((d) => ({ name: d, host: `${slugged(d)}-${before}`, path: '/' })),
  };
}

/** Names made of two rows of words: as many as a large site has pages. */
const pairs = (first: string[], second: string[], count: number): string[] =>
  Array.from(
    { length: count },
    (_, i) =>
      `${first[i % first.length]!} ${second[Math.floor(i / first.length) % second.length]!}${i >= first.length * second.length ? ` ${Math.floor(i / (first.length * second.length)) + 1}` : ''}`,
  );
const ADJECTIVES = [
  'Amber',
  'Brackish',
  'Chalk',
  'Drifting',
  'Early',
  'Fallow',
  'Grey',
  'Hidden',
  'Inland',
  'Jagged',
  'Knotted',
  'Low',
  'Milky',
  'Northern',
  'Open',
  'Pale',
  'Quiet',
  'Ragged',
  'Salt',
  'Tidal',
  'Upper',
  'Veiled',
  'Winter',
  'Young',
  'Windward',
];
const NOUNS = [
  'Heron',
  'Curlew',
  'Plover',
  'Dunlin',
  'Redshank',
  'Godwit',
  'Knot',
  'Tern',
  'Wigeon',
  'Teal',
  'Shelduck',
  'Avocet',
  'Lapwing',
  'Egret',
  'Pipit',
  'Wagtail',
  'Linnet',
  'Whimbrel',
  'Sanderling',
  'Eider',
];

export const SITES: readonly PracticeSite[] = [
  site(
    'planetarium',
    'tarn-planetarium.example',
    'Tarn Planetarium',
    'The night sky over the water',
    'planetarium',
    '#233a5e',
    'Fennel Hosting',
    'launched',
    -61,
    '101',
    'Shows',
    ['Autumn Stars', 'Rings and Moons', 'The Quiet Comet', 'Tides and the Moon', 'Night for Small Owls'],
    {
      client: 'Tarn Planetarium Trust',
      traits: ['signed'],
      live: ['noindex-left', 'staging-links', 'no-alt', 'share-default', 'picture-small', 'ended-contact'],
      before: ['unlocked', 'open', 'counted-staging'],
    },
  ),
  site(
    'ferries',
    'sallow-ferries.example',
    'Sallow Ferries',
    'Across the firth, every day',
    'ferry company',
    '#0f5a66',
    'Quayside Pages',
    'launched',
    -12,
    '214',
    'Crossings',
    ['Harbour to Gull Point', 'Evening Round', 'Seal Island', 'Winter Timetable'],
    {
      replaces: true,
      www: 'preferred',
      live: ['www-stays', 'stale-server', 'no-hsts', 'wrong-phone', 'strange-token', 'two-headings'],
      before: ['unlocked'],
    },
  ),
  site(
    'lifeboat',
    'lifeboat-loft.example',
    'Lifeboat Loft',
    'A museum in the old boathouse',
    'museum',
    '#7a2f1d',
    'Cairn Builder',
    'pre-launch',
    9,
    '335',
    'Exhibits',
    ['The Oak Boat', 'Breeches Buoy', 'Letters from the Crew'],
    {
      client: 'Friends of the Lifeboat Loft',
      live: ['rude-holding'],
      before: ['unlocked', 'disallow-only', 'filler', 'default-title', 'no-description'],
    },
  ),
  site(
    'kites',
    'windrow-kites.example',
    'Windrow Kite Works',
    'Kites by hand since the long summer',
    'workshop',
    '#8a5a00',
    'Fennel Hosting',
    'building',
    34,
    '447',
    'Kites',
    ['Sled', 'Delta', 'Box Kite', 'Great Rokkaku', 'Sky Ray', 'Pocket Kite'],
    {
      replaces: true,
      drafts: ['Draft'],
      live: ['lapsing'],
      before: [
        'unlocked',
        'nameless-title',
        'share-default',
        'private-mail',
        'wrong-language',
        'no-viewport',
        'no-touch-icon',
      ],
    },
  ),
  site(
    'seeds',
    'saltmarsh-seeds.example',
    'Saltmarsh Seed Library',
    'Borrow a seed, bring two back',
    'library',
    '#2f6b3a',
    'Samphire Servers',
    'launched',
    -203,
    '512',
    'Seeds',
    ['Sea Kale', 'Blue Pea', 'Marsh Mallow', 'Winter Rye'],
    {
      staging: { name: 'Staging', host: 'test.saltmarsh-seeds.example', path: '/' },
      live: ['ends-soon', 'old-year', 'no-canonical', 'uncompressed', 'repository', 'uncounted'],
      before: ['unlocked', 'open'],
    },
  ),
  site(
    'trams',
    'firth-trams.example',
    'Firth Tram Society',
    'Two trams, one mile, many hands',
    'society',
    '#5b2a5e',
    'Quayside Pages',
    'pre-launch',
    3,
    '623',
    'Trams',
    ['Car 7', 'Car 12', 'The Water Car', 'Workshop Diary'],
    {
      replaces: true,
      www: 'preferred',
      drafts: ['Draft', 'Test'],
      live: ['on-hold'],
      before: ['unlocked', 'mixed', 'server-fault', 'same-title', 'foreign-mail'],
    },
  ),
  site(
    'puppets',
    'reedling-puppets.example',
    'Reedling Puppet Theatre',
    'Small figures, tall tales',
    'theatre',
    '#6b1f3f',
    'Cairn Builder',
    'launched',
    -340,
    '738',
    'Plays',
    ['The Heron King', 'Salt and Feather', 'A Goose at Court'],
    {
      staging: { name: 'Staging', host: 'reedling-puppets.cairn-draft.example', path: '/' },
      live: ['no-icon'],
    },
  ),
  site(
    'ropes',
    'the-rope-walk.example',
    'The Rope Walk',
    'Studios along the longest shed on the quay',
    'studio house',
    '#4a4335',
    'Fennel Hosting',
    'building',
    58,
    '849',
    'Studios',
    ['Twine', 'Tar Room', 'Long Bench', 'Net Loft'],
    {
      staging: { name: 'Staging', host: 'shared.preview.fennel-hosting.example', path: '/rope-walk/' },
      live: ['parked'],
      before: ['unlocked', 'open', 'filler', 'no-title', 'no-icon', 'no-preview'],
    },
  ),
  site(
    'pedals',
    'pedal-kitchen.example',
    'Pedal Kitchen',
    'Mend your own bicycle, with help',
    'bicycle kitchen',
    '#1f5d3f',
    'Samphire Servers',
    'launched',
    -88,
    '119',
    'Workshops',
    pairs(['Wheel', 'Brake', 'Chain', 'Saddle'], ['First Aid', 'Evening', 'for Children'], 12),
    { live: ['version-shown', 'bare-headers', 'loose-cookie', 'listing', 'dead-link'] },
  ),
  site(
    'bakery',
    'tidemill-bakery.example',
    'Tide Mill Bakery',
    'Bread by the turning of the tide',
    'bakery',
    '#7a4a12',
    'Cairn Builder',
    'launched',
    -29,
    '226',
    'Loaves',
    ['High Water Rye', 'Ebb Spelt', 'Miller’s Oat', 'Neap Roll', 'Lamp Bun'],
    { traits: ['flattened'], live: ['soa-order', 'spf-two', 'icon-soft', 'long-title', 'nofollow-left'] },
  ),
  site(
    'choir',
    'sallow-choir.example',
    'Sallow Choir',
    'Forty voices by the water',
    'choir',
    '#49306b',
    'Fennel Hosting',
    'pre-launch',
    2,
    '331',
    'Songs',
    ['Ferryman’s Round', 'Reed Song', 'Lamp Lighting', 'Slack Water'],
    {
      replaces: true,
      traits: ['moves'],
      live: ['ds-left', 'long-ttl'],
      before: ['unlocked', 'skipped-heading'],
    },
  ),
  site(
    'barn',
    'climbing-barn.example',
    'The Climbing Barn',
    'Walls for wet afternoons',
    'climbing hall',
    '#8a3a1a',
    'Quayside Pages',
    'launched',
    -150,
    '404',
    'Walls',
    ['Granite Corner', 'The Long Slab', 'Cave', 'Small Feet'],
    { live: ['caa-closed', 'unlocked-domain', 'dkim-gone', 'picture-heavy', 'camera-picture'] },
  ),
  site(
    'radio',
    'lighthouse-radio.example',
    'Lighthouse Radio',
    'Music between two beams',
    'radio station',
    '#0d4f6b',
    'Samphire Servers',
    'launched',
    -410,
    '455',
    'Programmes',
    pairs(['Morning', 'Noon', 'Evening'], ['Beam', 'Harbour', 'Requests'], 9),
    { traits: ['no-mail'], live: ['no-mail-open', 'other-registrar', 'strange-script'] },
  ),
  site(
    'pottery',
    'clay-lane.example',
    'Clay Lane Pottery',
    'Bowls from the river bank',
    'pottery',
    '#75462c',
    'Fennel Hosting',
    'building',
    21,
    '516',
    'Glazes',
    ['Reed Ash', 'Iron Tide', 'Oyster', 'Slip Blue'],
    { before: ['unlocked', 'host-icon', 'default-author', 'host-badge', 'default-tagline'] },
  ),
  site(
    'bees',
    'firth-bees.example',
    'Firth Bee Keepers',
    'Honey from heather and sea lavender',
    'beekeepers’ circle',
    '#8a6a00',
    'Cairn Builder',
    'launched',
    -5,
    '577',
    'Apiaries',
    ['Heath Row', 'Church Wall', 'Sea Bank'],
    { replaces: true, live: ['old-404', 'sitemap-short', 'spreading', 'stale-glue', 'outside-dead'] },
  ),
  site(
    'chess',
    'quay-chess.example',
    'Quay Chess Circle',
    'A board for every harbour',
    'chess circle',
    '#2d3440',
    'Quayside Pages',
    'launched',
    -77,
    '618',
    'Evenings',
    ['Openings', 'Slow Games', 'Lightning Night'],
    { traits: ['forwarded'], live: ['temporary-forward', 'no-card', 'refresh'] },
  ),
  site(
    'wool',
    'ebb-wool.example',
    'Ebb Wool Mill',
    'Yarn spun beside the weir',
    'spinning mill',
    '#5a5148',
    'Samphire Servers',
    'pre-launch',
    14,
    '664',
    'Yarns',
    ['Fleece Grey', 'Moor', 'Weir Blue', 'Lichen', 'Peat'],
    { drafts: ['Draft'], before: ['unlocked', 'broken-ld', 'nameless-button'] },
  ),
  site(
    'curlew',
    'curlew-point.example',
    'Curlew Point Bird Station',
    'Counting birds, dawn after dawn',
    'bird station',
    '#33552f',
    'Samphire Servers',
    'launched',
    -1200,
    '702',
    'Log',
    pairs(ADJECTIVES, NOUNS, 1994),
    { client: 'Curlew Point Observatory', live: ['sitemap-future'] },
  ),
  site(
    'boats',
    'oar-and-ash.example',
    'Oar and Ash Boatyard',
    'Small boats, slowly built',
    'boatyard',
    '#6b3b12',
    'Cairn Builder',
    'building',
    45,
    '755',
    'Boats',
    ['Skiff', 'Punt', 'Gig', 'Coracle', 'Dory'],
    { before: ['unlocked', 'default-sender', 'font-unused', 'comments-open'] },
  ),
  site(
    'cinema',
    'tin-roof-cinema.example',
    'Tin Roof Cinema',
    'Films under a loud roof',
    'cinema',
    '#701c2e',
    'Quayside Pages',
    'launched',
    -33,
    '781',
    'Films',
    pairs(
      ['Rain', 'Lantern', 'Harbour', 'Salt', 'Night', 'Paper'],
      ['Road', 'Letters', 'Thieves', 'Summer', 'Crossing'],
      30,
    ),
    { www: 'preferred', live: ['old-copy', 'canonical-home', 'heavy-page'] },
  ),
  site(
    'plots',
    'saltgate-plots.example',
    'Saltgate Allotments',
    'Forty plots and one good tap',
    'allotment society',
    '#3b6b1f',
    'Fennel Hosting',
    'launched',
    -510,
    '806',
    'Plots',
    pairs(['North', 'East', 'South', 'West'], ['Row', 'Corner', 'Bank'], 12),
    { live: ['apex-alias', 'mx-alias', 'twin-page', 'hidden-open'] },
  ),
  site(
    'sauna',
    'wharf-sauna.example',
    'Wharf Sauna',
    'Heat, then the harbour',
    'sauna',
    '#7d2a0c',
    'Samphire Servers',
    'building',
    5,
    '828',
    'Rooms',
    ['Smoke Room', 'Quiet Room', 'Cold Steps'],
    { replaces: true, before: ['unlocked', 'lapsing-place', 'number-address', 'picture-mute'] },
  ),
  site(
    'press',
    'ink-and-tide.example',
    'Ink and Tide Letterpress',
    'Posters from a wooden alphabet',
    'letterpress',
    '#1c1c3a',
    'Cairn Builder',
    'launched',
    -270,
    '867',
    'Alphabets',
    pairs(['Gothic', 'Roman', 'Slab'], ['Large', 'Small', 'Worn', 'New', 'Narrow', 'Wide'], 18),
    { traits: ['wildcard'], live: ['late-consent', 'script-early', 'share-elsewhere', 'link-detour'] },
  ),
  site(
    'tea',
    'heron-tea.example',
    'Heron Tea House',
    'Tea above the reeds',
    'tea house',
    '#4d5a1c',
    'Quayside Pages',
    'launched',
    -18,
    '894',
    'Teas',
    pairs(['Green', 'Smoked', 'First'], ['Leaf', 'Tip', 'Pot'], 9),
    { live: ['challenge', 'free-mail'] },
  ),
];

/** Every place of a site before the live one, the earliest first. */
export const placesBefore = (s: PracticeSite): Spot[] => [...s.drafts, s.staging];

/** The icon that a host puts on sites without one, and its digest. */
export const hostIcon = (host: string): Buffer =>
  png(48, 48, `#${createHash('sha256').update(host).digest('hex').slice(0, 6)}`);
const hostIconHash = (host: string): string => createHash('sha256').update(hostIcon(host)).digest('hex');

/** The made-up hosting products: what each requires and leaves behind, in numbers of their own. */
export const HOSTS = [
  {
    name: 'Fennel Hosting',
    notes:
      'The switch “Let search engines find this site” stands under Settings, Reach; it is off until somebody sets it.',
    records: [
      { name: '{domain}', type: 'A', value: '192.0.2.10' },
      { name: '{www}', type: 'CNAME', value: '{domain}' },
    ],
    handChecks: ['delivery.backup'],
    icons: { required: [48], recommended: [240], touch: 240 },
    sharePictureBytes: 1_500_000,
    descriptionLimit: 400,
    sharedSuffixes: ['fennel-hosting.example'],
    stagingHostPattern: '*.preview.fennel-hosting.example',
    stagingLifetime: { firstDays: 45, renewalDays: 21, capDays: 400 },
    marks: {
      parking: ['This name is registered and resting'],
      unknownName: ['Fennel has no site under this name'],
      samplePage: ['Your Fennel site is ready to grow'],
    },
    issuer: 'ca.registry.example',
    badge: ['Grown on Fennel'],
    defaults: {
      titles: ['My Fennel site'],
      taglines: ['Another seed in the ground'],
      texts: ['Your Fennel site is ready to grow'],
      authors: ['fennel-gardener'],
      formSenders: ['forms@fennel-hosting.example'],
      iconHashes: [hostIconHash('Fennel Hosting')],
    },
    plans: [
      { name: 'Sprig', features: ['domain'] },
      { name: 'Bulb', features: ['domain', 'forms', 'shop'] },
    ],
    backups: 'each night, kept for 14 days',
  },
  {
    name: 'Quayside Pages',
    addressRanges: ['2001:db8:20::/48'],
    descriptionLimit: 300,
    backups: 'each week, kept for a month',
    notes: 'Publishing takes up to ten minutes; the old page is served until then.',
    records: [
      { name: '{domain}', type: 'A', value: '192.0.2.20' },
      { name: '{www}', type: 'CNAME', value: '{domain}' },
    ],
    handChecks: ['delivery.forms-arrive'],
    icons: { required: [32], recommended: [128] },
    sharePictureBytes: 900_000,
    sharedSuffixes: ['quayside-pages.example'],
    stagingHostPattern: '*.draft.quayside-pages.example',
    marks: { parking: ['This name is registered and resting'], unknownName: ['No berth for this name'] },
    issuer: 'ca.registry.example',
    badge: ['Moored at Quayside'],
    defaults: {
      titles: ['New berth'],
      taglines: ['Moored with Quayside'],
      authors: ['harbour-master'],
      formSenders: ['post@quayside-pages.example'],
      iconHashes: [hostIconHash('Quayside Pages')],
    },
    plans: [{ name: 'Slip', features: ['domain', 'forms'] }],
  },
  {
    name: 'Cairn Builder',
    sharePictureBytes: 1_200_000,
    descriptionLimit: 320,
    backups: 'none of its own: export by hand',
    notes: 'A draft lapses unless somebody changes it. Titles that are left blank become “First stone”.',
    records: [
      { name: '{domain}', type: 'A', value: '192.0.2.30' },
      { name: '{www}', type: 'CNAME', value: '{domain}' },
    ],
    handChecks: ['delivery.backup', 'delivery.forms-arrive'],
    icons: { recommended: [192], touch: 180 },
    sharedSuffixes: ['cairn-draft.example'],
    stagingHostPattern: '*.cairn-draft.example',
    marks: {
      parking: ['This name is registered and resting'],
      unknownName: ['No cairn stands here'],
      holding: ['Something is being built here'],
    },
    issuer: 'ca.registry.example',
    badge: ['Piled with Cairn'],
    stagingLifetime: { firstDays: 30, renewalDays: 14, capDays: 180 },
    defaults: {
      titles: ['First stone'],
      taglines: ['Built on Cairn'],
      authors: ['mason'],
      formSenders: ['noreply@cairn-draft.example'],
      iconHashes: [hostIconHash('Cairn Builder')],
    },
    plans: [
      { name: 'Stone', features: ['domain'] },
      { name: 'Tower', features: ['domain', 'forms', 'members'] },
    ],
  },
  {
    name: 'Samphire Servers',
    stagingHostPattern: 'draft.*',
    notes: 'A plain server: what it does is what the agency sets.',
    records: [
      { name: '{domain}', type: 'A', value: '192.0.2.40' },
      { name: '{www}', type: 'CNAME', value: '{domain}' },
    ],
    handChecks: ['delivery.backup', 'delivery.upkeep'],
    icons: {},
    issuer: 'ca.registry.example',
    badge: ['Served by Samphire'],
    stagingLifetime: { firstDays: 60 },
    marks: { parking: ['This name is registered and resting'], unknownName: ['Samphire default host'] },
    defaults: {
      titles: ['It works'],
      taglines: ['Served fresh'],
      authors: ['root'],
      formSenders: ['www-data@samphire-servers.example'],
      iconHashes: [hostIconHash('Samphire Servers')],
    },
    backups: 'by the customer',
  },
] as const;

/** What pages need to know of a host by its name. */
export function hostFacts(host: string): {
  badge: readonly string[];
  suffix: string;
  defaults: { taglines: readonly string[]; authors: readonly string[]; formSenders: readonly string[] };
} {
  const found = HOSTS.find((h) => h.name === host)!;
  return {
    badge: found.badge,
    suffix: EDGE[V4[host as keyof typeof V4]]!.replace('edge.', ''),
    defaults: found.defaults,
  };
}

export const preferredHost = (s: PracticeSite): string =>
  s.www === 'preferred' ? `www.${s.domain}` : s.domain;
export const otherHost = (s: PracticeSite): string => (s.www === 'preferred' ? s.domain : `www.${s.domain}`);
export const tokenOf = (s: PracticeSite): string => `sf-${s.slug}-${s.phone.slice(-4)}`;
export const counterOf = (s: PracticeSite): string => `TM-${s.phone.slice(-6)}`;
/** A made-up network with profiles. */
export const SHOAL = 'https://shoal.example/';
export const profileOf = (s: PracticeSite): string => SHOAL + s.slug;
/** The client whose things a fault borrows. */
export const otherClientOf = (s: PracticeSite): PracticeSite => SITES[(SITES.indexOf(s) + 1) % SITES.length]!;
export const counterScript = (id: string): string =>
  `<script async src="https://count.tidemark.example/c.js?site=${id}" data-site="${id}"></script>`;
/** The user and password that open a site's staging. */
export const keyOf = (s: PracticeSite): { user: string; password: string } => ({
  user: 'marram',
  password: `draft-${s.slug}-${s.phone.slice(-3)}`,
});
/** What passes a holding page. */
export const passOf = (s: PracticeSite): string => `?preview=look-${s.phone.slice(-4)}`;
export const subdomainOf = (s: PracticeSite): string => `tickets.${s.domain}`;
/** Where the public writes to: a domain without mail has its address elsewhere. */
export const mailOf = (s: PracticeSite, free = false): string =>
  free || s.traits.includes('no-mail') ? `${s.slug}@firth-mail.example` : `hello@${s.domain}`;
