/**
 * What the agency knows of one environment beside its address: when it was set up, last changed, and when it ends.
 */
export interface EnvironmentDates {
  /** ISO 8601 dates. */
  setUp?: string;
  changed?: string;
  /** Told by the host outright; it counts before anything reckoned. */
  endsOn?: string;
}

/** The files of a built site, as somebody uploaded them: path from the root, digest of the bytes. */
export interface SiteBuild {
  name: string;
  files: { path: string; sha256: string; bytes: number; text?: string }[];
}
