/**
 * The practice net: stand-in DNS, web, certificate authority and registration servers on loopback, in one
 * process.
 */
import http from 'node:http';
import https from 'node:https';
import tls from 'node:tls';
import net, { type AddressInfo } from 'node:net';
import { Authority } from './certificates';
import { serveDns, type DnsServer, type ZoneRecord } from './dns-server';
import { buildZip } from './build';
import type { DeskChange } from './desk';
import { FAULTS, type FaultKind } from './faults';
import { MAIL_ADDRESS, mailServer } from './mail';
import { answerRdap } from './registry';
import { officialFacts, environmentDates } from './official';
import { serverNameIn } from './server-name';
import {
  FORMER,
  HOSTS,
  NAME_SERVERS,
  OLD_SERVERS,
  PARENT,
  SITES,
  WEB_ADDRESSES,
  keyOf,
  environmentsBefore,
  preferredHost,
  type PracticeSite,
} from './sites';
import { FaultSwitches, type PracticeEnvironment } from './switches';
import { answerWeb, certificateFor, type WebAnswer, type WebEdit } from './web';
import { cachingAnswerer } from './caching';
import { PracticeClock } from './practice-clock';
import { zoneText } from './zone-text';
import { answererFor, movesOnce, zoneBefore, type Speaker, type ZoneEdit } from './zones';

export { officialFacts } from './official';

export interface PracticeNet {
  /** The recursive resolver, "address:port". */
  resolver: string;
  /** Resolvers that keep answers for their TTL, the last of them longer; "address:port" each. */
  caches: string[];
  /** Rules for the dialer: which address of the practice net is really where. */
  map: string[];
  caPem: string;
  /** Where registration data of names under .example are, in the form of RFC 9224. */
  bootstrap: { services: [string[], string[]][] };
  /** What a browser trusts it by. */
  keyDigest: string;
  /** Base address of the control service. */
  control: string;
  ports: { resolver: number; ns1: number; ns2: number; http: number; https: number };
  switches: FaultSwitches;
  close(): Promise<void>;
}

/** What servers of long ago still speak. */
const OLD_TLS = { minVersion: 'TLSv1', ciphers: 'DEFAULT@SECLEVEL=0' } as const;
/** How many times the TTL each resolver keeps answers: the last one breaks the rules. */
const CACHES = [1, 1, 3];
const ISSUER_HOST = 'ca.registry.example';

/**
 * Starts everything on free ports.
 * @param options.switchFile remembers the switches over restarts
 * @param options.jitter milliseconds that an answer over HTTP is held back
 * @param options.web
 * @param options.zone what hands change of what is served, beside the switches
 */
export async function startPracticeNet(
  options: {
    switchFile?: string;
    planted?: boolean;
    now?: () => Date;
    jitter?: () => number;
    web?: WebEdit;
    zone?: (zone: ZoneRecord[]) => ZoneRecord[];
  } = {},
): Promise<PracticeNet> {
  const clock = new PracticeClock(options.now);
  const now = (): Date => new Date(clock.now());
  const switches = new FaultSwitches(options.switchFile, options.planted ?? true, clock);
  const { desk } = switches;
  const authority = await Authority.create(`http://${ISSUER_HOST}/issuer.cer`);
  const on = (slug: string, environment: PracticeEnvironment, f: string) =>
    switches.isOn(slug, environment, f);
  const edit: ZoneEdit = {
    zone(zone, site, speaker) {
      const isBefore = speaker === 'resolver' && movesOnce(site) && !desk.of(site).isMoved;
      const isOld = isBefore || speaker === 'old1' || speaker === 'old2';
      const saved = isOld ? zone : desk.zoneFor(site, speaker === 'ns2' ? 'second' : 'first', zone);
      return options.zone ? options.zone(saved) : saved;
    },
    isMoved: (site) => desk.of(site).isMoved,
  };
  const speakers: readonly Speaker[] = ['resolver', 'ns1', 'ns2', 'old1', 'old2', 'parent'];
  const [resolver, ns1, ns2, old1, old2, parent] = (await Promise.all(
    speakers.map((who) => serveDns(answererFor(who, on, edit))),
  )) as [DnsServer, DnsServer, DnsServer, DnsServer, DnsServer, DnsServer];

  const caches = await Promise.all(
    CACHES.map((stretch) => serveDns(cachingAnswerer(answererFor('resolver', on, edit), clock.now, stretch))),
  );

  const answer = (req: http.IncomingMessage, secure: boolean, address?: string): WebAnswer => {
    const host = (req.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
    const [path = '/', query] = (req.url ?? '/').split('?');
    if (host === ISSUER_HOST)
      return {
        status: 200,
        headers: { 'content-type': 'application/pkix-cert' },
        body: authority.intermediateDer,
      };
    if (host === 'rdap.registry.example') return answerRdap(path, switches, now());
    return answerWeb(
      {
        host,
        path,
        query: query === undefined ? '' : `?${query}`,
        secure,
        address,
        acceptsGzip: /\bgzip\b/.test(req.headers['accept-encoding'] ?? ''),
        headers: { authorization: req.headers.authorization, 'cache-control': req.headers['cache-control'] },
      },
      switches,
      now(),
      options.web,
    );
  };
  const handle =
    (secure: boolean, address?: string) => (req: http.IncomingMessage, res: http.ServerResponse) => {
      const { status, headers, body, delayMs } = answer(req, secure, address);
      const send = () => {
        res.writeHead(status, { ...headers, 'content-length': Buffer.byteLength(body) });
        res.end(req.method === 'HEAD' ? undefined : body);
      };
      const wait = (delayMs ?? 0) + (options.jitter?.() ?? 0);
      if (wait) setTimeout(send, wait);
      else send();
    };
  const contexts = new Map<string, tls.SecureContext>();
  type Sni = NonNullable<https.ServerOptions['SNICallback']>;
  const contextAt =
    (isNewHost: boolean): Sni =>
    (host, done) => {
      const { names, kind, old } = certificateFor(host.toLowerCase(), switches, isNewHost);
      if (kind === 'silent') {
        done(new Error('silent'));
        return;
      }
      authority.leaf(names, kind).then(
        ({ key, chain }) => {
          const id = `${old} ${chain}`;
          let context = contexts.get(id);
          if (!context)
            contexts.set(
              id,
              (context = tls.createSecureContext({
                key,
                cert: chain,
                ...(old ? OLD_TLS : kind === 'weak-key' ? { ciphers: OLD_TLS.ciphers } : {}),
              })),
            );
          done(null, context);
        },
        (e) => done(e as Error),
      );
    };
  const contextFor = contextAt(true);
  // no default certificate: a context without a chain would borrow it
  const [plain, secure, oldSecure] = [
    http.createServer(handle(false)),
    https.createServer({ SNICallback: contextFor }, handle(true)),
    https.createServer({ SNICallback: contextFor, ...OLD_TLS }, handle(true)),
  ];
  const [formerPlain, formerSecure] = [
    http.createServer(handle(false, FORMER)),
    https.createServer({ SNICallback: contextAt(false) }, handle(true, FORMER)),
  ];
  const web = [plain, secure, oldSecure, formerPlain, formerSecure];
  for (const server of web) {
    server.keepAliveTimeout = 5000;
    server.on('tlsClientError', () => {});
  }
  // which versions are spoken is settled before the name is looked at, so the name is read ahead
  const front = net.createServer((socket) => {
    socket.on('error', () => {});
    socket.once('data', (chunk) => {
      socket.pause();
      const behind = net.connect(
        port(certificateFor(serverNameIn(chunk) ?? '', switches).old ? oldSecure : secure),
        '127.0.0.1',
      );
      behind.on('error', () => socket.destroy());
      socket.on('close', () => behind.destroy());
      behind.write(chunk);
      socket.pipe(behind).pipe(socket);
    });
  });
  const control = http.createServer((req, res) => {
    void handleControl(req, res, switches, clock);
  });
  const mail = mailServer();
  const listening = [plain, secure, oldSecure, formerPlain, formerSecure, front, control, mail];
  await Promise.all(
    listening.map(
      (s) =>
        new Promise<void>((resolve, reject) => {
          s.once('error', reject);
          s.listen(0, '127.0.0.1', resolve);
        }),
    ),
  );
  const port = (s: net.Server): number => (s.address() as AddressInfo).port;
  const ports = {
    resolver: resolver.port,
    ns1: ns1.port,
    ns2: ns2.port,
    http: port(plain),
    https: port(front),
  };
  const webPorts = (a: string) =>
    a === FORMER ? [port(formerPlain), port(formerSecure)] : [ports.http, ports.https];
  const named = [
    ...NAME_SERVERS.map((n, i) => [n.address, [ns1, ns2][i]!.port] as const),
    ...OLD_SERVERS.map((n, i) => [n.address, [old1, old2][i]!.port] as const),
    [PARENT.address, parent.port] as const,
  ];
  return {
    resolver: `127.0.0.1:${resolver.port}`,
    caches: caches.map((c) => `127.0.0.1:${c.port}`),
    caPem: authority.rootPem,
    bootstrap: { services: [[['example'], ['https://rdap.registry.example/']]] },
    keyDigest: authority.keyDigest,
    control: `http://127.0.0.1:${port(control)}`,
    ports,
    switches,
    map: [
      ...WEB_ADDRESSES.flatMap((a) => {
        const [http, https] = webPorts(a);
        return [`${a}:80=127.0.0.1:${http}`, `${a}:443=127.0.0.1:${https}`];
      }),
      ...named.map(([address, to]) => `${address}:53=127.0.0.1:${to}`),
      `${MAIL_ADDRESS}:25=127.0.0.1:${port(mail)}`,
    ],
    close: async () => {
      for (const s of [...web, control]) s.closeAllConnections();
      for (const s of listening) await new Promise((r) => s.close(r));
      await Promise.all([resolver, ns1, ns2, old1, old2, parent, ...caches].map((d) => d.close()));
    },
  };
}

/** Live faults that can be planted before a site is launched. */
const ON_HOLDING = new Set([
  'parked',
  'unknown-name',
  'lapsing',
  'on-hold',
  'unlocked-domain',
  'other-registrar',
  'www-gone',
  'expired',
  'self-signed',
  'wrong-name',
  'ends-soon',
  'no-intermediate',
  'weak-key',
  'old-tls',
  'tls-silent',
  'stale-server',
  'stray-record',
  'apex-alias',
  'dangling-alias',
  'lame-server',
  'delegation-differs',
  'stale-glue',
  'spreading',
  'mail-gone',
  'caa-closed',
  'bogus',
  'no-icon',
]);
const ON_FORMER = new Set([
  'lapsing',
  'on-hold',
  'unlocked-domain',
  'other-registrar',
  'www-gone',
  'dangling-alias',
  'lame-server',
  'delegation-differs',
  'stale-glue',
  'mail-gone',
]);

/** Whether a fault can be planted at an environment of a site. */
function applies(fault: FaultKind, environment: PracticeEnvironment, s: PracticeSite): boolean {
  if (fault.needs === 'launched') {
    if (s.stage !== 'launched') return false;
  } else if (fault.needs && !s.traits.some((t) => t === fault.needs)) return false;
  if (environment === 'staging') return fault.on === 'staging' || fault.on === 'both';
  if (s.stage === 'launched') return fault.on === 'live' || fault.on === 'both';
  return s.replaces
    ? fault.on === 'former' || ON_FORMER.has(fault.id)
    : fault.on === 'holding' || ON_HOLDING.has(fault.id);
}

/** A site as the demo loads it. */
function stateOf(s: PracticeSite, switches: FaultSwitches, now: Date) {
  const key = keyOf(s);
  // once it was launched here, what can go wrong with a launched site can
  const shown = switches.desk.isOpen(s) ? { ...s, stage: 'launched' as const } : s;
  return {
    slug: s.slug,
    client: s.client,
    name: s.name,
    stage: s.stage,
    replaces: s.replaces,
    launchIn: s.launchIn,
    host: s.host,
    liveUrl: `https://${preferredHost(s)}/`,
    stagingUrl: `https://${s.staging.host}${s.staging.path}`,
    environments: environmentsBefore(s).map((p) => ({
      name: p.name,
      url: `https://${p.host}${p.path}`,
      dates: environmentDates(s, switches, now),
      ...(switches.isOn(s.slug, 'staging', 'unlocked') || s.stage === 'launched'
        ? {}
        : { access: { kind: 'credentials', name: key.user, value: key.password } }),
    })),
    brief: officialFacts(s.slug, now, switches),
    faults: (['live', 'staging'] as const).flatMap((environment) =>
      FAULTS.filter((f) => applies(f, environment, shown)).map((f) => ({
        environment,
        id: f.id,
        title: f.title,
        check: f.check,
        browser: f.browser ?? false,
        on: switches.isOn(s.slug, environment, f.id),
      })),
    ),
  };
}

/** What the control service is told to do. */
interface Order {
  site: string;
  environment: PracticeEnvironment;
  fault: string;
  on: boolean;
  path: string;
  title?: string;
  description?: string;
  /** base64 */
  zip: string;
  change: DeskChange;
  shownAt: number;
  rate: number;
}
const ACTS: Record<string, (switches: FaultSwitches, order: Order, clock: PracticeClock) => void> = {
  '/fault': (switches, { site, environment, fault, on }) => switches.set(site, environment, fault, on),
  '/text': (switches, { site, environment, path, title, description }) =>
    switches.texts.set(site, environment, path, {
      ...(title === undefined ? {} : { title }),
      ...(description === undefined ? {} : { description }),
    }),
  '/pictures': (switches, { site, environment, zip }) =>
    switches.files.unpack(site, environment, Buffer.from(zip, 'base64')),
  '/desk': ({ desk }, { site, change }) => desk.change(site, change),
  '/clock': (_, { shownAt, rate }, clock) => clock.set(shownAt, rate),
};
/** What is set at a site’s accounts, with the zone as the operator’s form shows it. */
function deskOf(s: PracticeSite, switches: FaultSwitches): object {
  const { zones, ...state } = switches.desk.of(s);
  const before = zoneBefore(s, (...where) => switches.isOn(...where));
  return { ...state, zone: zoneText(switches.desk.form(s, before)), saved: zones.at(-1)?.at ?? null };
}

/** What the control service shows at an address: an object, or a file. */
function givenAt(url: string, switches: FaultSwitches, clock: PracticeClock): object | Buffer | undefined {
  const now = new Date(clock.now());
  if (url === '/state') return { hosts: HOSTS, sites: SITES.map((s) => stateOf(s, switches, now)) };
  const [, what, slug] = /^\/(build|desk)\/([a-z-]+)$/.exec(url) ?? [];
  const site = SITES.find((s) => s.slug === slug);
  if (!site) return undefined;
  return what === 'build' ? buildZip(site.slug, now.getUTCFullYear()) : deskOf(site, switches);
}

/** The longest order: an archive of pictures. */
const MOST_CHARACTERS = 40_000_000;

/**
 * GET /state lists sites and faults, POST /fault {site, environment, fault, on} turns a switch, POST /text {site,
 * environment, path, title, description} types texts into a page’s settings, POST /pictures {site, environment, zip}
 * uploads files and the tags that name them, GET /build/SITE gives the files of a site as they were built,
 * GET /desk/SITE what is set at its accounts, POST /desk {site, change} sets it, POST /clock {shownAt, rate} sets the time. Loopback
 * only.
 */
async function handleControl(
  req: http.IncomingMessage,
  res: http.ServerResponse,
  switches: FaultSwitches,
  clock: PracticeClock,
): Promise<void> {
  const send = (status: number, body: unknown) => {
    res.writeHead(status, { 'content-type': 'application/json' });
    res.end(JSON.stringify(body));
  };
  const given = req.method === 'GET' ? givenAt(req.url ?? '', switches, clock) : undefined;
  if (Buffer.isBuffer(given)) {
    res.writeHead(200, { 'content-type': 'application/zip' });
    res.end(given);
    return;
  }
  const act = req.method === 'POST' ? ACTS[req.url ?? ''] : undefined;
  if (given || !act) {
    send(given ? 200 : 404, given ?? { error: 'not found' });
    return;
  }
  let body = '';
  for await (const chunk of req) {
    body += String(chunk);
    if (body.length > MOST_CHARACTERS) {
      send(413, { error: 'too long' });
      return;
    }
  }
  try {
    act(switches, JSON.parse(body) as Order, clock);
    send(200, { ok: true });
  } catch (error) {
    send(400, { error: (error as Error).message });
  }
}
