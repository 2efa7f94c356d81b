/**
 * What the agency knows of its other clients: enough to see that one client's things stand on another's site.
 */
export interface BookEntry {
  client: string;
  site: string;
  tokens: string[];
  analyticsIds: string[];
  privateEmails: string[];
  profileLinks: string[];
}
export type AgencyBook = readonly BookEntry[];

/** @returns whose a value is, in words, or undefined */
export function ownerOf(
  book: AgencyBook | undefined,
  kind: 'tokens' | 'analyticsIds' | 'privateEmails' | 'profileLinks',
  value: string,
): string | undefined {
  const wanted = value.toLowerCase();
  const entry = book?.find((e) => e[kind].some((v) => v.toLowerCase() === wanted));
  return entry && `${entry.client} (${entry.site})`;
}
