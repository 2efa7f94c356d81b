/**
 * The agency with very many sites: long lists are walked, filtered and opened as a person does.
 */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test as base, type Page } from '@playwright/test';
import { DEMO_LOGIN, startStack } from '../../scripts/stack.mjs';
import { AUDITS, copyManySites, SITES } from '../many-sites';
import { tick } from './person';

const FOLDER = '.test/e2e-many';
const LARGEST = 200_000;
const FILLING_MS = 600_000;

interface Desk {
  page: Page;
  /** Every answer to a screen so far, by its size in bytes. */
  answers: { path: string; bytes: number }[];
}

const test = base.extend<{ desk: Desk }, { address: string }>({
  address: [
    // eslint-disable-next-line no-empty-pattern -- Playwright wants the pattern
    async ({}, use) => {
      copyManySites(join(FOLDER, 'mariadb'));
      const stack = await startStack({ folder: FOLDER });
      await use(stack.address);
      await stack.stop();
      rmSync(FOLDER, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: FILLING_MS },
  ],
  desk: async ({ browser, address }, use) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const answers: Desk['answers'] = [];
    page.on('response', async (r) => {
      const { pathname } = new URL(r.url());
      if (pathname.startsWith('/api/') && pathname !== '/api/live' && r.ok())
        answers.push({ path: r.url(), bytes: (await r.body().catch(() => Buffer.alloc(0))).length });
    });
    await page.goto(`${address}/sign-in`);
    await expect(page.getByLabel('Mail address')).toBeFocused();
    await page.getByLabel('Mail address').fill(DEMO_LOGIN.email);
    await page.getByLabel('Password').fill(DEMO_LOGIN.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('heading', { name: 'Roster' })).toBeVisible();
    await use({ page, answers });
    await page.close();
    // no answer for a screen is larger than a slow line takes at once
    expect(answers.length).toBeGreaterThan(3);
    expect(answers.filter((a) => a.bytes > LARGEST)).toEqual([]);
  },
});

const elements = (page: Page): Promise<number> => page.evaluate(() => document.querySelectorAll('*').length);

test('the roster: counted, walked, filtered, all of it chosen', async ({ desk: { page } }) => {
  await expect(page.getByText(`${SITES} sites`, { exact: false })).toBeVisible();
  const rows = page.locator('tbody tr').filter({ has: page.locator('.name') });
  await expect(rows.first()).toContainText('held');
  const first = await rows.first().locator('.name').innerText();
  // scrolling reads on, and draws no more than fits
  const list = page.locator('.v-table__wrapper');
  const scrolled = (): Promise<number> =>
    list.evaluate((e) => {
      e.scrollBy(0, 2400);
      return e.scrollHeight;
    });
  await expect.poll(scrolled).toBeGreaterThan(300 * 44);
  await expect(rows.first()).toBeVisible();
  await expect(rows.first().locator('.name')).not.toHaveText(first);
  expect(await elements(page)).toBeLessThan(4000);

  await page.getByLabel('Filter by words').fill('heron museum 14');
  await expect(page.getByText(new RegExp(`^\\d+ of ${SITES} sites`))).toBeVisible();
  await expect(rows.filter({ hasText: 'Heron Museum 14' }).first()).toBeVisible();
  expect(await rows.count()).toBeLessThan(10);
  await page.getByLabel('Filter by words').fill('');
  await tick(page.getByLabel('Choose all sites that match'));
  await expect(page.getByRole('button', { name: `Audit ${SITES} sites` })).toBeVisible();
  await tick(page.getByLabel('Choose all sites that match'), false);
});

test('fixes: by fault with its recipe, by site, one opened and given away', async ({ desk: { page } }) => {
  await page.getByRole('link', { name: 'Fixes', exact: true }).click();
  const faults = page.getByRole('table').first();
  await expect(faults.locator('tbody tr').first()).toContainText(/holds \d+ gates/);
  await faults.locator('tbody button.title').first().click();
  await expect(faults.locator('.inside li').first()).toBeVisible();
  await faults.getByRole('button', { name: 'Show more' }).click();
  await expect(faults.locator('.inside li')).toHaveCount(100);
  await tick(faults.getByLabel(/^Choose all/));
  // those too that are not read yet
  await expect(faults.getByText(/^\d{3,} chosen$/)).toBeVisible();
  await page.getByRole('button', { name: 'By site' }).click();
  const rows = page.locator('tr[id^="fix-"]');
  await expect(rows.first()).toBeVisible();
  expect(await elements(page)).toBeLessThan(4000);
  const row = page.locator(`[id="${await rows.first().getAttribute('id')}"]`);
  await row.click();
  const side = page.getByRole('complementary', { name: 'Fix' });
  await side.getByRole('button', { name: 'To verify' }).click();
  await expect(row).toContainText('to verify');
});

test('one of them: ledger, evidence, history', async ({ desk: { page } }) => {
  await page.getByLabel('Filter by words').fill('curlew choir 9');
  await page.getByRole('link', { name: 'Curlew Choir 9', exact: true }).click();
  const rows = page.locator('tr[id^="row-"]');
  await rows.first().click();
  await expect(page.getByRole('complementary')).toContainText('what the brief says');
  await page.getByRole('tab', { name: 'History' }).click();
  const audits = page.locator('.history tbody tr');
  await expect(audits.first()).toBeVisible();
  expect(await audits.count()).toBeLessThan(AUDITS);
  await page.getByRole('button', { name: 'Older ones' }).click();
  await expect(audits).toHaveCount(AUDITS);
});
