/**
 * The made-up sites of the Sallow Firth. Names under .example (RFC 2606), addresses from the documentation
 * ranges (RFC 5737, RFC 3849), phone numbers from a range reserved for fiction.
 */
import { createHash } from 'node:crypto';
import { png } from './pictures';

type Stage = 'building' | 'pre-launch' | 'launched';
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
  /** Environments before staging: drafts, tests. */
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

/** What is said of a site; the rest follows from it. */
interface SiteFacts extends More {
  slug: string;
  domain: string;
  name: string;
  tagline: string;
  kind: string;
  colour: string;
  host: keyof typeof V4;
  stage: Stage;
  launchIn: number;
  /** The last three of its telephone number. */
  digits: string;
  /** What it has to show, and what that is called. */
  label: string;
  items: string[];
}

function site(facts: SiteFacts): PracticeSite {
  const { slug, domain, name, tagline, kind, colour, host, stage, launchIn, digits, label, items } = facts;
  const more: More = facts;
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

const NAMED: readonly PracticeSite[] = [
  site({
    slug: 'planetarium',
    domain: 'tarn-planetarium.example',
    name: 'Tarn Planetarium',
    tagline: 'The night sky over the water',
    kind: 'planetarium',
    colour: '#233a5e',
    host: 'Fennel Hosting',
    stage: 'launched',
    launchIn: -61,
    digits: '101',
    label: 'Shows',
    items: [
      'Autumn Stars',
      'Rings and Moons',
      'The Quiet Comet',
      'Tides and the Moon',
      'Night for Small Owls',
    ],
    client: 'Tarn Planetarium Trust',
    traits: ['signed'],
    live: ['noindex-left', 'staging-links', 'no-alt', 'share-default', 'picture-small', 'ended-contact'],
    before: ['unlocked', 'open', 'counted-staging'],
  }),
  site({
    slug: 'ferries',
    domain: 'sallow-ferries.example',
    name: 'Sallow Ferries',
    tagline: 'Across the firth, every day',
    kind: 'ferry company',
    colour: '#0f5a66',
    host: 'Quayside Pages',
    stage: 'launched',
    launchIn: -12,
    digits: '214',
    label: 'Crossings',
    items: ['Harbour to Gull Point', 'Evening Round', 'Seal Island', 'Winter Timetable'],
    replaces: true,
    www: 'preferred',
    live: ['www-stays', 'stale-server', 'no-hsts', 'wrong-phone', 'strange-token', 'two-headings'],
    before: ['unlocked'],
  }),
  site({
    slug: 'lifeboat',
    domain: 'lifeboat-loft.example',
    name: 'Lifeboat Loft',
    tagline: 'A museum in the old boathouse',
    kind: 'museum',
    colour: '#7a2f1d',
    host: 'Cairn Builder',
    stage: 'pre-launch',
    launchIn: 9,
    digits: '335',
    label: 'Exhibits',
    items: ['The Oak Boat', 'Breeches Buoy', 'Letters from the Crew'],
    client: 'Friends of the Lifeboat Loft',
    live: ['rude-holding'],
    before: ['unlocked', 'disallow-only', 'filler', 'default-title', 'no-description'],
  }),
  site({
    slug: 'kites',
    domain: 'windrow-kites.example',
    name: 'Windrow Kite Works',
    tagline: 'Kites by hand since the long summer',
    kind: 'workshop',
    colour: '#8a5a00',
    host: 'Fennel Hosting',
    stage: 'building',
    launchIn: 34,
    digits: '447',
    label: 'Kites',
    items: ['Sled', 'Delta', 'Box Kite', 'Great Rokkaku', 'Sky Ray', 'Pocket Kite'],
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
  }),
  site({
    slug: 'seeds',
    domain: 'saltmarsh-seeds.example',
    name: 'Saltmarsh Seed Library',
    tagline: 'Borrow a seed, bring two back',
    kind: 'library',
    colour: '#2f6b3a',
    host: 'Samphire Servers',
    stage: 'launched',
    launchIn: -203,
    digits: '512',
    label: 'Seeds',
    items: ['Sea Kale', 'Blue Pea', 'Marsh Mallow', 'Winter Rye'],
    staging: { name: 'Staging', host: 'test.saltmarsh-seeds.example', path: '/' },
    live: [
      'ends-soon',
      'old-year',
      'no-canonical',
      'uncompressed',
      'repository',
      'uncounted',
      'publish-behind',
    ],
    before: ['unlocked', 'open'],
  }),
  site({
    slug: 'trams',
    domain: 'firth-trams.example',
    name: 'Firth Tram Society',
    tagline: 'Two trams, one mile, many hands',
    kind: 'society',
    colour: '#5b2a5e',
    host: 'Quayside Pages',
    stage: 'pre-launch',
    launchIn: 3,
    digits: '623',
    label: 'Trams',
    items: ['Car 7', 'Car 12', 'The Water Car', 'Workshop Diary'],
    replaces: true,
    www: 'preferred',
    drafts: ['Draft', 'Test'],
    live: ['on-hold'],
    before: ['unlocked', 'mixed', 'server-fault', 'same-title', 'foreign-mail'],
  }),
  site({
    slug: 'puppets',
    domain: 'reedling-puppets.example',
    name: 'Reedling Puppet Theatre',
    tagline: 'Small figures, tall tales',
    kind: 'theatre',
    colour: '#6b1f3f',
    host: 'Cairn Builder',
    stage: 'launched',
    launchIn: -340,
    digits: '738',
    label: 'Plays',
    items: ['The Heron King', 'Salt and Feather', 'A Goose at Court'],
    staging: { name: 'Staging', host: 'reedling-puppets.cairn-draft.example', path: '/' },
    live: ['no-icon', 'badge-put-in', 'files-forgotten'],
  }),
  site({
    slug: 'ropes',
    domain: 'the-rope-walk.example',
    name: 'The Rope Walk',
    tagline: 'Studios along the longest shed on the quay',
    kind: 'studio house',
    colour: '#4a4335',
    host: 'Fennel Hosting',
    stage: 'building',
    launchIn: 58,
    digits: '849',
    label: 'Studios',
    items: ['Twine', 'Tar Room', 'Long Bench', 'Net Loft'],
    staging: { name: 'Staging', host: 'shared.preview.fennel-hosting.example', path: '/rope-walk/' },
    live: ['parked'],
    before: ['unlocked', 'open', 'filler', 'no-title', 'no-icon', 'no-preview'],
  }),
  site({
    slug: 'pedals',
    domain: 'pedal-kitchen.example',
    name: 'Pedal Kitchen',
    tagline: 'Mend your own bicycle, with help',
    kind: 'bicycle kitchen',
    colour: '#1f5d3f',
    host: 'Samphire Servers',
    stage: 'launched',
    launchIn: -88,
    digits: '119',
    label: 'Workshops',
    items: pairs(['Wheel', 'Brake', 'Chain', 'Saddle'], ['First Aid', 'Evening', 'for Children'], 12),
    live: [
      'version-shown',
      'bare-headers',
      'loose-cookie',
      'listing',
      'dead-link',
      'script-error',
      'counted-double',
    ],
  }),
  site({
    slug: 'bakery',
    domain: 'tidemill-bakery.example',
    name: 'Tide Mill Bakery',
    tagline: 'Bread by the turning of the tide',
    kind: 'bakery',
    colour: '#7a4a12',
    host: 'Cairn Builder',
    stage: 'launched',
    launchIn: -29,
    digits: '226',
    label: 'Loaves',
    items: ['High Water Rye', 'Ebb Spelt', 'Miller’s Oat', 'Neap Roll', 'Lamp Bun'],
    traits: ['flattened'],
    live: ['soa-order', 'spf-two', 'icon-soft', 'long-title', 'nofollow-left'],
  }),
  site({
    slug: 'choir',
    domain: 'sallow-choir.example',
    name: 'Sallow Choir',
    tagline: 'Forty voices by the water',
    kind: 'choir',
    colour: '#49306b',
    host: 'Fennel Hosting',
    stage: 'pre-launch',
    launchIn: 2,
    digits: '331',
    label: 'Songs',
    items: ['Ferryman’s Round', 'Reed Song', 'Lamp Lighting', 'Slack Water'],
    replaces: true,
    traits: ['moves'],
    live: ['ds-left', 'long-ttl'],
    before: ['unlocked', 'skipped-heading'],
  }),
  site({
    slug: 'barn',
    domain: 'climbing-barn.example',
    name: 'The Climbing Barn',
    tagline: 'Walls for wet afternoons',
    kind: 'climbing hall',
    colour: '#8a3a1a',
    host: 'Quayside Pages',
    stage: 'launched',
    launchIn: -150,
    digits: '404',
    label: 'Walls',
    items: ['Granite Corner', 'The Long Slab', 'Cave', 'Small Feet'],
    live: ['caa-closed', 'unlocked-domain', 'dkim-gone', 'picture-heavy', 'camera-picture'],
  }),
  site({
    slug: 'radio',
    domain: 'lighthouse-radio.example',
    name: 'Lighthouse Radio',
    tagline: 'Music between two beams',
    kind: 'radio station',
    colour: '#0d4f6b',
    host: 'Samphire Servers',
    stage: 'launched',
    launchIn: -410,
    digits: '455',
    label: 'Programmes',
    items: pairs(['Morning', 'Noon', 'Evening'], ['Beam', 'Harbour', 'Requests'], 9),
    traits: ['no-mail'],
    live: ['no-mail-open', 'other-registrar', 'strange-script'],
  }),
  site({
    slug: 'pottery',
    domain: 'clay-lane.example',
    name: 'Clay Lane Pottery',
    tagline: 'Bowls from the river bank',
    kind: 'pottery',
    colour: '#75462c',
    host: 'Fennel Hosting',
    stage: 'building',
    launchIn: 21,
    digits: '516',
    label: 'Glazes',
    items: ['Reed Ash', 'Iron Tide', 'Oyster', 'Slip Blue'],
    before: ['unlocked', 'host-icon', 'default-author', 'host-badge', 'default-tagline'],
  }),
  site({
    slug: 'bees',
    domain: 'firth-bees.example',
    name: 'Firth Bee Keepers',
    tagline: 'Honey from heather and sea lavender',
    kind: 'beekeepers’ circle',
    colour: '#8a6a00',
    host: 'Cairn Builder',
    stage: 'launched',
    launchIn: -5,
    digits: '577',
    label: 'Apiaries',
    items: ['Heath Row', 'Church Wall', 'Sea Bank'],
    replaces: true,
    live: ['old-404', 'sitemap-short', 'spreading', 'stale-glue', 'outside-dead'],
  }),
  site({
    slug: 'chess',
    domain: 'quay-chess.example',
    name: 'Quay Chess Circle',
    tagline: 'A board for every harbour',
    kind: 'chess circle',
    colour: '#2d3440',
    host: 'Quayside Pages',
    stage: 'launched',
    launchIn: -77,
    digits: '618',
    label: 'Evenings',
    items: ['Openings', 'Slow Games', 'Lightning Night'],
    traits: ['forwarded'],
    live: ['temporary-forward', 'no-card', 'refresh'],
  }),
  site({
    slug: 'wool',
    domain: 'ebb-wool.example',
    name: 'Ebb Wool Mill',
    tagline: 'Yarn spun beside the weir',
    kind: 'spinning mill',
    colour: '#5a5148',
    host: 'Samphire Servers',
    stage: 'pre-launch',
    launchIn: 14,
    digits: '664',
    label: 'Yarns',
    items: ['Fleece Grey', 'Moor', 'Weir Blue', 'Lichen', 'Peat'],
    drafts: ['Draft'],
    before: ['unlocked', 'broken-ld', 'nameless-button', 'script-built', 'too-wide'],
  }),
  site({
    slug: 'curlew',
    domain: 'curlew-point.example',
    name: 'Curlew Point Bird Station',
    tagline: 'Counting birds, dawn after dawn',
    kind: 'bird station',
    colour: '#33552f',
    host: 'Samphire Servers',
    stage: 'launched',
    launchIn: -1200,
    digits: '702',
    label: 'Log',
    items: pairs(ADJECTIVES, NOUNS, 1994),
    client: 'Curlew Point Observatory',
    live: ['sitemap-future'],
  }),
  site({
    slug: 'boats',
    domain: 'oar-and-ash.example',
    name: 'Oar and Ash Boatyard',
    tagline: 'Small boats, slowly built',
    kind: 'boatyard',
    colour: '#6b3b12',
    host: 'Cairn Builder',
    stage: 'building',
    launchIn: 45,
    digits: '755',
    label: 'Boats',
    items: ['Skiff', 'Punt', 'Gig', 'Coracle', 'Dory'],
    before: ['unlocked', 'default-sender', 'font-unused', 'comments-open'],
  }),
  site({
    slug: 'cinema',
    domain: 'tin-roof-cinema.example',
    name: 'Tin Roof Cinema',
    tagline: 'Films under a loud roof',
    kind: 'cinema',
    colour: '#701c2e',
    host: 'Quayside Pages',
    stage: 'launched',
    launchIn: -33,
    digits: '781',
    label: 'Films',
    items: pairs(
      ['Rain', 'Lantern', 'Harbour', 'Salt', 'Night', 'Paper'],
      ['Road', 'Letters', 'Thieves', 'Summer', 'Crossing'],
      30,
    ),
    www: 'preferred',
    live: ['old-copy', 'canonical-home', 'heavy-page'],
  }),
  site({
    slug: 'plots',
    domain: 'saltgate-plots.example',
    name: 'Saltgate Allotments',
    tagline: 'Forty plots and one good tap',
    kind: 'allotment society',
    colour: '#3b6b1f',
    host: 'Fennel Hosting',
    stage: 'launched',
    launchIn: -510,
    digits: '806',
    label: 'Plots',
    items: pairs(['North', 'East', 'South', 'West'], ['Row', 'Corner', 'Bank'], 12),
    live: ['apex-alias', 'mx-alias', 'twin-page', 'hidden-open'],
  }),
  site({
    slug: 'sauna',
    domain: 'wharf-sauna.example',
    name: 'Wharf Sauna',
    tagline: 'Heat, then the harbour',
    kind: 'sauna',
    colour: '#7d2a0c',
    host: 'Samphire Servers',
    stage: 'building',
    launchIn: 5,
    digits: '828',
    label: 'Rooms',
    items: ['Smoke Room', 'Quiet Room', 'Cold Steps'],
    replaces: true,
    before: ['unlocked', 'lapsing-environment', 'number-address', 'picture-mute'],
  }),
  site({
    slug: 'press',
    domain: 'ink-and-tide.example',
    name: 'Ink and Tide Letterpress',
    tagline: 'Posters from a wooden alphabet',
    kind: 'letterpress',
    colour: '#1c1c3a',
    host: 'Cairn Builder',
    stage: 'launched',
    launchIn: -270,
    digits: '867',
    label: 'Alphabets',
    items: pairs(['Gothic', 'Roman', 'Slab'], ['Large', 'Small', 'Worn', 'New', 'Narrow', 'Wide'], 18),
    traits: ['wildcard'],
    live: [
      'late-consent',
      'script-early',
      'share-elsewhere',
      'link-detour',
      'counts-early',
      'visitor-cookie',
    ],
  }),
  site({
    slug: 'tea',
    domain: 'heron-tea.example',
    name: 'Heron Tea House',
    tagline: 'Tea above the reeds',
    kind: 'tea house',
    colour: '#4d5a1c',
    host: 'Quayside Pages',
    stage: 'launched',
    launchIn: -18,
    digits: '894',
    label: 'Teas',
    items: pairs(['Green', 'Smoked', 'First'], ['Leaf', 'Tip', 'Pot'], 9),
    live: ['challenge', 'free-mail'],
  }),
];

/** Further sites like these, each with names of its own and nothing planted: for work on hundreds of them. */
function furtherSites(count: number): PracticeSite[] {
  const plain = NAMED.filter((s) => s.slug !== 'curlew' && s.drafts.length === 0 && s.traits.length === 0);
  return Array.from({ length: count }, (_, i) => {
    const like = plain[i % plain.length]!;
    const number = Math.floor(i / plain.length) + 2;
    const slug = `${like.slug}-${number}`;
    const domain = like.domain.replace(/\./, `-${number}.`);
    const { host } = like.staging;
    return {
      ...like,
      slug,
      client: `${like.client} ${number}`,
      name: `${like.name} ${number}`,
      domain,
      staging: {
        ...like.staging,
        host: host.endsWith(like.domain) ? host.replace(like.domain, domain) : host.replace(/^[^.]+/, slug),
      },
      live: [],
      before: [],
    };
  });
}

/** ARMBAND_PRACTICE_MORE says how many there are beside the named ones. */
export const SITES: readonly PracticeSite[] = [
  ...NAMED,
  ...furtherSites(Number(process.env.ARMBAND_PRACTICE_MORE ?? 0)),
];

/** Every environment of a site before the live one, the earliest first. */
export const environmentsBefore = (s: PracticeSite): Spot[] => [...s.drafts, s.staging];

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
