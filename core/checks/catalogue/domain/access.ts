import { defineManualCheck } from '#core/checks/kit/check';

export const access = defineManualCheck({
  id: 'domain.access',
  title: 'Logins for registrar, DNS operator and host work',
  fault: 'A login for registrar, DNS operator or host does not work',
  severity: 'major',
  situations: ['staging', 'holding', 'former'],
  source: 'common practice',
  attestedForDays: 90,
  why: 'A password that is missing on the day of the launch moves the launch.',
  how: 'Sign in at all three, also with the second factor, and attest with the date.',
});
