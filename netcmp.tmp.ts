import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { FAULTS } from './net/faults';
import { SITES, placesBefore, preferredHost, otherHost, subdomainOf, keyOf } from './net/sites';
import { pagesOf, extraPages } from './net/pages';
import { answerWeb } from './net/web';
import { answererFor } from './net/zones';
import { officialFacts } from './net/official';
const out: Record<string, string> = {};
const now = new Date('2026-11-26T00:00:00Z');
const h = (x: unknown) => createHash('sha1').update(typeof x === 'string' ? x : JSON.stringify(x)).digest('hex').slice(0, 12);
const fix = (a: any) => ({ ...a, body: Buffer.isBuffer(a.body) ? createHash('sha1').update(a.body).digest('hex') : a.body });
const ids = [null, ...(FAULTS as any[]).map(f => f.id), 'unlocked'];
const small = SITES.filter(s => s.things.items.length < 20);
for (const s of SITES) out['brief ' + s.slug] = h(officialFacts(s.slug, now));
for (const s of small) for (const id of ids) {
  const switches: any = { reader: (slug: string) => (f: string) => slug === s.slug && f === id, isOn: (slug: string, _: string, f: string) => slug === s.slug && f === id };
  const paths = [...pagesOf(s).slice(0, 9).map(p => p.path), ...extraPages(s, () => true).map(p => p.path), '/robots.txt', '/sitemap.xml', '/nope/', '/favicon.ico', '/icon-48.png', '/touch.png', '/share.png', '/style.3f9a1c2b.css', '/app.js', '/site.webmanifest', '/start/', '/thanks/', '/coming-soon/', '/.git/HEAD', '/pictures/', '/old-gate/', '/history.html', '/.well-known/security.txt', '/logo.png', '/share-heavy.png', '/pictures/heavy.png'];
  const key = 'Basic ' + Buffer.from(`${keyOf(s).user}:${keyOf(s).password}`).toString('base64');
  const parts: unknown[] = [];
  for (const host of [preferredHost(s), otherHost(s), subdomainOf(s), ...placesBefore(s).map(p => p.host)]) for (const secure of [true, false]) for (const path of secure ? paths : ['/', '/about/']) for (const authorization of [key, '']) {
    const base = placesBefore(s).find(p => p.host === host)?.path ?? '/';
    parts.push([host, path, secure, fix(answerWeb({ host, path: base + path.slice(1), query: path === '/' ? '?a=1' : '', secure, headers: { authorization }, address: s.address, acceptsGzip: false, method: 'GET' } as any, switches, now))]);
  }
  for (const speaker of ['resolver', 'ns1', 'ns2', 'old1', 'parent'] as const) { const a = answererFor(speaker, (slug, _e, f) => slug === s.slug && f === id); for (const name of [s.domain, 'www.' + s.domain, 'mail.' + s.domain, '_dmarc.' + s.domain, 'tide._domainkey.' + s.domain, 'shop.' + s.domain, subdomainOf(s), 'zzz.' + s.domain, 'example', 'ns1.registry.example']) for (const type of ['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'NS', 'SOA', 'DS', 'DNSKEY', 'CAA']) for (const checkingDisabled of [false, true]) { if (s.traits.includes('flattened') && type === 'A') continue; parts.push([speaker, name, type, a(name, type, { checkingDisabled } as any)]); } }
  out[`${s.slug} ${id}`] = h(parts);
  if (process.env.FULL === `${s.slug} ${id}`) writeFileSync(process.argv[2] + '.full', JSON.stringify(parts, null, 1));
}
writeFileSync(process.argv[2]!, JSON.stringify(out, null, 0).replace(/,/g, ',\n'));
