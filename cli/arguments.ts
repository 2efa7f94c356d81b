/** The command line's words. */
import { parseArgs } from 'node:util';
import { parseUrl } from '#core/extract/address';
import { SITUATIONS, type Situation } from '#core/facts/situation';

export interface Arguments {
  url?: string;
  situation?: Situation;
  brief?: string;
  hostProfile?: string;
  checklist?: string;
  attestations?: string;
  resolver: string[];
  ca: string[];
  map: string[];
  allowPrivate: boolean;
  pages: number;
  timeout: number;
  format: 'text' | 'json';
  out?: string;
  evidence?: string;
  fromEvidence?: string;
  har?: string;
  fromHar?: string;
  zone?: string;
  fromZone?: string;
  wayIn?: string;
  rdapBootstrap?: string;
  agent?: string;
  delay: number;
  concurrency: number;
  outside: boolean;
  list: boolean;
  help: boolean;
}

export class UsageError extends Error {}

export const USAGE = `usage: npm run -s audit -- <url> [options]
  --situation staging|holding|former|live   what is wanted there (default: staging where the brief says so, else live)
  --brief FILE            what is officially so (docs/schemas/brief.schema.json)
  --host-profile FILE     notes on the hosting product
  --checklist FILE        which checks, how grave and heavy; all of them when left out
  --attestations FILE     checks done by hand; without it they are left out
  --resolver IP:PORT      ask this resolver (may be given several times)
  --ca FILE               trust these roots too (PEM)
  --map FROM=TO           connect to address:port TO where host or address FROM is meant
  --allow-private         dial private and loopback addresses too
  --pages N               read at most N pages (default 50)
  --timeout SECONDS       wait so long for one answer (default 15)
  --format text|json      default text
  --out FILE              write the result there, not to standard output
  --evidence FILE         write what was collected
  --from-evidence FILE    judge stored evidence, without a network
  --har FILE, --zone FILE write the HTTP part as HAR 1.2, the DNS part as a zone file
  --from-har FILE         judge requests recorded elsewhere, without a network; --from-zone FILE adds DNS records to it
  --way-in FILE           how to get in: {"kind":"credentials","user":…,"password":…} or {"kind":"parameter"|"cookie","name":…,"value":…}
  --agent TEXT            name to ask under;  --concurrency N  requests at once to one host (6);  --delay MS  pause between two of them
  --outside               ask files that pages load from other hosts for their head as well, and links to other sites
                          even where the checklist leaves indexing.outside-links out
  --rdap-bootstrap FILE   IANA's dns.json, instead of the copy that ships
  --list                  the catalogue as JSON
exit: 0 clear, 1 held, 3 undecided, 2 wrong usage or nothing reachable`;

function whole(text: string | undefined, name: string, fallback: number, max: number): number {
  if (text === undefined) return fallback;
  const n = Number(text);
  if (!(n > 0 && n <= max)) throw new UsageError(`--${name} takes a number from 1 to ${max}, not “${text}”`);
  return n;
}

/** @throws UsageError with a sentence that says what is wrong */
export function readArguments(argv: string[]): Arguments {
  const text = { type: 'string' } as const;
  const many = { type: 'string', multiple: true } as const;
  const flag = { type: 'boolean' } as const;
  let parsed;
  try {
    parsed = parseArgs({
      args: argv,
      allowPositionals: true,
      options: {
        situation: text,
        brief: text,
        'host-profile': text,
        checklist: text,
        attestations: text,
        resolver: many,
        ca: many,
        map: many,
        'allow-private': flag,
        pages: text,
        timeout: text,
        format: text,
        out: text,
        evidence: text,
        'from-evidence': text,
        har: text,
        'from-har': text,
        zone: text,
        'from-zone': text,
        'way-in': text,
        'rdap-bootstrap': text,
        agent: text,
        delay: text,
        concurrency: text,
        outside: flag,
        list: flag,
        help: flag,
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  const v = parsed.values;
  if (parsed.positionals.length > 1)
    throw new UsageError(`one address at a time, not also “${parsed.positionals[1]}”`);
  if (v.situation !== undefined && !SITUATIONS.includes(v.situation as Situation))
    throw new UsageError(`--situation is one of ${SITUATIONS.join(', ')}, not “${v.situation}”`);
  if (v.format !== undefined && v.format !== 'text' && v.format !== 'json')
    throw new UsageError(`--format is text or json, not “${v.format}”`);
  const args: Arguments = {
    url: parsed.positionals[0],
    situation: v.situation as Situation | undefined,
    brief: v.brief,
    hostProfile: v['host-profile'],
    checklist: v.checklist,
    attestations: v.attestations,
    resolver: v.resolver ?? [],
    ca: v.ca ?? [],
    map: v.map ?? [],
    allowPrivate: v['allow-private'] ?? false,
    pages: Math.floor(whole(v.pages, 'pages', 50, 5000)),
    timeout: whole(v.timeout, 'timeout', 15, 600),
    format: v.format === 'json' ? 'json' : 'text',
    out: v.out,
    evidence: v.evidence,
    fromEvidence: v['from-evidence'],
    har: v.har,
    fromHar: v['from-har'],
    zone: v.zone,
    fromZone: v['from-zone'],
    wayIn: v['way-in'],
    rdapBootstrap: v['rdap-bootstrap'],
    agent: v.agent,
    delay: v.delay === '0' ? 0 : whole(v.delay, 'delay', 0, 60_000),
    concurrency: Math.floor(whole(v.concurrency, 'concurrency', 6, 32)),
    outside: v.outside ?? false,
    list: v.list ?? false,
    help: v.help ?? false,
  };
  if (!args.list && !args.help && !args.url && !args.fromEvidence)
    throw new UsageError('an address is missing');
  if (args.fromHar && !args.url) throw new UsageError('--from-har needs the address of the site as well');
  if (args.fromZone && !args.fromHar) throw new UsageError('--from-zone goes with --from-har');
  // a name that would end the header early is no name
  if (args.agent !== undefined && !/^[\x20-\x7e]{1,300}$/.test(args.agent))
    throw new UsageError('--agent takes up to 300 printable ASCII characters');
  if (args.url && !/^https?:\/\//i.test(args.url)) args.url = `https://${args.url}`;
  if (args.url && !parseUrl(args.url)) throw new UsageError(`“${args.url}” is no address`);
  return args;
}
