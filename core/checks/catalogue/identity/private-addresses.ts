import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, wanted } from '#core/checks/kit/judgement';
import { mailKey } from '#core/checks/view/mail-addresses';

export const privateAddresses: Check = {
  id: 'identity.private-addresses',
  section: 'identity',
  title: 'No private mail address is shown',
  severity: 'major',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'The administration’s and the owner’s addresses are the keys to the site: shown once, they are collected for ever.',
  source: 'common practice',
  judge(context) {
    const list = wanted(context.brief, 'privateEmails');
    if ('judgement' in list) return list.judgement;
    const secret = new Set(list.value.map(mailKey));
    return overPages(
      context,
      `none of ${list.value.length === 1 ? list.value[0] : `${list.value.length} private addresses`} on any page`,
      (page) => {
        const hit = page.mailAddresses.find((a) => secret.has(a.address));
        return hit ? failed(page.url, { found: hit.address, raw: hit.raw }) : page.passed;
      },
    );
  },
  recipe({ brief }) {
    return {
      steps:
        'Replace the private address by the public one on these pages, and look at form texts and JSON-LD too.',
      paste: brief.contactEmail ? [{ label: 'Public address', text: brief.contactEmail }] : undefined,
    };
  },
};
