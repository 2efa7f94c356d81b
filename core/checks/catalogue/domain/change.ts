/** What will change at the launch: the records and name servers of today against those of the brief. */
import type { Brief, ExpectedRecord } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { answersFor, sameValue, isUsable } from '#core/checks/kit/dns-answers';

const ADDRESS = new Set(['A', 'AAAA', 'CNAME']);

export interface Change {
  nameServers: boolean;
  /** Expected address records that are not served yet. */ records: ExpectedRecord[];
}

/** @returns undefined where nothing of today is known */
export function changeAhead(evidence: Evidence, brief: Brief): Change | undefined {
  const servers = evidence.dns.nameServers.map((s) => s.name);
  const wanted = brief.nameServers ?? [];
  const known = evidence.dns.answers.some(isUsable);
  if (!known) return undefined;
  const records = (brief.records ?? [])
    .filter((r) => ADDRESS.has(r.type))
    .filter((r) => {
      const answers = answersFor(evidence, r.name, r.type);
      return (
        answers.length > 0 &&
        !answers.some((a) => a.records.some((x) => x.type === r.type && sameValue(r.type, x.value, r.value)))
      );
    });
  return {
    nameServers:
      servers.length > 0 &&
      wanted.length > 0 &&
      (servers.some((s) => !wanted.includes(s)) || wanted.some((w) => !servers.includes(w))),
    records,
  };
}
