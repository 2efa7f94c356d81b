/** What goes with a site or a client that is deleted, in words. */
import { quantity } from '#core/text/quantity';

const NOUNS: Record<string, string> = {
  sites: 'site',
  environments: 'environment',
  audits: 'audit',
  fixes: 'fix',
  attestations: 'attestation',
  files: 'file',
  reports: 'published report',
  yeses: 'yes of a client',
  launches: 'launch',
};
/** Those that are not the usual ones. */
const PLURALS: Record<string, string> = { yeses: 'yeses of clients' };
const LIST = new Intl.ListFormat('en', { type: 'conjunction' });

/** "With it go 2 environments, 14 audits and 9 fixes."; what there is none of is not named. */
export function goesWith(counts: Readonly<Record<string, number>>): string {
  const parts = Object.entries(NOUNS).flatMap(([key, noun]) =>
    counts[key] ? [quantity(counts[key], noun, PLURALS[key])] : [],
  );
  return parts.length ? `With it go ${LIST.format(parts)}.` : 'Nothing else goes with it.';
}
