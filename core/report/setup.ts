/** What can be chosen for a report. */
export const REPORT_LANGUAGES = ['en', 'de'] as const;
export type ReportLanguage = (typeof REPORT_LANGUAGES)[number];

/** The parts of a report in their order. */
export const REPORT_PARTS = ['letter', 'standing', 'changed', 'open', 'left', 'pictures', 'manual'] as const;
export type ReportPart = (typeof REPORT_PARTS)[number];

/** What a person chooses for the report of one site. */
export interface ReportSetup {
  language: ReportLanguage;
  parts: ReportPart[];
  /** With {site} and {client} where the names are to stand. */
  letter: string;
  signedBy: string;
  /** Whether small things are listed, or only counted. */
  smallToo: boolean;
  /** Checks that are not told. */
  leftOut: string[];
  /** Words of one’s own for what a check means. */
  words: { check: string; text: string }[];
}
