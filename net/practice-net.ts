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
import { FAULTS, type FaultKind } from './faults';
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
import { answererFor, type Speaker } from './zones';

export { officialFacts } from './official';

export interface PracticeNet {
  /** The recursive resolver, "address:port". */
  resolver: string;
  /** Rules for the dialer: which address of the practice net is really where. */
  map: string[];
  caPem: string;
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
  const now = options.now ?? (() => new Date());
  const switches = new FaultSwitches(options.switchFile, options.planted ?? true);
  const authority = await Authority.create(`http://${ISSUER_HOST}/issuer.cer`);
  const on = (slug: string, environment: PracticeEnvironment, f: string) =>
    switches.isOn(slug, environment, f);
  const speakers: readonly Speaker[] = ['resolver', 'ns1', 'ns2', 'old1', 'old2', 'parent'];
  const [resolver, ns1, ns2, old1, old2, parent] = (await Promise.all(
    speakers.map((who) => serveDns(answererFor(who, on, options.zone))),
  )) as [DnsServer, DnsServer, DnsServer, DnsServer, DnsServer, DnsServer];

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
  const contextFor: NonNullable<https.ServerOptions['SNICallback']> = (host, done) => {
    const { names, kind, old } = certificateFor(host.toLowerCase(), switches);
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
  // no default certificate: a context without a chain would borrow it
  const [plain, secure, oldSecure] = [
    http.createServer(handle(false)),
    https.createServer({ SNICallback: contextFor }, handle(true)),
    https.createServer({ SNICallback: contextFor, ...OLD_TLS }, handle(true)),
  ];
  const [formerPlain, formerSecure] = [
    http.createServer(handle(false, FORMER)),
    https.createServer({ SNICallback: contextFor }, handle(true, FORMER)),
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
    void handleControl(req, res, switches);
  });
  const listening = [plain, secure, oldSecure, formerPlain, formerSecure, front, control];
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
    caPem: authority.rootPem,
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
    ],
    close: async () => {
      for (const s of [...web, control]) s.closeAllConnections();
      for (const s of listening) await new Promise((r) => s.close(r));
      await Promise.all([resolver, ns1, ns2, old1, old2, parent].map((d) => d.close()));
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
export function applies(fault: FaultKind, environment: PracticeEnvironment, s: PracticeSite): boolean {
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
      FAULTS.filter((f) => applies(f, environment, s)).map((f) => ({
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
}
const ACTS: Record<string, (switches: FaultSwitches, order: Order) => void> = {
  '/fault': (switches, { site, environment, fault, on }) => switches.set(site, environment, fault, on),
  '/text': (switches, { site, environment, path, title, description }) =>
    switches.texts.set(site, environment, path, {
      ...(title === undefined ? {} : { title }),
      ...(description === undefined ? {} : { description }),
    }),
  '/pictures': (switches, { site, environment, zip }) =>
    switches.files.unpack(site, environment, Buffer.from(zip, 'base64')),
};
/** The longest order: an archive of pictures. */
const MOST_CHARACTERS = 40_000_000;

/**
 * GET /state lists sites and faults, POST /fault {site, environment, fault, on} turns a switch, POST /text {site,
 * environment, path, title, description} types texts into a page’s settings, POST /pictures {site, environment, zip}
 * uploads files and the tags that name them, GET /build/SITE gives the files of a site as they were built. Loopback
 * only.
 */
async function handleControl(
  req: http.IncomingMessage,
  res: http.ServerResponse,
  switches: FaultSwitches,
): Promise<void> {
  const send = (status: number, body: unknown) => {
    res.writeHead(status, { 'content-type': 'application/json' });
    res.end(JSON.stringify(body));
  };
  if (req.method === 'GET' && req.url === '/state') {
    send(200, { hosts: HOSTS, sites: SITES.map((s) => stateOf(s, switches, new Date())) });
    return;
  }
  const build = req.method === 'GET' ? /^\/build\/([a-z-]+)$/.exec(req.url ?? '')?.[1] : undefined;
  if (build && SITES.some((s) => s.slug === build)) {
    res.writeHead(200, { 'content-type': 'application/zip' });
    res.end(buildZip(build, new Date().getUTCFullYear()));
    return;
  }
  const act = req.method === 'POST' ? ACTS[req.url ?? ''] : undefined;
  if (!act) {
    send(404, { error: 'not found' });
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
    act(switches, JSON.parse(body) as Order);
    send(200, { ok: true });
  } catch (error) {
    send(400, { error: (error as Error).message });
  }
}
