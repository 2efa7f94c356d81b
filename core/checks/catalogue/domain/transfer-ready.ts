import { defineManualCheck } from '#core/checks/kit/check';

export const transferReady = defineManualCheck({
  id: 'domain.transfer-ready',
  title: 'Domain transfer is prepared',
  fault: 'Domain transfer is not prepared',
  severity: 'major',
  situations: ['staging', 'holding', 'former'],
  source: 'RFC 5730; RFC 5731; common practice',
  attestedForDays: 14,
  why: 'Codes run out, and locks after a change last for weeks.',
  how: 'Where the domain moves: unlocked, transfer code at hand, name servers noted. Where it stays: attest that nothing is to be done.',
});
