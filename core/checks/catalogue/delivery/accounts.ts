import { defineManualCheck } from '#core/checks/kit/check';

export const accounts = defineManualCheck({
  id: 'delivery.accounts',
  title: 'Default accounts and passwords are gone',
  fault: 'A default account or password is left',
  severity: 'major',
  situations: ['staging', 'live'],
  source: 'common practice',
  attestedForDays: 180,
  why: 'Guessing “admin” is where every attack begins.',
  how: 'Look that no default password works, the administrator is not called admin, sign-up is closed, and a reset mail arrives.',
});
