/** The run sheet that every agency begins with. All of it is common practice unless a standard is named. */
import type { LaunchTemplate, Proof, TemplateStep } from '#core/facts/launch';

const live = (...checks: string[]): Proof[] =>
  checks.map((check) => ({ kind: 'check', environment: 'live', check }));
const before = (...checks: string[]): Proof[] =>
  checks.map((check) => ({ kind: 'check', environment: 'before', check }));

type Rest = Partial<
  Pick<TemplateStep, 'after' | 'proofs' | 'where' | 'who' | 'when' | 'back' | 'paste' | 'minutes' | 'isLong'>
>;
type Steps = (
  phase: TemplateStep['phase'],
) => (id: string, offsetHours: number, title: string, what: string, rest?: Rest) => TemplateStep;

const stepsIn: Steps =
  (phase) =>
  (id, offsetHours, title, what, rest = {}) => ({
    id,
    title,
    what,
    phase,
    offsetHours,
    when: 'always',
    who: 'agency',
    after: [],
    proofs: [],
    ...rest,
  });

const DAY = 24;
const week = stepsIn('week before');
const eve = stepsIn('day before');
const launch = stepsIn('launch');
const afterwards = stepsIn('right after');
const days = stepsIn('days after');

/** What has to be changed before anything of the live address is looked at as the new site. */
const SWITCHES = ['records-changed', 'forward-set', 'name-servers-moved'];

const WEEK_BEFORE: TemplateStep[] = [
  week(
    'accounts',
    -7 * DAY,
    'Accounts are known, and somebody can get in',
    'Write down registrar, DNS operator, host and mailboxes: under whose name each is, who can get in, who pays. Sign in to each once.',
    { proofs: [{ kind: 'accounts' }], minutes: 20 },
  ),
  week(
    'plan-fits',
    -7 * DAY,
    'The hosting plan covers the site',
    'Compare the features that the site uses with the plan that is paid for, and upgrade before the launch, not during it.',
    { isLong: true, where: 'host', proofs: before('delivery.plan-fits'), when: 'staging', minutes: 15 },
  ),
  week(
    'registration',
    -7 * DAY,
    'The domain is on no hold, and its renewal is secured',
    'Look at the registration: no hold, no deletion under way, renewed automatically, and who pays is written down.',
    {
      where: 'registrar',
      who: 'client',
      proofs: live('domain.registration-status', 'domain.registration-days'),
      minutes: 10,
    },
  ),
  week(
    'transfer',
    -7 * DAY,
    'The domain is unlocked and its transfer code at hand',
    'Unlock the domain, ask for the transfer code, and see that the holder’s mail address is one that is read.',
    {
      when: 'transfers',
      where: 'registrar',
      who: 'client',
      proofs: before('domain.transfer-ready'),
      back: 'Lock the domain again.',
      minutes: 15,
    },
  ),
  week(
    'new-zone',
    -5 * DAY,
    'Every record exists at the new DNS operator',
    'Put the whole zone there first, mail and tokens too, and compare name by name before anything is moved.',
    { when: 'moves', where: 'dns', paste: 'zone', minutes: 30 },
  ),
  week(
    'former-addresses',
    -5 * DAY,
    'Former addresses are listed and mapped',
    'List what the former site answers while it still runs, and say for each where it leads from now on.',
    { when: 'replaces', where: 'host', paste: 'redirects', minutes: 40 },
  ),
  week(
    'ttl-lowered',
    -3 * DAY,
    'TTLs of the records that change are lowered',
    'Set the TTL to 300 seconds, values unchanged; what proves it says how low is enough. It helps only once the old TTL has run out.',
    {
      when: 'addressed',
      where: 'dns',
      proofs: live('domain.ttl-for-launch'),
      paste: 'lowered',
      back: 'Set the TTLs as they were.',
      minutes: 10,
    },
  ),
  week(
    'mail-carried',
    -3 * DAY,
    'Mail records are known and stay',
    'MX, SPF, DKIM and DMARC stand in the plan as records to keep, or at the new operator as they are today.',
    { when: 'mail', where: 'dns', proofs: live('domain.mail-survives'), minutes: 10 },
  ),
  week(
    'ds',
    -3 * DAY,
    'DS is removed, or fits the new name servers',
    'A DS that does not fit makes the domain vanish for everybody who validates (RFC 6781 4.3.5): take it out at least its TTL before the move.',
    {
      when: 'moves',
      where: 'registrar',
      proofs: live('domain.ds-fits'),
      back: 'Set the DS again.',
      minutes: 10,
    },
  ),
];

const DAY_BEFORE: TemplateStep[] = [
  eve(
    'no-blockers',
    -DAY,
    'No blocker is open',
    'Everything that would hold the site back is mended or accepted by two people.',
    { when: 'staging', proofs: [{ kind: 'gate' }] },
  ),
  eve(
    'forms',
    -DAY,
    'Mail of every form arrives at the right address',
    'Send each form once, and ask the client whether it arrived.',
    {
      where: 'site',
      when: 'staging',
      proofs: before('delivery.forms-arrive', 'delivery.form-sender'),
      minutes: 15,
    },
  ),
  eve(
    'default-accounts',
    -DAY,
    'Default accounts and passwords are gone',
    'Delete or rename what the system came with, and change passwords that were sent by mail.',
    { where: 'site', when: 'staging', proofs: before('delivery.accounts'), minutes: 10 },
  ),
  eve(
    'measuring',
    -DAY,
    'Measuring ID and consent are the client’s own',
    'The ID is this client’s, and nothing is measured before consent.',
    {
      when: 'measured',
      where: 'site',
      proofs: before('verification.analytics-own', 'verification.nothing-before-consent'),
      minutes: 10,
    },
  ),
  eve(
    'client-yes',
    -DAY,
    'The client has said yes to what will go live',
    'Publish the report, send the link, and wait for the yes. A change afterwards needs a new one.',
    { who: 'client', when: 'staging', proofs: before('delivery.client-approval') },
  ),
  eve(
    'backup',
    -12,
    'A backup exists, and was restored once',
    'Back up the running site and the new one, outside of the host, and restore it once to see that it can be.',
    { where: 'host', proofs: before('delivery.backup'), minutes: 30 },
  ),
  eve(
    'client-warned',
    -12,
    'The client knows when it happens',
    'Say when the change is made, until when some visitors still see the old site, and whom to call.',
    { isLong: true, paste: 'note', minutes: 5 },
  ),
];

const LAUNCH: TemplateStep[] = [
  launch(
    'published',
    -1,
    'Published after the last change',
    'Publish once more, to the hosts that were meant and to no other, and empty the caches.',
    { isLong: true, where: 'site', after: ['client-yes'], minutes: 10 },
  ),
  launch(
    'host-told',
    -0.5,
    'The host is told the domain',
    'Add the domain, with and without www, at the host. Without it visitors meet its “unknown site”.',
    {
      where: 'host',
      after: ['plan-fits'],
      proofs: [{ kind: 'told' }],
      paste: 'names',
      back: 'Take the domain out at the host.',
      minutes: 10,
    },
  ),
  launch(
    'records-changed',
    0,
    'The records are changed',
    'Set them at the operator of the name servers: both ends have to know, or visitors meet a parking page.',
    {
      when: 'records',
      where: 'dns',
      after: ['ttl-lowered', 'mail-carried', 'host-told', 'backup', 'client-yes'],
      proofs: [{ kind: 'records' }],
      paste: 'wanted',
      back: 'Set the records as they were.',
      minutes: 10,
    },
  ),
  launch(
    'forward-set',
    0,
    'The domain forwards permanently',
    'Where the A record is locked, set a permanent forward (301 or 308) to the preferred host at the registrar.',
    {
      when: 'forwarding',
      where: 'registrar',
      after: ['host-told', 'backup', 'client-yes'],
      paste: 'forward',
      back: 'Take the forward out.',
      minutes: 10,
    },
  ),
  launch(
    'name-servers-moved',
    0,
    'The name servers are moved',
    'Set the new ones at the registrar. The old ones keep answering until the last cache has let go.',
    {
      when: 'moves',
      where: 'registrar',
      after: ['new-zone', 'ds', 'host-told', 'backup', 'client-yes'],
      paste: 'servers',
      back: 'Set the old name servers again; leave the old zone as it is until then.',
      minutes: 10,
    },
  ),
  launch(
    'set-launched',
    0.1,
    'The site is set to launched',
    'From then on the live address is judged as live: open to search engines, and everything before it closed.',
    { after: SWITCHES, proofs: [{ kind: 'stage' }], back: 'Set the stage to pre-launch.' },
  ),
  launch(
    'certificate',
    0.5,
    'The certificate covers every name',
    'Ask the host for one once the records lead there; some issue it within minutes, some within a day.',
    {
      where: 'host',
      after: ['set-launched'],
      proofs: live('https.answers', 'https.certificate-valid', 'https.certificate-names'),
      minutes: 15,
    },
  ),
  launch(
    'holding-off',
    0.5,
    'The holding page is off',
    'Take it down at the host, and the switch that put it up.',
    {
      where: 'host',
      after: ['set-launched'],
      proofs: live('indexing.no-holding-page'),
      back: 'Put the holding page up again.',
      minutes: 5,
    },
  ),
];

const RIGHT_AFTER: TemplateStep[] = [
  afterwards(
    'connected',
    1,
    'Every name shows the site',
    'Domain and host know of each other: no parking page, no unknown site, at every address.',
    {
      after: ['set-launched'],
      where: 'host',
      proofs: live('domain.connected', 'domain.every-address', 'identity.home-page'),
      minutes: 5,
    },
  ),
  afterwards(
    'one-host',
    1,
    'Every other name redirects to the preferred host',
    'From http to https and from the other host, permanently, with path and query.',
    {
      after: ['certificate'],
      where: 'host',
      proofs: live(
        'domain.preferred-host',
        'https.http-redirects',
        'https.permanent-redirects',
        'domain.path-kept',
      ),
      minutes: 10,
    },
  ),
  afterwards(
    'let-in',
    1,
    'Search engines may come in',
    'Switch “keep search engines out” off on live. Look at the effect, not at the wording of the switch.',
    {
      after: ['set-launched'],
      where: 'site',
      proofs: live('indexing.let-in', 'indexing.robots-allows'),
      back: 'Keep them out again while something is wrong.',
      minutes: 5,
    },
  ),
  afterwards(
    'staging-closed',
    1,
    'Staging keeps search engines out',
    'A login, or noindex: the copy is not to stand in the listings beside the site.',
    {
      when: 'staging',
      after: ['set-launched'],
      where: 'host',
      proofs: before('indexing.staging-closed'),
      minutes: 5,
    },
  ),
  afterwards(
    'own-addresses',
    1,
    'Canonical, sitemap and share addresses are on the live name',
    'What still names staging sends search engines and shared links there.',
    {
      after: ['connected'],
      where: 'site',
      proofs: live(
        'indexing.canonical-host',
        'indexing.sitemap-found',
        'indexing.no-staging-links',
        'sharing.address-agrees',
      ),
      minutes: 10,
    },
  ),
  afterwards(
    'former-redirected',
    1,
    'Former addresses redirect to their new pages',
    'Put the redirects in, and try each.',
    {
      when: 'former',
      after: ['connected'],
      where: 'host',
      proofs: live('indexing.old-addresses'),
      paste: 'redirects',
      minutes: 15,
    },
  ),
  afterwards(
    'tokens',
    1,
    'Verification tokens are in place',
    'They are lost with a new zone or a new template more often than not.',
    {
      when: 'tokens',
      after: ['connected'],
      where: 'dns',
      proofs: live('verification.tokens-present'),
      minutes: 5,
    },
  ),
  afterwards(
    'counted',
    1,
    'A visit is counted, once',
    'Open the site, consent, and see that one visit arrives.',
    {
      when: 'measured',
      after: ['connected'],
      where: 'site',
      proofs: live('verification.analytics-present', 'verification.analytics-once'),
      minutes: 5,
    },
  ),
  afterwards(
    'caches',
    1,
    'Caches hand out the current page',
    'Empty the host’s cache and the one before it.',
    { isLong: true, after: ['connected'], where: 'host', proofs: live('delivery.fresh'), minutes: 5 },
  ),
  afterwards(
    'as-built',
    1,
    'What is served is what was built',
    'Changes saved after the last publish are not live; files of another folder may be.',
    {
      when: 'build',
      after: ['connected'],
      where: 'host',
      proofs: live('delivery.matches-build'),
      minutes: 5,
    },
  ),
  afterwards(
    'forms-again',
    2,
    'Forms are sent once more, on live',
    'Recipients and keys often hang on the host name.',
    { after: ['connected'], where: 'site', proofs: live('delivery.forms-arrive'), minutes: 10 },
  ),
  afterwards(
    'looked-at',
    2,
    'Looked at from outside on both screens',
    'On a phone and on a desktop, from another network than the office’s.',
    {
      isLong: true,
      after: ['connected'],
      proofs: live('delivery.small-screen', 'delivery.no-server-errors'),
      minutes: 15,
    },
  ),
  afterwards('mail-works', 2, 'Mail still arrives', 'Send one from outside, and have it answered.', {
    when: 'mail',
    after: SWITCHES,
    where: 'mail',
    proofs: [{ kind: 'mail' }],
    who: 'client',
    minutes: 5,
  }),
  afterwards(
    'client-told',
    2,
    'The client is told',
    'That it is live, what they may still see for a while, and what comes next.',
    { isLong: true, after: ['connected'], paste: 'note', minutes: 5 },
  ),
];

const DAYS_AFTER: TemplateStep[] = [
  days(
    'holds',
    2 * DAY,
    'It holds everywhere',
    'Every name server and resolver asked gives the new answer, and every name the right site.',
    { after: SWITCHES, proofs: [{ kind: 'watch' }] },
  ),
  days('ttl-raised', 2 * DAY, 'TTLs are raised again', 'To an hour or more, once it holds.', {
    isLong: true,
    when: 'addressed',
    after: ['holds'],
    where: 'dns',
    minutes: 5,
  }),
  days('relocked', 3 * DAY, 'The domain is locked again', 'Set the transfer lock.', {
    isLong: true,
    after: ['holds'],
    where: 'registrar',
    who: 'client',
    proofs: live('domain.registration-lock'),
    minutes: 5,
  }),
  days(
    'handed-in',
    DAY,
    'The sitemap is handed in',
    'To the search engines that the client’s visitors use.',
    {
      isLong: true,
      after: ['let-in', 'own-addresses'],
      where: 'search',
      proofs: live('indexing.handed-in'),
      minutes: 10,
    },
  ),
  days(
    'staging-ended',
    7 * DAY,
    'Staging is ended, or its end is in the calendar',
    'Delete it, or write down when it lapses.',
    {
      when: 'staging ends',
      after: ['holds'],
      where: 'host',
      proofs: before('delivery.staging-lifetime'),
      minutes: 5,
    },
  ),
  days(
    'ends-noted',
    3 * DAY,
    'The ends of registration and certificate are in the calendar',
    'Export this sheet’s calendar, or leave the nightly schedule on.',
    {
      isLong: true,
      after: ['holds'],
      proofs: live('domain.registration-days', 'https.certificate-days'),
      minutes: 5,
    },
  ),
  days(
    'old-ended',
    14 * DAY,
    'The old host is cancelled',
    'After two weeks, with a last backup, and only once nothing of mail or subdomains rests on it.',
    {
      when: 'replaces',
      after: ['holds', 'certificate', 'connected', 'mail-works'],
      where: 'host',
      who: 'client',
      proofs: [{ kind: 'left' }],
      minutes: 15,
    },
  ),
];

export const BUILT_IN_TEMPLATE: LaunchTemplate = {
  steps: [...WEEK_BEFORE, ...DAY_BEFORE, ...LAUNCH, ...RIGHT_AFTER, ...DAYS_AFTER],
};
