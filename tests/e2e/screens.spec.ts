/** What holds for every screen: an accessibility engine finds nothing, and paper carries what is to be read. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { at, expect, test } from './person';

interface Screen {
  name: string;
  path: string;
  /** What is opened on it before it is looked at. */
  open?: (page: Page) => Promise<void>;
  /** Whether it is one that people print. */
  paper?: true;
}
const worstEvidence = async (page: Page) => {
  await page.locator('tr[id^="row-"]').first().click();
  await expect(page.getByRole('complementary', { name: /^Evidence/ })).toBeVisible();
};
const SCREENS: Screen[] = [
  { name: 'roster', path: '/', paper: true },
  { name: 'ledger with evidence', path: '/sites/2', open: worstEvidence, paper: true },
  {
    name: 'the sum of a score',
    path: '/sites/2',
    open: (page) => page.getByTitle('How this score came about').click(),
  },
  {
    name: 'pages with one opened',
    path: '/sites/2?tab=pages',
    open: async (page) => {
      await page.getByRole('button', { name: 'Structure' }).click();
      await page.locator('button.address').first().click();
      await expect(page.getByRole('complementary', { name: 'Page' })).toContainText('own');
    },
  },
  { name: 'texts', path: '/sites/2?tab=pages&view=texts' },
  {
    name: 'share picture and icons',
    path: '/sites/2?tab=pages&view=pictures',
    open: async (page) => {
      const svg =
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><circle cx="4" cy="4" r="4"/></svg>';
      const file = { name: 'dot.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) };
      for (const use of ['Share picture', 'Icons']) {
        const section = page.getByRole('region', { name: use });
        await section.locator('input[type=file]').setInputFiles(file);
        await expect(section).toContainText('dot.svg');
      }
      await expect(page.getByText('lies outside the safe zone')).toBeVisible();
      await page.locator('summary').click();
    },
  },
  { name: 'records', path: '/sites/2?tab=records', paper: true },
  { name: 'brief', path: '/sites/2?tab=brief' },
  { name: 'history', path: '/sites/2?tab=history', paper: true },
  { name: 'edit a site', path: '/sites/2/edit' },
  { name: 'add a site', path: '/sites/new' },
  { name: 'many sites', path: '/sites/import' },
  {
    name: 'fixes by fault',
    path: '/fixes',
    paper: true,
    open: (page) => page.getByRole('table').first().locator('tbody button').first().click(),
  },
  { name: 'fixes by site', path: '/fixes?view=site' },
  { name: 'clients', path: '/clients' },
  { name: 'checklists', path: '/checklists' },
  {
    name: 'a checklist',
    path: '/checklists/1',
    // a dozen of its rows say all that the others do
    open: (page) => page.getByLabel('Filter checks by words').fill('robots'),
  },
  { name: 'host profiles', path: '/host-profiles' },
  { name: 'a host profile', path: '/host-profiles/1' },
  { name: 'schedules', path: '/schedules' },
  { name: 'team', path: '/team' },
  { name: 'practice net', path: '/practice-net' },
];

async function look(page: Page, { path, open }: Screen): Promise<void> {
  await page.goto(at(path));
  await expect(page.getByRole('heading').first()).toBeVisible();
  await expect(page.getByRole('progressbar', { name: 'Loading' })).toHaveCount(0);
  await open?.(page);
}

/** Whether the theme of the page is the one that its system asks for. */
const isThemed = (page: Page, theme: string) =>
  expect(page.locator('.v-application')).toHaveClass(new RegExp(`v-theme--${theme}`));

for (const screen of SCREENS)
  test(`an accessibility engine finds nothing, light and dark: ${screen.name}`, async ({ desk }) => {
    await desk.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await look(desk, screen);
    for (const colorScheme of ['light', 'dark'] as const) {
      await desk.emulateMedia({ colorScheme });
      await isThemed(desk, colorScheme);
      // WCAG 2.2 A and AA, as axe-core knows them; in the dark only what colours change
      const engine = new AxeBuilder({ page: desk });
      const { violations } = await (
        colorScheme === 'light'
          ? engine.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
          : engine.withRules(['color-contrast', 'link-in-text-block'])
      ).analyze();
      expect(
        violations.map(
          (v) =>
            `${v.id}: ${v.nodes
              .map((n) => n.target.join(' '))
              .slice(0, 4)
              .join(' | ')}`,
        ),
        colorScheme,
      ).toEqual([]);
    }
    if (!screen.paper) return;
    await desk.emulateMedia({ media: 'print' });
    await expect(desk.getByRole('banner')).toBeHidden();
    await expect(desk.locator('.v-btn:visible')).toHaveCount(0);
    await expect(desk.locator('.v-application')).toHaveCSS('background-color', 'rgb(255, 255, 255)');
  });
