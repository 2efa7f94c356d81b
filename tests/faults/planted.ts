/**
 * The practice net's known right answers: each planted fault causes its finding, and each mended one its
 * absence. In halves, since two processes do it in half the time.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '#core/facts/evidence';
import { VERBATIM, isMessage, type Message } from '#core/facts/message';
import type { Situation } from '#core/facts/situation';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { FOUND_DE } from '#core/report/texts/found-de';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { FAULTS, type FaultKind } from '../../net/faults';
import { startPracticeNet, type PracticeNet } from '../../net/practice-net';
import { SITES, type PracticeSite } from '../../net/sites';
import { auditPractice, collectPractice, type PracticeOptions } from './practice-audit';

/** Findings that follow from a fault beside its own: the same thing seen from two sides. */
const ALONG: Record<string, string[]> = {
  'default-title': ['metadata.title-length'],
  'default-tagline': ['metadata.description-length', 'metadata.not-inherited'],
  'form-http': ['https.no-insecure-links'],
  'www-gone': ['domain.records-match'],
  parked: ['domain.records-match'],
  'shared-name': ['domain.preferred-host'],
  'stale-server': ['domain.authorities-agree'],
  'temporary-forward': ['domain.path-kept'],
  'second-address': ['domain.no-stray-records'],
  'www-dead': ['domain.preferred-host'],
  'apex-alias': ['domain.no-stray-records'],
  'www-circle': ['https.few-hops', 'domain.both-hosts'],
  'delegation-differs': ['domain.name-servers'],
  'robots-closed': ['indexing.robots-assets'],
  'staging-canonical': ['indexing.sitemap-pages'],
  'canonical-chain': ['indexing.sitemap-pages'],
  'canonical-home': ['indexing.sitemap-pages'],
  'rude-holding': ['indexing.kept-out'],
  'borrowed-token': ['verification.tokens-known'],
  'counted-twice': ['verification.scripts-once'],
  'same-description': ['metadata.not-inherited'],
  'no-icon': ['sharing.manifest'],
  'heavy-page': ['delivery.picture-weight'],
  'left-open': ['delivery.staging-locked'],
};
/** Faults that show another site altogether. */
const EVERYTHING_ELSE = new Set(['resolver-lags']);

type Spot = [slug: string, environment: 'live' | 'staging', situation: Situation];
/** Where a fault is planted for the test. */
function spotOf(f: FaultKind): Spot {
  const byNeed: Record<string, Spot> = {
    forwarded: ['chess', 'live', 'live'],
    moves: ['choir', 'live', 'former'],
    'no-mail': ['radio', 'live', 'live'],
    launched: ['seeds', 'staging', 'staging'],
    signed: ['planetarium', 'live', 'live'],
  };
  return (
    (f.needs ? byNeed[f.needs] : undefined) ??
    (f.on === 'holding'
      ? ['lifeboat', 'live', 'holding']
      : f.on === 'former'
        ? ['trams', 'live', 'former']
        : f.on === 'staging'
          ? ['boats', 'staging', 'staging']
          : ['planetarium', 'live', 'live'])
  );
}
/** What is open when nobody is asked who is there. */
const OPEN = new Set(['unlocked', 'left-open', 'open', 'disallow-only']);
const situationOf = (s: PracticeSite): Situation =>
  s.stage === 'launched' ? 'live' : s.replaces ? 'former' : 'holding';
const faultsOf = (findings: { check: string; outcome: string; found?: string; reason?: string }[]) =>
  findings
    .filter((f) => f.outcome === 'failed' || f.outcome === 'cantTell')
    .map((f) => `${f.check}: ${f.found ?? f.reason}`);

/** Codes of a sentence and of all that stand in its data. */
const codesIn = (said: Message): string[] => [
  said.code,
  ...Object.values(said.data ?? {})
    .flat()
    .flatMap((value) => (isMessage(value) ? codesIn(value) : [])),
];

/** What a client would read in English in a German report. */
const withoutGerman = (findings: readonly JudgedFinding[]): string[] =>
  findings
    .filter((f) => f.outcome === 'failed')
    .flatMap((f) => [f, ...f.places.filter((p) => p.outcome === 'failed')])
    .flatMap(codesIn)
    .filter((code) => code !== VERBATIM && FOUND_DE[code] === undefined);

/** @param half which of the two */
export function plantedFaults(half: 0 | 1): void {
  const mine = <T>(all: readonly T[]): T[] => all.filter((_, i) => i % 2 === half);
  let net: PracticeNet;
  let approved: Evidence;
  beforeAll(async () => {
    net = await startPracticeNet({ planted: false });
    approved = await collectPractice(net, 'planetarium', 'staging', { key: true });
  });
  afterAll(() => net.close());

  /** What has to be known beside the environment for a fault to be seen. */
  const beside = ({ check, needs, browser }: FaultKind): PracticeOptions => ({
    ...(check === 'delivery.live-equals-staging' ? { staging: approved } : {}),
    ...(needs === 'yes' ? { approved } : {}),
    ...(browser ? { browser: true } : {}),
  });

  describe('an environment without faults', () => {
    it.each(mine(SITES).map((s) => [s.slug, s] as const))(
      '%s: nothing fails and nothing is left open, on the live host and before it',
      async (slug, site) => {
        const staging =
          site.stage === 'launched' ? await collectPractice(net, slug, 'staging', { key: true }) : undefined;
        const live = await auditPractice(net, slug, 'live', situationOf(site), { staging });
        expect(faultsOf(live.findings)).toEqual([]);
        expect(live.findings.filter((f) => f.outcome === 'passed').length).toBeGreaterThan(9);
        const before = await auditPractice(net, slug, 'staging', 'staging', { key: true, launched: false });
        expect(faultsOf(before.findings)).toEqual([]);
        expect(before.findings.filter((f) => f.outcome === 'passed').length).toBeGreaterThan(60);
      },
    );
    if (half === 0)
      it('staging of a launched site behind a password is closed, and asked nothing more', async () => {
        const { findings, of } = await auditPractice(net, 'puppets', 'staging', 'staging');
        expect(of('indexing.staging-closed').outcome).toBe('passed');
        expect(findings.filter((f) => f.outcome !== 'inapplicable').map((f) => f.check)).toEqual([
          'indexing.staging-closed',
        ]);
      });
    if (half === 1)
      it('staging behind a password, without the password: nothing fails', async () => {
        const { findings, of } = await auditPractice(net, 'boats', 'staging', 'staging');
        expect(findings.filter((f) => f.outcome === 'failed').map((f) => f.check)).toEqual([]);
        expect([of('indexing.kept-out').outcome, of('delivery.staging-locked').outcome]).toEqual([
          'passed',
          'passed',
        ]);
      });
  });

  describe('every planted fault', () => {
    /** Environments whose faults were planted and mended one after the other. */
    const mended = new Map<
      string,
      {
        slug: string;
        environment: 'live' | 'staging';
        situation: Situation;
        options: PracticeOptions;
        faults: FaultKind[];
      }
    >();
    for (const fault of mine(FAULTS)) {
      it(`${fault.id} is found by ${fault.check}, and by nothing else`, async () => {
        const [slug, environment, situation] = spotOf(fault);
        const options: PracticeOptions = {
          key: environment === 'staging' && !OPEN.has(fault.id),
          ...beside(fault),
        };
        const opened = (fault.id === 'open' || fault.id === 'disallow-only') && environment === 'staging';
        if (opened) net.switches.set(slug, environment, 'unlocked', true);
        net.switches.set(slug, environment, fault.id, true);
        try {
          const { of, findings } = await auditPractice(net, slug, environment, situation, options);
          expect(of(fault.check).outcome, of(fault.check).reason).toBe(fault.outcome ?? 'failed');
          expect(withoutGerman(findings)).toEqual([]);
          if (!fault.outcome) expect(of(fault.check).recipe?.steps.length).toBeGreaterThan(20);
          // the build and the approved state differ by nature from a live site with a fault
          const others = findings
            .filter(
              (f) =>
                f.outcome === 'failed' &&
                ![
                  fault.check,
                  'delivery.matches-build',
                  'delivery.live-equals-staging',
                  ...(opened ? ['delivery.staging-locked'] : []),
                ].includes(f.check),
            )
            .map((f) => f.check);
          if (!EVERYTHING_ELSE.has(fault.id)) expect(others).toEqual(ALONG[fault.id] ?? []);
          if (!OPEN.has(fault.id)) {
            const key = [
              slug,
              environment,
              situation,
              options.key,
              Boolean(options.staging),
              Boolean(options.approved),
              fault.browser,
            ].join(' ');
            const spot = mended.get(key) ?? { slug, environment, situation, options, faults: [] };
            mended.set(key, spot);
            spot.faults.push(fault);
          }
        } finally {
          net.switches.set(slug, environment, fault.id, false);
          if (opened) net.switches.set(slug, environment, 'unlocked', false);
        }
      });
    }

    it('mended, none of them is found any more', async () => {
      expect([...mended.values()].reduce((n, m) => n + m.faults.length, 0)).toBeGreaterThan(60);
      for (const { slug, environment, situation, options, faults } of mended.values()) {
        const { of } = await auditPractice(net, slug, environment, situation, options);
        for (const f of faults)
          expect(of(f.check).outcome, `${f.id} at ${slug}, ${environment}`).not.toBe(f.outcome ?? 'failed');
      }
    });
    if (half === 0)
      it('covers every automatic check of the catalogue', () => {
        const covered = new Set(FAULTS.map((f) => f.check));
        expect(CATALOGUE.filter((c) => !c.byHand && !covered.has(c.id)).map((c) => c.id)).toEqual([]);
      });
  });

  describe('the demo as it is planted', () => {
    it('every planted fault of every site is found, at both environments', async () => {
      const planted = await startPracticeNet();
      try {
        for (const site of mine(SITES)) {
          for (const [environment, ids, as] of [
            ['live', site.live, situationOf(site)],
            ['staging', site.before, 'staging'],
          ] as const) {
            if (!ids.length) continue;
            const { of } = await auditPractice(planted, site.slug, environment, as, {
              // what was approved is held against what is live
              staging: ids.includes('publish-behind')
                ? await collectPractice(planted, site.slug, 'staging', { key: true })
                : undefined,
              browser: ids.some((id) => FAULTS.find((f) => f.id === id)!.browser),
              launched: environment === 'staging' ? false : undefined,
            });
            for (const id of ids) {
              const { check, outcome } = FAULTS.find((f) => f.id === id)!;
              expect(
                of(check).outcome,
                `${site.slug} ${environment} ${id} ${check}: ${of(check).reason}`,
              ).toBe(outcome ?? 'failed');
            }
          }
        }
      } finally {
        await planted.close();
      }
    });
  });

  describe('staging faults that live sites can have too', () => {
    // a browser takes its time: one of its faults stands for all on staging
    const alike = FAULTS.filter(
      (f) => f.on === 'both' && f.needs !== 'yes' && (!f.browser || f.id === 'script-error'),
    );
    const some = mine(alike);
    /** What was found with several faults planted at once: most do not touch each other. */
    const together = new Map<string, string>();
    const AT_ONCE = 8;
    beforeAll(async () => {
      const plain = some.filter((f) => !f.browser);
      for (let from = 0; from < plain.length; from += AT_ONCE) {
        const planted = plain.slice(from, from + AT_ONCE);
        for (const { id } of planted) net.switches.set('kites', 'staging', id, true);
        try {
          const { of } = await auditPractice(net, 'kites', 'staging', 'staging', { key: true });
          for (const { id, check } of planted) together.set(id, of(check).outcome);
        } finally {
          for (const { id } of planted) net.switches.set('kites', 'staging', id, false);
        }
      }
    });
    it.each(some.map((f) => [f.id, f] as const))(
      '%s is found on staging',
      async (id, { check, outcome = 'failed', browser }) => {
        if (together.get(id) === outcome) return;
        // another fault hides it: planted alone
        net.switches.set('kites', 'staging', id, true);
        try {
          const { of } = await auditPractice(net, 'kites', 'staging', 'staging', { key: true, browser });
          expect(of(check).outcome).toBe(outcome);
        } finally {
          net.switches.set('kites', 'staging', id, false);
        }
      },
    );
  });
}
