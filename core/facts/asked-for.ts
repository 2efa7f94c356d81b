/**
 * What a checklist needs beside what every audit collects: for its own checks, and for the one that asks
 * other people's servers.
 */
export interface AskedFor {
  selectors: string[];
  records: { name: string; type: string }[];
  paths: string[];
  outsideLinks: boolean;
}
