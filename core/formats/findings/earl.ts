/**
 * Findings as EARL 1.0 (W3C Evaluation and Report Language) in JSON-LD 1.1: one assertion for each check about the
 * site, and one for each place at a web address that fails.
 */
import { parseUrl } from '#core/extract/address';
import type { Finding, Outcome } from '#core/facts/finding';
import { openPlaces, saidOf, type Audited } from './audited';

const CONTEXT = {
  earl: 'http://www.w3.org/ns/earl#',
  dct: 'http://purl.org/dc/terms/',
  xsd: 'http://www.w3.org/2001/XMLSchema#',
  'earl:assertedBy': { '@type': '@id' },
  'earl:mode': { '@type': '@id' },
  'earl:outcome': { '@type': '@id' },
  'earl:subject': { '@type': '@id' },
  'earl:test': { '@type': '@id' },
  'dct:isPartOf': { '@type': '@id' },
  'dct:date': { '@type': 'xsd:dateTime' },
};

/** The instances that EARL 1.0 Schema 2.8 names. */
const OUTCOMES: Record<Outcome, string> = {
  passed: 'earl:passed',
  failed: 'earl:failed',
  cantTell: 'earl:cantTell',
  inapplicable: 'earl:inapplicable',
  untested: 'earl:untested',
};
const ASSERTOR = '_:armband';
const testId = (check: string): string => `urn:armband:check:${check}`;

const assertion = (
  { check, byHand }: Finding,
  {
    subject,
    outcome,
    description,
    at,
  }: { subject: string; outcome: Outcome; description: string; at: string },
) => ({
  '@type': 'earl:Assertion',
  'earl:assertedBy': ASSERTOR,
  'earl:subject': subject,
  'earl:test': testId(check),
  'earl:mode': byHand ? 'earl:manual' : 'earl:automatic',
  'earl:result': {
    '@type': 'earl:TestResult',
    'earl:outcome': OUTCOMES[outcome],
    'dct:description': description,
    'dct:date': at,
  },
});

/** @returns a JSON-LD document as a value */
export function findingsEarl({ url, at, findings }: Audited): object {
  const pages = new Set<string>();
  const assertions = findings.flatMap((f) => {
    const ofSite = assertion(f, { subject: url, outcome: f.outcome, description: saidOf(f), at });
    const ofPages = openPlaces(f).flatMap(({ place, found }) => {
      if (!/^https?:\/\//.test(place) || !parseUrl(place) || place === url) return [];
      pages.add(place);
      return [assertion(f, { subject: place, outcome: 'failed', description: found ?? '', at })];
    });
    return [ofSite, ...ofPages];
  });
  return {
    '@context': CONTEXT,
    '@graph': [
      { '@id': ASSERTOR, '@type': ['earl:Assertor', 'earl:Software'], 'dct:title': 'Armband' },
      { '@id': url, '@type': 'earl:TestSubject' },
      ...[...pages].map((page) => ({ '@id': page, '@type': 'earl:TestSubject', 'dct:isPartOf': url })),
      ...findings.map((f) => ({
        '@id': testId(f.check),
        '@type': 'earl:TestCase',
        'dct:title': f.title,
        'dct:alternative': f.fault,
        'dct:identifier': f.check,
      })),
      ...assertions,
    ],
  };
}
