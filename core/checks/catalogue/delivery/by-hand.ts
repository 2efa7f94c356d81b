/** The checks of this section that only a person can do. */
import { handCheck, where, type Check } from '#core/checks/kit/check';
import { formsOf } from './forms';

const backupBase = handCheck({
  id: 'delivery.backup',
  section: 'delivery',
  title: 'A fresh backup exists and can be restored',
  severity: 'major',
  situations: where('SL'),
  source: 'common practice',
  attestedForDays: 7,
  why: 'A backup that nobody has ever restored is a hope.',
  how: 'Make a backup at the host, note where it lies and how long it is kept, and look that the way to restore it is known.',
});
/** The host's own habit stands beside it. */
export const backup: Check = {
  ...backupBase,
  recipe: (context, finding) => {
    const base = backupBase.recipe(context, finding);
    return context.profile.backups
      ? { steps: `${base.steps} ${context.profile.name} keeps backups: ${context.profile.backups}.` }
      : base;
  },
};
const formsBase = handCheck({
  id: 'delivery.forms-arrive',
  section: 'delivery',
  title: 'Mail from every form arrives',
  severity: 'major',
  situations: where('SL'),
  source: 'common practice',
  attestedForDays: 90,
  why: 'A form that sends into nothing loses customers without a trace.',
  how: 'Send each form once, and see the mail at the right person, with the right sender and subject, and not among the spam.',
});
/** Each form that was found is attested by itself. */
export const formsArrive: Check = {
  ...formsBase,
  subjects: ({ view }) => formsOf(view.pages).map((f) => f.name),
};
export const accounts = handCheck({
  id: 'delivery.accounts',
  section: 'delivery',
  title: 'Default accounts and passwords are gone',
  severity: 'major',
  situations: where('SL'),
  source: 'common practice',
  attestedForDays: 180,
  why: 'Guessing “admin” is where every attack begins.',
  how: 'Look that no default password works, the administrator is not called admin, sign-up is closed, and a reset mail arrives.',
});
export const smallScreen = handCheck({
  id: 'delivery.small-screen',
  section: 'delivery',
  title: 'Looked through at phone width',
  severity: 'major',
  situations: where('SL'),
  source: 'common practice',
  attestedForDays: 90,
  why: 'More than half of the visitors see it there and nowhere else.',
  how: 'Open every page at phone width and press every button.',
});
export const clientApproval = handCheck({
  id: 'delivery.client-approval',
  section: 'delivery',
  title: 'The client has said yes in writing',
  severity: 'blocker',
  situations: where('S'),
  source: 'common practice',
  attestedForDays: 30,
  why: 'A launch without a written yes is an argument later.',
  how: 'Show the client this state, and attest with the date and place of their answer.',
});
export const upkeep = handCheck({
  id: 'delivery.upkeep',
  section: 'delivery',
  title: 'The monthly look was done',
  severity: 'major',
  situations: where('L'),
  source: 'common practice',
  attestedForDays: 31,
  why: 'Sites age while nobody looks: updates wait, jobs stop, disks fill.',
  how: 'Updates done, scheduled jobs run, the server’s fault log clean, storage with room. Attest with what was done.',
});
