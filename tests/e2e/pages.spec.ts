/** Pages and the text bench: what every page says of itself, and writing it right. */
import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import Papa from 'papaparse';
import { textWidth } from '#core/text/width';
import { expect, openSite, test } from './person';

const openTab = async (page: Page, site: string, environment: string, tab: string): Promise<void> => {
  await openSite(page, site, environment);
  await page.getByRole('tab', { name: tab }).click();
};
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
  await desk
    .getByRole('option', { name: 'Main heading' })
    .or(desk.locator('.v-list-item', { hasText: 'Main heading' }))
    .first()
    .click();
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
  await openTab(desk, 'Lifeboat Loft', 'Staging', 'Texts');
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
  const audited = desk.waitForResponse(
    (r) => r.url().endsWith('/api/audits') && r.request().method() === 'POST',
  );
  await desk.getByRole('button', { name: 'Audit now' }).click();
  await audited;
  await expect(desk.getByRole('button', { name: 'Audit now' })).toBeVisible();
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await desk.getByRole('button', { name: /^All/ }).click();
  await expect(desk.locator('[id="row-metadata.as-intended"]')).toContainText('passed');
  await expect(desk.locator('[id="row-metadata.description-present"]')).toContainText('gone');
});

test('a pattern for many pages, undone; and texts through a spreadsheet and back', async ({ desk }) => {
  await openTab(desk, 'Tide Mill Bakery', 'Live', 'Texts');
  await desk.getByRole('button', { name: /^all/ }).click();
  await desk.getByRole('button', { name: 'Pattern …' }).click();
  const dialog = desk.getByRole('dialog');
  await dialog.getByLabel('Pattern', { exact: true }).fill('{heading} at the {name}');
  await expect(dialog).toContainText('at the Tide Mill Bakery');
  await dialog.getByLabel('Pattern', { exact: true }).fill('The same');
  await expect(dialog).toContainText('another page too');
  await expect(dialog.getByRole('button', { name: /^Take/ })).toBeDisabled();
  await dialog.getByLabel('Pattern', { exact: true }).fill('{heading} at the {name}');
  await dialog.getByRole('button', { name: /^Take \d+ texts/ }).click();
  await expect(desk.locator('.bench .row').first()).toContainText('not yet live');
  await desk.getByRole('button', { name: /^Undo \d+ pages/ }).click();
  await expect(desk.getByText('The texts are as they were.')).toBeVisible();

  const csv = await downloaded(desk, async () => {
    await desk.getByRole('button', { name: 'Export' }).click();
    await desk.getByText('CSV of all pages').click();
  });
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
  await expect(desk.getByText('CSV of all pages')).toBeHidden();
  const note = await downloaded(desk, async () => {
    await desk.getByRole('button', { name: 'Export' }).click();
    await desk.getByText('Note to the client, Markdown').click();
  });
  expect(note).toContain('Bread from the tide, every morning');
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
