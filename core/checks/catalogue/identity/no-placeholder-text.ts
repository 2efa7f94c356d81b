import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { mailDomain } from '#core/checks/view/mail-addresses';

/** Filler texts. "Lorem ipsum" and bracketed blanks: common practice. */
const FILLER = [
  'lorem ipsum',
  'dolor sit amet',
  'your text here',
  'add your text',
  'insert text',
  'text goes here',
  'click here to edit',
  '123 main street',
  'your company name',
  'xxx-xxx',
];
const BLANKS = /\[(?:name|company|address|phone|email)\]|\[your /;
/**
 * Names under example.com, .net and .org (RFC 2606 3) never belong to a client: in texts with what stands
 * before them, such as a mail address.
 */
const EXAMPLE_NAME = /(?:[\w.+-]{1,64}[@.])?\bexample\.(?:com|net|org)\b/;
const EXAMPLE_HOST = /(?:^|\.)example\.(?:com|net|org)$/;

export const noPlaceholderText = defineCheck({
  id: 'identity.no-placeholder-text',
  title: 'No filler text is left',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Filler on a live page says that nobody read it before it went out.',
  source: 'common practice; RFC 2606; RFC 6761',
  messages: { expected: 'no filler' },
  judge(context) {
    const own = (context.profile.defaults?.texts ?? []).map(foldLoosely).filter(Boolean);
    return overPages(context, (page) => {
      const text = page.words.lowered;
      const found =
        FILLER.find((f) => text.includes(f)) ??
        (text.includes('[') ? BLANKS.exec(text)?.[0] : undefined) ??
        (text.includes('example.') ? EXAMPLE_NAME.exec(text)?.[0] : undefined);
      // only the profile's own texts need accents folded, which costs on long pages
      const hit = found ?? (own.length ? own.find((f) => page.words.folded.includes(f)) : undefined);
      if (!hit) {
        const link = page.linksAway.find((l) => EXAMPLE_HOST.test(l.host));
        if (link) return failed(page.url, { found: `a link to ${link.url}`, raw: link.anchor.raw });
        const mail = page.mailAddresses.find((a) => EXAMPLE_HOST.test(mailDomain(a.address)));
        return mail ? failed(page.url, { found: mail.address, raw: mail.raw }) : page.passed;
      }
      const at = (found ? text : page.words.folded).indexOf(hit);
      return failed(page.url, {
        found: `“${hit}”`,
        raw: page.facts.text.slice(Math.max(0, at - 60), at + hit.length + 60),
      });
    });
  },
  recipe: () => ({
    steps:
      'Replace the filler on these pages by the client’s text, or take the block out until there is one.',
  }),
});
