import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { mailKey } from '#core/checks/view/mail-addresses';
import { verbatim } from '#core/facts/message';

export const privateAddresses = defineCheck({
  id: 'identity.private-addresses',
  title: 'Private mail addresses stand on no page',
  fault: 'A private mail address is on a page',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['jsonLd'],
  needs: { brief: ['privateEmails'], pages: true },
  why: 'The administration’s and the owner’s addresses are the keys to the site: shown once, they are collected for ever.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      `none of ${brief.privateEmails.length === 1 ? brief.privateEmails[0] : `${brief.privateEmails.length} private addresses`} on any page`,
  },
  judge(context) {
    const secret = new Set(context.brief.privateEmails.map(mailKey));
    return overPages(context, (page) => {
      const hit = page.mailAddresses.find((a) => secret.has(a.address));
      return hit ? failed(page.url, { found: verbatim(hit.address), raw: hit.raw }) : page.passed;
    });
  },
  recipe({ brief }) {
    return {
      steps:
        'Replace the private address by the public one on these pages, and look at form texts and JSON-LD too.',
      paste: brief.contactEmail ? [{ label: 'Public address', text: brief.contactEmail }] : undefined,
    };
  },
});
