/** What the checks are told about the environment they look at. */
export type Situation = 'staging' | 'holding' | 'former' | 'live';
export type Stage = 'building' | 'pre-launch' | 'launched' | 'retired';
export const ENVIRONMENT_KINDS = ['live', 'before'] as const;
export type EnvironmentKind = (typeof ENVIRONMENT_KINDS)[number];

export const STAGES: readonly Stage[] = ['building', 'pre-launch', 'launched', 'retired'];
export const SITUATIONS: readonly Situation[] = ['staging', 'holding', 'former', 'live'];

/** The words the screens use for a situation. */
export const SITUATION_WORDS: Record<Situation, string> = {
  staging: 'staging',
  holding: 'holding page',
  former: 'former site',
  live: 'live',
};

/**
 * The situation that follows from environment and stage, sharpened by what is seen.
 * A person's choice wins over everything.
 * @param of.holdingSeen whether the home page carries a holding mark; leave out when nothing was seen yet
 */
export function situationOf(of: {
  kind: EnvironmentKind;
  stage: Stage;
  replaces: boolean;
  chosen?: Situation | null;
  holdingSeen?: boolean;
  /** When it was set to launched, and when what is judged was seen: ISO times. */
  launchedAt?: string | null;
  seenAt?: string;
}): Situation {
  if (of.chosen) return of.chosen;
  if (of.kind === 'before') return 'staging';
  // what was seen before the launch is of whatever was there before
  const isEarlier = Boolean(of.launchedAt && of.seenAt && of.seenAt < of.launchedAt);
  if (of.stage === 'launched' && !isEarlier) return 'live';
  return of.replaces && !of.holdingSeen ? 'former' : 'holding';
}
