/**
 * The long lists at 5,000 sites: what a window costs against the bare SQL that it needs, and in Chromium how long it
 * takes from a filter typed to rows painted, and until the fixes stand there.
 */
import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import mariadb from 'mariadb';
import { startDatabase } from '../../scripts/database.mjs';
import { DEMO_LOGIN, startStack } from '../../scripts/stack.mjs';
import { ledger } from '../../server/reads/ledger';
import { listFaults, listFixes } from '../../server/reads/fixes';
import { closeDatabase } from '../../server/platform/db/connection';
import { useModels } from '../../server/platform/db/models';
import { rosterWindow } from '../../server/reads/roster';
import { ratio } from './ratio';

const FOLDER = resolve('.test/many-sites');
const DATABASE = join(FOLDER, 'mariadb');
const FILLED = join(DATABASE, 'filled');
const GOAL = 3;
const TYPED_MS = 100;
const OPENED_MS = 500;

/** Fills the database unless an earlier run has. */
function fill(): void {
  if (existsSync(FILLED)) return;
  const made = spawnSync(process.execPath, ['--import', 'tsx/esm', 'scripts/fill.ts', '--folder', DATABASE], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
  });
  if (made.status !== 0) throw new Error('The database could not be filled.');
}

/** The SQL that each list needs and nothing else, as somebody would write it by hand. */
const ENVIRONMENT = 33;
const BARE = {
  roster: [
    `SELECT s.id, s.name, c.name, s.stage, s.launch_date, t.open_fixes, e.id, e.name, a.id, a.finished_at, a.result
      FROM (SELECT site_id, environment_id, open_fixes, by_gate FROM standing ORDER BY by_gate LIMIT 31) t
      JOIN site s ON s.id = t.site_id JOIN client c ON c.id = s.client_id
      JOIN environment e ON e.id = t.environment_id JOIN audit a ON a.id = e.last_audit_id ORDER BY t.by_gate`,
    'SELECT stage, gate, sites FROM standing_count',
  ],
  faults: ["SELECT * FROM fault WHERE whose = 'all' AND sites > 0"],
  fixes: [
    `SELECT f.id, f.check_id, d.title, f.severity, f.state, d.found, d.failing, d.lost, u.name, f.due_date, s.name, c.name, e.name
      FROM (SELECT id, by_site FROM fix WHERE closed = 0 ORDER BY by_site LIMIT 51) w JOIN fix f ON f.id = w.id
      JOIN environment e ON e.id = f.environment_id JOIN site s ON s.id = e.site_id JOIN client c ON c.id = s.client_id
      LEFT JOIN user u ON u.id = f.owner_id
      LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id ORDER BY w.by_site`,
    "SELECT SUM(blockers + majors + minors) FROM fault WHERE whose = 'all'",
  ],
  ledger: [
    `SELECT check_id, section, title, severity, outcome, accepted, by_hand, expected, found, lost, failing, places, scope, position
      FROM finding WHERE environment_id = ${ENVIRONMENT} ORDER BY position`,
    `SELECT id, check_id, state, owner_id, due_date FROM fix WHERE environment_id = ${ENVIRONMENT}`,
    `SELECT a.*, v.data FROM environment e JOIN audit a ON a.id = e.last_audit_id
      JOIN checklist_version v ON v.id = a.checklist_version_id WHERE e.id = ${ENVIRONMENT}`,
  ],
};

async function againstBareSql(): Promise<boolean> {
  const server = await startDatabase(DATABASE);
  Object.assign(process.env, server.env);
  useModels();
  const pool = mariadb.createPool({
    host: '127.0.0.1',
    port: server.port,
    user: server.env.ARMBAND_DB_USER,
    password: server.env.ARMBAND_DB_PASSWORD,
    database: server.env.ARMBAND_DB_NAME,
    connectionLimit: 10,
    checkDuplicate: false,
  });
  const bare = (list: keyof typeof BARE) => (): Promise<unknown> =>
    Promise.all(BARE[list].map((sql) => pool.query(sql)));
  try {
    const rows: [string, keyof typeof BARE, () => Promise<unknown>][] = [
      ['roster at 5,000 sites', 'roster', () => rosterWindow({})],
      ['fixes by fault at 5,000 sites', 'faults', () => listFaults({}, 1)],
      ['fixes by site at 5,000 sites', 'fixes', () => listFixes({ sort: 'site' }, 1)],
      ['ledger at 5,000 sites', 'ledger', () => ledger(ENVIRONMENT, {})],
    ];
    let good = true;
    for (const [name, list, ours] of rows) {
      process.stderr.write(`  ${name}: ${Math.round(JSON.stringify(await ours()).length / 1000)} kB\n`);
      good = (await ratio(name, GOAL, ours, bare(list), 101)) && good;
    }
    return good;
  } finally {
    await pool.end();
    await closeDatabase();
    await server.stop();
  }
}

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;

function told(name: string, times: number[], goal: number): boolean {
  const ms = median(times);
  process.stdout.write(
    `${name}: ${ms.toFixed(0)} ms (${times.map((t) => t.toFixed(0)).join(', ')}), goal < ${goal} ms\n`,
  );
  return ms < goal;
}

/** From the key to the end of the frame that shows what was looked for. */
const typed = (page: Page, words: string): Promise<number> =>
  page.evaluate(async (text) => {
    const field = document.querySelector<HTMLInputElement>('.filter input')!;
    const start = performance.now();
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    // no function of its own: what is compiled here would miss its helpers there
    for (let isShown = false; !isShown;) {
      await new Promise((r) => requestAnimationFrame(r));
      const rows = [...document.querySelectorAll('tbody tr')].filter((r) => r.querySelector('.name'));
      isShown =
        rows.length > 0 &&
        rows.every((r) => text.split(' ').every((word) => r.textContent!.toLowerCase().includes(word)));
    }
    // what was seen in a frame is painted at its end, before the next task
    await new Promise((r) => setTimeout(r, 0));
    return performance.now() - start;
  }, words);

/** From the click on the main screens' Fixes to the end of the frame that shows rows. */
const opened = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const start = performance.now();
    document.querySelector<HTMLAnchorElement>('nav a[href="/fixes"]')!.click();
    while (!document.querySelector('tbody button.title')) await new Promise((r) => requestAnimationFrame(r));
    // what was seen in a frame is painted at its end, before the next task
    await new Promise((r) => setTimeout(r, 0));
    return performance.now() - start;
  });

async function inChromium(): Promise<boolean> {
  const stack = await startStack({ folder: FOLDER });
  const browser = await chromium.launch({
    executablePath: process.env.ARMBAND_CHROMIUM ?? '/usr/bin/chromium',
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.request.post(`${stack.address}/api/sign-in`, { data: DEMO_LOGIN });
    await page.goto(stack.address);
    await page.locator('tbody .name').first().waitFor();
    const filters: number[] = [];
    const fixes: number[] = [];
    const names = [
      'Tarn Museum',
      'Heron Kites',
      'Quay Choir',
      'Firth Tram',
      'Curlew Pottery',
      'Windrow Library',
      'Sallow Ferries',
    ];
    // as somebody who has filtered before
    await typed(page, 'reedling boatyard');
    for (const name of names) filters.push(await typed(page, name.toLowerCase()));
    for (const _ of names) {
      await page.goto(`${stack.address}/`);
      await page.locator('tbody .name').first().waitFor();
      fixes.push(await opened(page));
    }
    // both, so that a miss of one does not hide the other
    const isTyped = told('roster of 5,000 sites, a filter typed to rows painted', filters, TYPED_MS);
    return told('fixes of 5,000 sites opened', fixes, OPENED_MS) && isTyped;
  } finally {
    await browser.close();
    await stack.stop();
  }
}

/** @returns whether the goals were met */
export async function benchManySites(): Promise<boolean> {
  fill();
  const isLean = await againstBareSql();
  return (await inChromium()) && isLean;
}
