/**
 * Requests whose answers are held against each other: ordinary and revalidated, one slash form and the other.
 */
import { createHash } from 'node:crypto';
import {
  finalStatus,
  headerValues,
  lastAnswer,
  type Evidence,
  type FetchedText,
  type PageEvidence,
} from '#core/facts/evidence';
import { isHtml } from './crawl';
import type { Extract } from './extractor';
import type { Fetched, HttpClient, Asked } from './http/client';

const COMPARED = 3;
const VARIANTS = 20;
const digest = (text: string): string => createHash('sha256').update(text).digest('hex');

export interface Comparing {
  client: HttpClient;
  extract: Extract;
  ask: Asked;
}

async function textOf({ extract }: Comparing, { chain, body }: Fetched): Promise<string | undefined> {
  const last = lastAnswer(chain);
  const type = headerValues(last, 'content-type')[0];
  if (!body || !last || !isHtml(type, body)) return undefined;
  try {
    return digest((await extract(body, type, last.url)).facts.text);
  } catch {
    return undefined;
  }
}

/** Pages that count as read, the home page first. */
const good = (pages: readonly PageEvidence[]): PageEvidence[] =>
  pages.filter((p) => p.facts && finalStatus(p.chain) === 200);

/**
 * A few pages twice, one after the other: as any visitor asks, and asking every cache on the way to look
 * again (RFC 9111 5.2.1.4).
 */
export async function compareFreshness(
  tools: Comparing,
  pages: readonly PageEvidence[],
): Promise<Evidence['freshness']> {
  const fetched = async (url: string, headers: Record<string, string>): Promise<FetchedText> => {
    const got = await tools.client.follow(url, { ...tools.ask, headers });
    const age = headerValues(lastAnswer(got.chain), 'age')[0];
    return {
      status: finalStatus(got.chain),
      ...(age ? { age: age.slice(0, 20) } : {}),
      ...(got.body ? { sha256: createHash('sha256').update(got.body).digest('hex') } : {}),
      text: await textOf(tools, got),
      ...(got.chain.error ? { error: got.chain.error } : {}),
    };
  };
  return Promise.all(
    good(pages)
      .slice(0, COMPARED)
      .map(async ({ url }) => ({
        url,
        ordinary: await fetched(url, {}),
        revalidated: await fetched(url, { 'cache-control': 'no-cache', pragma: 'no-cache' }),
      })),
  );
}

/** The other slash form of an address, where it has one. */
export function otherSlash(address: string): string | undefined {
  const url = new URL(address);
  if (url.pathname === '/' || url.search || /\.[a-z0-9]{2,5}$/i.test(url.pathname)) return undefined;
  url.pathname = url.pathname.endsWith('/') ? url.pathname.slice(0, -1) : `${url.pathname}/`;
  return url.href;
}

/** Pages under their other slash form. */
export async function probeVariants(
  tools: Comparing,
  pages: readonly PageEvidence[],
): Promise<Evidence['variants']> {
  const known = new Set(pages.flatMap((p) => [p.url, p.requested]));
  const wanted = good(pages)
    .flatMap((p) => {
      const url = otherSlash(p.url);
      return url && !known.has(url) ? [{ url, of: p.url }] : [];
    })
    .slice(0, VARIANTS);
  return Promise.all(
    wanted.map(async ({ url, of }) => {
      const got = await tools.client.follow(url, tools.ask);
      const text = await textOf(tools, got);
      return { url, of, chain: got.chain, ...(text ? { text } : {}) };
    }),
  );
}
