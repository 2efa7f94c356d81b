/** From packed evidence to tables of pages and single pages: what the pages thread does, without a database. */
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import type { TextField } from '#core/checks/kit/default-texts';
import { SiteView } from '#core/checks/view/site-view';
import type { Brief } from '#core/facts/brief';
import type { Checklist } from '#core/facts/checklist';
import type { Finding } from '#core/facts/finding';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import type { TextRoom } from '#core/pages/fit';
import { pageDetail, type PageDetail } from '#core/pages/page-detail';
import type { PageLine } from '#core/pages/page-line';
import { pageTable, roomsOf, type PagesInput } from '#core/pages/page-table';
import { bufferOf, readEvidence, unpackJson } from '#server/platform/packed';

const pack = promisify(brotliCompress);

/** One audit as it is kept. */
export interface KeptAudit {
  /** The audit with its verdict: what was made of it is good for as long as these are the same. */
  key: string;
  evidence: Uint8Array;
  findings: Uint8Array;
  brief: Brief;
  profile?: HostProfile;
  situation: Situation;
  checklist: Pick<Checklist, 'items'>;
}
export interface PagesJob {
  audit: KeptAudit;
  /** Opened page; the table of all of them where there is none. */
  url?: string;
  before?: KeptAudit;
}

/** What the table of an audit’s pages is sent as. */
export interface PagesAnswer {
  pages: PageLine[];
  /** What a listing holds. */
  rooms: Record<TextField, TextRoom>;
  /** Addresses that were found but not read, since the page limit was reached. */
  unread: number;
}

/** The last audits that were looked at: whoever opens one page opens another. */
const KEPT = 2;
const known = new Map<string, Promise<PagesInput>>();

async function read({
  evidence,
  findings,
  brief,
  profile,
  situation,
  checklist,
}: KeptAudit): Promise<PagesInput> {
  return {
    view: new SiteView(await readEvidence(bufferOf(evidence)), brief, profile ?? { name: '' }, situation),
    findings: await unpackJson<Finding[]>(bufferOf(findings)),
    rooms: roomsOf(checklist),
  };
}

function inputOf(audit: KeptAudit): Promise<PagesInput> {
  const found = known.get(audit.key) ?? read(audit);
  known.delete(audit.key);
  known.set(audit.key, found);
  for (const key of known.keys()) if (known.size > KEPT) known.delete(key);
  return found;
}

/** The table, packed with brotli as browsers take it. */
async function packedTable(input: PagesInput): Promise<Buffer> {
  const { rooms, view } = input;
  const answer: PagesAnswer = { pages: pageTable(input), rooms, unread: view.evidence.unread.length };
  return pack(JSON.stringify(answer), { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } });
}

/** @returns the packed table as base64, or the opened page as JSON; `null` for one that was not seen */
export async function pagesFromBytes({ audit, url, before }: PagesJob): Promise<string> {
  const input = await inputOf(audit);
  if (url === undefined) return (await packedTable(input)).toString('base64');
  const detail: PageDetail | undefined = pageDetail(url, input, before && (await inputOf(before)).view);
  return JSON.stringify(detail ?? null);
}
