/** Schedules at the screen, and looking again at a part, a finding and a fix. */
import { expect } from '@playwright/test';
import { choose, at, openSite, test, tick } from './person';

test('a schedule: added, planned, changed, switched off, taken away', async ({ desk }) => {
  await desk.goto(at('/schedules'));
  const table = desk.getByRole('table', { name: 'Schedules' });
  await expect(table.getByRole('row').filter({ hasText: 'switched off' })).toHaveCount(3);
  await desk.getByRole('button', { name: 'Add a schedule' }).click();
  const form = desk.getByRole('dialog');
  await form.getByLabel('Name', { exact: true }).fill('Names of the museum');
  await form.getByRole('combobox', { name: 'Sites', exact: true }).press('ArrowDown');
  await choose(desk.getByRole('option', { name: 'one', exact: true }));
  await form.getByLabel('Site', { exact: true }).fill('Wharf');
  await choose(desk.getByRole('option', { name: 'Wharf Sauna' }));
  await tick(form.getByLabel('parts', { exact: true }));
  await form.getByRole('combobox', { name: 'Parts', exact: true }).press('ArrowDown');
  await choose(desk.getByRole('option', { name: 'DNS' }));
  await desk.keyboard.press('Escape');
  await form.getByLabel('Time zone').fill('Nowhere/Land');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByRole('alert')).toContainText('timeZone');
  await form.getByLabel('Time zone').fill('UTC');
  await form.getByRole('button', { name: 'Save' }).click();
  const row = table.getByRole('row').filter({ hasText: 'Names of the museum' });
  await expect(row).toContainText('Wharf Sauna');
  await expect(row).toContainText('DNS');
  await expect(row).toContainText(/to come|done|running/);
  await row.getByRole('button', { name: 'Switch off Names of the museum' }).click();
  await expect(row.getByRole('button', { name: 'Switch on Names of the museum' })).toBeVisible();
  await row.getByRole('button', { name: 'Change Names of the museum' }).click();
  await form.getByRole('button', { name: 'Delete' }).click();
  await expect(row).toHaveCount(0);
});

test('a part looked at again says how old each is; a finding and its fix are looked at alone', async ({
  desk,
}) => {
  await openSite(desk, 'Pedal Kitchen', 'Live');
  await desk.getByRole('button', { name: 'Look again …' }).click();
  const menu = desk.getByRole('form', { name: 'Look again at a part' });
  await expect(menu.getByRole('button', { name: 'Look again' })).toBeDisabled();
  await tick(menu.getByLabel('TLS'));
  await menu.getByRole('button', { name: 'Look again' }).click();
  await expect(desk.getByText(/^Looked at: TLS .*; DNS, HTTP of the hosts/)).toBeVisible();
  await desk.locator('tr[id^="row-"]').first().click();
  const evidence = desk.getByRole('complementary');
  await evidence.getByRole('button', { name: 'Look whether it is gone' }).click();
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByText(/looked again at .* only/).first()).toBeVisible();
  await expect(desk.getByText('looked again at TLS only')).toBeVisible();
});
