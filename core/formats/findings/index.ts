/** The formats in which findings leave, by the words that ask for them. */
import type { Audited } from './audited';
import { findingsCsv } from './csv';
import { findingsEarl } from './earl';
import { findingsJunit } from './junit';
import { findingsMarkdown } from './markdown';

interface Format {
  title: string;
  type: string;
  ending: string;
  write: (audited: Audited) => string;
}

export const FINDING_FORMATS = {
  earl: {
    title: 'EARL 1.0 (JSON-LD)',
    type: 'application/ld+json',
    ending: 'jsonld',
    write: (audited) => JSON.stringify(findingsEarl(audited), null, 1),
  },
  junit: { title: 'JUnit XML', type: 'application/xml', ending: 'xml', write: findingsJunit },
  csv: { title: 'CSV', type: 'text/csv; charset=utf-8', ending: 'csv', write: findingsCsv },
  markdown: {
    title: 'Markdown',
    type: 'text/markdown; charset=utf-8',
    ending: 'md',
    write: findingsMarkdown,
  },
} as const satisfies Record<string, Format>;

export type FindingFormat = keyof typeof FINDING_FORMATS;
export const FINDING_FORMAT_NAMES = Object.keys(FINDING_FORMATS) as FindingFormat[];
