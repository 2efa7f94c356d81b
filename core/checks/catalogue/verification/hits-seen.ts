import { defineManualCheck } from '#core/checks/kit/check';

export const hitsSeen = defineManualCheck({
  id: 'verification.hits-seen',
  title: 'Analytics recorded a test visit',
  severity: 'minor',
  situations: ['live'],
  source: 'common practice',
  attestedForDays: 180,
  why: 'A script that is there may still count nothing.',
  how: 'Open the site with consent given, look at the live view of the analytics, and attest.',
});
