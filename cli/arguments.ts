/** The command line's words. */
import { parseArgs } from 'node:util';
import { parseUrl } from '#core/extract/address';
import { FINDING_FORMAT_NAMES, type FindingFormat } from '#core/formats/findings/index';
import { SITUATIONS, type Situation } from '#core/facts/situation';

/** In which form the result is written. */
const OUTPUT_FORMATS = ['text', 'json', ...FINDING_FORMAT_NAMES] as const;
type OutputFormat = 'text' | 'json' | FindingFormat;

export interface Arguments {
  url?: string;
  situation?: Situation;
  brief?: string;
  hostProfile?: string;
  checklist?: string;
  /** Ids of checks; all of the checklist when left out. */
  only?: string[];
  attestations?: string;
  resolver: string[];
  ca: string[];
  map: string[];
  allowPrivate: boolean;
  pages: number;
  timeout: number;
  format: OutputFormat;
  out?: string;
  evidence?: string;
  fromEvidence?: string;
  har?: string;
  fromHar?: string;
  zone?: string;
  fromZone?: string;
  access?: string;
  rdapBootstrap?: string;
  agent?: string;
  delay: number;
  concurrency: number;
  outside: boolean;
  build?: string;
  /** How many pages a browser looks at beside the home page and the required ones; none at all when left out. */
  render?: number;
  browserKeys: string[];
  pictures?: string;
  /** Whether each fault comes with the commands that show it. */
  commands: boolean;
  failOn?: FailOn;
  list: boolean;
  help: boolean;
}

/** From which open fault on the command fails. */
const FAIL_ON = ['blocker', 'major', 'minor', 'undecided'] as const;
export type FailOn = (typeof FAIL_ON)[number];

export class UsageError extends Error {}

export const USAGE = `usage: npm run -s audit -- <url> [options]
  --situation staging|holding|former|live   what is wanted there (default: staging where the brief says so, else live)
  --brief FILE            what is officially so (docs/schemas/brief.schema.json)
  --host-profile FILE     notes on the hosting product
  --checklist FILE        which checks, how grave and heavy; all of them when left out
  --only CHECK,…          these checks alone: only what they rest on is collected
  --attestations FILE     manual checks; without it they are left out
  --resolver IP:PORT      ask this resolver (may be given several times)
  --ca FILE               trust these roots too (PEM)
  --map FROM=TO           connect to address:port TO where host or address FROM is meant
  --allow-private         dial private and loopback addresses too
  --pages N               read at most N pages (default 50)
  --timeout SECONDS       wait so long for one answer (default 15)
  --format FORMAT         text (default), json, earl (JSON-LD), junit (XML), csv, markdown
  --out FILE              write the result there, not to standard output
  --evidence FILE         write what was collected
  --from-evidence FILE    judge stored evidence, without a network
  --har FILE, --zone FILE write the HTTP part as HAR 1.2, the DNS part as a zone file
  --from-har FILE         judge requests recorded elsewhere, without a network; --from-zone FILE adds DNS records to it
  --access FILE           how to get in: {"kind":"credentials","user":…,"password":…} or {"kind":"parameter"|"cookie","name":…,"value":…}
  --agent TEXT            name to ask under;  --concurrency N  requests at once to one host (6);  --delay MS  pause between two of them
  --outside               ask files that pages load from other hosts for their head as well, and links to other sites
                          even where the checklist leaves indexing.outside-links out
  --build DIR             the folder that was uploaded: each file is held against what is served
  --render N              look at the home page, the required ones and N more in a browser (Debian's chromium)
  --pictures DIR          keep the pictures of those pages there, as WebP by their digests
  --browser-key KEY       trust this key in the browser too: SHA-256 of it, as base64 (may be given several times)
  --rdap-bootstrap FILE   IANA's dns.json, instead of the copy that ships
  --commands              with each fault the dig, openssl and curl commands that show it (text and markdown)
  --fail-on SEVERITY      exit 1 from a blocker, major or minor fault on; undecided: on a blocker that fails or cannot be told
  --list                  the catalogue as JSON
exit: 0 clear, 1 held, 3 undecided or nothing could be judged, 2 wrong usage or nothing reachable`;

function whole(text: string | undefined, name: string, fallback: number, max: number): number {
  if (text === undefined) return fallback;
  const n = Number(text);
  if (!(n > 0 && n <= max)) throw new UsageError(`--${name} takes a number from 1 to ${max}, not “${text}”`);
  return n;
}

const TEXT = { type: 'string' } as const;
const MANY = { type: 'string', multiple: true } as const;
const FLAG = { type: 'boolean' } as const;

const OPTIONS = {
  situation: TEXT,
  brief: TEXT,
  'host-profile': TEXT,
  checklist: TEXT,
  only: TEXT,
  attestations: TEXT,
  build: TEXT,
  render: TEXT,
  pictures: TEXT,
  commands: FLAG,
  'fail-on': TEXT,
  'browser-key': MANY,
  resolver: MANY,
  ca: MANY,
  map: MANY,
  'allow-private': FLAG,
  pages: TEXT,
  timeout: TEXT,
  format: TEXT,
  out: TEXT,
  evidence: TEXT,
  'from-evidence': TEXT,
  har: TEXT,
  'from-har': TEXT,
  zone: TEXT,
  'from-zone': TEXT,
  access: TEXT,
  'way-in': TEXT,
  'rdap-bootstrap': TEXT,
  agent: TEXT,
  delay: TEXT,
  concurrency: TEXT,
  outside: FLAG,
  list: FLAG,
  help: FLAG,
} as const;

function parse(argv: string[]) {
  try {
    return parseArgs({ args: argv, allowPositionals: true, options: OPTIONS });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}
type Parsed = ReturnType<typeof parse>['values'];

/** One of a few words. @throws UsageError */
function oneOf<W extends string>(words: readonly W[], text: string | undefined, name: string): W | undefined {
  if (text === undefined || words.includes(text as W)) return text as W | undefined;
  const list = words.length > 2 ? `one of ${words.join(', ')}` : words.join(' or ');
  throw new UsageError(`--${name} is ${list}, not “${text}”`);
}

/** Options that do not go together. */
function refuseContradictions(args: Arguments): void {
  const needsAddress = !args.list && !args.help && !args.fromEvidence;
  if (needsAddress && !args.url) throw new UsageError('an address is missing');
  if (args.fromHar && !args.url) throw new UsageError('--from-har needs the address of the site as well');
  if (args.pictures !== undefined && args.render === undefined)
    throw new UsageError('--pictures goes with --render');
  if (args.fromZone && !args.fromHar) throw new UsageError('--from-zone goes with --from-har');
  // a name that would end the header early is no name
  if (args.agent !== undefined && !/^[\x20-\x7e]{1,300}$/.test(args.agent))
    throw new UsageError('--agent takes up to 300 printable ASCII characters');
}

/** The address to audit, with https where no scheme is given. @throws UsageError */
function addressOf(given: string | undefined): string | undefined {
  if (!given) return undefined;
  const url = /^https?:\/\//i.test(given) ? given : `https://${given}`;
  if (!parseUrl(url)) throw new UsageError(`“${url}” is no address`);
  return url;
}

/** How the network is used. */
function politeness(v: Parsed): Pick<Arguments, 'pages' | 'timeout' | 'delay' | 'concurrency'> {
  return {
    pages: Math.floor(whole(v.pages, 'pages', 50, 5000)),
    timeout: whole(v.timeout, 'timeout', 15, 600),
    delay: v.delay === '0' ? 0 : whole(v.delay, 'delay', 0, 60_000),
    concurrency: Math.floor(whole(v.concurrency, 'concurrency', 6, 32)),
  };
}

/** @throws UsageError with a sentence that says what is wrong */
export function readArguments(argv: string[]): Arguments {
  const { values: v, positionals } = parse(argv);
  if (positionals.length > 1) throw new UsageError(`one address at a time, not also “${positionals[1]}”`);
  const {
    'browser-key': browserKeys = [],
    resolver = [],
    ca = [],
    map = [],
    outside = false,
    commands = false,
    list = false,
    help = false,
  } = v;
  const args: Arguments = {
    url: positionals[0],
    situation: oneOf(SITUATIONS, v.situation, 'situation'),
    brief: v.brief,
    hostProfile: v['host-profile'],
    checklist: v.checklist,
    only: v.only?.split(',').map((id) => id.trim()),
    attestations: v.attestations,
    resolver,
    ca,
    map,
    allowPrivate: v['allow-private'] === true,
    format: oneOf<OutputFormat>(OUTPUT_FORMATS, v.format, 'format') ?? 'text',
    out: v.out,
    evidence: v.evidence,
    fromEvidence: v['from-evidence'],
    har: v.har,
    fromHar: v['from-har'],
    zone: v.zone,
    fromZone: v['from-zone'],
    access: v.access ?? v['way-in'] /* its older name */,
    rdapBootstrap: v['rdap-bootstrap'],
    agent: v.agent,
    ...politeness(v),
    outside,
    build: v.build,
    ...(v.render === undefined
      ? {}
      : { render: v.render === '0' ? 0 : Math.floor(whole(v.render, 'render', 0, 200)) }),
    browserKeys,
    pictures: v.pictures,
    commands,
    failOn: oneOf(FAIL_ON, v['fail-on'], 'fail-on'),
    list,
    help,
  };
  refuseContradictions(args);
  return { ...args, url: addressOf(args.url) };
}
