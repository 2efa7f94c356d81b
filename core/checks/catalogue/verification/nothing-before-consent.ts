import type { Brief } from '#core/facts/brief';
import type { RenderedView, SeenCookie } from '#core/facts/rendered';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { overRendered } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.nothing-before-consent', {
  'measuring-request': 'a measuring request with {id} to {hostname}',
  cookie: 'the cookie {name}',
  'unknown-beacon': 'a beacon without a known ID: whether it measures visits cannot be told',
  beacon: 'a beacon to {hostname}',
  'necessary-cookies-unknown': 'the brief does not say which cookies need no consent',
});

/** Cookies of counters in use (common practice, from memory). */
const COUNTING = /^_ga(?:_|$)|^_gid$|^_gat|^_fbp$|^_pk_|^_hj|^_clck$|^_clsk$|^_uet|^ajs_/;

/** Whether a name is one of those listed; `*` stands for any letters. */
function isListed(name: string, listed: readonly string[]): boolean {
  return listed.some((pattern) => {
    const parts = pattern.split('*');
    if (parts.length === 1) return pattern === name;
    const [first = ''] = parts;
    const last = parts.at(-1)!;
    return (
      name.length >= first.length + last.length &&
      name.startsWith(first) &&
      name.endsWith(last) &&
      parts.every((part) => name.includes(part))
    );
  });
}

/** What was there before anybody consented. */
function early(view: RenderedView, { necessaryCookies = [] }: Brief) {
  const cookies = (view.beforeConsent?.cookies ?? view.cookies).filter(
    (c) => !isListed(c.name, necessaryCookies),
  );
  return { hits: view.hits.filter((h) => !h.afterConsent), cookies };
}

const cookieLine = ({ name, domain, session }: SeenCookie): string =>
  `cookie ${name} of ${domain}${session ? ', until the browser closes' : ''}`;

export const nothingBeforeConsent = defineCheck({
  id: 'verification.nothing-before-consent',
  title: 'Nothing is measured or stored before consent',
  fault: 'Something is measured or stored before consent',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.beforeConsent', 'rendered.cookies', 'rendered.hits'],
  needs: { brief: ['consentScript'], pages: true, rendered: true },
  why: 'A visit that is counted before the question is answered was counted without leave.',
  source: 'common practice',
  messages: { expected: 'no measuring request, and no cookie but the necessary ones, before consent' },
  judge(context) {
    const { brief } = context;
    const isKnown = brief.necessaryCookies !== undefined || brief.notWanted?.necessaryCookies !== undefined;
    return overRendered(context, (views, page) => {
      const all = views.map((view) => early(view, brief));
      const hits = all.flatMap((e) => e.hits);
      const cookies = [...new Map(all.flatMap((e) => e.cookies).map((c) => [c.name, c])).values()];
      const raw = [...new Set([...hits.map((h) => h.url), ...cookies.map(cookieLine)])].join('\n');
      const measuring = hits.find((h) => h.id !== undefined);
      if (measuring)
        return failed(page.url, {
          found: msg('measuring-request', { id: measuring.id, hostname: new URL(measuring.url).hostname }),
          raw,
        });
      const counting = cookies.find((c) => isKnown || COUNTING.test(c.name));
      if (counting) return failed(page.url, { found: msg('cookie', { name: counting.name }), raw });
      // errors and timings are reported by beacons too
      if (hits[0])
        return unsure(page.url, msg('unknown-beacon'), {
          found: msg('beacon', { hostname: new URL(hits[0].url).hostname }),
          raw,
        });
      if (cookies[0])
        return unsure(page.url, msg('necessary-cookies-unknown'), {
          found: msg('cookie', { name: cookies[0].name }),
          raw,
        });
      return passed(page.url);
    });
  },
  recipe: () => ({
    steps:
      'Let the consent script hold back what measures until a visitor has said yes (mostly by its own setting for each script), and write cookies that the site cannot do without into the brief.',
  }),
});
