import { headerValues, lastAnswer, type Exchange } from '#core/facts/evidence';
import { restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { headerRecipe } from '#core/recipes/web-server';
import type { Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';
import { joinMessages } from '#core/text/common-messages';

const msg = defineMessages('https.protective-headers', {
  'no-nosniff': 'no X-Content-Type-Options: nosniff',
  'nosniff-twice': 'X-Content-Type-Options twice',
  'frames-open': 'neither frame-ancestors nor X-Frame-Options',
  'frames-twice': 'who may frame the page is said twice',
  'unsafe-referrer': 'Referrer-Policy: unsafe-url',
  'referrer-twice': 'Referrer-Policy twice',
});

/** What is missing or said in two places, in words. */
function lacking(answer: Exchange): Message[] {
  const out: Message[] = [];
  const sniff = headerValues(answer, 'x-content-type-options');
  if (!sniff.some((v) => /^\s*nosniff/i.test(v))) out.push(msg('no-nosniff'));
  else if (sniff.length > 1) out.push(msg('nosniff-twice'));
  const policies = headerValues(answer, 'content-security-policy');
  const ancestors = policies.filter((p) => /(?:^|[;,])\s*frame-ancestors\s/i.test(p));
  const frame = headerValues(answer, 'x-frame-options');
  if (!ancestors.length && !frame.some((v) => /^\s*(?:deny|sameorigin)\s*$/i.test(v)))
    out.push(msg('frames-open'));
  else if (frame.length > 1 || ancestors.length > 1) out.push(msg('frames-twice'));
  const referrer = headerValues(answer, 'referrer-policy');
  // the last word that is known counts (Referrer Policy, 8.1); no header at all gives the safe default of
  // today's browsers
  if (referrer.some((v) => /(?:^|,)\s*unsafe-url\s*$/i.test(v))) out.push(msg('unsafe-referrer'));
  else if (referrer.length > 1) out.push(msg('referrer-twice'));
  return out;
}

export const protectiveHeaders = defineCheck({
  id: 'https.protective-headers',
  title: 'Protective headers are sent (nosniff, framing, referrer)',
  fault: 'Protective headers are missing or sent twice',
  severity: 'minor',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'They cost nothing and stop whole kinds of attack: foreign frames, guessed types, addresses handed on.',
  source: 'Fetch; CSP 3; HTML; Referrer Policy',
  messages: {
    expected: 'nosniff, frame-ancestors or X-Frame-Options, a careful Referrer-Policy, each once',
    none: 'no host answers with a page of its own',
  },
  judge(context) {
    return overHosts(context, (h) => {
      const last = lastAnswer(h.https);
      if (!last) return unsure(h.host, restsOn(h.https.error, context.view));
      // a host that only leads on has no page to protect
      if (new URL(last.url).hostname !== h.host || (last.status ?? 0) >= 400) return null;
      const faults = lacking(last);
      const raw = last.headers
        .filter(([n]) =>
          /^(?:x-content-type-options|x-frame-options|content-security-policy|referrer-policy)$/i.test(n),
        )
        .map(([n, v]) => `${n}: ${v}`)
        .join('\n');
      return faults.length
        ? failed(h.host, { found: joinMessages(faults), raw: raw || undefined })
        : passed(h.host, { raw });
    });
  },
  recipe: () => ({
    steps: 'Send these with every answer, from one place: server, application or host.',
    paste: [
      ...headerRecipe('X-Content-Type-Options', 'nosniff'),
      ...headerRecipe('Content-Security-Policy', "frame-ancestors 'self'"),
      ...headerRecipe('Referrer-Policy', 'strict-origin-when-cross-origin'),
    ],
  }),
});
