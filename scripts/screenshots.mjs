/** `npm run screenshots`: one current picture of each main view, from fresh demo data. */
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild } from './build.mjs';
import { ensureDebianPackages, ensureNodePackages, ROOT } from './packages.mjs';
import { DEMO_LOGIN, startStack, waitForAudits } from './stack.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
const svg = (inner, width, height) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${inner}</svg>`;
const drawing = (name, text) => ({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
/** A bay in the evening, and the boat on it. */
const BAY = svg(
  '<path fill="#7fa7b8" d="M0 0h2000v1400H0z"/><path fill="#f3b56b" d="M0 0h2000v420H0z"/><circle cx="1500" cy="420" r="130" fill="#fff2cf"/><path d="M0 900c300-90 600 70 1000 0s700-60 1000 20v480H0z" fill="#173447"/><path d="M700 880h420l-60 120H780zM900 500v360H760zM920 460l190 400H920z" fill="#f7f2e6"/>',
  2000,
  1400,
);
const BOAT = svg(
  '<circle cx="32" cy="32" r="30" fill="#22577a"/><path d="M10 40c8-6 14 6 22 0s14 6 22 0v6c-8 6-14-6-22 0s-14-6-22 0z" fill="#f4d58d"/><path d="M30 12l14 20H30zM27 16v16H18z" fill="#fff"/>',
  64,
  64,
);
const VIEWS = [
  { name: 'roster', path: '/' },
  {
    name: 'ledger',
    path: '/sites/2',
    act: async (page) => {
      await page.locator('[id="row-domain.records-match"]').click();
    },
  },
  {
    name: 'compare',
    path: '/sites/5?tab=compare',
    act: async (page) => {
      await page.getByText('is ahead').waitFor();
    },
  },
  {
    name: 'pages',
    path: '/sites/3?tab=pages',
    act: async (page) => {
      await page.getByRole('button', { name: 'Structure' }).click();
      await page.getByRole('region', { name: 'Structure' }).waitFor();
    },
  },
  {
    name: 'texts',
    path: '/sites/6?tab=pages&view=texts',
    act: async (page) => {
      await page
        .getByRole('textbox', { name: 'Title' })
        .fill('Our beginnings, our people, our plans and our many friends along the quay');
      await page.getByText(/^cut after/).waitFor();
    },
  },
  {
    name: 'pictures',
    path: '/sites/3?tab=pages&view=pictures',
    act: async (page) => {
      const inputs = page.locator('input[type=file]');
      await inputs.nth(0).setInputFiles(drawing('the-bay.svg', BAY));
      await page.getByText('the-bay.svg').waitFor();
      await inputs.nth(1).setInputFiles(drawing('boat.svg', BOAT));
      await page.getByText(/lies outside the safe zone/).waitFor();
      await page.getByRole('img', { name: 'The share picture, wide' }).waitFor();
    },
  },
  { name: 'records', path: '/sites/2?tab=records' },
  { name: 'brief', path: '/sites/2?tab=brief' },
  {
    name: 'report',
    path: '/sites/3?tab=report',
    act: async (page) => {
      await page.getByRole('heading', { name: 'How your site stands' }).waitFor();
    },
  },
  { name: 'client', shared: true, phone: true },
  {
    name: 'fixes',
    path: '/fixes',
    act: async (page) => {
      await page.getByRole('table').first().locator('tbody button').nth(2).click();
    },
  },
  {
    name: 'host-profile',
    path: '/host-profiles',
    act: async (page) => {
      await page.getByRole('link', { name: 'Fennel Hosting' }).click();
      await page.getByRole('heading', { name: 'Fennel Hosting' }).waitFor();
    },
  },
  {
    name: 'checklist',
    path: '/checklists',
    act: async (page) => {
      await page.getByRole('button', { name: 'Copy Full' }).click();
      await page.getByRole('heading', { name: 'Full copy' }).waitFor();
      await page.locator('[data-check="https.hsts"] select').selectOption('blocker');
      await page.getByRole('button', { name: 'What would change' }).click();
      await page.getByLabel('All sites').check();
      await page.getByRole('button', { name: 'Preview changes' }).click();
      await page.getByText(/of 52 environments would change/).waitFor();
      await page.locator('.ahead .row').first().click();
    },
  },
  { name: 'launch', path: '/sites/6?tab=launch' },
  {
    name: 'cut-over',
    path: '/sites/11?tab=launch&view=plan',
    act: async (page) => {
      await page.getByRole('button', { name: 'Compare at the new servers' }).click();
      await page
        .getByText(/sets of records as wanted/)
        .first()
        .waitFor();
    },
  },
  {
    name: 'holding',
    path: '/sites/3?tab=launch&view=holding',
    act: async (page) => {
      await page.locator('iframe[title="The holding page"]').waitFor();
    },
  },
  { name: 'practice-net', path: '/practice-net' },
  // changed at the operator, and the host was not told
  {
    name: 'watch',
    path: '/sites/6?tab=launch&view=watch',
    act: async (page) => {
      await page.getByRole('button', { name: 'Begin to watch' }).click();
      await page.getByText(/^Not changed at the DNS operator/).waitFor();
      const { zone } = await (await page.request.get('/api/practice-desk?site=trams')).json();
      const change = { zone: zone.replace(/^(firth-trams\.example\. \d+ IN A) \S+/m, '$1 192.0.2.20') };
      await page.request.post('/api/practice-desk', { data: { site: 'trams', change } });
      await page.getByText(/^Set at the DNS operator, not told to the host/).waitFor({ timeout: 120_000 });
    },
  },
  // last, since the night makes the clock run and plants faults
  {
    name: 'schedules',
    path: '/schedules',
    act: async (page) => {
      const { rows } = await (await page.request.get('/api/messages')).json();
      await page.request.post('/api/messages', { data: { upTo: rows[0].id } });
      await page.getByRole('button', { name: 'Run a night in two minutes' }).click();
      await page
        .getByRole('button', { name: /Messages, (?:[2-9]|\d\d) unread/ })
        .waitFor({ timeout: 400_000 });
      await page.getByRole('button', { name: 'Back to real time' }).click();
      await page.getByRole('button', { name: 'Run a night in two minutes' }).waitFor();
    },
  },
];

ensureNodePackages();
ensureDebianPackages({ mariadbd: 'mariadb-server', chromium: 'chromium' });
ensureBuild(say);
const { chromium } = await import('@playwright/test');
const { showClients } = await import('./show-clients.mjs');
const folder = join(ROOT, '.test', 'screenshots');
rmSync(folder, { recursive: true, force: true });
const shots = join(ROOT, 'docs', 'screenshots');
mkdirSync(shots, { recursive: true });
const stack = await startStack({ folder, say, env: { ARMBAND_RENDER: 'always' } });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
    '--disable-gpu',
    '--disable-background-networking',
  ],
});
/** Waits until nothing was asked for a while, but for the stream, which stays open. */
function untilIdle(page) {
  const pending = new Set();
  let since = Date.now();
  const note = (change) => (request) => {
    if (request.url().endsWith('/api/live')) return;
    change(request);
    since = Date.now();
  };
  page.on(
    'request',
    note((r) => pending.add(r)),
  );
  page.on(
    'requestfinished',
    note((r) => pending.delete(r)),
  );
  page.on(
    'requestfailed',
    note((r) => pending.delete(r)),
  );
  return async () => {
    while (pending.size || Date.now() - since < 400) await new Promise((r) => setTimeout(r, 50));
  };
}

try {
  await waitForAudits(stack.address);
  const link = await showClients(stack, folder);
  for (const view of VIEWS) {
    const context = await browser.newContext({
      baseURL: stack.address,
      viewport: view.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
      colorScheme: view.dark ? 'dark' : 'light',
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    if (!view.shared) await page.request.post('/api/sign-in', { data: DEMO_LOGIN });
    const idle = untilIdle(page);
    await page.goto(view.shared ? link : view.path);
    await page.getByRole('heading').first().waitFor();
    await page.getByRole('progressbar', { name: 'Loading' }).waitFor({ state: 'hidden' });
    // what fills the lists of a form has come before the form is used
    await idle();
    await view.act?.(page);
    await page.evaluate(() => document.fonts.ready);
    await idle();
    await page.screenshot({ path: join(shots, `${view.name}.png`), animations: 'disabled' });
    await context.close();
    say(`${view.name}.png`);
  }
} finally {
  await browser.close();
  await stack.stop();
}
