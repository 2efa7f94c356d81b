/** The parts that evidence is collected in, each of which may be looked at again alone. */
import type { Evidence } from './evidence';

export const PARTS = ['dns', 'tls', 'http', 'registration', 'files', 'pages'] as const;
export type Part = (typeof PARTS)[number];

/** When each part of this evidence was looked at. */
export function timesOf({ times, finishedAt }: Evidence): Record<Part, string> {
  return times ?? (Object.fromEntries(PARTS.map((part) => [part, finishedAt])) as Record<Part, string>);
}

/** What a part is called on the screens. */
export const PART_WORDS: Record<Part, string> = {
  dns: 'DNS',
  tls: 'TLS',
  http: 'HTTP of the hosts',
  registration: 'registration',
  files: 'robots.txt and sitemaps',
  pages: 'pages',
};

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
  registration: 'registration',
  robots: 'files',
  sitemaps: 'files',
  vouching: 'files',
  pages: 'pages',
  unread: 'pages',
  assets: 'pages',
  links: 'pages',
  hidden: 'pages',
  folders: 'pages',
  variants: 'pages',
  freshness: 'pages',
  manifest: 'pages',
};
