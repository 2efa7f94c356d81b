/** The brief's form: which fields, in which order, how they are typed. */
import type { FieldGroup } from './field-text';

const WANTED = [
  { value: '', title: 'not said' },
  { value: 'wanted', title: 'wanted' },
  { value: 'unwanted', title: 'unwanted' },
] as const;

export const BRIEF_GROUPS: readonly FieldGroup[] = [
  {
    title: 'Who the site is',
    fields: [
      { field: 'name', label: 'Name', kind: 'text', hint: 'as it should stand in titles' },
      { field: 'tagline', label: 'Tagline', kind: 'text' },
      {
        field: 'defaultTitle',
        label: 'Default title',
        kind: 'text',
        hint: 'what a page shows that has no title of its own',
      },
      {
        field: 'defaultDescription',
        label: 'Default description',
        kind: 'text',
        hint: 'what a page shows that has no description of its own',
      },
      {
        field: 'languages',
        label: 'Languages',
        kind: 'list',
        placeholder: 'en-GB, cy',
        hint: 'language tags',
      },
      { field: 'timeZone', label: 'Time zone', kind: 'text', placeholder: 'Europe/London' },
      {
        field: 'contactEmail',
        label: 'Public mail address',
        kind: 'text',
        placeholder: 'hello@kites.example',
      },
      {
        field: 'phone',
        label: 'Phone',
        kind: 'text',
        placeholder: '+44 1632 960101',
        hint: 'with its country code',
      },
      { field: 'privateEmails', label: 'Private mail addresses', kind: 'list', hint: 'must never be shown' },
      { field: 'allowedEmailDomains', label: 'Other mail domains that are fine', kind: 'list' },
      {
        field: 'keyPhrases',
        label: 'Main phrases',
        kind: 'list',
        hint: 'titles and descriptions should carry them',
      },
      {
        field: 'colours',
        label: 'Colours',
        kind: 'colours',
        placeholder: 'main #233a5e',
        hint: 'one a line',
      },
      {
        field: 'profileLinks',
        label: 'Profiles on outside networks',
        kind: 'lines',
        hint: 'whole addresses, one a line',
        wide: true,
      },
    ],
  },
  {
    title: 'Pages',
    fields: [
      {
        field: 'homeMark',
        label: 'Mark of the right home page',
        kind: 'text',
        hint: 'a text on it, or #id, .class',
      },
      { field: 'budgetBytes', label: 'Most bytes for one page', kind: 'number', placeholder: '2500000' },
      {
        field: 'requiredPages',
        label: 'Required pages',
        kind: 'lines',
        placeholder: '/about/',
        hint: 'one a line',
      },
      {
        field: 'hiddenPaths',
        label: 'Pages that stay out of search',
        kind: 'lines',
        placeholder: '/thanks/',
        hint: 'one a line',
      },
      {
        field: 'formerAddresses',
        label: 'Former addresses and where they lead',
        kind: 'moves',
        placeholder: '/old/ -> /new/',
        hint: 'one a line; 410 in place of the new one for a page that is gone on purpose',
        wide: true,
      },
      { field: 'badge', label: 'The host’s badge', kind: 'choice', choices: WANTED },
      { field: 'comments', label: 'Comments', kind: 'choice', choices: WANTED },
      {
        field: 'features',
        label: 'What the site needs of its plan',
        kind: 'list',
        placeholder: 'domain, forms, shop',
      },
      { field: 'crawlers', label: 'Crawlers that matter', kind: 'list', hint: 'beside all of them' },
      { field: 'holding.mark', label: 'Mark of the holding page', kind: 'text' },
      {
        field: 'holding.bypass',
        label: 'Way past the holding page',
        kind: 'text',
        placeholder: '?pass=reed',
      },
    ],
  },
  {
    title: 'Hosts and records',
    fields: [
      {
        field: 'preferredHost',
        label: 'Preferred host',
        kind: 'text',
        placeholder: 'www.kites.example',
        hint: 'with or without www',
      },
      {
        field: 'otherHosts',
        label: 'Other hosts that lead there',
        kind: 'list',
        placeholder: 'kites.example',
      },
      {
        field: 'unusedHosts',
        label: 'Hosts that are not used on purpose',
        kind: 'list',
        placeholder: 'www.kites.example',
        hint: 'with or without www',
      },
      { field: 'stagingHosts', label: 'Staging hosts beside the environments', kind: 'list' },
      { field: 'knownSubdomains', label: 'Other subdomains in use', kind: 'list' },
      {
        field: 'reachedBy',
        label: 'The domain reaches the host by',
        kind: 'choice',
        choices: [
          { value: '', title: 'not said' },
          { value: 'records', title: 'records' },
          { value: 'forwarding', title: 'a permanent forward' },
        ],
      },
      { field: 'forwardTo', label: 'Forward to', kind: 'text' },
      {
        field: 'records',
        label: 'Records the host asked for',
        kind: 'records',
        placeholder: 'kites.example A 192.0.2.10',
        hint: 'one a line: name, type, value',
        wide: true,
      },
      { field: 'currentRecords', label: 'Records of today, before a move', kind: 'records', wide: true },
      { field: 'nameServers', label: 'Name servers', kind: 'list' },
      { field: 'registrar', label: 'Registrar', kind: 'text' },
      {
        field: 'registrationPlan',
        label: 'What is planned for the registration',
        kind: 'text',
        placeholder: 'stays where it is',
        wide: true,
      },
      {
        field: 'mail',
        label: 'Mail under the domain',
        kind: 'choice',
        choices: [
          { value: '', title: 'not said' },
          { value: 'yes', title: 'yes' },
          { value: 'none', title: 'none' },
        ],
      },
      { field: 'dkimSelectors', label: 'DKIM selectors', kind: 'list' },
    ],
  },
  {
    title: 'Tokens, measuring and scripts',
    fields: [
      {
        field: 'tokens',
        label: 'Ownership tokens',
        kind: 'tokens',
        placeholder: 'meta sallow-site-verification abc123',
        hint: 'one a line: place, kind, value',
        wide: true,
      },
      { field: 'analyticsIds', label: 'Analytics IDs', kind: 'list' },
      {
        field: 'consentScript',
        label: 'Script that asks for consent',
        kind: 'text',
        hint: 'a part of its address',
      },
      {
        field: 'consentClick',
        label: 'What visitors click to consent',
        kind: 'text',
        hint: 'the words on it, or a CSS selector',
      },
      {
        field: 'necessaryCookies',
        label: 'Cookies that need no consent',
        kind: 'list',
        hint: 'names; * stands for any letters',
      },
      {
        field: 'scripts',
        label: 'Scripts and where they stand',
        kind: 'scripts',
        placeholder: 'body-end app.js',
        hint: 'one a line',
        wide: true,
      },
      { field: 'allowedScriptHosts', label: 'Hosts that may serve scripts', kind: 'list', wide: true },
    ],
  },
];

/** What the screens call a field of the brief. */
export const briefLabel = (field: string): string =>
  LABELS.get(field) ?? LABELS.get(`${field}.mark`) ?? field;
const LABELS = new Map(BRIEF_GROUPS.flatMap((g) => g.fields).map((f) => [f.field, f.label]));
