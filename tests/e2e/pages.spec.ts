/** Pages and the text bench: what every page says of itself, and writing it right. */
import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import Papa from 'papaparse';
import sharp from 'sharp';
import { textWidth } from '#core/text/width';
import { choose, at, auditNow, chooseFrom, expect, openSite, test } from './person';

const openTab = async (page: Page, site: string, environment: string, tab: string): Promise<void> => {
  await openSite(page, site, environment);
  await page.getByRole('tab', { name: tab }).click();
};
/** One side of the Pages tab. */
const openSide = async (page: Page, site: string, environment: string, side: string): Promise<void> => {
  await openTab(page, site, environment, 'Pages');
  await page.getByRole('group', { name: 'View' }).getByRole('button', { name: side }).click();
};
const TEXTS = 'Titles and descriptions';
/** A check’s row in the ledger, among all. */
const row = (page: Page, check: string): Locator => page.locator(`[id="row-${check}"]`);
const LOGO = Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><circle cx="32" cy="32" r="30" fill="#6b1f3f"/><path d="M20 20h24v8H36v20h-8V28h-8z" fill="#f7f2e6"/></svg>',
);
const stage = (): Promise<Buffer> =>
  sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#6b1f3f' } })
    .composite([{ input: LOGO, top: 500, left: 700 }])
    .png()
    .toBuffer();
const downloaded = async (page: Page, click: () => Promise<void>): Promise<string> => {
  const [file] = await Promise.all([page.waitForEvent('download'), click()]);
  return readFileSync(await file.path(), 'utf8');
};

test('pages: narrowed down, drawn as folders, one opened; columns stay, and CSV holds what is shown', async ({
  desk,
}) => {
  await openTab(desk, 'Sallow Ferries', 'Live', 'Pages');
  const table = desk.getByRole('table', { name: 'Pages' }).or(desk.locator('.pages'));
  const rows = table.locator('tbody tr', { has: desk.locator('button.address') });
  await expect(rows.first()).toContainText('fault');
  const all = await rows.count();
  expect(all).toBeGreaterThan(5);

  await desk.getByText('with faults').click();
  await expect.poll(() => rows.count()).toBeLessThan(all);
  await desk.getByText('with faults').click();
  await desk.getByRole('button', { name: 'Structure' }).click();
  await desk.getByRole('button', { name: /\/crossings\/: 5 pages/ }).click();
  await expect(rows).toHaveCount(5);

  await desk.getByRole('button', { name: 'Columns' }).click();
  const kept = desk.waitForResponse((r) => r.url().endsWith('/api/views') && r.request().method() === 'POST');
  await choose(desk.locator('.v-menu.v-overlay--active .v-list-item').filter({ hasText: /^Main heading$/ }));
  await kept;
  await desk.keyboard.press('Escape');
  const csv = Papa.parse<string[]>(
    (await downloaded(desk, () => desk.getByRole('button', { name: 'CSV' }).click())).trim(),
  ).data;
  expect(csv).toHaveLength(6);
  expect(csv[0]).toContain('Main heading');
  expect(csv.slice(1).every((r) => r[0]!.includes('/crossings/'))).toBe(true);

  await rows.nth(1).locator('button.address').click();
  const panel = desk.getByRole('complementary', { name: 'Page' });
  await expect(panel).toContainText('the page’s own');
  await panel.getByRole('button', { name: 'Source' }).click();
  await expect(panel).toContainText(/title, line \d+, column \d+/);
  await panel.getByRole('button', { name: 'Links' }).click();
  await expect(panel).toContainText('Links in');
  await desk.reload();
  await expect(desk.getByRole('columnheader', { name: 'Main heading' })).toBeVisible();
});

const ruler = (page: Page, field: string, on: string): Locator =>
  page.getByRole('region', { name: field }).locator('.ruler', { hasText: on });

test('a description is written, cut at the very letter, typed in at the host, and the next audit finds the fault gone', async ({
  desk,
}) => {
  await openSide(desk, 'Lifeboat Loft', 'Staging', TEXTS);
  const description = desk.getByRole('textbox', { name: 'Description' });
  await expect(description).toBeVisible();
  // widths by the core’s own table, which the integration tests hold against Chromium’s layout
  const long = 'W '.repeat(200);
  const last = Array.from(long, (_, i) => i).find((i) => textWidth(long.slice(0, i + 1).trim(), 14) > 900)!;
  const scissors = ruler(desk, 'Description', 'desktop').locator('.scissors');
  await description.fill(long.slice(0, last));
  await expect(ruler(desk, 'Description', 'desktop')).toContainText('W W');
  await expect(scissors).toHaveCount(0);
  await description.fill(long.slice(0, last + 1));
  await expect(scissors).toHaveCount(1);
  await expect(desk.getByText(/^cut after/)).toBeVisible();
  await description.fill('');

  const list = desk.locator('.bench .row');
  const paths = await list.locator('.mono').allTextContents();
  let written = 0;
  for (const path of paths) {
    await list.filter({ has: desk.getByText(path, { exact: true }) }).click();
    await expect(desk.locator('.desk .top')).toContainText(path);
    if (await description.inputValue()) continue;
    await description.fill(
      `Lifeboat Loft on the Sallow Firth, page ${path}: what there is to see in the loft, when the doors are open and how to come.`,
    );
    await desk.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(desk.locator('.desk .top')).toContainText('version 1 by Mara Quill');
    written++;
  }
  expect(written).toBeGreaterThan(0);
  await desk.getByRole('button', { name: `Type ${written} page` }).click();
  await expect(desk.getByText(/of the practice site changed/)).toBeVisible();
  await auditNow(desk);
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await desk.getByRole('button', { name: /^All/ }).click();
  await expect(row(desk, 'metadata.as-intended')).toContainText('passed');
  await expect(row(desk, 'metadata.description-present')).toContainText('gone');
});

test('what is typed stays where somebody else saves the page meanwhile, and another page is not gone to', async ({
  desk,
}) => {
  await openSide(desk, 'Pedal Kitchen', 'Live', TEXTS);
  const all = desk.getByRole('button', { name: /^all/ });
  await all.click();
  await expect(all).toHaveAttribute('aria-pressed', 'true');
  const rows = desk.locator('.bench .row');
  await rows.nth(1).click();
  const path = (await rows.nth(1).locator('.mono').textContent())!;
  const title = desk.getByRole('textbox', { name: 'Title' });
  await title.fill('Typed here and not saved yet – Pedal Kitchen');
  const site = /sites\/(\d+)/.exec(desk.url())![1]!;
  const texts = [{ path, title: 'Saved elsewhere meanwhile – Pedal Kitchen' }];
  const answer = await desk.request.put(at(`/api/sites/${site}/texts`), { data: { texts } });
  expect(answer.ok()).toBe(true);
  await expect(desk.locator('.desk .top')).toContainText('version 1');
  await expect(title).toHaveValue('Typed here and not saved yet – Pedal Kitchen');
  await rows.nth(2).click();
  await expect(desk.getByRole('alert')).toContainText(`changed the text of ${path} meanwhile`);
  await expect(title).toHaveValue('Typed here and not saved yet – Pedal Kitchen');
  await desk.getByRole('button', { name: 'Undo changes' }).click();
  await expect(title).toHaveValue('Saved elsewhere meanwhile – Pedal Kitchen');

  await title.fill('A second one – Pedal Kitchen');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await desk.getByRole('button', { name: /^version 2 by/ }).click();
  await desk.getByRole('button', { name: 'Use version 1', exact: true }).click();
  await expect(title).toHaveValue('Saved elsewhere meanwhile – Pedal Kitchen');

  // what is typed while a save is running is kept with this page, and not with the one that comes
  let letGo = (): void => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await desk.route('**/api/sites/*/texts', async (route) => {
    if (route.request().method() === 'PUT') await held;
    await route.continue();
  });
  const saving = desk.waitForRequest((r) => r.method() === 'PUT');
  await title.fill('Before the save – Pedal Kitchen');
  await rows.nth(2).click();
  await saving;
  await title.fill('While it was saved – Pedal Kitchen');
  letGo();
  await expect(rows.nth(2)).toHaveAttribute('aria-pressed', 'true');
  await rows.nth(1).click();
  await expect(title).toHaveValue('While it was saved – Pedal Kitchen');
});

test('a pattern for forty pages and more, seen before it is taken, and undone', async ({ desk }) => {
  await openSide(desk, 'Curlew Point Bird Station', 'Live', TEXTS);
  const all = desk.getByRole('button', { name: /^all \d+/ });
  await all.click();
  const pages = Number(/\d+/.exec((await all.textContent())!)![0]);
  expect(pages).toBeGreaterThanOrEqual(40);
  await desk.getByRole('button', { name: 'Pattern …' }).click();
  const dialog = desk.getByRole('dialog');
  const pattern = dialog.getByLabel('Pattern', { exact: true });
  await pattern.fill('{heading} seen from {name}');
  await expect(dialog).toContainText('seen from Curlew Point Bird Station');
  await pattern.fill('The same');
  await expect(dialog).toContainText('another page too');
  await expect(dialog.getByRole('button', { name: /^Take/ })).toBeDisabled();
  await pattern.fill('{heading} seen from {name}');
  await dialog.getByRole('button', { name: `Take ${pages} texts` }).click();
  await expect(desk.locator('.bench .row').first()).toContainText('not yet live');
  await desk.getByRole('button', { name: `Undo ${pages} pages` }).click();
  await expect(desk.getByText('The texts are as they were.')).toBeVisible();
});

test('texts through a spreadsheet and back, and a note to the client', async ({ desk }) => {
  await openSide(desk, 'Tide Mill Bakery', 'Live', TEXTS);
  await desk.getByRole('button', { name: /^all/ }).click();
  const dialog = desk.getByRole('dialog');
  const out = desk.getByRole('button', { name: 'Export' });
  const csv = await downloaded(desk, () => chooseFrom(desk, out, 'CSV of all pages'));
  const rows = Papa.parse<string[]>(csv.trim()).data;
  expect(rows[0]!.slice(0, 3)).toEqual(['path', 'title', 'description']);
  rows[1]![1] = 'Bread from the tide, every morning – Tide Mill Bakery';
  rows.push(['/nowhere/', 'A title']);
  const [chooser] = await Promise.all([
    desk.waitForEvent('filechooser'),
    desk.getByRole('button', { name: 'Import CSV' }).click(),
  ]);
  await chooser.setFiles({
    name: 'texts.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(Papa.unparse(rows)),
  });
  await expect(dialog).toContainText('1 page can be taken, 1 cell cannot');
  await expect(dialog).toContainText(`line ${rows.length}, path: the site has no page at this path`);
  await dialog.getByRole('button', { name: 'Take 1 page' }).click();
  await expect(desk.getByText('1 page changed from texts.csv.')).toBeVisible();
  await desk
    .locator('.bench .row')
    .filter({ has: desk.getByText(rows[1]![0]!, { exact: true }) })
    .click();
  await expect(desk.getByRole('textbox', { name: 'Title' })).toHaveValue(rows[1]![1]);
  const note = await downloaded(desk, () => chooseFrom(desk, out, 'Note to the client, Markdown'));
  expect(note).toContain('Bread from the tide, every morning');
});

test('a share picture and an icon are made, uploaded at the host, and the next audit finds the faults gone', async ({
  desk,
}) => {
  const slug = 'puppets';
  for (const fault of ['picture-small', 'no-touch-icon'])
    await desk.request.post(at('/api/practice-net'), {
      data: { site: slug, environment: 'live', fault, on: true },
    });
  await openSide(desk, 'Reedling Puppet Theatre', 'Live', 'Share picture and icons');
  await auditNow(desk);
  const share = desk.getByRole('region', { name: 'Share picture' });
  const icons = desk.getByRole('region', { name: 'Icons' });
  const give = async (where: Locator, name: string, mimeType: string, buffer: Buffer): Promise<void> => {
    const [chooser] = await Promise.all([
      desk.waitForEvent('filechooser'),
      where.getByRole('button', { name: /picture$/ }).click(),
    ]);
    await chooser.setFiles({ name, mimeType, buffer });
  };
  await give(icons, 'bad.svg', 'image/svg+xml', Buffer.from('<svg><script>1</script></svg>'));
  await expect(icons.getByRole('alert')).toContainText('it holds a script, line 1');
  await give(share, 'stage.png', 'image/png', await stage());
  await expect(share).toContainText('1600 × 1200 px');
  await expect(share.getByRole('status').last()).toContainText(/kB of .* at the host|kB of 2 MB/);
  // the arrow keys move what is kept, and the picture is made anew
  const wide = share.getByRole('img', { name: 'The share picture, wide' });
  const before = await wide.getAttribute('src');
  await share.getByRole('group', { name: /What is kept/ }).press('ArrowUp');
  await expect(wide).not.toHaveAttribute('src', before!);
  await share.getByLabel(/og:image:alt/).fill('The stage with two herons');
  await give(icons, 'logo.svg', 'image/svg+xml', LOGO);
  await expect(icons).toContainText(/keeps \d+ % of the edges/);
  await expect(icons).toContainText(/contrast of \d/);
  for (const size of [16, 32, 48, 64])
    await expect(icons.getByRole('img', { name: `Icon of ${size} px` }).first()).toHaveJSProperty(
      'naturalWidth',
      size,
    );
  const [zip] = await Promise.all([
    desk.waitForEvent('download'),
    desk.getByRole('button', { name: 'ZIP for live' }).click(),
  ]);
  const files = unzipSync(readFileSync(await zip.path()));
  expect(Buffer.from(files['tags.html']!).toString()).toContain('The stage with two herons');

  // what was set is there again
  const sides = desk.getByRole('group', { name: 'View' });
  await sides.getByRole('button', { name: 'All pages' }).click();
  await expect(desk.getByRole('button', { name: 'Columns' })).toBeVisible();
  await sides.getByRole('button', { name: 'Share picture and icons' }).click();
  await expect(share.getByLabel(/og:image:alt/)).toHaveValue('The stage with two herons');
  await desk.getByRole('button', { name: 'Upload to the practice site' }).click();
  await expect(desk.getByText(/has the files and the tags/)).toBeVisible();
  await auditNow(desk);
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await desk.getByRole('button', { name: /^All/ }).click();
  for (const check of [
    'sharing.favicon',
    'sharing.touch-icon',
    'sharing.image-size',
    'sharing.image-description',
  ])
    await expect(row(desk, check)).toContainText('passed');
});

test('records: each host with where it leads, server beside server, mail in words; a part looked at again', async ({
  desk,
}) => {
  await openTab(desk, 'Sallow Ferries', 'Live', 'Records');
  await expect(desk.getByRole('list', { name: 'sallow-ferries.example, http', exact: true })).toContainText(
    /301.*https:\/\/sallow-ferries\.example\/.*200/,
  );
  const dns = desk.getByRole('region', { name: 'DNS' });
  const address = dns.getByRole('row', { name: /^sallow-ferries\.example A/ });
  await expect(address).toContainText('192.0.2.77');
  await expect(address).toContainText('differs: ns2.registry.example');
  await expect(address).toContainText(/192\.0\.2\.20\s*served/);
  await expect(dns).toContainText('the mail exchangers of sallow-ferries.example may send');
  await expect(desk.getByRole('region', { name: 'Certificates' })).toContainText(/\d+ days left/);
  const asked = desk.waitForRequest((r) => r.url().endsWith('/api/audits') && r.method() === 'POST');
  await desk
    .getByRole('region', { name: 'Registration' })
    .getByRole('button', { name: 'Look again' })
    .click();
  expect((await asked).postDataJSON()).toMatchObject({ scope: { parts: ['registration'] } });
  await expect(desk.getByRole('button', { name: 'Audit now' })).toBeVisible();
});
