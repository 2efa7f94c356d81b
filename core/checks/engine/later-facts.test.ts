/** A fact that was not collected is not a fact that is absent: no check passes or fails for the lack of one. */
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { brief, evidence as example } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import { LATER_PAGE_FACTS, LATER_SITE_FACTS, type LaterFact } from '#core/facts/later-facts';
import { SITUATIONS } from '#core/facts/situation';
import { RESTS_ON } from '#core/checks/kit/says';
import { fullChecklist } from './checklist';
import { judge } from './judge';
import { NOT_COLLECTED_YET } from './needs';

/** Reading it is an error that no check swallows: it would be told as a check that could not finish. */
function unreadable<T extends object>(of: T, key: string): T {
  return Object.defineProperty({ ...of }, key, {
    enumerable: true,
    get: () => {
      throw new Error(`read ${key}`);
    },
  });
}

/** The same evidence, in which a fact was not collected. */
function without(evidence: Evidence, fact: LaterFact): Evidence {
  const lacking = { ...evidence, lacks: [fact] } as Evidence;
  if ((LATER_PAGE_FACTS as readonly string[]).includes(fact))
    return {
      ...evidence,
      pages: evidence.pages.map((page) => ({
        ...page,
        lacks: [fact],
        ...(page.facts ? { facts: unreadable(page.facts, fact) } : {}),
      })),
    } as Evidence;
  const { dns, hosts } = lacking;
  switch (fact) {
    case 'addresses':
      return { ...lacking, hosts: hosts.map((host) => unreadable(host, fact)) };
    case 'signature':
      return {
        ...lacking,
        hosts: hosts.map((host) => ({
          ...host,
          tls: { ...host.tls, chain: host.tls.chain.map((c) => unreadable(c, fact)) },
        })),
      };
    case 'namedBy':
      return { ...lacking, dns: { ...dns, nameServers: dns.nameServers.map((s) => unreadable(s, fact)) } };
    case 'parent':
    case 'randomLabel':
      return { ...lacking, dns: unreadable(dns, fact) };
    default:
      return unreadable(lacking, fact);
  }
}

describe.each([...LATER_PAGE_FACTS, ...LATER_SITE_FACTS])('without %s', (fact) => {
  // with what makes every one of them be read
  const evidence = example();
  for (const { https } of evidence.hosts)
    for (const hop of https.hops)
      hop.headers.push(['strict-transport-security', 'max-age=31536000; includeSubDomains']);
  it.each(SITUATIONS)('%s: what reads it can’t tell, all else is the same', (situation) => {
    const input = {
      brief: {
        ...brief(),
        formerAddresses: [{ from: '/old/', to: '/about/' }],
        knownSubdomains: ['mail.marsh-choir.example'],
        colours: [{ role: 'main', value: '#3a3f8f' }],
      },
      profile: { name: '', defaults: { authors: ['Quay Hand'] } },
      checklist: fullChecklist(),
      situation,
      at: new Date(evidence.finishedAt),
    };
    const whole = new Map(judge({ ...input, evidence }).map((f) => [f.check, f]));
    for (const found of judge({ ...input, evidence: without(evidence, fact) })) {
      const check = CATALOGUE.find((c) => c.id === found.check)!;
      const before = whole.get(found.check)!;
      // what is decided before anything is read stays so
      const isDeclared = check.facts?.includes(fact) === true;
      const wanted =
        isDeclared && !['inapplicable', 'untested'].includes(found.outcome)
          ? { check: found.check, outcome: 'cantTell', code: NOT_COLLECTED_YET.code }
          : { check: found.check, outcome: before.outcome, code: before.code };
      const { check: id, outcome, code } = found;
      expect({ check: id, outcome, code }).toEqual(
        outcome === 'cantTell' && code === RESTS_ON ? { check: id, outcome, code } : wanted,
      );
    }
  });
});
