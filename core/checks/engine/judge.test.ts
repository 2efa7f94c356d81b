import { describe, expect, it } from 'vitest';
import { SECTIONS } from '#core/facts/finding';
import { scoreOf } from '#core/score/score';
import { CATALOGUE } from '#core/checks/catalogue/index';
import {
  AT,
  ask,
  brief,
  brokenChain,
  evidence,
  host,
  page,
  withHome,
  withPages,
} from '#core/checks/example-evidence';
import { fullChecklist } from './checklist';
import { judge } from './judge';

const all = (change: Partial<Parameters<typeof judge>[0]> = {}) =>
  judge({
    evidence: evidence(),
    brief: brief(),
    checklist: fullChecklist(),
    situation: 'live',
    at: AT,
    skipManual: true,
    ...change,
  });

describe('the catalogue', () => {
  it('has four or more automatic checks in each section, ids unique and spelt like their section', () => {
    expect(new Set(CATALOGUE.map((c) => c.id)).size).toBe(CATALOGUE.length);
    for (const section of SECTIONS)
      expect(
        CATALOGUE.filter((c) => c.section === section && !c.byHand).length,
        section,
      ).toBeGreaterThanOrEqual(4);
    for (const c of CATALOGUE) {
      expect(c.id.startsWith(`${c.section}.`)).toBe(true);
      expect(c.source.length).toBeGreaterThanOrEqual(4);
      expect(c.situations.length).toBeGreaterThan(0);
    }
  });
});

describe('rules over all checks', () => {
  it('a site where everything is right has no fault and nothing open', () => {
    // there is no audit of staging to compare with, which that check says
    expect(
      all()
        .filter((f) => f.check !== 'delivery.live-equals-staging')
        .filter((f) => f.outcome === 'failed' || f.outcome === 'cantTell')
        .map((f) => `${f.check} ${f.found ?? f.reason}`),
    ).toEqual([]);
  });

  it('rule 2: an unfilled field leaves its checks untested, an unwanted one makes them inapplicable with the reason', () => {
    const { name: _, ...nameless } = brief();
    expect(ask('identity.title-names-site', { brief: nameless })).toMatchObject({
      outcome: 'untested',
      reason: 'the brief does not say',
    });
    expect(
      ask('verification.tokens-present', {
        brief: { ...brief(), tokens: [], notWanted: { tokens: 'a private site' } },
      }),
    ).toMatchObject({ outcome: 'inapplicable', reason: 'not wanted: a private site' });
  });

  it('rule 3: a name that does not exist is charged once, and the rest cannot be told', () => {
    const gone = brokenChain(
      'https://marsh-choir.example/',
      'no-name',
      'marsh-choir.example does not exist (NXDOMAIN)',
    );
    const tls = { host: 'marsh-choir.example', chain: [], trusted: false, error: gone.error };
    const e = evidence({
      pages: [
        { ...page({ url: 'https://marsh-choir.example/', via: 'home' }), chain: gone, facts: undefined },
      ],
      assets: [],
      sitemaps: [],
      hosts: ['marsh-choir.example', 'www.marsh-choir.example'].map((h) =>
        host(h, {
          tls: { ...tls, host: h },
          http: gone,
          https: gone,
          httpPath: gone,
          httpsPath: gone,
          landing: undefined,
        }),
      ),
      dns: {
        ...evidence().dns,
        answers: evidence().dns.answers.map((a) => ({
          ...a,
          records: [],
          rcode: 'NXDOMAIN',
          authority: undefined,
        })),
        nameServers: [],
      },
    });
    const findings = all({ evidence: e });
    const failed = findings.filter((f) => f.outcome === 'failed').map((f) => f.check);
    expect(failed).toEqual(['domain.resolves', 'domain.records-match']);
    expect(findings.find((f) => f.check === 'identity.home-page')).toMatchObject({ outcome: 'cantTell' });
    expect(findings.find((f) => f.check === 'identity.home-page')!.reason).toContain(
      'rests on domain.resolves',
    );
    const r = scoreOf(findings);
    expect(r.gate).toBe('held');
    expect(r.provisional).toBe(true);
  });

  it('rule 4: a refused visitor proves nothing', () => {
    const e = withPages(
      page({
        url: 'https://marsh-choir.example/',
        via: 'home',
        title: 'Access denied',
        status: 403,
        head: '<meta name="robots" content="noindex">',
      }),
    );
    expect(ask('indexing.let-in', { evidence: e }).outcome).toBe('cantTell');
    expect(ask('identity.title-names-site', { evidence: e })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('403') as string,
    });
  });

  it('rule 5: an empty application shell is not judged', () => {
    const e = evidence();
    const shell = page({ url: 'https://marsh-choir.example/', via: 'home' });
    shell.facts = {
      ...shell.facts!,
      text: '',
      textLength: 0,
      anchors: [],
      headings: [],
      scripts: [{ raw: '', line: 1, column: 1, where: 'body', src: 'https://marsh-choir.example/app.js' }],
    };
    e.pages[0] = shell;
    delete e.rendered;
    expect(ask('metadata.one-main-heading', { evidence: e }).outcome).toBe('cantTell');
  });

  it('a check that throws ends as cantTell and harms no other', () => {
    const e = evidence();
    e.hosts = [{ ...e.hosts[0]!, tls: null as never }];
    const findings = all({ evidence: e });
    expect(findings.find((f) => f.check === 'https.certificate-valid')).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('could not finish') as string,
    });
    expect(findings.find((f) => f.check === 'identity.language')?.outcome).toBe('passed');
  });

  it('staging and live want opposite things of indexing', () => {
    const open = evidence();
    expect(ask('indexing.let-in', { evidence: open }).outcome).toBe('passed');
    expect(ask('indexing.kept-out', { evidence: open, situation: 'staging' }).outcome).toBe('failed');
    const shut = withHome({ head: '<meta name="robots" content="noindex">' });
    expect(ask('indexing.let-in', { evidence: shut }).outcome).toBe('failed');
    expect(
      ask('indexing.kept-out', { evidence: withPages(shut.pages[0]!), situation: 'staging' }).outcome,
    ).toBe('passed');
  });

  it('the checklist decides severity, weight, parameters and what is asked at all', () => {
    const findings = all({
      checklist: {
        name: 'Short',
        version: 1,
        items: [
          { check: 'https.hsts', severity: 'minor', weight: 3, parameters: { seconds: 40_000_000 } },
          { check: 'domain.resolves', on: false },
          { check: 'no.such-check' },
        ],
      },
    });
    expect(findings).toHaveLength(1);
    expect(findings[0]).toMatchObject({
      check: 'https.hsts',
      outcome: 'failed',
      severity: 'minor',
      weight: 3,
    });
  });

  it('pages left unread are said, and count for their share', () => {
    const e = evidence({ unread: Array.from({ length: 9 }, (_, i) => `https://marsh-choir.example/${i}`) });
    const f = ask('metadata.title-present', { evidence: e });
    expect(f.seen).toEqual({ read: 3, known: 12 });
    expect(scoreOf([f]).coverage).toBe(25);
  });
});

describe('attestations and acceptances', () => {
  const by = { check: 'delivery.backup', by: 'Joss Teal', at: '2026-11-20T10:00:00Z' };
  const ofHand = (attestations: Parameters<typeof judge>[0]['attestations']) =>
    all({ skipManual: false, attestations }).find((f) => f.check === 'delivery.backup')!;
  it('a manual check is untested until attested, and again after its last day', () => {
    expect(ofHand([]).outcome).toBe('untested');
    expect(ofHand([{ ...by, done: true, goodUntil: '2026-11-24' }]).outcome).toBe('passed');
    expect(ofHand([{ ...by, done: true, goodUntil: '2026-11-23' }]).outcome).toBe('untested');
    expect(ofHand([{ ...by, done: false }]).outcome).toBe('failed');
    expect(
      ofHand([
        { ...by, done: false },
        { ...by, done: true, at: '2026-11-21T10:00:00Z' },
      ]).outcome,
    ).toBe('passed');
  });

  const bad = withHome({ head: '<meta name="robots" content="noindex">' });
  const acceptance = {
    check: 'indexing.let-in',
    places: [
      {
        place: 'https://marsh-choir.example/',
        code: 'kit/noindex-in',
        data: { inPage: 'yes', everyone: 'yes', agent: undefined },
      },
    ],
    reason: 'soft launch',
    by: 'Mara Quill',
    until: '2026-12-31',
  };
  const accepted = (more: Partial<typeof acceptance & { seconded: string }>) =>
    all({ evidence: bad, acceptances: [{ ...acceptance, ...more }] }).find(
      (f) => f.check === 'indexing.let-in',
    )!.accepted;
  it('a blocker is accepted only with a second person, for its places and values, until its day', () => {
    expect(accepted({})).toBeUndefined();
    expect(accepted({ seconded: 'Joss Teal' })).toBe(true);
    expect(accepted({ seconded: 'Joss Teal', until: '2026-11-24' })).toBe(true);
    expect(accepted({ seconded: 'Joss Teal', until: '2026-11-23' })).toBeUndefined();
    expect(
      accepted({
        seconded: 'Joss Teal',
        places: [{ ...acceptance.places[0]!, data: { inPage: 'no', everyone: 'yes', agent: undefined } }],
      }),
    ).toBeUndefined();
  });
});
