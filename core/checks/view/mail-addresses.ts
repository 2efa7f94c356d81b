/** Mail addresses that a page shows: mail links, JSON-LD and visible text. */
import { asciiHost, decodeSafely } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';

export interface MailAddress {
  address: string;
  mailto: boolean;
  raw: string;
}

/**
 * A mail address in running text: the shape that people write (HTML's valid e-mail address, with a dot in the
 * domain), read outwards from its "@".
 */
const LOCAL_END = /[a-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}$/i;
/**
 * Beyond ASCII only letters of scripts that set words apart: elsewhere the sentence goes on without a space.
 */
const LETTER = String.raw`\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{M}0-9`;
const LABEL = `[${LETTER}](?:[${LETTER}-]{0,61}[${LETTER}])?`;
const DOMAIN_START = new RegExp(`^${LABEL}(?:\\.${LABEL}){1,8}`, 'u');
const MOST = 200;

function inText(text: string): string[] {
  const out: string[] = [];
  for (let at = text.indexOf('@'); at >= 0 && out.length < MOST; at = text.indexOf('@', at + 1)) {
    const local = LOCAL_END.exec(text.slice(Math.max(0, at - 64), at))?.[0];
    const domain = local && DOMAIN_START.exec(text.slice(at + 1, at + 260))?.[0];
    if (domain) out.push(`${local}@${domain}`);
  }
  return out;
}
/** Spelt-out addresses: "name [at] domain". */
export const OBFUSCATED = /[[({](?<=\w\s*[[({])\s*(?:at|@|ät)\s*[\])}]\s*\w/i;

/** One spelling for a mail address: small letters, the domain as A-labels (rule 6 of the catalogue). */
export function mailKey(address: string): string {
  const small = address.trim().toLowerCase();
  if (/^[\x00-\x7f]*$/.test(small)) return small;
  const at = small.lastIndexOf('@');
  return small.slice(0, at + 1) + (asciiHost(small.slice(at + 1)) ?? small.slice(at + 1));
}

/** The domain of a mail address, as A-labels. */
export function mailDomain(address: string): string {
  const key = mailKey(address);
  return key.slice(key.lastIndexOf('@') + 1);
}

/** All addresses on a page, in one spelling. Share links with an empty recipient are none. */
export function addressesOn(facts: PageFacts): MailAddress[] {
  const out: MailAddress[] = [];
  for (const anchor of facts.anchors) {
    if (anchor.href.startsWith('http') || !/^mailto:/i.test(anchor.href)) continue;
    const to = anchor.href.slice(7).split('?')[0]!;
    for (const one of decodeSafely(to).split(','))
      if (one.includes('@'))
        out.push({ address: mailKey(one), mailto: true, raw: `<a href="${anchor.href}">` });
  }
  for (const block of facts.jsonLd)
    for (const node of block.nodes)
      if (node.email)
        out.push({ address: mailKey(node.email.replace(/^mailto:/i, '')), mailto: false, raw: node.email });
  for (const found of inText(facts.text)) out.push({ address: mailKey(found), mailto: false, raw: found });
  return out;
}
