import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';

export const securityContact = defineCheck({
  id: 'delivery.security-contact',
  title: 'security.txt is in order',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  needs: { pages: true },
  why: 'An ended security.txt tells finders of a hole that nobody looks after the site.',
  source: 'RFC 9116',
  messages: { expected: 'Contact, and one Expires in the future' },
  judge(context) {
    const { evidence, at } = context;
    const { expected } = context.words;
    const probe = evidence.paths.find((p) => p.path === '/.well-known/security.txt');
    const status = probe ? finalStatus(probe.chain) : undefined;
    if (!probe || status === undefined) return cantTell('not asked for', { expected });
    const text = probe.sample ?? '';
    if (status !== 200 || /^\s*</.test(text)) return inapplicable('there is none');
    const expires = [...text.matchAll(/^Expires:\s*(\S+)/gim)].map((m) => m[1]!);
    const contact = /^Contact:\s*\S/im.test(text);
    const wrong = [
      contact ? '' : 'no Contact',
      expires.length === 1 ? '' : `${expires.length} Expires`,
      expires[0] && !(Date.parse(expires[0]) > at.getTime()) ? `ended ${expires[0]}` : '',
    ].filter(Boolean);
    return overSite(
      context,
      (wrong.length ? failed : passed)(probe.chain.start, {
        found: wrong.join('; ') || `until ${expires[0]}`,
        raw: text,
      }),
    );
  },
  recipe: ({ brief, at }) => ({
    steps: 'Renew the file, best once a year with the other upkeep.',
    paste: [
      {
        label: 'security.txt',
        text: `Contact: mailto:${brief.contactEmail ?? 'security@…'}\nExpires: ${new Date(at.getTime() + 365 * 86_400_000).toISOString().slice(0, 19)}Z`,
      },
    ],
  }),
});
