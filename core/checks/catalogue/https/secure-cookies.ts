import { hostOf } from '#core/extract/address';
import { headerValues } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.secure-cookies', {
  lacks:
    '{open, select, crossSite {SameSite=None without Secure} yes {without Secure} other {without HttpOnly}}{open, select, no {} other {{readable, select, yes { and HttpOnly} other {}}}}',
  'as-it-should-be': 'as it should be',
});

export interface Cookie {
  name: string;
  secure: boolean;
  httpOnly: boolean;
  sameSite?: string;
  raw: string;
}

/**
 * Reads a Set-Cookie value (RFC 6265 5.2): attributes in any order and case, values ignored where they need
 * none. The value itself is left out of what is shown.
 */
export function readCookie(value: string): Cookie | undefined {
  const [pair = '', ...attributes] = value.split(';');
  const name = pair.split('=')[0]!.trim();
  if (!name || !pair.includes('=')) return undefined;
  const of = new Map(
    attributes.map((a): [string, string] => {
      const [k = '', v = ''] = a.split('=');
      return [k.trim().toLowerCase(), v.trim()];
    }),
  );
  return {
    name,
    secure: of.has('secure'),
    httpOnly: of.has('httponly'),
    ...(of.has('samesite') ? { sameSite: of.get('samesite')!.toLowerCase() } : {}),
    raw: `Set-Cookie: ${name}=…;${attributes.join(';')}`,
  };
}
/**
 * Names of cookies that hold a visitor's session (common practice); tokens against forgery are read by
 * scripts on purpose.
 */
const SESSION =
  /sess|(?:^|[^a-z0-9])s?sid(?:$|[^a-z0-9])|auth(?!or)|log(?:ged)?[-_]?(?:in|on)|jwt|remember|(?:^|[^a-z0-9])(?:access|refresh|id|user|api|bearer)?[-_]?token(?:$|[^a-z0-9])|(?:access|refresh|bearer)token|identity|passport|^cf(?:id|token)$|aspnetcore\.cookies/i;
/** "PHPSID", "userSid": a word of its own by its capitals. */
const SID = /[A-Z]SID$|[a-z]Sid$|^Sid$/;
const FORGERY = /csrf|xsrf|forgery/i;

/** Whether a cookie holds a visitor's session, by its name. */
export const isSessionLike = (name: string): boolean =>
  (SESSION.test(name) || SID.test(name)) && !FORGERY.test(name);

export const secureCookies = defineCheck({
  id: 'https.secure-cookies',
  title: 'Cookies are Secure, session cookies HttpOnly',
  fault: 'A cookie lacks Secure or HttpOnly',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A session cookie without these words can be taken over on any open network.',
  source: 'RFC 6265 4.1.2 and its revision (from memory)',
  messages: {
    expected: 'Secure, and HttpOnly for sessions',
    unit: 'cookie',
    none: 'the site sets no cookies',
  },
  judge(context) {
    const { view, evidence } = context;
    const read = new Set<string>(),
      cookies = new Map<string, { cookie: Cookie; url: string }>();
    for (const page of evidence.pages) {
      for (const hop of page.chain.hops) {
        const values = headerValues(hop, 'set-cookie');
        if (!values.length || !hop.url.startsWith('https:') || !view.siteHosts.has(hostOf(hop.url) ?? ''))
          continue;
        for (const value of values) {
          // every page may set the same one
          if (read.has(value)) continue;
          read.add(value);
          const cookie = readCookie(value);
          if (cookie && !cookies.has(cookie.raw)) cookies.set(cookie.raw, { cookie, url: hop.url });
        }
      }
    }
    return overPlaces(
      context,
      [...cookies.values()].map(({ cookie: c, url }) => {
        const open = c.secure ? 'no' : c.sameSite === 'none' ? 'crossSite' : 'yes';
        const readable = isSessionLike(c.name) && !c.httpOnly ? 'yes' : 'no';
        const isBad = open !== 'no' || readable === 'yes';
        return (isBad ? failed : passed)(`${c.name} at ${url}`, {
          found: isBad ? msg('lacks', { open, readable }) : msg('as-it-should-be'),
          raw: c.raw,
        });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Set the words in the application’s or plug-in’s cookie settings.',
    paste: failedPlaces(finding, 5).map((p) => ({
      label: p.place,
      text: `${p.raw}${p.data?.open === 'no' ? '' : '; Secure'}${p.data?.readable === 'yes' ? '; HttpOnly' : ''}`,
    })),
  }),
});
