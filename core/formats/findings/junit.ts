/**
 * Findings as JUnit XML, which continuous integration reads: a suite for each section, a case for each check. There
 * is no standard; the elements are those that the common readers agree on (common practice).
 */
import { SECTION_TITLES, SECTIONS, type Finding } from '#core/facts/finding';
import { openPlaces, saidOf, type Audited } from './audited';
import { headingOf } from '#core/facts/heading';

/** Text for XML 1.0, without the characters that it cannot hold (XML 1.0 2.2). */
const xml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '\ufffd')
    .replace(/\p{Surrogate}/gu, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replace(/[\t\n\r]/g, (c) => `&#${c.charCodeAt(0)};`);

const MOST_PLACES = 200;

const isFault = (f: Finding): boolean => f.outcome === 'failed' && !f.accepted;

function caseLines(f: Finding): string[] {
  const head = `    <testcase classname="${xml(f.section)}" name="${xml(`${f.check}: ${headingOf(f)}`)}"`;
  if (f.outcome === 'passed') return [`${head}/>`];
  if (!isFault(f)) {
    const message = f.accepted ? `accepted: ${saidOf(f)}` : `${f.outcome}: ${saidOf(f)}`;
    return [`${head}>`, `      <skipped message="${xml(message)}"/>`, '    </testcase>'];
  }
  const places = openPlaces(f);
  const lines = [
    `expected: ${f.expected ?? ''}`,
    `found: ${f.found ?? ''}`,
    ...places.slice(0, MOST_PLACES).map((p) => `${p.place}: ${p.found ?? ''}`),
    ...(places.length > MOST_PLACES ? [`and ${places.length - MOST_PLACES} more`] : []),
  ];
  return [
    `${head}>`,
    `      <failure type="${f.severity}" message="${xml(saidOf(f))}">${lines.map(xml).join('\n')}</failure>`,
    '    </testcase>',
  ];
}

const counts = (findings: readonly Finding[]): string => {
  const failures = findings.filter(isFault).length;
  const skipped = findings.filter((f) => f.outcome !== 'passed' && !isFault(f)).length;
  return `tests="${findings.length}" failures="${failures}" errors="0" skipped="${skipped}"`;
};

export function findingsJunit({ url, at, findings }: Audited): string {
  const suites = SECTIONS.flatMap((section) => {
    const own = findings.filter((f) => f.section === section);
    if (!own.length) return [];
    const about = `name="${xml(SECTION_TITLES[section])}" timestamp="${xml(at.slice(0, 19))}"`;
    return [`  <testsuite ${about} ${counts(own)}>`, ...own.flatMap(caseLines), '  </testsuite>'];
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites name="${xml(url)}" ${counts(findings)}>`,
    ...suites,
    '</testsuites>',
    '',
  ].join('\n');
}
