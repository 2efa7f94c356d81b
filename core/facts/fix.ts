/** A tracked fault: one environment and one check. */
export type FixState = 'open' | 'in progress' | 'to verify' | 'verified' | 'accepted' | 'gone';
export const FIX_STATES: readonly FixState[] = [
  'open',
  'in progress',
  'to verify',
  'verified',
  'accepted',
  'gone',
];
/** States in which something is left to do. */
export const OPEN_STATES: readonly FixState[] = ['open', 'in progress', 'to verify'];
/** States in which the fault is gone. What is accepted is neither: it is there, and left. */
export const CLOSED_STATES: ReadonlySet<FixState> = new Set(['verified', 'gone']);

const REMARK = 'remark.';
/** What a fix that comes of a client’s remark has in place of a check. */
export const remarkCheck = (remarkId: number): string => `${REMARK}${remarkId}`;
/** Whether a fix comes of a remark: no audit can see it, and people say when it is done. */
export const isRemarkCheck = (check: string): boolean => check.startsWith(REMARK);

export interface FixCore {
  state: FixState;
  places: { place: string; found?: string }[];
  /** How many times the fault came back after it was verified or gone. */
  returns: number;
}

/** One line of a fix's history. `by` is a person's name, or "audit". */
export interface FixEvent {
  kind:
    | 'opened'
    | 'state'
    | 'came back'
    | 'still seen'
    | 'verified'
    | 'gone'
    | 'accepted'
    | 'places'
    | 'owner'
    | 'due'
    | 'comment';
  by: string;
  at: string;
  from?: FixState;
  to?: FixState;
  text?: string;
}
