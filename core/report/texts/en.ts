/** The report in English. */
import { quantity } from '#core/text/quantity';
import { CHECKS_EN } from './checks-en';
import type { ReportTexts } from './report-texts';

export const EN: ReportTexts = {
  name: 'English',
  checks: CHECKS_EN,
  sections: {
    identity: 'Who you are',
    https: 'Safe connection',
    domain: 'Your address',
    indexing: 'Being found',
    verification: 'Counting visits',
    metadata: 'Search results',
    sharing: 'Shared links',
    delivery: 'Working',
  },
  parts: {
    letter: 'Letter',
    standing: 'How your site stands',
    changed: 'What has changed',
    open: 'What is open, and who does what',
    left: 'Left as it is, on purpose',
    pictures: 'How it looks',
    manual: 'Looked through by a person',
  },
  nothing: {
    open: 'Nothing is open.',
    changed: 'Nothing has changed.',
    firstReport: 'This is the first report.',
    pictures: 'No pictures were taken this time.',
  },
  report: 'Report on your site',
  lookedAt: 'Looked at',
  page: 'Page',
  edition: (n) => `Edition ${n}`,
  verdict: (gate, blockers, launched) => {
    if (gate === 'held')
      return launched
        ? `${quantity(blockers, 'thing has', 'things have')} to be put right now.`
        : `${quantity(blockers, 'thing stands', 'things stand')} in the way of the launch.`;
    if (gate === 'undecided')
      return launched
        ? 'Nothing that is known is broken; some of it still has to be looked at.'
        : 'Nothing that is known stands in the way; some of it still has to be looked at.';
    return launched
      ? 'Everything that matters most is in order.'
      : 'Nothing stands in the way of the launch.';
  },
  openCount: (others, blockers) =>
    blockers
      ? `Beside ${blockers === 1 ? 'it' : 'them'} ${quantity(others, 'thing is', 'things are')} open.`
      : `${quantity(others, 'thing is', 'things are')} open.`,
  undecidedCount: (n) => `${quantity(n, 'thing', 'things')} could not be told from outside.`,
  waitingCount: (n) => `${quantity(n, 'thing is', 'things are')} still to be looked through by a person.`,
  smallOpen: (n) => `${quantity(n, 'smaller thing is', 'smaller things are')} open as well.`,
  onlySmallOpen: (n) => `Only ${quantity(n, 'smaller thing is', 'smaller things are')} open.`,
  bandLegend:
    'Whole cloth is in order, torn cloth is broken, hatched cloth could not be told or is still to be looked at.',
  mended: 'Put right',
  fresh: 'New',
  since: (date) => `Compared with the report of ${date}.`,
  sinceFirst: (date) => `Compared with our first look on ${date}.`,
  found: 'Found',
  who: 'Who',
  nobodyYet: 'not given to anybody yet',
  by: 'By',
  onPages: (n) => `in ${quantity(n, 'place')}`,
  gravity: { blocker: 'stands in the way', major: 'matters', minor: 'small' },
  states: { 'in progress': 'being worked on', 'to verify': 'done, to be looked at again' },
  desktop: 'on a computer',
  phone: 'on a phone',
  done: 'done',
  notYet: 'still to be done',
  shared: {
    forYou: 'This page is for',
    somebodyElse: 'somebody else',
    passphrase: 'Passphrase',
    open: 'Open the report',
    asPdf: 'Save as PDF',
    yesTitle: 'Your yes',
    yesText: (environment) =>
      `If everything you see is as you want it, say yes. Your yes is to exactly this state (${environment}); if it changes afterwards, we have to ask again.`,
    yesNote: 'Anything you would like to add',
    sayYes: 'I say yes to this',
    saidYes: (date) => `You said yes to this on ${date}.`,
    stale: 'The site has changed since your yes.',
    withdrawYes: 'Take the yes back',
    withdrawn: (date) => `You took your yes back on ${date}.`,
    newer: 'Your yes was to an earlier edition. This one asks again.',
    remarksTitle: 'Your remarks',
    remarkAbout: 'What is it about?',
    whole: 'The site as a whole',
    finding: 'Something in the report',
    pageAbout: 'A page',
    remarkText: 'Your remark',
    regionHint:
      'If you like, mark on the picture what you mean: press and draw, or with the keyboard move by the arrow keys and change its size with Shift. Words alone are enough.',
    regionMarked: 'Marked on the picture',
    clearRegion: 'Take the mark away',
    send: 'Send',
    sent: 'Thank you, your remark has arrived.',
    noRemarks: 'You have made no remarks yet.',
    remarkState: {
      waiting: 'arrived',
      answered: 'answered',
      taken: 'will be done',
      'in progress': 'being worked on',
      'to verify': 'done, to be looked at again',
      done: 'done',
    },
    ask: 'Say something about this',
    waitsForYou: 'This waits for you',
    reason: 'Why',
    cancel: 'Cancel',
  },
};
