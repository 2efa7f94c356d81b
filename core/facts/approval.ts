/** A contact’s yes to one audit, as a check may know it; the approved evidence comes beside it. */
export interface Approval {
  /** Who said it. */
  by: string;
  /** ISO 8601. */
  at: string;
  /** The environment that was shown. */
  environment: string;
  /** Whether it is the one that is judged. */
  isHere: boolean;
  /** Whether that was the live one. */
  isLive: boolean;
}
