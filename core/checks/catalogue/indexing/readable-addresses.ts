import { decodeSafely, splitAddress } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';

const msg = defineMessages('indexing.readable-addresses', {
  'session-id': 'a session id',
  space: 'a space',
  capitals: 'capital letters',
  'number-alone': 'told apart by a number alone',
});

/** Session ids in addresses (common practice). */
const SESSION = /[;?&](?:jsessionid|phpsessid|sid|sessionid|session_id|aspsessionid\w*)=/i;
const NUMBER_QUERY = /^\?(?:[a-z_]{1,12}=)?\d+$/i;

/** Words of small letters, dashes and digits: most addresses, and nothing to find fault with. */
const PLAIN = /^https?:\/\/[^/?#]+\/(?:[a-z][a-z0-9-]*\/)*(?:[a-z][a-z0-9-]*(?:\.[a-z]+)?)?$/;

/** What makes a normalised address hard to read, or undefined. */
export function addressFault(address: string): Message | undefined {
  if (PLAIN.test(address)) return undefined;
  const { path: pathname, query: search } = splitAddress(address);
  const path = pathname.includes('%') ? decodeSafely(pathname) : pathname;
  if (SESSION.test(pathname) || (search && SESSION.test(search))) return msg('session-id');
  if (/\s/.test(path)) return msg('space');
  if (/\p{Lu}/u.test(path)) return msg('capitals');
  if (NUMBER_QUERY.test(search)) return msg('number-alone');
  const last = path.split('/').filter(Boolean).pop();
  // a year or a page number in a series tells something; a bare number in its place does not
  if (
    last &&
    /^\d+(?:\.\w{2,5})?$/.test(last) &&
    !/^(?:19|20)\d\d$/.test(last) &&
    !/\/(?:page|seite|p)\/\d+\/?$/.test(path) &&
    !/\/(?:19|20)\d\d\/\d{1,2}(?:\/\d{1,2})?\/?$/.test(path)
  )
    return msg('number-alone');
  return undefined;
}

export const readableAddresses = defineCheck({
  id: 'indexing.readable-addresses',
  title: 'Addresses are readable',
  fault: 'An address is hard to read',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'An address is read in listings, on paper and on the phone, and is hard to change later.',
  source: 'common practice',
  messages: { expected: 'words in small letters' },
  judge: (context) =>
    overPages(context, (page) => {
      const fault = addressFault(page.url);
      return fault ? failed(page.url, { found: fault }) : page.passed;
    }),
  recipe: () => ({
    steps:
      'Set the form of addresses in the product’s settings before the launch; after it, let each old one redirect to its new one.',
  }),
});
