/** One audit’s findings as programs and people elsewhere get them. */
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Finding } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import type { Result } from '#core/score/score';

export interface Audited {
  /** The address that was looked at. */
  url: string;
  situation: Situation;
  /** When that was, ISO 8601. */
  at: string;
  findings: readonly JudgedFinding[];
  /** The commands that show a place of a finding; left out where there is no evidence to make them from. */
  commands?: (check: string, place: string) => readonly string[];
  result: Pick<Result, 'score' | 'lost' | 'coverage' | 'provisional' | 'gateNote' | 'unreached'>;
}

/** What was found, or why nothing could be. */
export const saidOf = ({ found, reason, outcome }: Finding): string => found ?? reason ?? outcome;

/** Places that fail and are not accepted. */
export const openPlaces = ({ places }: Finding) =>
  places.filter((p) => p.outcome === 'failed' && !p.accepted);
