import { handCheck, where } from '#core/checks/kit/check';

export const hitsSeen = handCheck({
  id: 'verification.hits-seen',
  section: 'verification',
  title: 'A visit showed up in the analytics',
  severity: 'minor',
  situations: where('L'),
  source: 'common practice',
  attestedForDays: 180,
  why: 'A script that is there may still count nothing.',
  how: 'Open the site with consent given, look at the live view of the analytics, and attest.',
});
