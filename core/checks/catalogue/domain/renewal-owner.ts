import { defineManualCheck } from '#core/checks/kit/check';

export const renewalOwner = defineManualCheck({
  id: 'domain.renewal-owner',
  title: 'Renewal is automatic and its payer written down',
  fault: 'Renewal is not automatic or its payer not written down',
  severity: 'major',
  situations: ['live'],
  source: 'common practice',
  attestedForDays: 365,
  why: 'Domains are lost to expired cards more often than to thieves.',
  how: 'Note the payer and the card’s end in the client’s file, and look that automatic renewal is on at the registrar.',
});
