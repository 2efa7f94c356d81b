/** The people of the agency, and what strangers wrote: driven as people drive them. */
import { expect } from '@playwright/test';
import { at, signIn, test } from './person';

test('a person is added, chooses a password by a link, and is removed', async ({ desk, browser }) => {
  await desk.goto(at('/team'));
  const people = desk.getByRole('region', { name: 'People' });
  await people.getByLabel('Name').fill('Wren Holm');
  await people.getByLabel('Mail address').fill('wren@marram-studio.example');
  await people.getByRole('button', { name: 'Add', exact: true }).click();
  const row = people.getByRole('row').filter({ hasText: 'Wren Holm' });
  await expect(row).toContainText('has chosen no password yet');
  const link = await people.getByRole('status').locator('code').innerText();

  const theirs = await browser.newContext();
  const page = await theirs.newPage();
  await page.goto(link);
  await page.getByLabel('Password', { exact: true }).fill('short');
  await page.getByLabel('The same again').fill('short');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('alert')).toHaveText(/at least 12 characters/);
  await page.getByLabel('Password', { exact: true }).fill('marram in the wind');
  await page.getByLabel('The same again').fill('marram in the wind');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await signIn(page, 'wren@marram-studio.example', 'marram in the wind');
  // nobody has told them anything: what will stand there is said
  await page.getByRole('button', { name: /^Messages/ }).click();
  await expect(page.getByText('When a fault that was left on purpose counts again')).toBeVisible();

  await desk.reload();
  await expect(row).not.toContainText('no password');
  await row.getByRole('button', { name: 'Rename' }).click();
  await desk.getByRole('dialog').getByLabel('Name').fill('Wren Holme');
  await desk.getByRole('dialog').getByRole('button', { name: 'Rename' }).click();
  await expect(row).toContainText('Wren Holme');
  await row.getByRole('button', { name: 'Remove' }).click();
  await desk.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
  await expect(row).toHaveCount(0);
  await page.reload();
  await expect(page).toHaveURL(/sign-in/);
  await theirs.close();
});

test('one’s own password needs the one before', async ({ desk }) => {
  await desk.goto(at('/team'));
  const own = desk.getByRole('region', { name: 'Your password' });
  await own.getByLabel('The one you have').fill('not this one');
  await own.getByLabel('A new one').fill('a long enough password');
  await own.getByRole('button', { name: 'Change it' }).click();
  await expect(own.getByText('The password you have now is another one.')).toBeVisible();
});

test('what strangers wrote is text on every screen', async ({ desk, seat }) => {
  const text = '<img src=x onerror="window.ran=1"><script>window.ran=1</script>';
  const post = async (path: string, data: object): Promise<Record<string, number>> => {
    const answer = await seat.request.post(at(path), { data });
    expect(answer.status(), await answer.text()).toBe(200);
    return (await answer.json()) as Record<string, number>;
  };
  const { id } = await post('/api/sites', {
    name: text,
    client: text,
    liveUrl: 'https://kites.example/',
    environments: [{ name: text, url: 'https://draft.kites.example/' }],
    stage: 'launched',
    replaces: false,
    brief: { name: text, tagline: text },
  });
  const profile = await post('/api/host-profiles', { name: text, backups: text });
  const checklist = await post('/api/checklists', {
    name: text,
    items: [{ check: 'https.hsts', title: text, note: text }],
  });
  for (const path of [
    '/',
    `/sites/${id}`,
    `/sites/${id}?tab=brief`,
    `/sites/${id}?tab=history`,
    `/sites/${id}/edit`,
    '/clients',
    '/host-profiles',
    `/host-profiles/${profile.id}`,
    '/checklists',
    `/checklists/${checklist.id}`,
  ]) {
    await desk.goto(at(path));
    await expect(desk.getByRole('progressbar', { name: 'Loading' })).toHaveCount(0);
    if (path === '/') await desk.getByLabel('Filter by words').fill('<img');
    await expect(async () => {
      const shown = await desk.evaluate(() =>
        [
          document.body.innerText,
          ...[...document.querySelectorAll('input, textarea')].map((e) => (e as HTMLInputElement).value),
        ].join('\n'),
      );
      expect(shown).toContain('<img src=x onerror');
    }, path).toPass({ timeout: 45_000 });
    expect(await desk.evaluate(() => (window as { ran?: number }).ran), path).toBeUndefined();
  }
});
