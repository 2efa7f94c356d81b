/** Whether anything of a site was reached at all. */
import { finalStatus, type Evidence } from '#core/facts/evidence';

/**
 * @returns why nothing was reached: the home page's host has no address, or nothing answers there; undefined
 * where anything did
 */
export function unreachedBy({ hosts, pages }: Evidence): string | undefined {
  const home = pages.find((p) => p.via === 'home');
  const [first] = hosts;
  const chains = [home?.chain, first?.https, first?.http].filter((c) => c !== undefined);
  const isSilent = chains.every(
    (c) => finalStatus(c) === undefined && c.hops.every((h) => h.status === undefined),
  );
  if (!chains.length || !isSilent) return undefined;
  return (home?.chain.error ?? first?.https.error ?? first?.http.error)?.message ?? 'nothing answered';
}
