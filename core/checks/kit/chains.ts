/** Reading what a chain of redirects was answered. */
import type { Chain, Exchange } from '#core/facts/evidence';

/** A chain line by line, for the evidence: status and address of every hop. */
export const chainText = (chain: Chain): string =>
  chain.hops.map((x) => `${x.status ?? x.error?.message ?? ''} ${x.url}`).join('\n');

/** The first redirect that is not permanent: neither 301 nor 308 (RFC 9110 15.4). */
export const temporaryRedirect = (chain: Chain): Exchange | undefined =>
  chain.hops.slice(0, -1).find((x) => x.status !== 301 && x.status !== 308);

/** Answers that refuse the visitor, and so say nothing of the page (rule 4). */
export const refuses = (status: number | undefined): boolean =>
  status === 401 || status === 403 || status === 429;

type ErrorCode = NonNullable<Chain['error']>['code'];

/** The name leads to no address: domain.resolves is charged with it (rule 3). */
export const isUnresolved = (code: ErrorCode | undefined): boolean =>
  code === 'no-name' || code === 'no-address';
