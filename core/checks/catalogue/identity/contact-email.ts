import { registrableDomain } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed, unsure } from '#core/checks/kit/judgement';
import { mailDomain, mailKey, OBFUSCATED } from '#core/checks/view/mail-addresses';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('identity.contact-email', {
  'foreign-mail-link': 'a mail link to {address}',
  'address-obfuscated': 'an address is spelt out or hidden, so it cannot be compared',
  'other-addresses': 'only {list}',
  'no-mail-address': 'no mail address',
});

export const contactEmail = defineCheck({
  id: 'identity.contact-email',
  title: 'Contact address stands on the home or contact page',
  fault: 'Contact address is missing or another one',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['jsonLd'],
  needs: { brief: ['contactEmail'], pages: true },
  why: 'A visitor who cannot write to the client is lost, and a template’s address sends their mail to a stranger.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      `${brief.contactEmail} on the home or contact page, no mail link to another domain`,
  },
  judge(context) {
    const { brief, view } = context;
    const pages = view.pages.filter(
      (p) => p === view.home || /contact|kontakt|about|imprint|impressum/i.test(p.url),
    );
    const place = pages.map((p) => p.url).join(', ') || view.evidence.target.url;
    const wantedAddress = mailKey(brief.contactEmail);
    const allowed = new Set(
      [mailDomain(wantedAddress), ...(brief.allowedEmailDomains ?? [])].map((d) => registrableDomain(d) ?? d),
    );
    const all = pages.flatMap((p) => p.mailAddresses);
    const isAllowed = (domain: string) =>
      allowed.has(domain) || allowed.has(registrableDomain(domain) ?? domain);
    const secret = new Set((brief.privateEmails ?? []).map(mailKey));
    // a private address is charged by identity.private-addresses
    const foreign = all.find((a) => a.mailto && !secret.has(a.address) && !isAllowed(mailDomain(a.address)));
    if (foreign)
      return overSite(
        context,
        failed(place, {
          found: msg('foreign-mail-link', { address: foreign.address }),
          raw: foreign.raw,
          adopt: { field: 'allowedEmailDomains', how: 'add', value: mailDomain(foreign.address) },
        }),
      );
    const own = all.find((a) => a.address === wantedAddress);
    if (own) return overSite(context, passed(place, { found: verbatim(own.address), raw: own.raw }));
    if (pages.some((p) => OBFUSCATED.test(p.facts.text)))
      return overSite(context, unsure(place, msg('address-obfuscated')));
    if (pages.some((p) => p.shell)) return overSite(context, unsure(place, commonMessage('empty-shell')));
    return overSite(
      context,
      failed(place, {
        found: all.length
          ? msg('other-addresses', { list: [...new Set(all.map((a) => a.address))].join(', ') })
          : msg('no-mail-address'),
        ...(all[0] ? { adopt: { field: 'contactEmail', how: 'set', value: all[0].address } as const } : {}),
      }),
    );
  },
  recipe({ brief }) {
    return {
      steps:
        'Put the address on the contact page or in the footer, and remove mail links left from the template.',
      paste: [
        {
          label: 'Mail link',
          text: `<a href="mailto:${brief.contactEmail ?? ''}">${brief.contactEmail ?? ''}</a>`,
        },
      ],
    };
  },
});
