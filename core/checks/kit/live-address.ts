/** Pages of an environment before the launch, and the addresses that they will have on the live host. */
import { normaliseUrl } from '#core/extract/address';
import { pagePath } from '#core/facts/intended-text';
import type { CheckContext } from './check';

type Asked = Pick<CheckContext, 'view' | 'brief'>;

/**
 * Where an address leads within this environment: before the launch, one of the live host stands for the same page here.
 * @returns nothing for what is no address
 */
export function hereOf({ view, brief }: Asked, href: string, from?: string): string | undefined {
  const url = normaliseUrl(href, from);
  if (url === undefined || view.situation !== 'staging' || brief.preferredHost === undefined) return url;
  const { host, pathname, search } = new URL(url);
  if (![brief.preferredHost, ...(brief.otherHosts ?? [])].includes(host)) return url;
  return normaliseUrl(`.${pathname}${search}`, view.evidence.target.url);
}

/** The address that a page or file of this environment has, or will have, on the live host. */
export function onLive({ view, brief }: Asked, url: string): string {
  const isHere = view.situation === 'staging' && brief.preferredHost !== undefined && view.within(url);
  const path = isHere ? pagePath(url, view.evidence.target.url) : undefined;
  return path === undefined ? url : `https://${brief.preferredHost}${path}`;
}
