import { EVIDENCE_VERSION, type Evidence } from './evidence';

/**
 * Evidence of something that was not looked at yet.
 * @param at when, as ISO 8601
 */
export function blankEvidence(target: Evidence['target'], at: string): Evidence {
  return {
    version: EVIDENCE_VERSION,
    agent: '',
    target,
    startedAt: at,
    finishedAt: at,
    dns: { resolvers: [], zone: null, nameServers: [], parent: null, randomLabel: '', answers: [] },
    hosts: [],
    subdomains: [],
    robots: { chain: { start: new URL('/robots.txt', target.url).href, hops: [], end: 'error' } },
    sitemaps: [],
    pages: [],
    unread: [],
    assets: [],
    links: [],
    notFound: null,
    paths: [],
    folders: [],
    tokenFiles: [],
    former: [],
    variants: [],
    freshness: [],
    manifest: null,
    bypass: null,
    registration: null,
    mtaSts: null,
    notes: [],
  };
}
