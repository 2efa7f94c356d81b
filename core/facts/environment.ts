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

/** A file of a built site: path from the root, digest of the bytes, and the words of a page. */
export interface BuiltFile {
  path: string;
  sha256: string;
  bytes: number;
  text?: string;
  /** What a page says of itself, thing by thing, as comparing has it. */
  face?: Record<string, string[]>;
}

/** The files of a built site, as somebody uploaded them. */
export interface SiteBuild {
  name: string;
  files: BuiltFile[];
}
