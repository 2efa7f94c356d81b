/** Whether the site's zone is signed in a way that does not hold, so that checking resolvers give no answers. */
import type { Evidence } from '#core/facts/evidence';

const bare = (name: string): string => name.toLowerCase().replace(/\.$/, '');

/**
 * RFC 4035: a resolver that checks says SERVFAIL where one that does not has an answer, and the zone above has a
 * DS. domain.signed is charged with it (rule 3).
 */
export function isBogus({ dns }: Evidence): boolean {
  const { zone, answers } = dns;
  const hasSigner = answers.some(
    (a) => a.type === 'DS' && bare(a.name) === zone && a.records.some((r) => r.type === 'DS'),
  );
  if (zone === null || !hasSigner) return false;
  const asked = answers.filter(
    (a) => a.role === 'resolver' && bare(a.name) === zone && (a.type === 'A' || a.type === 'SOA'),
  );
  return (
    asked.some((a) => !a.unchecked && a.rcode === 'SERVFAIL') &&
    asked.some((a) => a.unchecked && a.rcode === 'NOERROR')
  );
}
