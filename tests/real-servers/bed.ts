/**
 * A bed of Debian's own servers on loopback: two name servers (BIND), a validating resolver (Unbound), and a web
 * server (nginx or Apache), so that the practice net is not the only judge. Documentation addresses stand in the
 * zones and are mapped to their ports.
 */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge, type JudgedFinding } from '#core/checks/engine/judge';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { collect } from '#probe/collect';
import { freePort } from '../../scripts/database.mjs';
import { findCommand } from '../../scripts/packages.mjs';

/** Debian 12 has this version. */
const PHP = 'php-fpm8.2';
export const WEB = '192.0.2.80';
/** Where the site was before. */
export const OLD_WEB = '192.0.2.81';
const SERVERS = { ns1: '192.0.2.53', ns2: '192.0.2.54', provider: '192.0.2.63' };
/** Zone lines that every zone of the bed begins with. */
export const HEAD = [
  '$TTL 60',
  '@ IN SOA ns1.servers.example. host.servers.example. 1 7200 3600 1209600 3600',
  '@ IN NS ns1.servers.example.',
  '@ IN NS ns2.servers.example.',
];
/** A zone whose web stands on the bed's own server. */
export const site = (...lines: string[]): string[] => [...HEAD, `@ IN A ${WEB}`, `www IN A ${WEB}`, ...lines];

function run(command: string, args: string[], cwd?: string): string {
  return execFileSync(findCommand(command) ?? command, args, { cwd, encoding: 'utf8', stdio: 'pipe' });
}

/** Waits until something listens on a port of loopback. */
async function listening(port: number, child: ChildProcess, log: () => string): Promise<void> {
  const end = Date.now() + 15_000;
  for (;;) {
    const isUp = await new Promise<boolean>((resolve) => {
      const socket = net.connect(port, '127.0.0.1', () => {
        socket.destroy();
        resolve(true);
      });
      socket.once('error', () => resolve(false));
    });
    if (isUp) return;
    if (child.exitCode !== null || Date.now() > end) throw new Error(`a server did not start:\n${log()}`);
    await new Promise((r) => setTimeout(r, 30));
  }
}

export interface Audited {
  evidence: Evidence;
  findings: JudgedFinding[];
  of(check: string): JudgedFinding;
  /** Checks that failed. */
  failed: string[];
}
export interface AuditOptions {
  brief?: Brief;
  profile?: HostProfile;
  situation?: Situation;
}

const PORTS = ['ns', 'ns2', 'provider', 'resolver', 'http', 'https', 'oldHttp', 'oldHttps', 'php'] as const;

export class Bed {
  readonly folder = mkdtempSync(join(tmpdir(), 'armband-bed-'));
  private readonly children = new Map<string, ChildProcess>();
  private readonly zones = new Map<string, string>();
  private readonly provided = new Map<string, string>();
  /** Zones that the second name server has otherwise. */
  private readonly stale = new Map<string, string>();
  private readonly anchors: string[] = [];
  private ports!: Record<(typeof PORTS)[number], number>;

  static async start(): Promise<Bed> {
    const bed = new Bed();
    const ports = {} as Bed['ports'];
    for (const name of PORTS) ports[name] = await freePort();
    bed.ports = ports;
    bed.authority();
    return bed;
  }

  private async launch(name: string, command: string, args: string[], port: number): Promise<void> {
    await this.end(name);
    // a copy stands under no confinement that a system has for the original's own folders
    const program = join(this.folder, `${name}-${command}`);
    if (!existsSync(program)) copyFileSync(findCommand(command)!, program);
    let log = '';
    const child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe'], cwd: this.folder });
    const listen = (d: Buffer): void => {
      log = (log + String(d)).slice(-4000);
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    this.children.set(name, child);
    await listening(port, child, () => log);
  }

  private async end(name: string): Promise<void> {
    const child = this.children.get(name);
    this.children.delete(name);
    if (!child || child.exitCode !== null) return;
    const ended = new Promise((r) => child.once('exit', r));
    child.kill('SIGTERM');
    const timer = setTimeout(() => child.kill('SIGKILL'), 3000);
    await ended;
    clearTimeout(timer);
  }

  async stop(): Promise<void> {
    await Promise.all([...this.children.keys()].map((name) => this.end(name)));
    rmSync(this.folder, { recursive: true, force: true });
  }

  // ---- certificates

  private authority(): void {
    const key = ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes'];
    run(
      'openssl',
      [
        'req',
        '-x509',
        ...key,
        '-keyout',
        'root.key',
        '-out',
        'root.pem',
        '-days',
        '30',
        '-subj',
        '/CN=Bed root',
      ],
      this.folder,
    );
  }

  /** A certificate where web servers look for one by a recipe: `ssl/NAME/fullchain.pem` below their folder. */
  certificate(name: string, names = [name]): void {
    const folder = join(this.folder, 'ssl', name);
    mkdirSync(folder, { recursive: true });
    const alt = `subjectAltName=${names.map((n) => `DNS:${n}`).join(',')}`;
    const key = ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes', '-keyout', 'privkey.pem'];
    run('openssl', ['req', ...key, '-out', 'request.pem', '-subj', `/CN=${name}`, '-addext', alt], folder);
    const by = ['-CA', '../../root.pem', '-CAkey', '../../root.key', '-CAcreateserial'];
    run(
      'openssl',
      [
        'x509',
        '-req',
        '-in',
        'request.pem',
        ...by,
        '-days',
        '30',
        '-copy_extensions',
        'copy',
        '-out',
        'fullchain.pem',
      ],
      folder,
    );
  }

  // ---- names

  /** @param provided served by the provider's server, which the others know nothing of */
  zone(name: string, lines: readonly string[], provided = false): this {
    (provided ? this.provided : this.zones).set(name, `${lines.join('\n')}\n`);
    return this;
  }
  /** What the second name server has of a zone from the next start on; the same as the first without lines. */
  stays(name: string, lines?: readonly string[]): this {
    if (lines) this.stale.set(name, `${lines.join('\n')}\n`);
    else this.stale.delete(name);
    return this;
  }
  zoneText(name: string): string {
    return this.zones.get(name)!;
  }

  /**
   * Signs a zone (RFC 4033 to 4035).
   * @param broken with a key that neither the zone above nor the resolver knows
   */
  sign(name: string, broken = false): this {
    const folder = mkdtempSync(join(this.folder, 'keys-'));
    const make = (): string =>
      run('dnssec-keygen', ['-q', '-a', 'ECDSAP256SHA256', '-f', 'KSK', '-K', folder, name]).trim();
    const known = make();
    const ds = run('dnssec-dsfromkey', ['-2', join(folder, known)]).trim();
    const keys = broken ? mkdtempSync(join(this.folder, 'keys-')) : folder;
    const own = broken
      ? run('dnssec-keygen', ['-q', '-a', 'ECDSAP256SHA256', '-f', 'KSK', '-K', keys, name]).trim()
      : known;
    const file = join(this.folder, `${name}.plain`);
    writeFileSync(file, this.zones.get(name)! + readFileSync(join(keys, `${own}.key`), 'utf8'));
    run('dnssec-signzone', ['-z', '-o', name, '-f', `${file}.signed`, '-k', join(keys, own), file], keys);
    this.zones.set(name, readFileSync(`${file}.signed`, 'utf8'));
    this.anchors.push(ds);
    return this;
  }

  private async named(label: 'ns' | 'ns2' | 'provider', zones: ReadonlyMap<string, string>): Promise<void> {
    const folder = join(this.folder, label);
    mkdirSync(folder, { recursive: true });
    const parts = [...zones].map(([name, text]) => {
      const file = join(folder, `${name === '.' ? 'root' : name}.zone`);
      writeFileSync(file, text);
      return `zone "${name}" { type primary; file "${file}"; };`;
    });
    const conf = join(folder, 'named.conf');
    const port = this.ports[label];
    writeFileSync(
      conf,
      `options { directory "${folder}"; listen-on port ${port} { 127.0.0.1; }; listen-on-v6 { none; }; recursion no; dnssec-validation no; pid-file none; session-keyfile none; minimal-responses no; };\ncontrols { };\n${parts.join('\n')}\n`,
    );
    await this.launch(label, 'named', ['-c', conf, '-g', '-n', '1'], port);
  }

  /** Starts name servers and resolver on the zones that were given. */
  async names(): Promise<this> {
    const above = ['$TTL 60', '@ IN SOA a. b. 1 7200 3600 1209600 3600'];
    const glue = [`ns1.servers.example. IN A ${SERVERS.ns1}`, `ns2.servers.example. IN A ${SERVERS.ns2}`];
    const delegated = [...this.zones.keys()].flatMap((n) => [
      `${n}. IN NS ns1.servers.example.`,
      `${n}. IN NS ns2.servers.example.`,
    ]);
    const away = [...this.provided.keys()].map((n) => `${n}. IN NS ns.provider.example.`);
    const all = new Map([
      [
        '.',
        [...above, '@ IN NS ns1.servers.example.', 'example. IN NS ns1.servers.example.', ...glue].join(
          '\n',
        ) + '\n',
      ],
      [
        'example',
        [
          ...above,
          '@ IN NS ns1.servers.example.',
          ...glue,
          `ns.provider.example. IN A ${SERVERS.provider}`,
          ...delegated,
          ...away,
          ...this.anchors,
        ].join('\n') + '\n',
      ],
      ...this.zones,
    ]);
    await this.named('ns', all);
    if (this.hasSecond) await this.named('ns2', new Map([...all, ...this.stale]));
    await this.named(
      'provider',
      this.provided.size ? this.provided : new Map([['empty.example', `${HEAD.join('\n')}\n`]]),
    );
    const stub = (name: string, port: number): string =>
      `stub-zone:\n  name: "${name}"\n  stub-addr: 127.0.0.1@${port}\n`;
    const conf = join(this.folder, 'unbound.conf');
    writeFileSync(
      conf,
      `server:\n  directory: "${this.folder}"\n  chroot: ""\n  username: ""\n  pidfile: ""\n  use-syslog: no\n  interface: 127.0.0.1\n  port: ${this.ports.resolver}\n  do-ip6: no\n  do-not-query-localhost: no\n  access-control: 127.0.0.0/8 allow\n  cache-max-ttl: 0\n  cache-max-negative-ttl: 0\n  module-config: "validator iterator"\n${this.anchors.map((a) => `  trust-anchor: "${a}"\n`).join('')}${stub('.', this.ports.ns)}${stub('example', this.ports.ns)}${[...this.zones.keys()].map((n) => stub(n, this.ports.ns)).join('')}${[...this.provided.keys()].map((n) => stub(n, this.ports.provider)).join('')}`,
    );
    await this.launch('resolver', 'unbound', ['-d', '-c', conf], this.ports.resolver);
    return this;
  }

  /** Whether the second name server is one of its own; before names are started. */
  hasSecond = false;

  /** What dig reads of a name at the first name server (BIND’s own tool); TTL, type and value of each record. */
  dig(name: string, type: string): { ttl: number; type: string; value: string }[] {
    const answer = run('dig', [
      '@127.0.0.1',
      '-p',
      String(this.ports.ns),
      '+noall',
      '+answer',
      '+norecurse',
      name,
      type,
    ]);
    return answer
      .split('\n')
      .filter((line) => line && !line.startsWith(';'))
      .map((line) => {
        const [, ttl, , kind, ...rest] = line.split(/\s+/);
        return { ttl: Number(ttl), type: kind!, value: rest.join(' ') };
      });
  }

  // ---- web

  /** Where the web server listens for TLS, by its own address. */
  get web(): string {
    return `https://127.0.0.1:${this.ports.https}`;
  }

  /** Listening as on the web: what is pasted says 80 and 443. */
  private listens(text: string, isOld = false): string {
    const [http, https] = isOld
      ? [this.ports.oldHttp, this.ports.oldHttps]
      : [this.ports.http, this.ports.https];
    return text
      .replace(
        /listen (80|443)( ssl)?; listen \[::\]:\1( ssl)?;/g,
        (_, port: string, ssl = '') => `listen 127.0.0.1:${port === '80' ? http : https}${ssl as string};`,
      )
      .replace(
        /<VirtualHost \*:(80|443)>/g,
        (_, port: string) => `<VirtualHost *:${port === '80' ? http : https}>`,
      );
  }

  /** Files of a site's folder. @returns the folder */
  files(name: string, files: Record<string, string | Buffer>): string {
    const folder = join(this.folder, 'www', name);
    for (const [path, content] of Object.entries(files)) {
      const file = join(folder, path);
      mkdirSync(join(file, '..'), { recursive: true });
      writeFileSync(file, content);
    }
    return folder;
  }

  /**
   * @param blocks server blocks, as they would stand in Debian's sites-enabled
   */
  nginx(...blocks: string[]): Promise<void> {
    return this.nginxWith({}, ...blocks);
  }

  /** @param plain without compression */
  async nginxWith({ plain = false }: { plain?: boolean }, ...blocks: string[]): Promise<void> {
    const conf = join(this.folder, 'nginx.conf');
    writeFileSync(
      conf,
      `daemon off;\nmaster_process off;\npid ${this.folder}/nginx.pid;\nerror_log stderr warn;\nevents {}\nhttp {\n  access_log off;\n  absolute_redirect off;\n  ${plain ? '' : 'gzip on;'}\n  types { text/html html; text/css css; text/javascript js; text/plain txt; application/xml xml; image/png png; }\n  default_type application/octet-stream;\n  client_body_temp_path ${this.folder}/t1; proxy_temp_path ${this.folder}/t2; fastcgi_temp_path ${this.folder}/t3; uwsgi_temp_path ${this.folder}/t4; scgi_temp_path ${this.folder}/t5;\n${this.listens(blocks.join('\n'))}\n}\n`,
    );
    await this.launch('web', 'nginx', ['-c', conf, '-p', this.folder], this.ports.https);
  }

  /** Starts PHP's own process manager (Debian's php-fpm). @returns where it listens */
  async php(): Promise<string> {
    const conf = join(this.folder, 'php-fpm.conf');
    const { php: port } = this.ports;
    const isRoot = process.getuid?.() === 0;
    writeFileSync(
      conf,
      `[global]\nerror_log = ${this.folder}/php.log\ndaemonize = no\n[www]\n${isRoot ? 'user = root\ngroup = root\n' : ''}listen = 127.0.0.1:${port}\npm = static\npm.max_children = 2\nclear_env = yes\n`,
    );
    await this.launch('php', PHP, ['-F', '-n', ...(isRoot ? ['-R'] : []), '-y', conf], port);
    return `127.0.0.1:${port}`;
  }

  /** @param blocks virtual hosts */
  apache(...blocks: string[]): Promise<void> {
    return this.apacheAs('web', blocks);
  }

  /** The server that the site was on before. @param blocks virtual hosts */
  oldApache(...blocks: string[]): Promise<void> {
    return this.apacheAs('old', blocks);
  }

  private async apacheAs(label: 'web' | 'old', blocks: readonly string[]): Promise<void> {
    const isOld = label === 'old';
    const [http, https] = isOld
      ? [this.ports.oldHttp, this.ports.oldHttps]
      : [this.ports.http, this.ports.https];
    const conf = join(this.folder, `${label}.conf`);
    const modules = [
      'mpm_event',
      'authz_core',
      'dir',
      'mime',
      'autoindex',
      'alias',
      'headers',
      'ssl',
      'rewrite',
      'filter',
      'deflate',
      'proxy',
      'proxy_fcgi',
    ];
    writeFileSync(
      conf,
      `ServerRoot ${this.folder}\nServerName bed\nPidFile ${this.folder}/${label}.pid\nErrorLog ${this.folder}/apache.log\nMutex file:${this.folder}\n${modules.map((m) => `LoadModule ${m}_module /usr/lib/apache2/modules/mod_${m}.so`).join('\n')}\nListen 127.0.0.1:${http}\nListen 127.0.0.1:${https}\nServerTokens Prod\nDirectoryIndex index.html\nTypesConfig /etc/mime.types\nAddDefaultCharset utf-8\n${this.listens(blocks.join('\n'), isOld)}\n`,
    );
    await this.launch(label, 'apache2', ['-f', conf, '-DFOREGROUND'], https!);
  }

  // ---- audits

  get rootFile(): string {
    return join(this.folder, 'root.pem');
  }
  /** "address:port" */
  get resolver(): string {
    return `127.0.0.1:${this.ports.resolver}`;
  }
  /** Where the addresses of the zones really are. */
  get map(): string[] {
    const { ns, ns2, provider, http, https, oldHttp, oldHttps } = this.ports;
    return [
      `${SERVERS.ns1}:53=127.0.0.1:${ns}`,
      `${SERVERS.ns2}:53=127.0.0.1:${this.hasSecond ? ns2 : ns}`,
      `${SERVERS.provider}:53=127.0.0.1:${provider}`,
      `${WEB}:80=127.0.0.1:${http}`,
      `${WEB}:443=127.0.0.1:${https}`,
      `${OLD_WEB}:80=127.0.0.1:${oldHttp}`,
      `${OLD_WEB}:443=127.0.0.1:${oldHttps}`,
    ];
  }

  async audit(url: string, { brief = {}, profile, situation = 'live' }: AuditOptions = {}): Promise<Audited> {
    const evidence = await collect({
      url,
      kind: situation === 'staging' ? 'before' : 'live',
      brief,
      profile,
      resolvers: [this.resolver],
      map: this.map,
      ca: [readFileSync(this.rootFile, 'utf8')],
      timeoutMs: 8000,
      retryPauseMs: 10,
    });
    const at = new Date(evidence.finishedAt);
    const findings = judge({
      evidence,
      brief,
      profile,
      checklist: fullChecklist(),
      situation,
      at,
      skipManual: true,
    });
    return {
      evidence,
      findings,
      of(check) {
        const found = findings.find((f) => f.check === check);
        if (!found) throw new Error(`${check} is not asked`);
        return found;
      },
      failed: findings.filter((f) => f.outcome === 'failed').map((f) => f.check),
    };
  }
}
