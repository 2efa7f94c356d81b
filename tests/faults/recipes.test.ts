/**
 * Recipes applied: a fault is planted on the practice net, what the recipe gives to paste is pasted by a hand
 * that knows only that text, and the check passes.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readZoneFile } from '#core/formats/zone-file/read';
import { FAULTS } from '../../net/faults';
import { startPracticeNet, type PracticeNet } from '../../net/practice-net';
import type { WebAnswer } from '../../net/web';
import { auditPractice } from './practice-audit';

const HOST = 'tarn-planetarium.example';
interface Paste {
  label: string;
  text: string;
}

interface Pasted {
  name: string;
  type: string;
  value: string;
  ttl: number;
}

/** What was pasted where. */
const hand = {
  tags: [] as { path?: string; tag: string }[],
  headers: [] as [string, string][],
  files: new Map<string, string>(),
  redirects: new Map<string, string>(),
  records: [] as Pasted[],
  away: [] as Pasted[],
};
function forget(): void {
  hand.tags.length = 0;
  hand.headers.length = 0;
  hand.files.clear();
  hand.redirects.clear();
  hand.records.length = 0;
  hand.away.length = 0;
}

/** Which tag of a page a pasted one replaces; undefined where it is simply put into the head. */
function replaced(tag: string): RegExp | undefined {
  if (tag.startsWith('<title')) return /<title>[\s\S]*?<\/title>/i;
  if (tag.startsWith('<html')) return /<html[^>]*>/i;
  const meta = /^<meta (name|property)="([^"]+)"/.exec(tag);
  if (meta) return new RegExp(`<meta ${meta[1]}="${meta[2]!.replace(/[.:]/g, '\\$&')}"[^>]*>`, 'i');
  const link = /^<link rel="([^"]+)"/.exec(tag);
  return link ? new RegExp(`<link rel="${link[1]}"[^>]*>`, 'i') : undefined;
}
function withTags(page: string, path: string): string {
  let out = page;
  for (const { path: only, tag } of hand.tags) {
    if (only !== undefined && only !== path) continue;
    for (const line of tag.startsWith('<script') ? [tag] : tag.split('\n')) {
      const old = replaced(line);
      out = old?.test(out)
        ? out.replace(old, () => line)
        : line.startsWith('<a ')
          ? out.replace('</footer>', () => `${line}</footer>`)
          : out.replace(/<head>/i, () => `<head>${line}`);
    }
  }
  return out;
}
const served = (body: string, type: string): WebAnswer => ({
  status: 200,
  headers: { 'content-type': type, 'strict-transport-security': 'max-age=31536000' },
  body,
});

let net: PracticeNet;
beforeAll(async () => {
  net = await startPracticeNet({
    planted: false,
    web: (r, answer) => {
      if (r.host !== HOST && r.host !== `www.${HOST}`) return answer;
      const to =
        hand.redirects.get(`${r.secure ? 'https' : 'http'}://${r.host}`) ??
        hand.redirects.get(`https://${r.host}${r.path}`);
      if (to)
        return {
          status: 301,
          headers: { ...answer.headers, location: to.replace('$request_uri', r.path + r.query) },
          body: '',
        };
      const file = hand.files.get(r.path);
      if (file && r.secure && r.host === HOST)
        return served(file, r.path.endsWith('.xml') ? 'application/xml' : 'text/plain');
      const headers = {
        ...answer.headers,
        ...Object.fromEntries(r.secure ? hand.headers.map(([n, v]) => [n.toLowerCase(), v]) : []),
      };
      return /html/.test(answer.headers['content-type'] ?? '') && answer.status === 200
        ? { ...answer, headers, body: withTags(String(answer.body), r.path) }
        : { ...answer, headers };
    },
    zone: (zone) => [
      ...zone.filter(
        (z) =>
          !hand.away.some((n) => n.name === z.name && n.type === z.type && n.value === z.value) &&
          !hand.records.some(
            (n) => n.name === z.name && (n.type === z.type || z.type === 'CNAME' || n.type === 'CNAME'),
          ),
      ),
      ...hand.records,
    ],
  });
});
afterAll(() => net.close());

const FILES: Record<string, string> = {
  'robots.txt': '/robots.txt',
  'security.txt': '/.well-known/security.txt',
};
const isTag = (text: string): boolean => /^<[a-z]/.test(text) && !/^<\?xml|^<VirtualHost/i.test(text);

function pasteRecords(text: string, into: Pasted[]): void {
  const zone = readZoneFile(text);
  expect(zone.errors).toEqual([]);
  const records = zone.records.map(({ name, type, value, ttl = 3600 }) => ({
    name,
    type,
    value: type === 'TXT' || type === 'CAA' ? value.replace(/"/g, '') : value,
    ttl,
  }));
  into.push(...records);
}

function pasteRedirects(text: string): void {
  for (const block of text.split(/(?=server \{)/)) {
    const name = /server_name (\S+);/.exec(block)?.[1];
    const scheme = /listen 80/.test(block) ? 'http' : 'https';
    if (name) hand.redirects.set(`${scheme}://${name}`, /return 301 (\S+);/.exec(block)![1]!);
  }
  for (const m of text.matchAll(/location = "([^"]+)" \{ return 301 (\S+); \}/g))
    hand.redirects.set(`https://${HOST}${m[1]}`, `https://${HOST}${m[2]}`);
}

/** The page, record or file that a label names: some name the field after it. */
const placeIn = (label: string): string => label.replace(/, (title|description)$/, '');

/** What is done with a text, by its kind; undefined for one that has no place here. */
function handling({ label, text }: Paste, check: string): (() => void) | undefined {
  if (isTag(text)) {
    const isForHome = /home page/.test(label) || check === 'identity.title-names-site';
    const path = /^https:/.test(label) ? new URL(placeIn(label)).pathname : isForHome ? '/' : undefined;
    return () => hand.tags.push({ path, tag: text });
  }
  if (text.startsWith('<?xml') || Object.hasOwn(FILES, label))
    return () => hand.files.set(FILES[label] ?? '/sitemap.xml', text);
  if (/^[A-Z][A-Za-z-]+: \S/.test(text) && label.startsWith('Header')) {
    const at = text.indexOf(':');
    return () => hand.headers.push([text.slice(0, at), text.slice(at + 1).trim()]);
  }
  if (/ IN [A-Z]+ /.test(text))
    return () => pasteRecords(text, label === 'Take away first' ? hand.away : hand.records);
  return label === 'nginx' && /return 301 \S+;/.test(text) ? () => pasteRedirects(text) : undefined;
}

/** Pastes each text where its kind belongs. @returns how many could be pasted */
function paste(all: readonly Paste[], check: string): number {
  const done = all.flatMap((p) => handling(p, check) ?? []);
  for (const paste of done) paste();
  return done.length;
}

/** Faults whose recipe gives a text that can be pasted as it is. */
const APPLIED = [
  'hidden-open',
  'picture-mute',
  'nameless-title',
  'wrong-site-name',
  'wrong-language',
  'no-organisation',
  'wrong-colour',
  'http-stays',
  'temporary',
  'no-hsts',
  'bare-headers',
  'www-gone',
  'stale-server',
  'www-stays',
  'path-lost',
  'soa-order',
  'dmarc-gone',
  'caa-closed',
  'spf-two',
  'robots-page',
  'robots-closed',
  'no-sitemap',
  'no-canonical',
  'staging-canonical',
  'canonical-chain',
  'canonical-home',
  'old-404',
  'holding-found',
  'token-gone',
  'no-title',
  'no-description',
  'nameless-description',
  'no-viewport',
  'share-elsewhere',
  'no-card',
  'uncached',
  'ended-contact',
];

describe('a recipe applied mends', () => {
  it.each(APPLIED.map((id) => [id, FAULTS.find((f) => f.id === id)!.check] as const))(
    '%s, so that %s passes',
    async (id, check) => {
      net.switches.set('planetarium', 'live', id, true);
      try {
        const before = (await auditPractice(net, 'planetarium', 'live', 'live')).of(check);
        expect(before.outcome).toBe('failed');
        expect(
          paste(
            (before.recipe?.paste ?? []).filter((p) => p.text),
            check,
          ),
          JSON.stringify(before.recipe),
        ).toBeGreaterThan(0);
        const after = (await auditPractice(net, 'planetarium', 'live', 'live')).of(check);
        // of many pages the first few are given; what was pasted is mended, and all where all was given
        const given = new Set(before.recipe!.paste!.map((p) => placeIn(p.label)));
        const left = after.places.filter(
          (p) =>
            p.outcome === 'failed' &&
            (given.has(p.place) || before.places.filter((x) => x.outcome === 'failed').length <= given.size),
        );
        expect([
          left.map((p) => `${p.place}: ${p.found}`),
          after.outcome === 'passed' || before.places.length > given.size
            ? ''
            : (after.reason ?? after.found),
        ]).toEqual([[], '']);
      } finally {
        net.switches.set('planetarium', 'live', id, false);
        forget();
      }
    },
  );
});
