import { quantity } from '#core/text/quantity';
import { hostOf, parseUrl } from '#core/extract/address';
import { SITEMAP_BYTES, SITEMAP_URLS } from '#core/extract/sitemap';
import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';

/** W3C Datetime (a profile of ISO 8601): year, month, day, or with time and zone. */
const W3C_DATETIME =
  /^\d{4}(?:-(?:0[1-9]|1[0-2])(?:-(?:0[1-9]|[12]\d|3[01])(?:T(?:[01]\d|2[0-3]):[0-5]\d(?::[0-5]\d(?:\.\d+)?)?(?:Z|[+-](?:[01]\d|2[0-3]):[0-5]\d))?)?)?$/;
const DAY = 86_400_000;

/**
 * @returns what is wrong with a date, or undefined. A day's grace: lastmod has no zone where it has no time.
 */
export function dateFault(text: string, at: Date): string | undefined {
  if (!W3C_DATETIME.test(text)) return 'no W3C date';
  const time = Date.parse(text);
  if (Number.isNaN(time)) return 'no date of the calendar';
  return time > at.getTime() + DAY ? 'in the future' : undefined;
}

export const sitemapLimits = defineCheck({
  id: 'indexing.sitemap-limits',
  title: 'The sitemap keeps to the protocol',
  severity: 'minor',
  situations: ['live'],
  scope: 'file',
  why: 'Search engines drop a file that breaks the rules, mostly without a word.',
  source: 'sitemaps.org 0.9; W3C Datetime',
  messages: {
    expected: 'at most 50,000 addresses and 52,428,800 bytes, absolute, on its own host, dates that are over',
    none: 'there is no sitemap that can be read',
  },
  judge(context) {
    const { evidence, at } = context;
    const files = evidence.sitemaps.filter((m) => finalStatus(m.chain) === 200 && m.facts);
    return overPlaces(
      context,
      files.map((m) => {
        const f = m.facts!;
        if (f.count > SITEMAP_URLS)
          return failed(m.url, { found: quantity(f.count, 'address', 'addresses') });
        if ((m.bytes ?? 0) > SITEMAP_BYTES) return failed(m.url, { found: `${m.bytes} bytes` });
        const host = hostOf(m.url);
        for (const { loc, lastmod } of f.urls) {
          const url = parseUrl(loc);
          if (!url || !/^https?:$/.test(url.protocol))
            return failed(m.url, {
              found: `${loc.slice(0, 200)} is not absolute`,
              raw: `<loc>${loc.slice(0, 300)}</loc>`,
            });
          if (loc.length >= 2048)
            return failed(m.url, { found: 'an address of 2,048 characters or more', raw: loc.slice(0, 200) });
          // robots.txt may vouch for a sitemap that lies elsewhere (sitemaps.org, cross submits)
          if (f.kind !== 'index' && url.hostname !== host && m.from !== 'robots')
            return failed(m.url, { found: `${loc} is on another host`, raw: `<loc>${loc}</loc>` });
          const fault = lastmod === undefined ? undefined : dateFault(lastmod, at);
          if (fault)
            return failed(m.url, {
              found: `lastmod “${lastmod!.slice(0, 60)}”: ${fault}`,
              raw: `<loc>${loc}</loc><lastmod>${lastmod!.slice(0, 100)}</lastmod>`,
            });
        }
        return passed(m.url, { found: quantity(f.count, 'address', 'addresses') });
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
