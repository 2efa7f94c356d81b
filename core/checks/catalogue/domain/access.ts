import { defineManualCheck } from '#core/checks/kit/check';

export const access = defineManualCheck({
  id: 'domain.access',
  title: 'The agency can sign in at registrar, DNS operator and host',
  severity: 'major',
  situations: ['staging', 'holding', 'former'],
  source: 'common practice',
  attestedForDays: 90,
  why: 'A password that is missing on the day of the launch moves the launch.',
  how: 'Sign in at all three, also with the second factor, and attest with the date.',
});
