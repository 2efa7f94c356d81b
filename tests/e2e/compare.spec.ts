/** Compare: staging against live, saved as files, and a build dropped in. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import Papa from 'papaparse';
import { chooseFrom, expect, openSite, test } from './person';

test('staging and live: who is ahead, what differs, and saved as Markdown and CSV', async ({ desk }) => {
  await openSite(desk, 'Saltmarsh Seed Library', 'Live');
  await desk.getByRole('tab', { name: 'Compare' }).click();
  await expect(desk.getByText('Staging is ahead')).toBeVisible();
  await expect(desk.getByText('Publish again')).toBeVisible();
  const pages = desk.getByRole('list', { name: 'Compared pages' });
  await expect(pages.getByText(/Today a team of volunteers/)).toBeVisible();
  await expect(desk.getByRole('heading', { name: 'On many pages' })).toBeVisible();
  await desk.getByRole('textbox', { name: 'Filter by words' }).fill('contact');
  await expect(pages.getByText('/about/', { exact: true })).toBeHidden();
  const saved = async (kind: string): Promise<string> => {
    const [file] = await Promise.all([
      desk.waitForEvent('download'),
      chooseFrom(desk, desk.getByRole('button', { name: 'Save' }), new RegExp(kind)),
    ]);
    return readFileSync(await file.path(), 'utf8');
  };
  const markdown = await saved('Markdown');
  expect(markdown).toContain('# Saltmarsh Seed Library compared');
  expect(markdown).toMatch(/## \/about\/: changed/);
  const { data, errors } = Papa.parse<string[]>(await saved('CSV'));
  expect(errors).toEqual([]);
  expect(data[0]).toEqual(['Where', 'Kind', 'Before at', 'What', 'First', 'Second']);
  await desk.getByRole('button', { name: 'Swap the two sides' }).click();
  await expect(desk).toHaveURL(/first=\d+&second=\d+/);
  await expect(desk.getByText('Staging is ahead')).toBeVisible();
});

test('a build: is what I uploaded what they see?', async ({ desk }) => {
  const folder = '.test/e2e-build/dist';
  mkdirSync(folder, { recursive: true });
  writeFileSync(`${folder}/index.html`, '<title>x</title><p>Other words.</p>');
  writeFileSync(`${folder}/_headers`, '/*');
  await openSite(desk, 'Saltmarsh Seed Library', 'Live');
  await desk.getByRole('tab', { name: 'Compare' }).click();
  await desk.getByRole('button', { name: 'A build' }).click();
  await desk.locator('input[aria-label="Build folder"]').setInputFiles(folder);
  await expect(desk.getByText('No: 1 file of 2 is not what was uploaded.')).toBeVisible();
  await expect(desk.getByRole('row', { name: /\/index\.html other bytes/ })).toBeVisible();
  await desk.getByRole('button', { name: 'Forget it' }).click();
  await expect(desk.getByText('Drop the folder or the ZIP')).toBeVisible();
});
