/**
 * All recipes of one server pasted together, on a site of files, an application in PHP and one that scripts build, by
 * nginx and Apache on both ports: every finding that they are for is gone, and no other has come.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import { Bed, site, type Audited } from './bed';

const APEX = 'kites.example';
const WWW = `www.${APEX}`;
const BRIEF: Brief = {
  preferredHost: APEX,
  otherHosts: [WWW],
  formerAddresses: [{ from: '/old.html', to: '/about' }],
  hiddenPaths: ['/trade'],
};
const KINDS = {
  files: 'a site of files',
  php: 'an application in PHP',
  scripts: 'an application built by scripts',
} as const;
type Kind = keyof typeof KINDS;
type Server = 'nginx' | 'Apache';

const WORDS = 'Kites for every wind, made by the firth from ripstop and spruce. '.repeat(30);
const page = (title: string): string =>
  `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${title} at the Kite Works</title><link rel="stylesheet" href="/files/style.3f9a1c2b.css"></head><body><h1>${title}</h1><p>${title}: ${WORDS}</p><a href="/about">About</a> <a href="/trade">Trade</a></body></html>`;
const SHELL =
  '<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>Kite Works</title><link rel="stylesheet" href="/files/style.3f9a1c2b.css"></head><body><div id="app"></div><script src="/files/app.js"></script></body></html>';
const ROUTES = [/^\/$/, /^\/about\/?$/];
const SITEMAP = `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${['', 'about'].map((p) => `<url><loc>https://${APEX}/${p}</loc></url>`).join('')}</urlset>`;
/** Answers addresses that are no files, as applications do. */
const FRONT = `<?php
$pages = ['/' => 'Kites', '/about' => 'About', '/trade' => 'Trade'];
$path = rtrim(parse_url($_SERVER['REQUEST_URI'], PHP_URL_PATH), '/') ?: '/';
header('Content-Type: text/html; charset=utf-8');
if (!isset($pages[$path])) { http_response_code(404); echo '<title>Nothing here</title>'; exit; }
echo str_replace('TITLE', $pages[$path], <<<'PAGE'
${page('TITLE')}
PAGE);
`;
const COMMON = {
  '.git/HEAD': 'ref: refs/heads/main\n',
  'files/style.3f9a1c2b.css': `body { margin: 0 }\n${'/* the colours of the firth */\n'.repeat(60)}`,
  'files/app.js': 'document.body.dataset.built = "yes";\n'.repeat(60),
  'robots.txt': 'User-agent: *\nDisallow:\n',
  'sitemap.xml': SITEMAP,
};
const FILES: Record<Kind, Record<string, string>> = {
  files: {
    ...COMMON,
    'index.html': page('Kites'),
    'about/index.html': page('About'),
    'trade/index.html': page('Trade'),
  },
  php: { ...COMMON, 'index.php': FRONT },
  scripts: { ...COMMON, 'index.html': SHELL },
};

let bed: Bed;
let php: string;
const roots = {} as Record<Kind, string>;
beforeAll(async () => {
  bed = await Bed.start();
  for (const name of [APEX, WWW]) bed.certificate(name);
  bed.zone(APEX, site());
  await bed.names();
  php = await bed.php();
  for (const kind of Object.keys(KINDS) as Kind[]) roots[kind] = bed.files(kind, FILES[kind]);
});
afterAll(() => bed.stop());

/** What was pasted: where it belongs, and the text. */
interface Pasted {
  check: string;
  where: 'main' | 'block' | 'site' | 'everyHost';
  text: string;
}

/** How each kind of site is served by a server that nobody has looked after. */
const NEGLECTED: Record<Server, Record<Kind, string>> = {
  nginx: {
    files: 'autoindex on;\nerror_page 404 =200 /index.html;',
    php: '',
    scripts: 'location / { try_files $uri /index.html; }',
  },
  Apache: {
    files: 'Options +Indexes\nFallbackResource /index.html',
    php: 'FallbackResource /index.php',
    scripts: 'FallbackResource /index.html',
  },
};
/** What a pasted text stands in the place of. */
function withoutReplaced(lines: string, pasted: readonly Pasted[]): string {
  const all = pasted.map((p) => p.text).join('\n');
  return lines
    .split('\n')
    .filter((line) => {
      const [first = ''] = line.split(/[ ;]/);
      const isFallback = /^(?:location|error_page)/.test(line) && /^location \/ /m.test(all);
      return !isFallback && !(first === 'autoindex' && all.includes('autoindex off'));
    })
    .join('\n');
}
const at = (pasted: readonly Pasted[], ...where: Pasted['where'][]): string =>
  pasted
    .filter((p) => where.includes(p.where))
    .map((p) => p.text)
    .join('\n');

const SERVE: Record<Server, (kind: Kind, pasted: readonly Pasted[]) => Promise<void>> = {
  nginx(kind, pasted) {
    const tls = (name: string): string =>
      `listen 443 ssl; listen [::]:443 ssl; server_name ${name}; ssl_certificate ssl/${name}/fullchain.pem; ssl_certificate_key ssl/${name}/privkey.pem;`;
    const application = `location / { try_files $uri /index.php?$query_string; }\nlocation ~ \\.php$ { fastcgi_pass ${php}; fastcgi_param SCRIPT_FILENAME $document_root$fastcgi_script_name; fastcgi_param REQUEST_URI $request_uri; fastcgi_param REQUEST_METHOD $request_method; fastcgi_param QUERY_STRING $query_string; }`;
    const content = `root ${roots[kind]}; index ${kind === 'php' ? 'index.php' : 'index.html'};\n${kind === 'php' ? application : ''}\n${withoutReplaced(NEGLECTED.nginx[kind], pasted)}`;
    return bed.nginxWith(
      { plain: true },
      at(pasted, 'main', 'block'),
      `server { listen 80; listen [::]:80; server_name ${APEX} ${WWW};\n${content}\n}`,
      ...(pasted.some((p) => p.text.includes(`server_name ${WWW};\n  # a certificate`))
        ? []
        : [`server { ${tls(WWW)}\n${content}\n}`]),
      `server { ${tls(APEX)}\n${content}\n${at(pasted, 'site', 'everyHost')}\n}`,
    );
  },
  Apache(kind, pasted) {
    const tls = (name: string): string =>
      `ServerName ${name}\nSSLEngine on\nSSLCertificateFile ssl/${name}/fullchain.pem\nSSLCertificateKeyFile ssl/${name}/privkey.pem`;
    const application = `DirectoryIndex index.php\n<FilesMatch "\\.php$">\nSetHandler "proxy:fcgi://${php}"\n</FilesMatch>`;
    const content = `DocumentRoot ${roots[kind]}\n<Directory ${roots[kind]}>\nRequire all granted\n</Directory>\n${kind === 'php' ? application : ''}\n${NEGLECTED.Apache[kind]}`;
    const isPasted = pasted.some((p) => p.text.includes(`ServerName ${WWW}\n  SSLEngine`));
    return bed.apache(
      'ServerTokens Full',
      at(pasted, 'main', 'block'),
      ...[APEX, WWW].map((name) => `<VirtualHost *:80>\nServerName ${name}\n${content}\n</VirtualHost>`),
      ...(isPasted ? [] : [`<VirtualHost *:443>\n${tls(WWW)}\n${content}\n</VirtualHost>`]),
      `<VirtualHost *:443>\n${tls(APEX)}\n${content}\n${at(pasted, 'site', 'everyHost')}\n</VirtualHost>`,
    );
  },
};

/** Every text of a failed check that is for this server and this kind of site. */
function pastedFrom({ findings }: Audited, server: Server, kind: Kind): Pasted[] {
  return findings
    .filter((f) => f.outcome === 'failed')
    .flatMap(({ check, recipe }) =>
      (recipe?.paste ?? []).flatMap(({ label, text }): Pasted[] => {
        const [name, where = ''] = label.split(/, (.*)/);
        if (name !== server || (Object.values(KINDS).includes(where as never) && where !== KINDS[kind]))
          return [];
        if (/^(?:server \{|<VirtualHost)/.test(text)) return [{ check, where: 'block', text }];
        if (/before the server block|main configuration/.test(where)) return [{ check, where: 'main', text }];
        return [{ check, where: recipe!.steps.includes('each host') ? 'everyHost' : 'site', text }];
      }),
    );
}
/** A block that was pasted for another host has the lines that are for each host, too. */
const inBlocks = (pasted: readonly Pasted[]): Pasted[] =>
  pasted.map((p) => {
    if (p.where !== 'block' || p.check !== 'domain.preferred-host') return p;
    const end = p.text.startsWith('server {') ? '}' : '</VirtualHost>';
    return { ...p, text: p.text.replace(new RegExp(`${end}$`), `${at(pasted, 'everyHost')}\n${end}`) };
  });

const audit = (): Promise<Audited> => bed.audit(`https://${APEX}/`, { brief: BRIEF });

/** Checks that fail before, and that the server's recipes are for. */
const ON_ALL = [
  'delivery.cached',
  'delivery.compressed',
  'delivery.no-exposed-files',
  'domain.preferred-host',
  'https.hsts',
  'https.http-redirects',
  'https.no-version-leak',
  'https.protective-headers',
  'indexing.hidden-kept-out',
  'indexing.old-addresses',
];
const NOT_FOUND = 'indexing.not-found-status';
const CASES: [Server, Kind, string[]][] = [
  ['nginx', 'files', [...ON_ALL, NOT_FOUND, 'delivery.no-directory-listing']],
  ['nginx', 'php', ON_ALL],
  ['nginx', 'scripts', [...ON_ALL, NOT_FOUND]],
  ['Apache', 'files', [...ON_ALL, NOT_FOUND]],
  ['Apache', 'php', ON_ALL],
  ['Apache', 'scripts', [...ON_ALL, NOT_FOUND]],
];

describe('all recipes of one server together', () => {
  it.each(CASES.map(([server, kind, planted]) => [server, KINDS[kind], planted.join(' '), kind] as const))(
    '%s | %s | %s',
    async (server, _, planted, kind) => {
      await SERVE[server](kind, []);
      const before = await audit();
      const found = pastedFrom(before, server, kind);
      const mended = [...new Set(found.map((p) => p.check))].sort();
      expect(mended).toEqual(planted.split(' ').sort());
      await SERVE[server](kind, inBlocks(found));
      const after = await audit();
      expect(mended.filter((check) => after.of(check).outcome !== 'passed')).toEqual([]);
      expect(after.failed.filter((f) => !before.failed.includes(f))).toEqual([]);
      // the pages are there as before
      const seen = after.evidence.pages.map((p) => [new URL(p.url).pathname, p.chain.hops.at(-1)?.status]);
      expect(seen).toEqual(
        expect.arrayContaining(ROUTES.map((route) => [expect.stringMatching(route), 200])),
      );
    },
  );
});
