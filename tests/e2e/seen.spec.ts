/** Pages as a browser shows them: looked at by themselves, beside the finding, and walked through. */
import { expect, openSite, test, tick } from './person';

test('a browser looks at the pages: the error beside its pictures, walked through, and noted in Pages', async ({
  desk,
}) => {
  await openSite(desk, 'Pedal Kitchen', 'Live');
  await desk.getByRole('button', { name: 'Look again …' }).click();
  const menu = desk.getByRole('form', { name: 'Look again at a part' });
  await tick(menu.getByLabel('pages in a browser'));
  await menu.getByRole('button', { name: 'Look again' }).click();
  const line = desk.locator('[id="row-delivery.script-errors"]');
  await expect(line).toContainText('openMenu is not defined');
  await line.click();
  const panel = desk.getByRole('complementary', { name: /^Evidence: A script stops/ });
  const first = panel.getByRole('button', { name: '/about/, phone: open' });
  await expect(first.locator('img')).toHaveJSProperty('complete', true);
  expect(await first.locator('img').evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(780);
  await first.click();
  const walk = desk.getByRole('dialog', { name: 'Pages in a browser' });
  await expect(walk.getByText('1 of 4')).toBeVisible();
  await desk.keyboard.press('ArrowRight');
  await expect(walk.getByText('2 of 4')).toBeVisible();
  await walk.getByRole('button', { name: 'Desktop' }).click();
  await expect(walk.getByRole('img', { name: /desktop, as a browser shows it/ })).toBeVisible();
  await desk.keyboard.press('Escape');
  await expect(walk).toBeHidden();
  await desk.getByRole('tab', { name: 'Pages' }).click();
  await desk
    .getByRole('row', { name: /\/about\// })
    .first()
    .click();
  const page = desk.getByRole('complementary', { name: 'Page' });
  await page.getByRole('button', { name: 'In a browser' }).click();
  await expect(
    page.getByText(/openMenu is not defined at https:\/\/pedal-kitchen\.example\/about\//),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: '/about/, desktop: open' })).toBeVisible();
});

test('the phone layout is walked through beside its manual check', async ({ desk }) => {
  await openSite(desk, 'Pedal Kitchen', 'Live');
  await desk.locator('[id="row-delivery.small-screen"]').click();
  const panel = desk.getByRole('complementary', { name: /^Evidence: Phone layout/ });
  await expect(panel.getByRole('button', { name: /, phone: open$/ })).toHaveCount(4);
  await expect(panel.getByRole('button', { name: /desktop: open/ })).toHaveCount(0);
});
