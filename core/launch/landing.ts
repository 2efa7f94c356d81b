/** What a visitor of a host meets at a launch: the new site, the old one, or somebody else’s page. */
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import type { PageFacts } from '#core/extract/html';
import { commonMark, serverPage, type MarkKind } from '#core/checks/view/page-marks';
import { PageText } from '#core/checks/view/page-text';
import type { Shows } from './watch';

export interface Landing {
  /** The page, where one came. */
  page?: { url: string; facts: PageFacts };
  status?: number;
  /** The address that answered, without its port. */
  address?: string;
}

const MARKED: [MarkKind, Shows][] = [
  ['parking', 'parking page'],
  ['unknownName', 'unknown name'],
  ['holding', 'holding page'],
];

export interface LandingKnown {
  brief: Brief;
  profile?: HostProfile;
  /** Where the names led before. */
  oldAddresses: readonly string[];
}

/** Whose page it is by its words, where it is none of the site’s. */
function markedPage(page: NonNullable<Landing['page']>, { brief, profile }: LandingKnown): Shows | undefined {
  const words = new PageText(page.facts);
  return MARKED.find(([kind]) => {
    const ofHost = profile?.marks?.[kind as 'parking'] ?? [];
    const own = kind === 'holding' && brief.holding?.mark ? [...ofHost, brief.holding.mark] : ofHost;
    return own.some((mark) => words.carries(mark)) || commonMark(page, kind, brief.name) !== undefined;
  })?.[1];
}

/** A host says in many ways that it does not know a name: by these for its root (RFC 9110 15.5.5, 15.5.20). */
const UNKNOWN: ReadonlySet<number> = new Set([404, 421]);

export function showsOf({ page, status, address }: Landing, known: LandingKnown): Shows {
  if (status === undefined) return 'nothing';
  if (address && known.oldAddresses.includes(address)) return 'old site';
  const marked = page && markedPage(page, known);
  if (marked) return marked;
  if (UNKNOWN.has(status) || (page && serverPage(page))) return 'unknown name';
  if (status < 400) return 'site';
  return status < 500 ? 'refused' : 'nothing';
}
