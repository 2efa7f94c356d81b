/** `npm run screenshots`: one current picture of each main view, from fresh demo data. */
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild } from './build.mjs';
import { ensureDebianPackages, ensureNodePackages, ROOT } from './packages.mjs';
import { DEMO_LOGIN, startStack, waitForAudits } from './stack.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
const VIEWS = [
  { name: 'roster', path: '/' },
  { name: 'roster-phone', path: '/', phone: true },
  {
    name: 'ledger',
    path: '/sites/2',
    act: async (page) => {
      await page.locator('[id="row-domain.records-match"]').click();
    },
  },
  {
    name: 'ledger-dark',
    path: '/sites/1',
    dark: true,
    act: async (page) => {
      await page.locator('[id="row-indexing.let-in"]').click();
    },
  },
  { name: 'ledger-phone', path: '/sites/1', phone: true },
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
    path: '/sites/6?tab=texts',
    act: async (page) => {
      await page
        .getByRole('textbox', { name: 'Title' })
        .fill('Our beginnings, our people, our plans and our many friends along the quay');
      await page.getByText(/^cut after/).waitFor();
    },
  },
  { name: 'records', path: '/sites/2?tab=records' },
  { name: 'brief', path: '/sites/2?tab=brief' },
  { name: 'team', path: '/team' },
  { name: 'edit-site', path: '/sites/4/edit' },
  {
    name: 'history',
    path: '/sites/2?tab=history',
    act: async (page) => {
      await page
        .getByRole('button', { name: /as a file/ })
        .first()
        .click();
    },
  },
  {
    name: 'fixes',
    path: '/fixes',
    act: async (page) => {
      await page.getByRole('table').first().locator('tbody button').nth(2).click();
    },
  },
  {
    name: 'add-site',
    path: '/sites/new',
    act: async (page) => {
      await page.getByLabel('Live address').fill('reedling-puppets.example');
      await page.getByRole('button', { name: 'Read from the site' }).first().click();
      await page.getByRole('region', { name: 'Read from the site' }).waitFor();
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
  { name: 'practice-net', path: '/practice-net' },
  // last, since the night makes the clock run and plants faults
  {
    name: 'schedules',
    path: '/schedules',
    act: async (page) => {
      await page.getByRole('button', { name: 'Run a night in two minutes' }).click();
      await page.getByRole('button', { name: 'Messages, 2 unread' }).waitFor({ timeout: 120_000 });
      await page.getByRole('button', { name: 'Back to real time' }).click();
      await page.getByRole('button', { name: 'Run a night in two minutes' }).waitFor();
    },
  },
  {
    name: 'messages',
    path: '/schedules',
    act: async (page) => {
      await page.getByRole('button', { name: 'Messages, 2 unread' }).click();
      await page.getByText('Ends soon').waitFor();
    },
  },
];

ensureNodePackages();
ensureDebianPackages({ mariadbd: 'mariadb-server', chromium: 'chromium' });
ensureBuild(say);
const { chromium } = await import('@playwright/test');
const folder = join(ROOT, '.test', 'screenshots');
rmSync(folder, { recursive: true, force: true });
const shots = join(ROOT, 'docs', 'screenshots');
mkdirSync(shots, { recursive: true });
const stack = await startStack({ folder, say });
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
  for (const view of VIEWS) {
    const context = await browser.newContext({
      viewport: view.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
      colorScheme: view.dark ? 'dark' : 'light',
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    await page.request.post(`${stack.address}/api/sign-in`, { data: DEMO_LOGIN });
    const idle = untilIdle(page);
    await page.goto(stack.address + view.path);
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
