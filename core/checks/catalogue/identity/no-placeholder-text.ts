import type { ReadPage } from '#core/checks/view/read-page';
import type { HostProfile } from '#core/facts/host-profile';
import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, unsure } from '#core/checks/kit/judgement';
import { mailDomain } from '#core/checks/view/mail-addresses';
import { memoize } from '#core/remembering';
import { commonMessage } from '#core/text/common-messages';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';

const msg = defineMessages('identity.no-placeholder-text', {
  'link-to': 'a link to {url}',
  'form-to': 'a form to {action}',
  'in-json-ld': '{told} in JSON-LD',
  filler: '“{hit}”',
});

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
/** Words that stand in a bracketed blank: what is to be filled in, and what is said of it. */
const THING =
  'name|company|business|organi[sz]ation|firm|brand|address|street|city|town|postcode|zip|country|phone|telephone|mobile|number|e-?mail|date|year|title|headline|heading|text|description|price|logo|website|site|url|photo|image';
const SAID_OF_IT = 'your|our|the|client|full|first|last|insert|enter|add|code|of|here|my|legal';
/** "[Company Name]", "[insert your phone number here]"; of single words only those that are nothing else. */
const BLANKS = new RegExp(
  `\\[ ?(?:(?:name|company|address|phone|email)|your [^\\]]{1,60}|(?:(?:${THING}|${SAID_OF_IT}) ){1,4}(?:${THING}|here)) ?\\]`,
);

/** Top-level names that are nobody's (RFC 2606 2; RFC 6761 6), and second-level ones (RFC 2606 3). */
const RESERVED = /(?:^|\.)(example\.(?:com|net|org)|example|test|invalid)$/;
const reservedIn = (host: string): string | undefined => RESERVED.exec(host)?.[1];
/**
 * The same in a text: second-level names anywhere, top-level ones where an address is written, since "the test"
 * is a word too.
 */
const EXAMPLE_NAME = /(?:[\w.+-]{1,64}[@.])?\bexample\.(?:com|net|org)\b/g;
const NOBODYS_NAME =
  /(?:[\w.+-]{1,64}@|\bhttps?:\/\/|\bwww\.)(?:[\w-]{1,63}\.){1,4}(?:example|test|invalid)\b(?![\w(-]|\.\w)/g;

/** A name in a text that cannot be the client's. */
function reservedName(text: string, isOwn: (host: string) => boolean): string | undefined {
  for (const pattern of [EXAMPLE_NAME, NOBODYS_NAME])
    for (const [name] of text.matchAll(pattern)) {
      const host = name
        .replace(/^https?:\/\//, '')
        .split('@')
        .at(-1)!;
      if (!isOwn(host)) return name;
    }
  return undefined;
}

/** Where a page leads, or says that it can be reached, under a name that is nobody's. */
function reservedAddress(
  page: ReadPage,
  isNobodys: (host: string) => boolean,
): { found: Message; raw: string } | undefined {
  const link = page.linksAway.find((l) => isNobodys(l.host));
  if (link) return { found: msg('link-to', { url: link.url }), raw: link.anchor.raw };
  const mail = page.mailAddresses.find((a) => isNobodys(mailDomain(a.address)));
  if (mail) return { found: verbatim(mail.address), raw: mail.raw };
  const form = page.facts.forms.find((f) => !page.isOwn(f.action) && isNobodys(page.hostIn(f.action)));
  if (form) return { found: msg('form-to', { action: form.action }), raw: form.raw };
  for (const { addresses = [] } of page.facts.jsonLd) {
    const told = addresses.find((a) => isNobodys(page.hostIn(a)));
    if (told !== undefined) return { found: msg('in-json-ld', { told }), raw: told };
  }
  return undefined;
}

/** A common filler in a text in small letters. */
const commonFiller = (lowered: string): string | undefined =>
  FILLER.find((f) => lowered.includes(f)) ?? (lowered.includes('[') ? BLANKS.exec(lowered)?.[0] : undefined);

/** Filler in a short text, whoever left it there. */
export function fillerIn(text: string, profile: HostProfile | undefined): string | undefined {
  const folded = foldLoosely(text);
  return (
    commonFiller(text.toLowerCase()) ??
    (profile?.defaults?.texts ?? []).map(foldLoosely).find((f) => f && folded.includes(f))
  );
}

/** A text without the blanks that stand in code. */
function withoutCode(text: string, code: string): string {
  const blanks = code.toLowerCase().match(/\[[^\]]{1,80}\]/g) ?? [];
  return blanks.reduce((left, blank) => left.replace(blank, ' '), text);
}

const MAY_NAME = /example\.|\.(?:example|test|invalid)\b/;

export const noPlaceholderText = defineCheck({
  id: 'identity.no-placeholder-text',
  title: 'Placeholder text is on no page',
  fault: 'Placeholder text is on a page',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['jsonLd'],
  needs: { pages: true },
  why: 'Filler on a live page says that nobody read it before it went out.',
  source: 'common practice; RFC 2606; RFC 6761',
  messages: { expected: 'no filler' },
  judge(context) {
    const own = (context.profile.defaults?.texts ?? []).map(foldLoosely).filter(Boolean);
    // a site that stands under a reserved name itself may use names like its own
    const ownKind = reservedIn(context.view.preferredHost);
    const isNobodys = memoize((host: string) => {
      const kind = reservedIn(host);
      return kind !== undefined && kind !== ownKind;
    });
    return overPages(context, (page) => {
      const text = page.words.lowered;
      const filler = commonFiller(text);
      // what is to be filled in stands in code on purpose
      const { code } = page.facts;
      const isUntold = filler?.startsWith('[') && code === undefined;
      const shown = filler?.startsWith('[') ? commonFiller(withoutCode(text, code ?? text)) : filler;
      const found =
        shown ?? (MAY_NAME.test(text) ? reservedName(text, (host) => !isNobodys(host)) : undefined);
      // only the profile's own texts need accents folded, which costs on long pages
      const hit = found ?? (own.length ? own.find((f) => page.words.folded.includes(f)) : undefined);
      if (!hit) {
        const address = reservedAddress(page, isNobodys);
        if (address) return failed(page.url, address);
        return isUntold ? unsure(page.url, commonMessage('not-collected-yet')) : page.passed;
      }
      const at = (found ? text : page.words.folded).indexOf(hit);
      return failed(page.url, {
        found: msg('filler', { hit }),
        raw: page.facts.text.slice(Math.max(0, at - 60), at + hit.length + 60),
      });
    });
  },
  recipe: () => ({
    steps:
      'Replace the filler on these pages by the client’s text, or take the block out until there is one.',
  }),
});
