/** Verdicts on sites that Debian's own servers serve: right where they are right, and said of what is wrong. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import { Bed, HEAD, site, WEB, type AuditOptions } from './bed';

const NAMES = [
  'houses',
  'catchall',
  'robots',
  'circle',
  'old',
  'mail',
  'signed',
  'bogus',
  'closed',
  'preview',
];
const hostsOf = (name: string): [string, string] => [`${name}.example`, `www.${name}.example`];

/** A site's two virtual hosts, the plain one and www leading to it. */
function server(name: string, root: string, inside = '', www?: string): string {
  const [apex, other] = hostsOf(name);
  const tls = (host: string): string =>
    `listen 443 ssl; listen [::]:443 ssl; server_name ${host}; ssl_certificate ssl/${apex}/fullchain.pem; ssl_certificate_key ssl/${apex}/privkey.pem;`;
  return `
server { listen 80; listen [::]:80; server_name ${apex} ${other}; return 301 https://$host$request_uri; }
server { ${tls(other)} ${www ?? `return 301 https://${apex}$request_uri;`} }
server { ${tls(apex)} root ${root}; index index.html; ${inside} }`;
}
const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${title}</title></head><body>${body}</body></html>`;
const MENU = ['houses', 'barns', 'people', 'write'].map((w) => `<a href="/${w}.html">${w}</a>`).join(' ');

let bed: Bed;
const audits = new Map<string, ReturnType<Bed['audit']>>();
/** One audit a site, however many rows ask for it. */
function audited(name: string, options: AuditOptions = {}): ReturnType<Bed['audit']> {
  const key = `${name} ${options.situation ?? 'live'}`;
  if (!audits.has(key)) audits.set(key, bed.audit(`https://${name}.example/`, options));
  return audits.get(key)!;
}

beforeAll(async () => {
  bed = await Bed.start();
  for (const name of NAMES) {
    const [apex, www] = hostsOf(name);
    bed.certificate(apex, [apex, www]);
    bed.zone(apex, site());
  }
  bed.zone(
    'mail.example',
    site(
      '@ IN MX 10 mx.provider.example.',
      '@ IN TXT "v=spf1 include:spf.provider.example -all"',
      '_dmarc IN CNAME choir.reports.provider.example.',
      'k1._domainkey IN CNAME k1.keys.provider.example.',
      '@ IN HTTPS 1 . alpn=h2,h3 port=443',
      'shop IN CNAME edge.provider.example.',
      'blog IN CNAME xn--mnchen-3ya.provider.example.',
    ),
  );
  bed.zone(
    'provider.example',
    [
      ...HEAD,
      `mx IN A ${WEB}`,
      'spf IN TXT "v=spf1 ip4:192.0.2.0/24 -all"',
      'choir.reports IN TXT "v=DMARC1; p=reject; rua=mailto:r@provider.example"',
      `k1.keys IN TXT "v=DKIM1; k=ed25519; p=${Buffer.alloc(32, 7).toString('base64')}"`,
      `edge IN A ${WEB}`,
      'edge IN CAA 0 issue "ca.provider.example"',
      `xn--mnchen-3ya IN A ${WEB}`,
    ],
    true,
  );
  bed.sign('signed.example').sign('bogus.example', true);
  await bed.names();
  const good = page(
    'Gale Builders – houses by the firth',
    `<h1>Gale Builders</h1>${MENU}<p>Houses under construction: four. Coming soon: the fifth. Members: please log in.`,
  );
  const plain = {
    'index.html': good,
    'houses.html': good,
    'barns.html': good,
    'people.html': good,
    'write.html': good,
  };
  const folder = (name: string, more: Record<string, string | Buffer> = {}): string =>
    bed.files(name, { ...plain, ...more });
  const old = Buffer.from(
    page('Gale \x96 \x93Builders\x94', '<h1>Gale</h1>').replace(
      '<meta charset="utf-8">',
      '<meta charset="windows-1252">',
    ),
    'latin1',
  );
  await bed.nginx(
    server('houses', folder('houses')),
    server('catchall', folder('catchall'), 'error_page 404 =200 /index.html;'),
    server(
      'robots',
      folder('robots'),
      'location = /robots.txt { return 302 https://houses.example/their-robots.txt; }',
    ),
    server('circle', folder('circle'), '', 'location = / { return 302 /a; } location / { return 302 /; }'),
    server('old', folder('old', { 'index.html': old })),
    server('mail', folder('mail')),
    server('signed', folder('signed')),
    server('bogus', folder('bogus')),
    server('closed', folder('closed'), 'location / { return 503; }'),
    server('preview', folder('preview'), 'add_header X-Robots-Tag "max-image-preview: none";'),
  );
  bed.files('houses', { 'their-robots.txt': 'User-agent: *\nDisallow: /\n' });
});
afterAll(() => bed.stop());

const MAIL: Brief = {
  preferredHost: 'mail.example',
  otherHosts: ['www.mail.example'],
  dkimSelectors: ['k1'],
  contactEmail: 'hello@mail.example',
  records: [
    { name: 'mail.example', type: 'HTTPS', value: '1 . port=443 alpn="h2,h3"' },
    { name: 'blog.mail.example', type: 'CNAME', value: 'münchen.provider.example' },
  ],
};

describe('nginx', () => {
  it.each([
    ['houses', 'identity.home-page', 'passed'],
    ['houses', 'indexing.no-holding-page', 'passed'],
    ['houses', 'metadata.title-present', 'passed'],
    ['houses', 'https.answers', 'passed'],
    ['houses', 'https.certificate-valid', 'passed'],
    ['houses', 'https.http-redirects', 'passed'],
    ['houses', 'https.hsts', 'failed'],
    ['houses', 'domain.both-hosts', 'passed'],
    ['houses', 'indexing.not-found-status', 'passed'],
    ['catchall', 'indexing.not-found-status', 'failed'],
    ['catchall', 'delivery.no-exposed-files', 'passed'],
    ['preview', 'indexing.let-in', 'passed'],
    ['preview', 'indexing.shown-in-full', 'failed'],
    ['robots', 'indexing.robots-allows', 'failed'],
    ['circle', 'https.answers', 'passed'],
    ['circle', 'domain.both-hosts', 'failed'],
    ['old', 'metadata.charset', 'failed'],
  ])('%s: %s %s', async (name, check, wanted) => {
    expect((await audited(name)).of(check).outcome).toBe(wanted);
  });
  it('a www that redirects in a circle is no preferred host’s', async () => {
    const brief = { preferredHost: 'circle.example', otherHosts: ['www.circle.example'] };
    const { of } = await bed.audit('https://circle.example/', { brief });
    expect(of('domain.preferred-host').outcome).toBe('failed');
  });
  it('windows-1252 is read by the Encoding standard', async () => {
    const { evidence } = await audited('old');
    expect(evidence.pages[0]!.facts!.titles[0]!.text).toBe('Gale – “Builders”');
  });
  it.each([
    ['https.answers', 'passed'],
    ['indexing.kept-out', 'passed'],
    ['delivery.no-server-errors', 'cantTell'],
  ])('an environment that answers 503 to everybody: %s %s', async (check, wanted) => {
    expect((await audited('closed', { situation: 'staging' })).of(check).outcome).toBe(wanted);
  });
});

describe('BIND and Unbound', () => {
  it.each([
    ['domain.spf', 'passed'],
    ['domain.dmarc', 'passed'],
    ['domain.dkim', 'passed'],
    ['domain.mail-exchanger', 'passed'],
    ['domain.no-dangling-alias', 'passed'],
    ['domain.records-match', 'passed'],
    ['domain.name-servers', 'passed'],
    ['domain.delegation-agrees', 'passed'],
    ['domain.resolves', 'passed'],
  ])('a zone with aliases to a provider: %s %s', async (check, wanted) => {
    expect((await audited('mail', { brief: MAIL })).of(check)).toMatchObject({ outcome: wanted });
  });
  it.each([
    ['ca.provider.example', 'passed'],
    ['other.example', 'failed'],
  ])('CAA where the alias leads, for %s: %s', async (issuer, wanted) => {
    const brief = { preferredHost: 'mail.example', otherHosts: ['shop.mail.example'] };
    const { of } = await bed.audit('https://mail.example/', { brief, profile: { name: 'Fennel', issuer } });
    expect(of('domain.caa').outcome).toBe(wanted);
  });
  it.each([
    ['signed', 'domain.signed', 'passed', undefined],
    ['signed', 'https.answers', 'passed', undefined],
    ['bogus', 'domain.signed', 'failed', undefined],
    ['bogus', 'domain.resolves', 'cantTell', 'rests on domain.signed'],
    ['bogus', 'https.answers', 'cantTell', 'rests on domain.signed'],
    ['bogus', 'metadata.title-present', 'cantTell', 'rests on domain.signed'],
  ])('%s: %s %s', async (name, check, wanted, reason) => {
    const found = (await audited(name)).of(check);
    expect(found.outcome).toBe(wanted);
    if (reason) expect(found.reason).toContain(reason);
  });
});
