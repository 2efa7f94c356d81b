/** Answers that refuse the visitor instead of giving the page (rule 4 of the catalogue). */
import type { Header } from '#core/facts/evidence';
import { memoize } from '#core/remembering';
import type { PageFacts } from './page-facts';

/**
 * `credentials`: 401 or 407 (RFC 9110 15.5.2) · `forbidden`: 403 · `too-many`: 429 (RFC 6585 4) ·
 * `challenge`: a page that wants proof of a person, whatever its status.
 */
export type RefusalKind = 'credentials' | 'forbidden' | 'too-many' | 'challenge';

/** Common practice: phrases such pages show, lower case. */
const PHRASES =
  /checking (?:that )?(?:your browser|you are (?:a )?(?:human|person)|if the site connection is secure)|(?:verify|prove|confirm) (?:that )?you(?:’|'| a)re (?:a )?(?:human|not a robot|person)|are you (?:a )?(?:human|robot)|enable javascript and cookies to continue|captcha|one moment, please|your browser will be (?:checked|redirected)|unusual (?:traffic|activity) from your/;
const HEADER = /challenge|mitigated|captcha/i;
/** Every answer of a site has the same few headers. */
const namesChallenge = memoize(
  (name: string) => HEADER.test(name) && !/^(?:accept|www|proxy|access-control)/i.test(name),
  2000,
);
/** A challenge is a short page with nowhere else to go; an article about captchas is none. */
const SHORT = 1200,
  FEW_LINKS = 5;
/** Fields that nobody fills in; of the others a challenge has one at most, a form of the site more. */
const UNFILLED = /^(?:hidden|submit|button|reset|image)$/;

/** @field lowered the page's text in lower case, where that is at hand */
export interface Answered {
  status: number;
  headers: readonly Header[];
  facts?: Pick<
    PageFacts,
    'text' | 'textLength' | 'anchors' | 'titles' | 'scripts' | 'forms' | 'headings' | 'metas'
  >;
  lowered?: string;
}

const isShort = ({ facts }: Answered): boolean =>
  !facts || (facts.textLength <= SHORT && facts.anchors.length <= FEW_LINKS);

/** Whether a page has a form of its own to fill in, so that a captcha on it guards that form and not the page. */
const hasOwnForm = ({ facts }: Answered): boolean =>
  facts !== undefined &&
  facts.forms.some((f) => f.fields.filter((field) => !UNFILLED.test(field.type)).length > 1);

/** Whether there is something on a page that goes on by itself, or by a click. */
function goesOn({ facts }: Answered): boolean {
  if (!facts) return false;
  return (
    facts.scripts.length > 0 || facts.forms.length > 0 || facts.metas.some((m) => m.httpEquiv === 'refresh')
  );
}

/**
 * Whether a page wants proof of a person: by a header that says so, or by a short page that says so and has a
 * script or form to get on. With a status below 400 a form with several fields is the site's own.
 */
function isChallenge(answered: Answered): boolean {
  const { status, headers, facts, lowered } = answered;
  if (!isShort(answered)) return false;
  const isRefused = status >= 400;
  if (!isRefused && hasOwnForm(answered)) return false;
  if (headers.some((h) => h[1] !== '' && namesChallenge(h[0]))) return true;
  if (!facts || !(isRefused || goesOn(answered))) return false;
  return (
    PHRASES.test(lowered ?? facts.text.toLowerCase()) ||
    facts.titles.some((t) => PHRASES.test(t.text.toLowerCase()))
  );
}

/** @returns how an answer refuses the visitor, or null when it is an answer like any other */
export function refusalOf(answered: Answered): RefusalKind | null {
  const { status } = answered;
  if (status === 401 || status === 407) return 'credentials';
  if (isChallenge(answered)) return 'challenge';
  if (status === 403) return 'forbidden';
  if (status === 429) return 'too-many';
  return null;
}
