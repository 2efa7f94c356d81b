/** Reading what a chain of redirects was answered. */
import { LEADS_NOWHERE, type SiteView } from '#core/checks/view/site-view';
import type { Chain, Exchange, NetworkError } from '#core/facts/evidence';
import { verbatim, type Message } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

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

/**
 * What a host without an answer rests on (rule 3), for a reason: the signature of its zone where that does not
 * hold, its name, else its server.
 */
export function restsOn(
  error: NetworkError | undefined,
  view: Pick<SiteView, 'isBogus' | 'situation'>,
  otherwise: Message = commonMessage('no-answer'),
): Message {
  const isNameless = isUnresolved(error?.code) || error?.code === 'dns';
  const isSigned = view.isBogus && (view.situation === 'live' || view.situation === 'holding');
  const check = !isNameless ? 'https.answers' : isSigned ? 'domain.signed' : 'domain.resolves';
  return restsOnCheck(check, verbatim(error?.message) ?? otherwise);
}

/** Why a chain never arrives though every server on the way answers; undefined where it does, or one is silent. */
export const redirectFault = ({ error }: Chain): string | undefined =>
  error && LEADS_NOWHERE.has(error.code) ? error.message : undefined;
