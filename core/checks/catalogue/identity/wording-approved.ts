import { defineManualCheck } from '#core/checks/kit/check';

export const wordingApproved = defineManualCheck({
  id: 'identity.wording-approved',
  title: 'Name, tagline and texts are approved by the client',
  fault: 'Name, tagline and texts are not approved by the client',
  severity: 'major',
  situations: ['staging'],
  why: 'Only the client knows how their own name is spelt.',
  source: 'common practice',
  attestedForDays: 180,
  how: 'Send the client the wording of home, titles and descriptions, and attest when their answer has come.',
});
