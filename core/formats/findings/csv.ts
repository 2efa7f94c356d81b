/** Findings as CSV (RFC 4180): a line for each check. */
import Papa from 'papaparse';
import { pointsLost } from '#core/score/score';
import { openPlaces, type Audited } from './audited';
import { headingOf } from '#core/facts/heading';

const TITLES = [
  'check',
  'section',
  'title',
  'severity',
  'outcome',
  'accepted',
  'points lost',
  'expected',
  'found',
  'reason',
  'failing',
  'looked at',
  'where',
];
/** Failing places that a cell names. */
const MOST_PLACES = 50;

export function findingsCsv({ findings }: Audited): string {
  const rows = findings.map((f) => {
    const open = openPlaces(f);
    return [
      f.check,
      f.section,
      headingOf(f),
      f.severity,
      f.outcome,
      f.accepted ? 'yes' : '',
      pointsLost(f),
      f.expected ?? '',
      f.found ?? '',
      f.reason ?? '',
      open.length,
      f.places.length,
      open
        .slice(0, MOST_PLACES)
        .map((p) => p.place)
        .join('\n'),
    ];
  });
  return `${Papa.unparse([TITLES, ...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`;
}
