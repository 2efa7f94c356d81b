/** What the registry says of the site's domain, or why it says nothing: the same for all checks that ask it. */
import type { Evidence, RegistrationEvidence } from '#core/facts/evidence';
import type { Judgement } from '#core/facts/finding';
import { cantTell, inapplicable } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('domain.registration', {
  'no-registrable-domain': 'the site has no registrable domain of its own',
  'no-server-known': 'no registration server is known for this domain',
});

/** @returns the registration, or what a check says without one */
export function registrationOf(
  { registration, target }: Evidence,
  expected: string | undefined,
): RegistrationEvidence | Judgement {
  if (!target.registrable) return inapplicable(msg('no-registrable-domain'));
  if (!registration?.served) return cantTell(msg('no-server-known'), { expected });
  return registration.error ? cantTell(verbatim(registration.error), { expected }) : registration;
}

export const isRegistration = (r: RegistrationEvidence | Judgement): r is RegistrationEvidence =>
  'status' in r;
