/** Files of an uploaded build that neither links nor pages lead to, asked for by their names. */
import { builtAddresses } from '#core/compare/build';
import { headerValues, lastAnswer, type BuiltEvidence } from '#core/facts/evidence';
import { sha256 } from './digest';
import type { Extract } from './extractor';
import type { SiteFiles } from './site-files';

/** More are left unread. */
const MOST_FILES = 2000;
const MOST_BYTES = 20 * 1024 * 1024;

/**
 * @param paths of the build, as it names them
 * @param known addresses that were read already
 */
export async function readBuilt(
  { client, origin, ask }: SiteFiles,
  extract: Extract,
  paths: readonly string[],
  known: ReadonlySet<string>,
): Promise<BuiltEvidence[]> {
  const unmet = paths
    .map((path) => builtAddresses(path, origin))
    .filter((addresses) => addresses.length && !addresses.some((a) => known.has(a)))
    .slice(0, MOST_FILES);
  const read = async ([url]: string[]): Promise<BuiltEvidence> => {
    const { chain, body } = await client.follow(url!, { ...ask, maxBytes: MOST_BYTES });
    const answer = lastAnswer(chain);
    const isWhole = body !== undefined && !answer?.cut;
    const type = headerValues(answer, 'content-type')[0];
    const page =
      isWhole && /html/i.test(type ?? '')
        ? await Promise.resolve(extract(body, type, url!)).catch(() => undefined)
        : undefined;
    return {
      url: url!,
      chain,
      ...(isWhole ? { sha256: await sha256(body), size: body.length } : {}),
      ...(page ? { text: page.facts.text } : {}),
    };
  };
  const out: BuiltEvidence[] = [];
  // as many at once as the client lets through
  for (let i = 0; i < unmet.length; i += AT_ONCE)
    out.push(...(await Promise.all(unmet.slice(i, i + AT_ONCE).map(read))));
  return out;
}
const AT_ONCE = 6;
