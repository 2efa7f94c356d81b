import { defineManualCheck } from '#core/checks/kit/check';
import { formsOf } from './forms';

export const formsArrive = defineManualCheck({
  id: 'delivery.forms-arrive',
  title: 'Mail from every form arrives',
  fault: 'Mail from a form does not arrive',
  severity: 'major',
  situations: ['staging', 'live'],
  source: 'common practice',
  attestedForDays: 90,
  why: 'A form that sends into nothing loses customers without a trace.',
  // each form that was found is attested by itself
  subjects: ({ view }) => formsOf(view.pages).map((f) => f.name),
  how: 'Send each form once, and see the mail at the right person, with the right sender and subject, and not among the spam.',
});
