/** The parts that evidence is collected in, each of which may be looked at again alone. */
export const PARTS = ['dns', 'tls', 'http', 'registration', 'files', 'pages', 'rendered'] as const;
export type Part = (typeof PARTS)[number];

/** What a part is called on the screens. */
export const PART_WORDS: Record<Part, string> = {
  dns: 'DNS',
  tls: 'TLS',
  http: 'HTTP of the hosts',
  registration: 'registration',
  files: 'robots.txt and sitemaps',
  pages: 'pages',
  rendered: 'pages in a browser',
};
