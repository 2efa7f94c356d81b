/**
 * Findings in open formats, each read back by something that is not ours: EARL by the W3C’s vocabulary and the
 * reference library for JSON-LD, JUnit XML and CSV by parsers from the registry.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import jsonld from 'jsonld';
import { parse } from 'junit2json';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { AT, brief, evidence, page } from '#core/checks/example-evidence';
import { scoreOf } from '#core/score/score';
import { judge, type JudgedFinding } from '#core/checks/engine/judge';
import type { Audited } from './audited';
import { findingsCsv } from './csv';
import { findingsEarl } from './earl';
import { findingsJunit } from './junit';
import { findingsMarkdown } from './markdown';

const HOSTILE = '<b>"&]]>\u0000\u0007\ud800 =cmd()';
const URL = 'https://marsh-choir.example/';

function audited(): Audited {
  const e = evidence();
  e.pages[1] = page({ url: `${URL}about/`, title: null });
  const findings = judge({
    evidence: e,
    brief: brief(),
    checklist: fullChecklist(),
    situation: 'live',
    at: AT,
    launched: true,
  });
  const failed = findings.find((f) => f.check === 'metadata.title-present')!;
  failed.found = HOSTILE;
  failed.places.find((p) => p.outcome === 'failed')!.found = HOSTILE;
  const accepted: JudgedFinding = { ...failed, check: 'own.kept', title: 'Kept', accepted: true };
  return {
    url: URL,
    situation: 'live',
    at: AT.toISOString(),
    findings: [...findings, accepted],
    result: scoreOf(findings),
  };
}

const EARL = 'http://www.w3.org/ns/earl#';
const nquads = readFileSync(
  createRequire(import.meta.url)
    .resolve('@vocabulary/earl/package.json')
    .replace('package.json', 'earl.nq'),
  'utf8',
);
/** Every term that the W3C’s vocabulary defines. */
const TERMS = new Set([...nquads.matchAll(/^<(http:\/\/www\.w3\.org\/ns\/earl#\w+)>/gm)].map(([, t]) => t!));

interface Node {
  '@id'?: string;
  '@type'?: string[];
  [property: string]: unknown;
}
const expanded = async (): Promise<Node[]> =>
  (await jsonld.expand(findingsEarl(audited()) as object)) as Node[];

describe('EARL 1.0 as JSON-LD 1.1', () => {
  it('uses no term of the EARL namespace that the vocabulary has not', async () => {
    const used = new Set<string>();
    const walk = (value: unknown): void => {
      if (typeof value === 'string' && value.startsWith(EARL)) used.add(value);
      if (Array.isArray(value)) value.forEach(walk);
      else if (value && typeof value === 'object')
        for (const [key, held] of Object.entries(value)) {
          if (key.startsWith(EARL)) used.add(key);
          walk(held);
        }
    };
    walk(await expanded());
    expect(TERMS.size).toBeGreaterThan(20);
    expect(used.size).toBeGreaterThan(10);
    expect([...used].filter((term) => !TERMS.has(term))).toEqual([]);
  });
  it('gives each assertion all that EARL asks of one, as resources and not as text', async () => {
    const nodes = await expanded();
    const assertions = nodes.filter((n) => n['@type']?.includes(`${EARL}Assertion`));
    const known = new Set(nodes.map((n) => n['@id']));
    expect(assertions.length).toBeGreaterThan(50);
    for (const a of assertions) {
      for (const property of ['assertedBy', 'subject', 'test']) {
        const [value] = a[EARL + property] as Node[];
        expect(known, property).toContain(value!['@id']);
      }
      const [result] = a[`${EARL}result`] as Node[];
      const [outcome] = result![`${EARL}outcome`] as Node[];
      expect(TERMS).toContain(outcome!['@id']);
    }
  });
  it('says of one page that it fails where one page does', async () => {
    const assertions = (await expanded()).filter((n) => n['@type']?.includes(`${EARL}Assertion`));
    const of = (subject: string, check: string): unknown[] =>
      assertions
        .filter(
          (a) =>
            (a[`${EARL}subject`] as Node[])[0]!['@id'] === subject &&
            (a[`${EARL}test`] as Node[])[0]!['@id'] === `urn:armband:check:${check}`,
        )
        .map((a) => ((a[`${EARL}result`] as Node[])[0]![`${EARL}outcome`] as Node[])[0]!['@id']);
    expect(of(`${URL}about/`, 'metadata.title-present')).toEqual([`${EARL}failed`]);
    expect(of(URL, 'metadata.title-present')).toEqual([`${EARL}failed`]);
    expect(of(URL, 'metadata.charset')).toEqual([`${EARL}passed`]);
  });
  it('turns into triples', async () => {
    const quads = (await jsonld.toRDF(findingsEarl(audited()) as object)) as object[];
    expect(quads.length).toBeGreaterThan(500);
  });
});

describe('JUnit XML', () => {
  it('is read back with as many tests, failures and skipped ones as there are', async () => {
    const { findings } = audited();
    const read = await parse(findingsJunit(audited()));
    const suites = 'testsuite' in read! ? read.testsuite! : [];
    const cases = suites.flatMap((s) => s.testcase ?? []);
    const open = findings.filter((f) => f.outcome === 'failed' && !f.accepted);
    expect(cases).toHaveLength(findings.length);
    expect(cases.filter((c) => c.failure?.length)).toHaveLength(open.length);
    expect(cases.filter((c) => c.skipped?.length)).toHaveLength(
      findings.filter((f) => f.outcome !== 'passed').length - open.length,
    );
    for (const suite of suites) {
      expect(suite.tests).toBe(suite.testcase!.length);
      expect(suite.failures).toBe(suite.testcase!.filter((c) => c.failure?.length).length);
    }
  });
  it('names what fails, and keeps foreign text as text', async () => {
    const read = await parse(findingsJunit(audited()));
    const cases = ('testsuite' in read! ? read.testsuite! : []).flatMap((s) => s.testcase ?? []);
    const failed = cases.find((c) => c.name?.startsWith('metadata.title-present'))!;
    expect(failed.failure![0]!.type).toBe('major');
    expect(failed.failure![0]!.inner).toContain(`${URL}about/: <b>"&]]>`);
    expect(failed.failure![0]!.message).toContain('�');
  });
});

describe('CSV', () => {
  it('has a line for each check, and starts no formula', () => {
    const { findings } = audited();
    const [titles, ...rows] = Papa.parse<string[]>(findingsCsv(audited()).trim()).data;
    expect(rows).toHaveLength(findings.length);
    expect(rows.every((r) => r.length === titles!.length)).toBe(true);
    const row = rows.find(([check]) => check === 'metadata.title-present')!;
    expect(row[titles!.indexOf('outcome')]).toBe('failed');
    expect(row[titles!.indexOf('where')]).toBe(`${URL}about/`);
    const formula = { ...findings[0]!, found: '=HYPERLINK("x")' };
    expect(findingsCsv({ ...audited(), findings: [formula] })).toContain(`"'=HYPERLINK(""x"")"`);
  });
});

describe('Markdown', () => {
  it('has the worst on top, and lets no foreign text become markup', () => {
    const text = findingsMarkdown(audited());
    expect(text).toMatch(/^# <https:\/\/marsh-choir\.example\/>/);
    expect(text).toContain('## Failed: ');
    expect(text).toContain('\\<b\\>');
    expect(text).not.toContain('<b>');
    expect(text).toContain('major, accepted, `own.kept`');
  });
});
