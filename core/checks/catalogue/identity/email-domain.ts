import { registrableDomain } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed, untested } from '#core/checks/kit/judgement';
import { mailDomain } from '#core/checks/view/mail-addresses';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.email-domain', {
  'preferred-host-unknown': 'the brief does not say which host is the preferred one',
});

export const emailDomain = defineCheck({
  id: 'identity.email-domain',
  title: 'Contact address is on the client’s own domain',
  fault: 'Contact address is on another domain',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { brief: ['contactEmail'] },
  why: 'An address at a free mail provider looks like a hobby, and its reputation is not the client’s to care for.',
  source: 'common practice; Public Suffix List',
  judge(context) {
    const { brief } = context;
    if (!brief.preferredHost) return untested(msg('preferred-host-unknown'), 'preferredHost');
    const own = registrableDomain(brief.preferredHost) ?? brief.preferredHost;
    const domain = mailDomain(brief.contactEmail);
    const allowed = [own, ...(brief.allowedEmailDomains ?? [])];
    const good = allowed.some((a) => domain === a || domain.endsWith(`.${a}`));
    return overSite(
      context,
      (good ? passed : failed)(brief.contactEmail, {
        found: verbatim(brief.contactEmail),
        ...(good ? {} : { adopt: { field: 'allowedEmailDomains', how: 'add', value: domain } as const }),
      }),
      { expected: `an address at ${allowed.join(' or ')}` },
    );
  },
  recipe: ({ brief }) => ({
    steps: `Ask the client for an address on ${brief.preferredHost ?? 'their own domain'}, or note the other domain in the brief as allowed.`,
  }),
});
