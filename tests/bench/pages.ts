/**
 * Pages of a site with 5,000 of them: what opening them costs against reading the same bytes bare, what making them
 * costs once, a pattern over all, and what a letter typed at the bench costs.
 */
import { brotliDecompress, constants, brotliCompress } from 'node:zlib';
import { promisify } from 'node:util';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import { SiteView } from '#core/checks/view/site-view';
import { concernsOf } from '#core/intended/concerns';
import { applyPattern } from '#core/intended/patterns';
import { PHONE, rulerOf, standing } from '#core/intended/ruler';
import { facetCounts } from '#core/pages/facets';
import { sortedPages } from '#core/pages/columns';
import { pageTable, roomsOf } from '#core/pages/page-table';
import { AT, brief, evidence, HOME, page } from '#core/checks/example-evidence';
import { ratio } from './ratio';

const PAGES = 5000;
const OPEN_GOAL = 3;
const PATTERN_MS = 1000;
const FRAME_MS = 16;
const pack = promisify(brotliCompress);
const unpack = promisify(brotliDecompress);

const middle = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;
function timed(times: number, work: (i: number) => unknown): number {
  const taken = Array.from({ length: times }, (_, i) => {
    const start = performance.now();
    work(i);
    return performance.now() - start;
  });
  return middle(taken);
}

/** @returns whether the goals were met */
export async function benchPages(): Promise<boolean> {
  const links = (i: number): string =>
    Array.from({ length: 20 }, (_, k) => `<a href="${HOME}p${(i * 7 + k * 131) % PAGES}/">A link</a>`).join(
      '',
    );
  const pages = Array.from({ length: PAGES }, (_, i) =>
    page({
      url: i ? `${HOME}p${i}/` : HOME,
      via: i ? 'link' : 'home',
      title: `Page ${i} of many – Marsh Choir`,
      body: links(i),
    }),
  );
  const e = evidence({ pages });
  const checklist = fullChecklist();
  const findings = judge({
    evidence: e,
    brief: brief(),
    checklist,
    situation: 'live',
    at: AT,
    skipManual: true,
  });
  const rooms = roomsOf(checklist);
  const make = () => pageTable({ view: new SiteView(e, brief(), { name: '' }, 'live'), findings, rooms });
  const lines = make();
  const made = timed(5, make);
  const packed = await pack(JSON.stringify({ pages: lines, rooms }), {
    params: { [constants.BROTLI_PARAM_QUALITY]: 5 },
  });
  process.stderr.write(
    `  ${lines.length} pages, made in ${made.toFixed(0)} ms, kept in ${Math.round(packed.length / 1000)} kB\n`,
  );
  const read = async () => JSON.parse((await unpack(packed)).toString('utf8')) as { pages: typeof lines };
  const opens = await ratio(
    'pages opened, 5,000: read, counted, sorted',
    OPEN_GOAL,
    async () => {
      const { pages: all } = await read();
      facetCounts(all);
      return sortedPages(all, 'faults');
    },
    read,
  );
  const pattern = timed(7, () =>
    applyPattern('{heading} · {name}', lines, { brief: brief(), room: rooms.title, dropLast: true }),
  );
  const text =
    'Songs by the water for everybody who comes along on a Monday evening, whatever the weather, and stays';
  const taken = new Map(lines.map((l) => [l.title.text.toLowerCase(), [new URL(l.url).pathname]]));
  const letter = timed(200, (i) => {
    const now = `${text.slice(0, 20 + (i % 80))}${i}`;
    rulerOf(now, rooms.description.width, rooms.description.size);
    rulerOf(now, PHONE.description.width, PHONE.description.size);
    standing(now, rooms.description);
    return concernsOf('description', now, { path: '/', taken, wanted: { brief: brief() } });
  });
  process.stdout.write(
    `a pattern over ${PAGES} pages: ${pattern.toFixed(0)} ms, goal <= ${PATTERN_MS} ms\n` +
      `a letter typed at the bench: ${letter.toFixed(2)} ms reckoned, goal <= ${FRAME_MS} ms\n`,
  );
  return opens && pattern <= PATTERN_MS && letter <= FRAME_MS;
}

if (process.argv[1]?.endsWith('pages.ts')) await benchPages();
