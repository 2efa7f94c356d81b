/** What checks declare to read is all that they read: a part that is looked at again alone renews no more and no less. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { partsFor, partsOf } from '#core/checks/engine/parts-of';
import type { CheckContext } from '#core/checks/kit/check';
import { SiteView } from '#core/checks/view/site-view';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { completeBrief } from '#core/facts/host-records';
import { timesOf } from '#core/facts/part-times';
import { PARTS, type Part } from '#core/facts/parts';
import { SITUATIONS } from '#core/facts/situation';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { canRenew, collect } from '#probe/collect';
import { officialFacts } from '../../net/official';
import { startPracticeNet, type PracticeNet } from '../../net/practice-net';
import { HOSTS, SITES, preferredHost } from '../../net/sites';
import { watched } from './parts-read';
import { collectPractice } from './practice-audit';

let net: PracticeNet;
const seen: { slug: string; evidence: Evidence }[] = [];
beforeAll(async () => {
  net = await startPracticeNet();
  for (const { slug } of SITES.filter((s) => s.slug !== 'curlew').slice(0, 10))
    for (const environment of ['live', 'staging'] as const)
      seen.push({ slug, evidence: await collectPractice(net, slug, environment) });
});
afterAll(() => net.close());

describe('each check', () => {
  it.each(CATALOGUE.filter((c) => !c.byHand).map((c) => [c.id, c] as const))(
    '%s reads no part that it does not declare',
    (_, check) => {
      const read = new Set<Part>();
      for (const { slug, evidence } of seen)
        for (const situation of SITUATIONS.filter((s) => check.situations.includes(s))) {
          const site = SITES.find((s) => s.slug === slug)!;
          const profile = HOSTS.find((h) => h.name === site.host) as unknown as HostProfile;
          const given = officialFacts(slug, new Date(), net.switches) as Brief;
          const brief = completeBrief(given, profile, evidence.target.hosts[0]!);
          const over = watched(evidence);
          const view = new SiteView(over.evidence, brief, profile, situation);
          const parameters = Object.fromEntries(
            Object.entries(check.parameters ?? {}).map(([name, spec]) => [name, spec.default]),
          );
          const context = {
            situation,
            at: new Date(evidence.finishedAt),
            brief,
            profile,
            evidence: over.evidence,
            view,
            parameters,
            words: { unit: '', expected: '' },
            hosts: over.evidence.hosts.map((host) => ({ evidence: host })),
            isAttested: () => false,
          } as unknown as CheckContext;
          // what the view and the hosts read of themselves is theirs
          over.read.clear();
          if (!check.needs.brief?.some((field) => brief[field] === undefined)) check.judge(context);
          for (const part of over.read) read.add(part);
        }
      expect(partsOf(check)).toEqual(expect.arrayContaining([...read]));
    },
  );
  it('is reached by some part', () => {
    const ofNone = CATALOGUE.filter((c) => !c.byHand && !partsOf(c).length).map((c) => c.id);
    // they judge what the brief and the environment's dates say
    expect(ofNone).toEqual(['identity.email-domain', 'domain.own', 'delivery.staging-lifetime']);
  });
});

describe('a part looked at again', () => {
  const SLUG = 'ferries';
  const site = SITES.find((s) => s.slug === SLUG)!;
  const options = () => ({
    url: `https://${preferredHost(site)}/`,
    kind: 'live' as const,
    brief: officialFacts(SLUG, new Date(), net.switches) as Brief,
    resolvers: [net.resolver],
    map: net.map,
    bootstrap: net.bootstrap,
    ca: [net.caPem],
    timeoutMs: 15_000,
    retryPauseMs: 20,
    // that there is no browser is an answer too, and a quick one
    render: { browser: { ...USUAL_BROWSER, path: '/nowhere/browser' }, pages: 0 },
  });
  const FIELDS: Record<Part, (e: Evidence) => unknown> = {
    dns: (e) => e.dns,
    tls: (e) => e.hosts.map((h) => h.tls),
    http: (e) => e.hosts.map(({ tls: _, ...rest }) => rest),
    registration: (e) => e.registration,
    files: (e) => [e.robots, e.sitemaps],
    pages: (e) => e.pages,
    rendered: (e) => e.rendered,
  };
  it.each(PARTS)('%s: it is new, and all else is what was seen before, with its age', async (part) => {
    const before = await collect(options());
    const at = new Date(Date.parse(before.finishedAt) + 60_000);
    const after = await collect({ ...options(), clock: () => at, again: { parts: [part], before } });
    for (const other of PARTS) {
      const get = FIELDS[other];
      // times of answers differ even where nothing else does
      if (other === part) expect(get(after)).not.toBe(get(before));
      else expect(get(after)).toEqual(get(before));
    }
    const times = timesOf(after);
    expect(times[part]).toBe(at.toISOString());
    for (const other of PARTS.filter((p) => p !== part)) expect(times[other]).toBe(before.finishedAt);
  });
  it('some pages: those are new, each where it was, and no other is asked for', async () => {
    const before = await collect(options());
    const [, second] = before.pages;
    const after = await collect({ ...options(), again: { parts: [], pages: [second!.url], before } });
    expect(after.pages.map((p) => p.url)).toEqual(before.pages.map((p) => p.url));
    expect(after.pages.filter((p) => p.readAt).map((p) => p.url)).toEqual([second!.url]);
    expect(after.pages[0]).toEqual(before.pages[0]);
    const unknown = `https://${preferredHost(site)}/nowhere-yet/`;
    const more = await collect({ ...options(), again: { parts: [], pages: [unknown], before } });
    expect(more.pages.at(-1)).toMatchObject({ requested: unknown, via: 'brief' });
    expect(more.pages).toHaveLength(before.pages.length + 1);
    expect(after.pages[1]).toMatchObject({ via: second!.via, depth: second!.depth, from: second!.from });
  });
  it('is not taken for one of other hosts, or reached in another way', async () => {
    const before = await collect(options());
    const wanted = options();
    expect(canRenew(before, wanted)).toBe(true);
    expect(canRenew(before, { ...wanted, brief: { ...wanted.brief, otherHosts: ['new.example'] } })).toBe(
      false,
    );
    expect(canRenew(before, { ...wanted, url: 'https://elsewhere.example/' })).toBe(false);
    expect(canRenew(before, { ...wanted, access: { kind: 'addresses' } })).toBe(false);
    expect(canRenew({ ...before, version: 1 }, wanted)).toBe(false);
  });
  it('without anything seen before, what a check rests on is collected with it', () => {
    const named = (id: string) => CATALOGUE.filter((c) => c.id === id);
    expect(partsFor(named('domain.spf'), true)).toEqual(['dns']);
    expect(partsFor(named('https.certificate-days'), true)).toEqual(['dns', 'tls', 'http']);
    expect(partsFor(named('metadata.title-present'), true)).toEqual(['dns', 'tls', 'http', 'files', 'pages']);
    expect(partsFor(named('metadata.title-present'))).toEqual(['pages']);
  });
});
