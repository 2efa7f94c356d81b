import { handCheck, where } from '#core/checks/kit/check';

export const access = handCheck({
  id: 'domain.access',
  section: 'domain',
  title: 'The agency can sign in at registrar, DNS operator and host',
  severity: 'major',
  situations: where('SHF'),
  source: 'common practice',
  attestedForDays: 90,
  why: 'A password that is missing on the day of the launch moves the launch.',
  how: 'Sign in at all three, also with the second factor, and attest with the date.',
});
export const renewalOwner = handCheck({
  id: 'domain.renewal-owner',
  section: 'domain',
  title: 'It is written down who pays for the domain, and it renews by itself',
  severity: 'major',
  situations: where('L'),
  source: 'common practice',
  attestedForDays: 365,
  why: 'Domains are lost to expired cards more often than to thieves.',
  how: 'Note the payer and the card’s end in the client’s file, and look that automatic renewal is on at the registrar.',
});
export const transferReady = handCheck({
  id: 'domain.transfer-ready',
  section: 'domain',
  title: 'The move of the domain is prepared',
  severity: 'major',
  situations: where('SHF'),
  source: 'RFC 5730; RFC 5731; common practice',
  attestedForDays: 14,
  why: 'Codes run out, and locks after a change last for weeks.',
  how: 'Where the domain moves: unlocked, transfer code at hand, name servers noted. Where it stays: attest that nothing is to be done.',
});
