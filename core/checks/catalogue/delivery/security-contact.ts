import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { joinMessages } from '#core/text/common-messages';

const msg = defineMessages('delivery.security-contact', {
  'not-asked': 'not asked for',
  'no-file': 'there is none',
  'no-contact': 'no Contact',
  'bare-contact': 'Contact “{contact}” is no address with a scheme (mailto:, https: or tel:)',
  'several-ends': '{count} Expires',
  'no-date': 'Expires “{end}” is no date of RFC 3339',
  ended: 'ended {end}',
  expires: 'until {expires}',
});

/** The values of a field, in their order; names are compared without case. */
const valuesOf = (text: string, field: string): string[] =>
  [...text.matchAll(new RegExp(`^${field}:[ \\t]*(\\S.*?)[ \\t\\r]*$`, 'gim'))].map((m) => m[1]!);

/** RFC 9116 2.5.3: a URI; one of the web has to be https. */
const isContact = (value: string): boolean => /^(?!http:)[a-z][a-z0-9+.-]*:\S+$/i.test(value);
/** RFC 9116 2.5.5. */
const RFC3339 = /^\d{4}-\d\d-\d\d[Tt ]\d\d:\d\d:\d\d(?:\.\d+)?(?:[Zz]|[+-]\d\d:\d\d)$/;

/** What is wrong with a file. */
function faultsOf(text: string, at: Date): Message[] {
  const expires = valuesOf(text, 'Expires');
  const contacts = valuesOf(text, 'Contact');
  const bare = contacts.find((c) => !isContact(c));
  const [end] = expires;
  return [
    ...(contacts.length ? [] : [msg('no-contact')]),
    ...(bare ? [msg('bare-contact', { contact: bare.slice(0, 80) })] : []),
    ...(expires.length === 1 ? [] : [msg('several-ends', { count: expires.length })]),
    ...(end && !RFC3339.test(end) ? [msg('no-date', { end: end.slice(0, 40) })] : []),
    ...(end && !(Date.parse(end) > at.getTime()) ? [msg('ended', { end })] : []),
  ];
}

export const securityContact = defineCheck({
  id: 'delivery.security-contact',
  title: 'security.txt has Contact and a future Expires',
  fault: 'security.txt lacks Contact or a future Expires',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  facts: ['paths'],
  reads: ['http'],
  needs: { pages: true },
  why: 'An ended security.txt tells finders of a hole that nobody looks after the site.',
  source: 'RFC 9116',
  messages: { expected: 'Contact, and one Expires in the future' },
  judge(context) {
    const { evidence, at } = context;
    const { expected } = context.words;
    const probe = evidence.paths.find((p) => p.path === '/.well-known/security.txt');
    const status = probe ? finalStatus(probe.chain) : undefined;
    if (!probe || status === undefined) return cantTell(msg('not-asked'), { expected });
    const text = probe.sample ?? '';
    if (status !== 200 || /^\s*</.test(text)) return inapplicable(msg('no-file'));
    const expires = valuesOf(text, 'Expires');
    const wrong = faultsOf(text, at);
    return overSite(
      context,
      (wrong.length ? failed : passed)(probe.chain.start, {
        found: wrong.length ? joinMessages(wrong) : msg('expires', { expires: expires[0] }),
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
