/** Which part of the evidence stands where, and how old it is. */
import type { Evidence } from './evidence';
import { PARTS, type Part } from './parts';

/** When each part of this evidence was looked at. */
export function timesOf({ times, finishedAt }: Evidence): Record<Part, string> {
  // a part that came later than the evidence has no time of its own
  return Object.fromEntries(PARTS.map((part) => [part, times?.[part] ?? finishedAt])) as Record<Part, string>;
}

/** Which part a field of the evidence belongs to; hosts are two: the handshake, and what answers over it. */
export const PART_OF: Partial<Record<keyof Evidence, Part>> = {
  dns: 'dns',
  subdomains: 'http',
  notFound: 'http',
  notFoundSample: 'http',
  notFoundTitle: 'http',
  paths: 'http',
  asked: 'http',
  tokenFiles: 'http',
  former: 'http',
  bypass: 'http',
  mtaSts: 'http',
  registration: 'registration',
  robots: 'files',
  sitemaps: 'files',
  vouching: 'files',
  pages: 'pages',
  unread: 'pages',
  assets: 'pages',
  links: 'pages',
  hidden: 'pages',
  built: 'pages',
  folders: 'pages',
  variants: 'pages',
  freshness: 'pages',
  manifest: 'pages',
  rendered: 'rendered',
};
