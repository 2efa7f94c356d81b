import { parsePhoneNumberFromString } from 'libphonenumber-js/min';
import { decodeSafely } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.phone', {
  'other-numbers': 'only {list}',
  'no-phone-number': 'no phone number',
});

/**
 * A number in E.164, or undefined. Numbers without a country code are read in the country of the expected
 * one.
 */
export function e164(text: string, like?: string): string | undefined {
  const key = `${like ?? ''}\n${text}`;
  let number = numbers.get(key);
  if (number === undefined) {
    if (numbers.size > 5000) numbers.clear();
    numbers.set(key, (number = readNumber(text, like) ?? null));
  }
  return number ?? undefined;
}
/** The same few numbers stand on every page of a site, in every audit. */
const numbers = new Map<string, string | null>();

function readNumber(text: string, like?: string): string | undefined {
  const model = like ? parsePhoneNumberFromString(like) : undefined;
  const country = model?.country,
    calling = model?.countryCallingCode;
  // 00 is how most of the world dials out (common practice)
  const number = parsePhoneNumberFromString(
    text.trim().replace(/^00(?=[1-9])/, '+'),
    country ? country : calling ? { defaultCallingCode: calling } : undefined,
  )?.number;
  // fifteen digits at most (E.164, 6.1)
  return number && number.length <= 16 ? number : undefined;
}

const IN_TEXT = /\+?\(?\d[\d\s().\-/\u00a0]{5,22}\d/g;

export const phone = defineCheck({
  id: 'identity.phone',
  title: 'Phone number is the brief’s',
  fault: 'Phone number is missing or another one',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['jsonLd'],
  needs: { brief: ['phone'], pages: true },
  why: 'A wrong digit or a template’s number is found by the first customer who calls.',
  source: 'E.164; RFC 3966',
  judge(context) {
    const { brief, view } = context;
    const goal = e164(brief.phone) ?? brief.phone;
    const others = new Set<string>();
    for (const page of view.pages) {
      const given = [
        ...page.facts.anchors
          .filter((a) => a.href.toLowerCase().startsWith('tel:'))
          .map((a) => decodeSafely(a.href.slice(4).split(';')[0]!)),
        ...page.facts.jsonLd.flatMap((b) => b.nodes.map((n) => n.telephone ?? '')).filter(Boolean),
        ...(page.facts.text.match(IN_TEXT) ?? []),
      ];
      for (const text of given.slice(0, 200)) {
        const found = e164(text, goal);
        if (found === goal)
          return overSite(context, passed(page.url, { found: verbatim(text.trim()) }), { expected: goal });
        if (found) others.add(found);
      }
    }
    return overSite(
      context,
      failed(view.home?.url ?? view.evidence.target.url, {
        found: others.size
          ? msg('other-numbers', { list: [...others].slice(0, 3).join(', ') })
          : msg('no-phone-number'),
        ...(others.size ? { adopt: { field: 'phone', how: 'set', value: [...others][0] } as const } : {}),
      }),
      { expected: goal },
    );
  },
  recipe({ brief }) {
    return {
      steps: 'Write the number on the contact page as a link that phones can call.',
      paste: [
        {
          label: 'Phone link',
          text: `<a href="tel:${e164(brief.phone ?? '') ?? brief.phone ?? ''}">${brief.phone ?? ''}</a>`,
        },
      ],
    };
  },
});
