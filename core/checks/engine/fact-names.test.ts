/** A fact that was not collected is not a fact that is absent: no check passes or fails for the lack of one. */
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { brief, evidence as example } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import {
  BASIC_PAGE_FACTS,
  PAGE_FACTS,
  RENDERED_FACTS,
  SITE_FACTS,
  type Fact,
  type RenderedFact,
} from '#core/facts/fact-names';
import { SITUATIONS } from '#core/facts/situation';
import { RESTS_ON } from '#core/text/common-messages';
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

function withoutRendered(evidence: Evidence, fact: RenderedFact): Evidence {
  const rendered = evidence.rendered!;
  return {
    ...evidence,
    rendered: {
      ...rendered,
      lacks: [fact],
      pages: rendered.pages.map((page) => ({
        ...page,
        views: page.views.map((view) => unreadable(view, fact.slice('rendered.'.length))),
      })),
    },
  };
}

/** The same evidence, in which a fact was not collected. */
function without(evidence: Evidence, fact: Fact): Evidence {
  const lacking = { ...evidence, lacks: [fact] } as Evidence;
  if ((PAGE_FACTS as readonly string[]).includes(fact))
    return {
      ...evidence,
      pages: evidence.pages.map((page) => ({
        ...page,
        lacks: [fact],
        ...(page.facts ? { facts: unreadable(page.facts, fact) } : {}),
      })),
    } as Evidence;
  if (fact.startsWith('rendered.')) return withoutRendered(evidence, fact as RenderedFact);
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
    case 'otherLinks':
      return unreadable(lacking, 'links');
    case 'parent':
    case 'randomLabel':
      return { ...lacking, dns: unreadable(dns, fact) };
    default:
      return unreadable(lacking, fact);
  }
}

describe.each([...PAGE_FACTS, ...SITE_FACTS, ...RENDERED_FACTS])('without %s', (fact) => {
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

const EMPTY: Record<(typeof BASIC_PAGE_FACTS)[number], unknown> = {
  titles: [],
  metas: [],
  links: [],
  scripts: [],
  headings: [],
  anchors: [],
  forms: [],
  text: '',
  textLength: 0,
};

describe.each(BASIC_PAGE_FACTS)('without %s, by which a page is read at all', (fact) => {
  it.each(SITUATIONS)('%s: no check that needs pages passes or fails', (situation) => {
    const evidence = example();
    const pages = evidence.pages.map((page) => ({
      ...page,
      lacks: [fact],
      ...(page.facts ? { facts: { ...page.facts, [fact]: EMPTY[fact] } } : {}),
    })) as unknown as Evidence['pages'];
    const checklist = fullChecklist();
    const at = new Date(evidence.finishedAt);
    const found = judge({ evidence: { ...evidence, pages }, brief: brief(), checklist, situation, at });
    const needing = found.filter((f) => CATALOGUE.find((c) => c.id === f.check)!.needs.pages);
    expect(
      needing.filter((f) => f.outcome === 'passed' || f.outcome === 'failed').map((f) => f.check),
    ).toEqual([]);
    // while the former site is up, no check asks for its pages
    if (situation !== 'former') expect(needing.some((f) => f.code === NOT_COLLECTED_YET.code)).toBe(true);
  });
});
