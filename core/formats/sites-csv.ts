/**
 * Sites in bulk as CSV (RFC 4180): reading with every bad cell marked before anything is saved, and writing.
 */
import Papa from 'papaparse';
import { readAs, type Fault } from '#core/entry/validation';
import { NewSiteDto } from '#core/entry/site';
import { withScheme } from '#core/extract/address';
import { readList } from './brief-lines';

interface Column {
  key: string;
  title: string;
  also: readonly string[];
  where: string;
}
/** What a column fills in, and the words that people head it with. */
const COLUMNS: readonly Column[] = [
  { key: 'name', title: 'name', also: ['site', 'site name'], where: 'name' },
  { key: 'client', title: 'client', also: ['customer'], where: 'client' },
  {
    key: 'liveUrl',
    title: 'live address',
    also: ['url', 'address', 'live', 'live url', 'domain'],
    where: 'liveUrl',
  },
  {
    key: 'staging',
    title: 'staging address',
    also: ['staging', 'draft', 'test', 'staging url'],
    where: 'environments.0.url',
  },
  { key: 'access', title: 'access', also: ['staging access', 'login'], where: 'access' },
  { key: 'stage', title: 'stage', also: ['state'], where: 'stage' },
  { key: 'launchDate', title: 'launch date', also: ['launch'], where: 'launchDate' },
  { key: 'replaces', title: 'replaces', also: ['replaces a site', 'relaunch'], where: 'replaces' },
  { key: 'hostProfile', title: 'host profile', also: ['host', 'hosting'], where: 'hostProfile' },
  { key: 'tagline', title: 'tagline', also: ['slogan'], where: 'brief.tagline' },
  { key: 'languages', title: 'languages', also: ['language'], where: 'brief.languages' },
  {
    key: 'contactEmail',
    title: 'mail',
    also: ['email', 'e-mail', 'contact email'],
    where: 'brief.contactEmail',
  },
  { key: 'phone', title: 'phone', also: ['telephone', 'tel'], where: 'brief.phone' },
  { key: 'preferredHost', title: 'preferred host', also: ['host name'], where: 'brief.preferredHost' },
  { key: 'otherHosts', title: 'other hosts', also: [], where: 'brief.otherHosts' },
];
export const CSV_TITLES = COLUMNS.map((c) => c.title);
const MOST_ROWS = 5000;
const MOST_COLUMNS = 100;
const YES = /^(?:y|yes|true|1|x)$/i,
  NO = /^(?:n|no|false|0|)$/i;

interface CsvRow {
  line: number;
  cells: string[];
  site: NewSiteDto | null;
  /** The name of the stored access that gets into its staging; never a secret. */
  access: string | null;
  /** Faults by column; -1 is the row as a whole. */
  faults: { column: number; message: string }[];
}
export interface CsvSites {
  columns: { title: string; known: boolean }[];
  rows: CsvRow[];
  faults: string[];
}

/** One row's cells as the site they describe. */
function siteOf(cell: (key: string) => string): {
  site: Record<string, unknown>;
  fault?: { key: string; message: string };
} {
  const replaces = cell('replaces');
  const brief: Record<string, unknown> = { name: cell('name') };
  for (const key of ['tagline', 'contactEmail', 'phone', 'preferredHost'])
    if (cell(key)) brief[key] = cell(key);
  for (const key of ['languages', 'otherHosts'])
    if (cell(key)) brief[key] = readList(cell(key).replace(/;/g, ','));
  return {
    site: {
      name: cell('name'),
      client: cell('client') || cell('name'),
      ...(cell('liveUrl') ? { liveUrl: withScheme(cell('liveUrl')) } : {}),
      environments: cell('staging') ? [{ name: 'Staging', url: withScheme(cell('staging')) }] : [],
      stage: cell('stage').toLowerCase() || 'building',
      replaces: YES.test(replaces),
      ...(cell('launchDate') ? { launchDate: cell('launchDate') } : {}),
      ...(cell('hostProfile') ? { hostProfile: cell('hostProfile') } : {}),
      brief,
    },
    ...(YES.test(replaces) || NO.test(replaces)
      ? {}
      : { fault: { key: 'replaces', message: 'write yes or no' } }),
  };
}

/** What the agency has already. */
export interface KnownSites {
  /** The host profiles there are; another name is a fault. */
  profiles?: readonly string[];
  /** Names of stored accesses; `many` where more than one has the name. */
  accesses?: ReadonlyMap<string, 'one' | 'many'>;
  /** Sites as "client\nname" in lower case. */
  taken?: ReadonlySet<string>;
}

type CellFault = CsvRow['faults'][number];

/** The column that a heading names. */
function columnFor(heading: string): Column | undefined {
  const t = heading.trim().toLowerCase();
  return COLUMNS.find((c) => c.title === t || c.key.toLowerCase() === t || c.also.includes(t));
}

/** What is wrong with a stored access, by how many have its name. */
const ACCESS_FAULTS = {
  one: '',
  many: 'more than one stored access has this name',
  none: 'no stored access has this name: enter it with one environment first',
} as const;

/** Reads rows one after the other, since each may repeat one before it. */
class RowReader {
  /** Where each column stands. */
  private readonly at: ReadonlyMap<string, number>;
  /** The line in which each site stands. */
  private readonly seen = new Map<string, number>();

  constructor(
    columns: readonly (Column | undefined)[],
    private readonly known: KnownSites,
  ) {
    this.at = new Map(columns.flatMap((c, i) => (c ? [[c.key, i] as const] : [])));
  }

  async read(cells: readonly string[], line: number, width: number): Promise<CsvRow> {
    const cell = (key: string): string => (cells[this.at.get(key) ?? -1] ?? '').trim().slice(0, 3000);
    const { site, fault } = siteOf(cell);
    const access = cell('access');
    const read = await readAs(NewSiteDto, site);
    const faults = [
      ...read.faults.map((f) => this.cellFault(f)),
      ...(fault ? [this.fault(fault.key, fault.message)] : []),
      ...this.unknownProfile(site),
      ...this.unusableAccess(access, cell('staging')),
      ...(cell('liveUrl') || cell('staging')
        ? []
        : [this.fault('liveUrl', 'give the live address, or a staging address where there is none yet')]),
      ...this.repeated(site, line),
    ];
    return {
      line,
      cells: Array.from({ length: width }, (_, c) => (cells[c] ?? '').slice(0, 500)),
      site: faults.length ? null : read.value,
      access: access || null,
      faults,
    };
  }

  /** A fault in a column; of a column that is not there, it is the row's. */
  private fault(key: string | undefined, message: string): CellFault {
    return { column: this.at.get(key ?? '') ?? -1, message };
  }

  private cellFault({ path, message }: Fault): CellFault {
    const column = COLUMNS.find((c) => path === c.where || path.startsWith(`${c.where}.`));
    return this.fault(
      column?.key,
      message.replace(/^(?:brief\.|environments\.0\.)?\w+(?:\.\d+)?:? (?=must)/, ''),
    );
  }

  private unknownProfile({ hostProfile }: Record<string, unknown>): CellFault[] {
    const { profiles } = this.known;
    if (!hostProfile || !profiles || profiles.includes(String(hostProfile))) return [];
    return [this.fault('hostProfile', `there is no host profile “${String(hostProfile)}”`)];
  }

  private unusableAccess(name: string, staging: string): CellFault[] {
    if (!name) return [];
    const why = !staging
      ? 'there is no staging address that it could be for'
      : ACCESS_FAULTS[this.known.accesses?.get(name) ?? 'none'];
    return why ? [this.fault('access', why)] : [];
  }

  private repeated({ client, name }: Record<string, unknown>, line: number): CellFault[] {
    const key = `${String(client)}\n${String(name)}`.toLowerCase();
    const before = this.seen.get(key);
    this.seen.set(key, line);
    return [
      ...(this.known.taken?.has(key)
        ? [this.fault('name', 'this client has a site of that name already')]
        : []),
      ...(before === undefined ? [] : [this.fault('name', `the same site stands in line ${before}`)]),
    ];
  }
}

/** What is wrong with the table as a whole. */
function tableFaults(
  table: Papa.ParseResult<string[]>,
  columns: readonly (Column | undefined)[],
  rows: number,
): string[] {
  const missing = COLUMNS.filter((c) => c.key === 'name' || c.key === 'liveUrl').filter(
    (c) => !columns.includes(c),
  );
  return [
    ...table.errors
      .filter((e) => e.type === 'Quotes')
      .slice(0, 5)
      .map((e) => `Row ${(e.row ?? 0) + 1}: a quote is not closed.`),
    ...missing.map((c) => `There is no column “${c.title}”.`),
    ...(rows > MOST_ROWS ? [`More than ${MOST_ROWS} rows: split the file.`] : []),
  ];
}

/** Reads a table with a line of headings; comma, semicolon and tab are told apart. */
export async function readSitesCsv(text: string, known: KnownSites = {}): Promise<CsvSites> {
  const table = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
    preview: MOST_ROWS + 2,
  });
  const [head, ...body] = table.data;
  if (!head || !body.length)
    return { columns: [], rows: [], faults: ['There is no row beneath the headings.'] };
  if (head.length > MOST_COLUMNS)
    return {
      columns: [],
      rows: [],
      faults: [`More than ${MOST_COLUMNS} columns: this is no list of sites.`],
    };
  const columns = head.map(columnFor);
  const reader = new RowReader(columns, known);
  const rows: CsvRow[] = [];
  for (const [i, cells] of body.slice(0, MOST_ROWS).entries())
    rows.push(await reader.read(cells, i + 2, head.length));
  return {
    columns: head.map((h, i) => ({ title: h.trim().slice(0, 100), known: columns[i] !== undefined })),
    rows,
    faults: tableFaults(table, columns, body.length),
  };
}

export interface SiteLine {
  name: string;
  client: string;
  liveUrl: string;
  staging: string;
  /** The name of the access to its staging. */
  access: string;
  stage: string;
  launchDate: string;
  replaces: boolean;
  hostProfile: string;
  brief: Record<string, unknown>;
}

/**
 * A cell that a spreadsheet would take for a formula gets a quote before it (common practice). All cells are
 * quoted, so that one with a semicolon or a tab in it is no two where those separate.
 */
const safe = (cell: string): string =>
  /^[=+\-@\t\r]/.test(cell) && !/^\+?[\d\s().-]+$/.test(cell) ? `'${cell}` : cell;

export function writeSitesCsv(sites: readonly SiteLine[]): string {
  const list = (v: unknown): string => (Array.isArray(v) ? v.join(', ') : typeof v === 'string' ? v : '');
  return `${Papa.unparse({ fields: CSV_TITLES, data: sites.map((s) => [s.name, s.client, s.liveUrl, s.staging, s.access, s.stage, s.launchDate, s.replaces ? 'yes' : 'no', s.hostProfile, ...['tagline', 'languages', 'contactEmail', 'phone', 'preferredHost', 'otherHosts'].map((k) => list(s.brief[k]))].map(safe)) }, { newline: '\r\n', quotes: true })}\r\n`;
}
