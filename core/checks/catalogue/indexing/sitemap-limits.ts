import { hostOf, normaliseUrl, parseUrl } from '#core/extract/address';
import { SITEMAP_BYTES, SITEMAP_NAMESPACE, SITEMAP_URLS } from '#core/extract/sitemap';
import { finalStatus, type Evidence } from '#core/facts/evidence';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.sitemap-limits', {
  'not-absolute': '{loc} is not absolute',
  'too-long': 'an address of 2,048 characters or more',
  'foreign-host': '{loc} is on another host, whose robots.txt does not name this sitemap',
  'foreign-host-unread': '{loc} is on another host, whose robots.txt was not read',
  'no-w3c-date': 'no W3C date',
  'no-calendar-date': 'no date of the calendar',
  'in-the-future': 'in the future',
  lastmod: 'lastmod “{lastmod}”: {fault}',
  addresses: '{count, plural, one {{count} address} other {{count} addresses}}',
  namespace: 'the namespace {namespace}',
  'no-namespace': 'no namespace',
  'index-in-index': 'an index that lists another index: {loc}',
});

/** W3C Datetime (a profile of ISO 8601): year, month, day, or with time and zone. */
const W3C_DATETIME =
  /^\d{4}(?:-(?:0[1-9]|1[0-2])(?:-(?:0[1-9]|[12]\d|3[01])(?:T(?:[01]\d|2[0-3]):[0-5]\d(?::[0-5]\d(?:\.\d+)?)?(?:Z|[+-](?:[01]\d|2[0-3]):[0-5]\d))?)?)?$/;
const DAY = 86_400_000;

/**
 * @returns what is wrong with a date, or undefined. A day's grace: lastmod has no zone where it has no time.
 */
export function dateFault(text: string, at: Date): Message | undefined {
  if (!W3C_DATETIME.test(text)) return msg('no-w3c-date');
  const time = Date.parse(text);
  if (Number.isNaN(time)) return msg('no-calendar-date');
  return time > at.getTime() + DAY ? msg('in-the-future') : undefined;
}

type Sitemap = Evidence['sitemaps'][number];

/** Where a sitemap is named by the robots.txt of a host, whether or not through an index. */
function vouchedBy(host: string, { url, from }: Sitemap, { evidence }: CheckContext): boolean | undefined {
  const index = evidence.sitemaps.find(
    (s) => s.facts?.kind === 'index' && s.facts.urls.some((u) => normaliseUrl(u.loc) === url),
  );
  if (hostOf(evidence.robots.chain.start) === host) return from === 'robots' || index?.from === 'robots';
  const other = evidence.vouching?.find((v) => v.host === host);
  if (!other || finalStatus(other.chain) === undefined) return undefined;
  return other.sitemaps?.some((s) => s === url || s === index?.url) ?? false;
}

/** What is to be said of an entry on another host than its sitemap, where that cannot be told. */
function foreignDoubt(loc: string, map: Sitemap, context: CheckContext): Message | undefined {
  const host = parseUrl(loc)?.hostname;
  if (host === undefined || host === hostOf(map.url)) return undefined;
  return vouchedBy(host, map, context) === undefined
    ? msg('foreign-host-unread', { loc: loc.slice(0, 200) })
    : undefined;
}

/** An index that an index lists: it may list sitemaps only (sitemaps.org, "Using Sitemap index files"). */
function nestedIndex({ facts }: Sitemap, all: readonly Sitemap[]): string | undefined {
  if (facts?.kind !== 'index') return undefined;
  const indexes = new Set(all.filter((m) => m.facts?.kind === 'index').map((m) => m.url));
  return facts.urls.find((u) => indexes.has(normaliseUrl(u.loc) ?? ''))?.loc;
}

/** What is wrong with one entry; undefined when nothing is. */
function entryFault(
  { loc, lastmod }: NonNullable<Sitemap['facts']>['urls'][number],
  map: Sitemap,
  context: CheckContext,
): { found: Message; raw: string } | undefined {
  const url = parseUrl(loc);
  const raw = `<loc>${loc.slice(0, 300)}</loc>`;
  if (!url || !/^https?:$/.test(url.protocol))
    return { found: msg('not-absolute', { loc: loc.slice(0, 200) }), raw };
  if (loc.length >= 2048) return { found: msg('too-long'), raw };
  // the robots.txt of the entry's own host may vouch for it (sitemaps.org, "sitemaps & cross submits")
  const isForeign = map.facts?.kind !== 'index' && url.hostname !== hostOf(map.url);
  if (isForeign && vouchedBy(url.hostname, map, context) === false)
    return {
      found: msg('foreign-host', { loc: loc.slice(0, 200) }),
      raw,
    };
  const fault = lastmod === undefined ? undefined : dateFault(lastmod, context.at);
  return fault === undefined
    ? undefined
    : {
        found: msg('lastmod', { lastmod: lastmod!.slice(0, 60), fault }),
        raw: `${raw}<lastmod>${lastmod!.slice(0, 100)}</lastmod>`,
      };
}

export const sitemapLimits = defineCheck({
  id: 'indexing.sitemap-limits',
  title: 'Sitemap keeps to the protocol’s limits',
  fault: 'Sitemap exceeds the protocol’s limits',
  severity: 'minor',
  situations: ['live'],
  scope: 'file',
  facts: ['robots', 'sitemaps'],
  reads: ['files'],
  why: 'Search engines drop a file that breaks the rules, mostly without a word.',
  source: 'sitemaps.org 0.9; W3C Datetime',
  messages: {
    expected: 'at most 50,000 addresses and 52,428,800 bytes, absolute, on its own host, dates that are over',
    none: 'there is no sitemap that can be read',
  },
  judge(context) {
    const { evidence } = context;
    const files = evidence.sitemaps.filter((m) => finalStatus(m.chain) === 200 && m.facts);
    return overPlaces(
      context,
      files.map((m) => {
        const f = m.facts!;
        if (f.count > SITEMAP_URLS) return failed(m.url, { found: msg('addresses', { count: f.count }) });
        if ((m.bytes ?? 0) > SITEMAP_BYTES)
          return failed(m.url, { found: commonMessage('bytes', { bytes: m.bytes }) });
        if (f.namespace !== undefined && f.namespace !== SITEMAP_NAMESPACE)
          return failed(m.url, {
            found: f.namespace ? msg('namespace', { namespace: f.namespace }) : msg('no-namespace'),
            expected: SITEMAP_NAMESPACE,
          });
        const nested = nestedIndex(m, evidence.sitemaps);
        if (nested !== undefined) return failed(m.url, { found: msg('index-in-index', { loc: nested }) });
        let doubt: Message | undefined;
        for (const entry of f.urls) {
          const fault = entryFault(entry, m, context);
          if (fault) return failed(m.url, fault);
          doubt ??= f.kind === 'index' ? undefined : foreignDoubt(entry.loc, m, context);
        }
        if (doubt) return unsure(m.url, doubt);
        return passed(m.url, { found: msg('addresses', { count: f.count }) });
      }),
    );
  },
  recipe: () => ({
    steps:
      'Mostly the plug-in that writes it has a wrong setting (site address, time zone), or the file has to be split and named in an index.',
    paste: [
      {
        label: 'Index',
        text: '<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><sitemap><loc>https://…/sitemap-1.xml</loc></sitemap></sitemapindex>',
      },
    ],
  }),
});
