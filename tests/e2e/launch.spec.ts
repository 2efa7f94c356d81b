/** The way to a launch: what stands against it, the records that change, and the holding page. */
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, openSite, test } from './person';

test('a site is not set to launched before what stands against it was shown; then live is audited', async ({
  desk,
}) => {
  await openSite(desk, 'Ebb Wool Mill', 'Staging');
  await desk.getByRole('button', { name: /^pre-launch/ }).click();
  await desk.getByRole('listitem').filter({ hasText: 'launched' }).last().click();
  const dialog = desk.getByRole('dialog', { name: 'Launch Ebb Wool Mill' });
  await expect(dialog.getByText('The client has not said yes to anything yet.')).toBeVisible();
  await expect(dialog.getByText(/^(?:No|Not sure):/)).toBeVisible();
  await expect(dialog.getByRole('link', { name: 'Client has approved this content' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Not yet' }).click();
  await expect(dialog).toBeHidden();
  await expect(desk.getByRole('button', { name: /^pre-launch/ })).toBeVisible();

  await desk.getByRole('tab', { name: 'Launch' }).click();
  await desk.getByRole('button', { name: 'Set to launched …' }).click();
  await dialog.getByRole('button', { name: 'Set to launched', exact: true }).click();
  await expect(desk.getByRole('button', { name: /^launched/ })).toBeVisible();
  await desk.getByRole('group', { name: 'Environment' }).getByRole('button', { name: 'Live' }).click();
  await expect(desk.getByText(/judged as live/)).toBeVisible();
});

test('the records that change, with the way back; and a holding page', async ({ desk }) => {
  await openSite(desk, 'Sallow Choir', 'Staging');
  await desk.getByRole('tab', { name: 'Launch' }).click();
  const plan = desk.getByRole('region', { name: 'Cut-over plan' });
  await expect(plan.getByText(/The last cache that obeys TTLs lets go by/)).toBeVisible();
  await expect(plan.getByRole('heading', { name: 'The way back' })).toBeVisible();
  await expect(plan.getByRole('row', { name: /change sallow-choir\.example A/ })).toBeVisible();

  const kit = desk.getByRole('region', { name: 'Holding page' });
  await kit.getByLabel('A sentence of your own').fill('We are tuning up.');
  await expect(
    desk.frameLocator('iframe[title="The holding page"]').getByText('We are tuning up.'),
  ).toBeVisible();
  await kit.getByRole('button', { name: 'Apache' }).click();
  await expect(kit.getByText(/ErrorDocument 503/)).toBeVisible();
  const [file] = await Promise.all([
    desk.waitForEvent('download'),
    kit.getByRole('button', { name: 'Save holding.html' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain('<title>Sallow Choir</title>');
  const { violations } = await new AxeBuilder({ page: desk })
    .exclude('iframe')
    .withTags(['wcag2a', 'wcag2aa', 'wcag22aa'])
    .analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes[0]!.html}`)).toEqual([]);
});
