import { defineManualCheck } from '#core/checks/kit/check';

export const renewalOwner = defineManualCheck({
  id: 'domain.renewal-owner',
  title: 'It is written down who pays for the domain, and it renews by itself',
  severity: 'major',
  situations: ['live'],
  source: 'common practice',
  attestedForDays: 365,
  why: 'Domains are lost to expired cards more often than to thieves.',
  how: 'Note the payer and the card’s end in the client’s file, and look that automatic renewal is on at the registrar.',
});
