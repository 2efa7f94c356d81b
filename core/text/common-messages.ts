/** What checks of all sections may say, and that one rests on another. */
import type { MessageValue, Message } from '#core/facts/message';
import { defineMessages } from './messages';

export const commonMessage = defineMessages('kit', {
  'as-expected': 'as expected',
  'not-so': 'not so',
  'some-fail': '{bad} of {all} {unit}: {first}{more, select, yes { …} other {}}',
  failing: '{bad} of {all} {unit}',
  'some-undecided': '{doubts} of {all} {unit}: {first}',
  'all-pass': '{all} of {all} {unit}',
  'nothing-to-look-at': 'no {unit} to look at',
  'rests-on': 'rests on {check}: {reason}',
  'empty-shell': 'an empty shell that scripts fill: nothing to read without rendering',
  'not-yet-attested': 'manual, not yet attested',
  'not-collected-yet': 'this audit did not look at it yet: audit again',
  'no-answer': 'no answer',
  refused: 'the server refused the visitor ({status})',
  status: 'status {status}',
  'home-not-read': 'the home page was not read',
  'no-own-zone': 'the site has no zone of its own',
  'not-asked': 'it was not asked',
  'no-server-answered': 'no name server answered',
  none: 'none',
  'no-title': 'no title',
  'no-icon': 'there is no icon; sharing.favicon says so',
  'no-icon-readable': 'no icon could be read',
  'no-robots-file': 'there is no robots.txt that can be read',
  'not-read': 'it was not read',
  'not-wanted': 'not wanted: {reason}',
  bytes: '{bytes, number} bytes',
  'stand-in': 'it shows what an address that does not exist shows',
  'no-page-read': 'no page was read',
  'not-absolute': 'not absolute: {given}',
  alias: 'an alias',
  noindex: 'noindex',
  'needs-credentials': 'needs credentials',
  'answers-without-key': 'answers {status} without the key',
  'open-to-everybody': 'open to everybody',
  used: 'used',
  'no-page-answered': 'no page answered',
  'leads-to': 'leads to {url}',
  parked: 'a parking or unknown-name page',
  'no-handshake': 'no handshake',
  'no-page': 'no page',
  nothing: 'nothing',
  'server-refused':
    'the server {what, select, challenge {wants proof of a person} other {refused the visitor}} ({status})',
  'noindex-in':
    'noindex in the {inPage, select, yes {page} other {header}}{everyone, select, yes {} other { for {agent}}}',
  'no-such-record': 'no such record',
  'no-mail': 'the domain has no mail; domain.no-mail-closed looks at that',
  'stays-on': 'stays on {host}',
  'not-permanent': 'status {status}, not permanent',
  'the-host': 'the host',
  'error-linked': '{message}{linked, select, yes {, linked from {page}} other {}}',
  'status-linked': '{status}{linked, select, yes {, linked from {page}} other {}}',
  'in-body': 'in the body, where it does not count',
  and: '{first} and {then}',
  'reached-by-forwarding': 'the brief says the site is reached by forwarding',
  together: '{first}; {then}',
});

/** Several things at once, in one sentence. */
export const joinMessages = (all: readonly Message[]): Message =>
  all.reduce((first, then) => commonMessage('together', { first, then }));

/** "a and b and c". */
export const andList = (all: readonly (string | Message)[]): MessageValue =>
  all.reduce((first, then) => commonMessage('and', { first, then }));

/** What is said of a place that has nothing of its own to say. */
export const AS_EXPECTED = commonMessage('as-expected');
export const NOT_SO = commonMessage('not-so');

/** The code of what rests on another check. */
export const RESTS_ON = 'kit/rests-on';

/** Rule 3: undecided, since another check is charged with the cause. */
export const restsOnCheck = (check: string, reason: Message): Message =>
  commonMessage('rests-on', { check, reason });

/** The check that an undecided result rests on, and why; undefined where it stands for itself. */
export function rootOf(said: {
  code?: string;
  data?: Message['data'];
}): { check: string; reason: Message } | undefined {
  return said.code === RESTS_ON ? (said.data as unknown as { check: string; reason: Message }) : undefined;
}

const UNITS = {
  place: ['place', 'places'],
  page: ['page', 'pages'],
  host: ['host', 'hosts'],
  record: ['record', 'records'],
  domain: ['domain', 'domains'],
  token: ['token', 'tokens'],
  picture: ['picture', 'pictures'],
  path: ['path', 'paths'],
  file: ['file', 'files'],
  link: ['link', 'links'],
  line: ['line', 'lines'],
  font: ['font', 'fonts'],
  form: ['form', 'forms'],
  address: ['address', 'addresses'],
  alias: ['alias', 'aliases'],
  answer: ['answer', 'answers'],
  cookie: ['cookie', 'cookies'],
  exchanger: ['exchanger', 'exchangers'],
  folder: ['folder', 'folders'],
  icon: ['icon', 'icons'],
  'mail record': ['mail record', 'mail records'],
  'name server': ['name server', 'name servers'],
  name: ['name', 'names'],
  selector: ['selector', 'selectors'],
  subdomain: ['subdomain', 'subdomains'],
} as const;

/** One of the things that a check looks at. */
export type Unit = keyof typeof UNITS;

const unitMessage = defineMessages(
  'unit',
  Object.fromEntries(
    Object.entries(UNITS).map(([unit, [one, many]]) => [unit, `{n, plural, one {${one}} other {${many}}}`]),
  ) as Record<Unit, string>,
);

/** The word for so many of them. */
export const unitsOf = (n: number, unit: Unit): Message => unitMessage(unit, { n });
