/** Whether the data of a record fits its type, in presentation form (RFC 1035, 3596, 2782, 8659, 9460). */
import ipaddr from 'ipaddr.js';

const NAME = /^(?:\.|@|(?:[\w*{}\u00a1-\uffff-]{1,63}\.?)+)$/;
const number = (text: string | undefined, most: number): boolean =>
  /^\d{1,10}$/.test(text ?? '') && Number(text) <= most;
const isName = (text: string | undefined): boolean => text !== undefined && NAME.test(text);
/** A template has names still to be filled in. */
const isTemplate = (value: string): boolean => /\{[a-z]+\}/i.test(value);

/** What the words of a record's data must be, and what to say of others. */
interface DataForm {
  fits(words: string[], value: string): boolean;
  otherwise: string;
}

const HOST_NAME: DataForm = {
  fits: (words) => words.length === 1 && isName(words[0]),
  otherwise: 'must be a host name',
};

const FORMS: Record<string, DataForm> = {
  A: {
    fits: (_, value) => ipaddr.IPv4.isValidFourPartDecimal(value),
    otherwise: 'must be an IPv4 address such as 192.0.2.10',
  },
  AAAA: {
    fits: (_, value) => ipaddr.IPv6.isValid(value),
    otherwise: 'must be an IPv6 address such as 2001:db8::10',
  },
  CNAME: HOST_NAME,
  NS: HOST_NAME,
  MX: {
    fits: (words) => words.length === 2 && number(words[0], 65_535) && isName(words[1]),
    otherwise: 'must be a preference and a host name, such as 10 mail.kites.example',
  },
  SRV: {
    fits: (words) =>
      words.length === 4 && words.slice(0, 3).every((w) => number(w, 65_535)) && isName(words[3]),
    otherwise: 'must be priority, weight, port and a host name',
  },
  CAA: {
    fits: (words) => words.length >= 3 && number(words[0], 255) && /^[a-z0-9]+$/i.test(words[1]!),
    otherwise: 'must be flags, a tag and a value, such as 0 issue "ca.example"',
  },
  HTTPS: {
    fits: (words) => words.length >= 2 && number(words[0], 65_535) && isName(words[1]),
    otherwise: 'must be a priority, a name and parameters, such as 1 . alpn=h2',
  },
  SOA: {
    fits: (words) => words.length === 7 && words.slice(2).every((w) => number(w, 4_294_967_295)),
    otherwise: 'must be two names and five numbers',
  },
};

/** @returns what is wrong with it, as the end of a sentence about the value; undefined when it fits */
export function recordFault(type: string, value: string): string | undefined {
  if (isTemplate(value) || !Object.hasOwn(FORMS, type)) return undefined;
  const form = FORMS[type]!;
  return form.fits(value.trim().split(/\s+/), value) ? undefined : form.otherwise;
}
