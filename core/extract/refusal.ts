/** Answers that refuse the visitor instead of giving the page (rule 4 of the catalogue). */
import type { Header } from '#core/facts/evidence';
import { remembering } from '#core/remembering';
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
const namesChallenge = remembering(
  (name: string) => HEADER.test(name) && !/^(?:accept|www|proxy)/i.test(name),
  2000,
);
/** A challenge is a short page with nowhere else to go; an article about captchas is none. */
const SHORT = 1200,
  FEW_LINKS = 5;

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

/**
 * Whether a page wants proof of a person: by a header that says so, or by a short page that says so and has a
 * script or form to get on.
 */
export function isChallenge({ status, headers, facts, lowered }: Answered): boolean {
  if (headers.some((h) => h[1] !== '' && namesChallenge(h[0]))) return true;
  if (!facts || facts.textLength > SHORT || facts.anchors.length > FEW_LINKS) return false;
  // with 200 more is wanted than a word: something on the page that goes on by itself
  const goesOn =
    status >= 400 ||
    facts.scripts.length > 0 ||
    facts.forms.length > 0 ||
    facts.metas.some((m) => m.httpEquiv === 'refresh');
  return (
    goesOn &&
    (PHRASES.test(lowered ?? facts.text.toLowerCase()) ||
      facts.titles.some((t) => PHRASES.test(t.text.toLowerCase())))
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
