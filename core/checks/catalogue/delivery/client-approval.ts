import { defineManualCheck } from '#core/checks/kit/check';

export const clientApproval = defineManualCheck({
  id: 'delivery.client-approval',
  title: 'Client has approved the site',
  severity: 'blocker',
  situations: ['staging'],
  source: 'common practice',
  attestedForDays: 30,
  why: 'A launch without a written yes is an argument later.',
  how: 'Show the client this state, and attest with the date and place of their answer.',
});
