/** The texts of a report and of the page on which a client sees it: one object a language. */
import type { Section } from '#core/facts/finding';
import type { Gate } from '#core/score/score';
import type { ReportPart } from '../setup';
import type { PlainCheck } from './plain-check';

export interface ReportTexts {
  /** The language’s own name for itself. */
  name: string;
  checks: Record<string, PlainCheck>;
  sections: Record<Section, string>;
  parts: Record<ReportPart, string>;
  /** What is said where a part has nothing to tell. */
  nothing: { open: string; changed: string; firstReport: string; pictures: string };
  report: string;
  lookedAt: string;
  page: string;
  edition: (n: number) => string;
  verdict: (gate: Gate, blockers: number, launched: boolean) => string;
  openCount: (others: number, blockers: number) => string;
  undecidedCount: (n: number) => string;
  waitingCount: (n: number) => string;
  smallOpen: (n: number) => string;
  /** Where nothing else is open. */
  onlySmallOpen: (n: number) => string;
  bandLegend: string;
  mended: string;
  fresh: string;
  since: (date: string) => string;
  sinceFirst: (date: string) => string;
  found: string;
  who: string;
  nobodyYet: string;
  by: string;
  onPages: (n: number) => string;
  gravity: { blocker: string; major: string; minor: string };
  states: { 'in progress': string; 'to verify': string };
  desktop: string;
  phone: string;
  done: string;
  notYet: string;
  /** The page behind a share link. */
  shared: {
    forYou: string;
    /** Instead of the name of another client. */
    somebodyElse: string;
    passphrase: string;
    open: string;
    asPdf: string;
    yesTitle: string;
    yesText: (environment: string) => string;
    yesNote: string;
    sayYes: string;
    saidYes: (date: string) => string;
    stale: string;
    withdrawYes: string;
    withdrawn: (date: string) => string;
    newer: string;
    remarksTitle: string;
    remarkAbout: string;
    whole: string;
    finding: string;
    pageAbout: string;
    remarkText: string;
    regionHint: string;
    regionMarked: string;
    clearRegion: string;
    send: string;
    sent: string;
    noRemarks: string;
    remarkState: {
      waiting: string;
      answered: string;
      taken: string;
      'in progress': string;
      'to verify': string;
      done: string;
    };
    ask: string;
    waitsForYou: string;
    reason: string;
    cancel: string;
  };
}
