/** A person of the agency in front of the screen. */
import { test as base, expect, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { startStack, waitForAudits } from '../../scripts/stack.mjs';
import { freshDemo } from '../fresh-demo';

const STARTING_MS = 300_000;

export const test = base.extend<{ desk: Page }, { address: string; seat: BrowserContext }>({
  /** A demo for each worker: what the tests of one file change, those of another do not meet. */
  address: [
    // eslint-disable-next-line no-empty-pattern -- Playwright wants the pattern
    async ({}, use, { parallelIndex }) => {
      const folder = `.test/e2e-${parallelIndex}`;
      await freshDemo(folder);
      const stack = await startStack({ folder });
      process.env.ARMBAND_COOKIE = await waitForAudits(stack.address);
      process.env.ARMBAND_ADDRESS = stack.address;
      await use(stack.address);
      await stack.stop();
    },
    { scope: 'worker', auto: true, timeout: STARTING_MS },
  ],
  /**
   * One browser profile for all: what was loaded once need not be loaded again. How signing in works has a
   * test of its own.
   */
  seat: [
    async ({ browser, address }, use) => {
      const seat = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        reducedMotion: 'reduce',
      });
      const [name, ...value] = process.env.ARMBAND_COOKIE!.split('=');
      await seat.addCookies([{ name: name!, value: value.join('='), url: address }]);
      await use(seat);
      await seat.close();
    },
    { scope: 'worker' },
  ],
  /** A page that is signed in; the test fails when the browser's console shows an error. */
  desk: async ({ seat }, use, info) => {
    const page = await seat.newPage();
    page.setDefaultTimeout(45_000);
    const faults: string[] = [];
    page.on('pageerror', (e) => faults.push(e.message));
    page.on('console', (m) => {
      if (m.type() === 'error' && !/Failed to load resource/.test(m.text())) faults.push(m.text());
    });
    await use(page);
    if (info.status !== info.expectedStatus) await page.screenshot({ path: info.outputPath('failed.png') });
    await page.close();
    expect(faults).toEqual([]);
  },
});

export const at = (path: string): string => `${process.env.ARMBAND_ADDRESS}${path}`;

export async function signIn(
  page: Page,
  email = 'mara@marram-studio.example',
  password = 'marram-demo',
): Promise<void> {
  await page.goto(at('/sign-in'));
  // the field takes the focus by itself, which would take it away from the next one
  await expect(page.getByLabel('Mail address')).toBeFocused();
  await page.getByLabel('Mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Roster' })).toBeVisible();
}

/** Opens a site at one of its environments, by its address. */
export async function openSite(page: Page, name: string, environment?: string): Promise<void> {
  const found = await page.request.get(at(`/api/sites/find?words=${encodeURIComponent(name)}`));
  const site = ((await found.json()) as { id: number; name: string }[]).find((s) => s.name === name);
  const whole = await page.request.get(at(`/api/sites/${site!.id}`));
  const { environments } = (await whole.json()) as { environments: { id: number; name: string }[] };
  const chosen = environments.find((e) => e.name === environment);
  await page.goto(at(`/sites/${site!.id}${chosen ? `?environment=${chosen.id}` : ''}`));
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  if (environment) await expect(environmentButton(page, environment)).toHaveAttribute('aria-pressed', 'true');
  await ledgerShown(page);
}

const environmentButton = (page: Page, name: string): Locator =>
  page.getByRole('group', { name: 'Environment' }).getByRole('button', { name, exact: true });

/** Waits until the ledger shows the environment that is chosen, and not the one before. */
async function ledgerShown(page: Page): Promise<void> {
  await expect(page.getByRole('table', { name: 'Ledger' })).toBeVisible();
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
}

export async function chooseEnvironment(page: Page, name: string): Promise<void> {
  const button = environmentButton(page, name);
  await button.click();
  await expect(button).toHaveAttribute('aria-pressed', 'true');
}

/** Opens a menu by its button, chooses one of its entries, and waits until the menu is closed. */
export async function chooseFrom(page: Page, opener: Locator, entry: string | RegExp): Promise<void> {
  const menu = page.getByRole('menu');
  await expect(menu).toHaveCount(0);
  await opener.click();
  const name = typeof entry === 'string' ? { name: entry, exact: true } : { name: entry };
  await choose(menu.getByRole('menuitem', name).or(menu.getByRole('menuitemradio', name)));
  await expect(menu).toHaveCount(0);
}

/**
 * Chooses an entry of a list that has just opened, by the keyboard: on a busy machine the list may move once more
 * between press and release of the mouse, and then there is no click.
 */
export const choose = (entry: Locator): Promise<void> => entry.press('Enter');

/** Shows every check of the ledger, also those that need nobody. */
export async function showAll(page: Page): Promise<void> {
  await page.getByRole('group', { name: 'Which checks' }).getByRole('button', { name: /^All/ }).click();
}

/**
 * Chooses one of a select's options, and waits until the select shows it. A list that has just opened may draw its
 * options anew while one is pressed; then nothing is chosen, and it is pressed again.
 */
export async function chooseOption(page: Page, select: Locator, option: string): Promise<void> {
  const list = page.getByRole('listbox');
  await expect(async () => {
    if (!(await select.innerText()).includes(option)) {
      if (!(await list.count())) await select.click();
      await list.getByRole('option', { name: option, exact: true }).press('Enter', { timeout: 5000 });
    }
    await expect(list).toHaveCount(0, { timeout: 5000 });
    await expect(select).toContainText(option, { timeout: 5000 });
  }).toPass({ timeout: 60_000 });
}

/** Ticks a box until it is ticked: a menu that has just opened may still move. */
export async function tick(box: Locator, on = true): Promise<void> {
  // what is ticked may be called otherwise from then on, so it is not looked for again
  await expect(() => box.setChecked(on, { timeout: 5000 })).toPass({ timeout: 60_000 });
}

/** Turns a switch of the practice net. */
export async function turn(
  page: Page,
  site: string,
  fault: string,
  on: boolean,
  environment: 'Live' | 'Staging' = 'Live',
): Promise<void> {
  await page.goto(at('/practice-net'));
  await page.getByRole('navigation', { name: 'Practice sites' }).getByRole('button', { name: site }).click();
  const section = page
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: environment, exact: true }) });
  const box = section.getByLabel(fault, { exact: true });
  const switched = page.waitForResponse(
    (r) => r.url().endsWith('/api/practice-net') && r.request().method() === 'POST' && r.ok(),
  );
  await tick(box, on);
  await switched;
}

/** Presses Audit now and waits until no audit is running and the button is there again. */
export async function auditNow(page: Page): Promise<void> {
  const button = page.getByRole('button', { name: 'Audit now' });
  const asked = page.waitForResponse(
    (r) => r.url().endsWith('/api/audits') && r.request().method() === 'POST',
  );
  await button.click();
  expect((await asked).ok()).toBe(true);
  await noneRunning(page);
  await expect(button).toBeVisible();
}

/** Waits until no audit is under way, as the server says it. */
export async function noneRunning(page: Page): Promise<void> {
  const running = async (): Promise<number> =>
    ((await (await page.request.get(at('/api/audits/running'))).json()) as unknown[]).length;
  await expect.poll(running, { timeout: 240_000 }).toBe(0);
}

export { expect };
