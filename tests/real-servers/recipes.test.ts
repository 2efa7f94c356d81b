/**
 * Recipes pasted literally into nginx, Apache and a zone file of BIND: the fault is gone afterwards, and no other
 * has come.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readZoneFile } from '#core/formats/zone-file/read';
import type { Brief } from '#core/facts/brief';
import { Bed, site, type Audited } from './bed';

const APEX = 'kites.example';
const WWW = `www.${APEX}`;
const BRIEF: Brief = {
  preferredHost: APEX,
  otherHosts: [WWW],
  formerAddresses: [{ from: '/old.html', to: '/about.html' }],
};
const page = (title: string): string =>
  `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${title} at the Kite Works</title><link rel="canonical" href="https://${APEX}/"><link rel="stylesheet" href="/files/style.css"></head><body><h1>${title}</h1><p>Kites for every wind, made by the firth.</p></body></html>`;

let bed: Bed;
let root: string;
beforeAll(async () => {
  bed = await Bed.start();
  for (const name of [APEX, WWW]) bed.certificate(name);
  bed.zone(APEX, site());
  await bed.names();
  root = bed.files('kites', {
    'index.html': page('Kites'),
    'about.html': page('About'),
    '.git/HEAD': 'ref: refs/heads/main\n',
    'files/style.css': 'body { margin: 0 }',
    'robots.txt': 'User-agent: *\nDisallow:\n',
  });
});
afterAll(() => bed.stop());

/** What a server of the site is like where nothing is wrong, and what stands in its place. */
interface Setting {
  /** Lines within the site's own block. */
  inside?: string;
  /** Whether http and www show the site themselves. */
  httpStays?: boolean;
  wwwStays?: boolean;
}
/** Whole blocks that were pasted, and lines that belong into the site's own, or into that of each host. */
interface Pasted {
  blocks: string[];
  lines: string[];
  everyHost?: boolean;
}
const NOTHING: Pasted = { blocks: [], lines: [] };

const CLOSED = { nginx: 'location ~ /\\.git { return 404; }', apache: 'RedirectMatch 404 "/\\.git"' };

/** Lines that were there, without those that a pasted line stands in the place of. */
const without = (lines: string, pasted: readonly string[]): string =>
  lines
    .split('\n')
    .filter(
      (line) =>
        !pasted.some(
          (p) =>
            p.trim().split(/\s+/)[0] === line.trim().split(/\s+/)[0] &&
            !/^(?:add_header|location|Header|Redirect)/.test(p.trim()),
        ),
    )
    .join('\n');

async function nginx(
  { inside = CLOSED.nginx, httpStays, wwwStays }: Setting,
  { blocks, lines, everyHost }: Pasted,
): Promise<void> {
  const tls = (name: string): string =>
    `listen 443 ssl; listen [::]:443 ssl; server_name ${name}; ssl_certificate ssl/${name}/fullchain.pem; ssl_certificate_key ssl/${name}/privkey.pem;`;
  const content = `root ${root}; index index.html;`;
  await bed.nginx(
    'server_tokens off;',
    ...blocks,
    `server { listen 80; listen [::]:80; server_name ${APEX} ${WWW}; ${httpStays ? content : 'return 301 https://$host$request_uri;'} }`,
    `server { ${tls(WWW)} ${everyHost ? lines.join('\n') : ''} ${wwwStays ? content : `return 301 https://${APEX}$request_uri;`} }`,
    `server { ${tls(APEX)} ${content}\n${without(inside, lines)}\n${lines.join('\n')}\n}`,
  );
}

async function apache(
  { inside = CLOSED.apache, httpStays, wwwStays }: Setting,
  { blocks, lines, everyHost }: Pasted,
): Promise<void> {
  const tls = (name: string): string =>
    `ServerName ${name}\nSSLEngine on\nSSLCertificateFile ssl/${name}/fullchain.pem\nSSLCertificateKeyFile ssl/${name}/privkey.pem`;
  const content = `DocumentRoot ${root}\n<Directory ${root}>\nRequire all granted\n</Directory>`;
  const plain = (name: string): string =>
    `<VirtualHost *:80>\nServerName ${name}\n${httpStays ? content : `Redirect permanent / https://${name}/`}\n</VirtualHost>`;
  await bed.apache(
    ...blocks,
    plain(APEX),
    plain(WWW),
    `<VirtualHost *:443>\n${tls(WWW)}\n${everyHost ? lines.join('\n') : ''}\n${wwwStays ? content : `Redirect permanent / https://${APEX}/`}\n</VirtualHost>`,
    `<VirtualHost *:443>\n${tls(APEX)}\n${content}\n${without(inside, lines)}\n${lines.join('\n')}\n</VirtualHost>`,
  );
}

/** The texts of a recipe for one kind of server, as they stand. */
function pastedFrom({ of }: Audited, check: string, label: string): Pasted {
  const texts = (of(check).recipe?.paste ?? []).filter((p) => p.label.startsWith(label)).map((p) => p.text);
  expect(texts.length, `${check} has nothing to paste into ${label}`).toBeGreaterThan(0);
  const isBlock = (text: string): boolean => /^(?:server \{|<VirtualHost)/.test(text);
  return {
    blocks: texts.filter(isBlock),
    lines: texts.filter((t) => !isBlock(t)),
    everyHost: of(check).recipe!.steps.includes('each host'),
  };
}

const audit = (): Promise<Audited> => bed.audit(`https://${APEX}/`, { brief: BRIEF });

describe.each([
  ['nginx', nginx],
  ['Apache', apache],
] as const)('%s', (label, serve) => {
  const isApache = label === 'Apache';
  it.each<[string, Setting]>([
    ['https.http-redirects', { httpStays: true }],
    ['domain.preferred-host', { wwwStays: true }],
    ['https.hsts', {}],
    ['https.protective-headers', {}],
    ['indexing.old-addresses', {}],
    ['delivery.no-exposed-files', { inside: '' }],
    [
      'delivery.no-directory-listing',
      {
        inside: isApache ? `${CLOSED.apache}\nOptions +Indexes` : `${CLOSED.nginx}\nautoindex on;`,
      },
    ],
  ])('%s', async (check, setting) => {
    await serve(setting, NOTHING);
    const before = await audit();
    expect(before.of(check).outcome, before.of(check).reason).toBe('failed');
    await serve(setting, pastedFrom(before, check, label));
    const after = await audit();
    expect(after.of(check).outcome, after.of(check).found).toBe('passed');
    expect(after.failed.filter((f) => !before.failed.includes(f))).toEqual([]);
  });
});

describe('a zone file of BIND', () => {
  const MX = '@ IN MX 10 @';
  const NO_SPF: string[] = [];
  it.each<[string, string[], Brief]>([
    ['domain.spf', [MX, '@ IN TXT "v=spf1 ip4:192.0.2.1 -all"', '@ IN TXT "v=spf1 ip4:192.0.2.2 ~all"'], {}],
    ['domain.spf', [MX, ...NO_SPF], {}],
    ['domain.spf', [MX, '@ IN TXT "v=spf1 ip4:192.0.2.1"', '@ IN TXT "other=1"'], {}],
    ['domain.dmarc', [MX, '@ IN TXT "v=spf1 mx -all"'], { contactEmail: `hello@${APEX}` }],
    [
      'domain.dmarc',
      [MX, '_dmarc IN TXT "v=DMARC1; p=maybe"', '_dmarc IN TXT "v=DMARC1; p=none"'],
      { contactEmail: `hello@${APEX}` },
    ],
    ['domain.no-mail-closed', [MX, '@ IN TXT "v=spf1 mx ~all"', '@ IN TXT "kept=1"'], { mail: 'none' }],
    [
      'domain.records-match',
      ['shop IN CNAME elsewhere.servers.example.'],
      { records: [{ name: `shop.${APEX}`, type: 'A', value: '192.0.2.80' }] },
    ],
    [
      'domain.records-match',
      ['shop IN A 192.0.2.99', '@ IN TXT "kept=1"'],
      {
        records: [
          { name: `shop.${APEX}`, type: 'A', value: '192.0.2.80' },
          { name: APEX, type: 'TXT', value: 'tide-verification=abc' },
        ],
      },
    ],
  ])('%s: %j', async (check, lines, more) => {
    const brief = { ...BRIEF, ...more };
    await nginx({}, NOTHING);
    const asked = async (zone: string[]): Promise<Audited> => {
      bed.zone(APEX, zone);
      await bed.names();
      return bed.audit(`https://${APEX}/`, { brief });
    };
    const zone = site(...lines);
    const before = await asked(zone);
    expect(before.of(check).outcome, before.of(check).reason).toBe('failed');
    const paste = before.of(check).recipe!.paste!;
    const gone = readZoneFile(paste.find((p) => p.label === 'Take away first')?.text ?? '').records;
    const isGone = (line: string): boolean => {
      const [record] = readZoneFile(`$ORIGIN ${APEX}.\n${line}`).records;
      return gone.some((g) => g.name === record?.name && g.type === record.type && g.value === record.value);
    };
    const kept = zone.filter((line) => line.startsWith('$') || !isGone(line));
    expect(zone.length - kept.length).toBe(gone.length);
    const after = await asked([...kept, ...paste.filter((p) => p.label === 'Zone file').map((p) => p.text)]);
    expect(after.of(check).outcome, after.of(check).found ?? after.of(check).reason).toBe('passed');
    expect(after.failed.filter((f) => !before.failed.includes(f))).toEqual([]);
    if (lines.some((l) => l.includes('kept=1'))) expect(kept.some((l) => l.includes('kept=1'))).toBe(true);
  });
});
