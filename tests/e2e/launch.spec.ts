/** The way to a launch: the run sheet, the records that change, the watch, and the holding page. */
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import {
  at,
  chooseEnvironment,
  chooseFrom,
  chooseOption,
  expect,
  openSite,
  signIn,
  test,
  tick,
} from './person';

const view = (page: Page, name: string) =>
  page.getByRole('group', { name: 'View' }).getByRole('button', { name, exact: true }).click();

async function openLaunch(page: Page, name: string): Promise<void> {
  await openSite(page, name, 'Staging');
  await page.getByRole('tab', { name: 'Launch' }).click();
}

const faultsOf = async (page: Page, exclude = 'nothing'): Promise<string[]> => {
  const { violations } = await new AxeBuilder({ page })
    .exclude(exclude)
    .withTags(['wcag2a', 'wcag2aa', 'wcag22aa'])
    .analyze();
  return violations.map((v) => `${v.id}: ${v.nodes[0]!.html}`);
};

test('a site is not set to launched before what stands against it was shown; then live is audited', async ({
  desk,
}) => {
  await openSite(desk, 'Ebb Wool Mill', 'Staging');
  await chooseFrom(desk, desk.getByRole('button', { name: /^pre-launch/ }), 'launched');
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
  await chooseEnvironment(desk, 'Live');
  await expect(desk.getByText(/judged as live/)).toBeVisible();
});

test('the records that change, name servers that move, and a holding page', async ({ desk }) => {
  await openLaunch(desk, 'Sallow Choir');
  await view(desk, 'Records');
  const plan = desk.getByRole('region', { name: 'Cut-over plan' });
  await expect(plan.getByText(/Old answers expire by/)).toBeVisible();
  await expect(plan.getByRole('heading', { name: 'The way back' })).toBeVisible();
  await expect(plan.getByRole('row', { name: /change sallow-choir\.example A/ })).toBeVisible();
  await plan.getByRole('button', { name: 'Compare at the new servers' }).click();
  await expect(
    plan.getByText(/ns1\.registry\.example: \d+ sets of records as wanted, \d+ not/),
  ).toBeVisible();

  await view(desk, 'Holding page');
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
  expect(await faultsOf(desk, 'iframe')).toEqual([]);
});

test('former addresses are confirmed, kept in the brief, and leave as redirects', async ({ desk }) => {
  await openLaunch(desk, 'Firth Tram Society');
  await view(desk, 'Former addresses');
  const former = desk.getByRole('region', { name: 'Former addresses' });
  await expect(former.getByRole('combobox', { name: 'Where /history.html leads' })).toHaveValue('/about/');
  await former.getByLabel('Addresses from your own list, one a line').fill('/visit.php\n/nowhere-else.html');
  await former.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(former.getByText('/nowhere-else.html')).toBeVisible();
  await former.getByRole('button', { name: 'Confirm the likely ones' }).click();
  await tick(former.getByLabel('Confirm /history.html'));
  await former.getByRole('button', { name: 'Apache' }).click();
  await expect(former.getByText('RedirectMatch 301 "^/visit\\.php$" "/visit/"')).toBeVisible();
  await former.getByRole('button', { name: 'Keep in the brief' }).click();
  await expect(former.getByRole('row', { name: /history\.html.*in the brief/ })).toBeVisible();
});

/** What somebody does at the practice site’s accounts. */
async function atTheDesk(page: Page, work: (accounts: ReturnType<Page['getByRole']>) => Promise<void>) {
  await page.goto(at('/practice-net'));
  await page.getByRole('button', { name: /^Firth Tram Society/ }).click();
  const accounts = page.getByRole('region', { name: 'Registrar, DNS operator and host' });
  await expect(accounts.getByLabel('The zone', { exact: true })).toHaveValue(/firth-trams\.example\. /);
  await work(accounts);
}

async function saveZone(page: Page, change: (zone: string) => string): Promise<void> {
  await atTheDesk(page, async (accounts) => {
    const zone = accounts.getByLabel('The zone', { exact: true });
    await zone.fill(change(await zone.inputValue()));
    const save = accounts.getByRole('button', { name: 'Save the zone' });
    await save.click();
    await expect(save).toBeDisabled();
  });
}

/** Looks again and again until the watch says so. */
async function watchSays(page: Page, text: string | RegExp): Promise<void> {
  const watch = page.getByRole('region', { name: 'Watch' });
  await expect(async () => {
    await watch.getByRole('button', { name: 'Look now' }).click();
    await expect(watch.getByText(text)).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 120_000 });
}

test('a launch by its sheet: two people, one wrong turn and the way back, watched until it holds', async ({
  desk,
  browser,
}) => {
  const NAME = 'Firth Tram Society';
  const step = (page: Page, title: string) =>
    page.getByRole('region', { name: 'Run sheet' }).getByRole('listitem').filter({ hasText: title });
  await openLaunch(desk, NAME);
  await desk.getByRole('button', { name: 'Make the run sheet' }).click();
  await expect(desk.getByText('No-go.')).toBeVisible();
  expect(await faultsOf(desk)).toEqual([]);

  const seat = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const joss = await seat.newPage();
  await signIn(joss, 'joss@marram-studio.example');
  await joss.goto(desk.url());

  // what one does the other sees, without reloading
  await desk.getByRole('button', { name: 'Done: A backup exists, and was restored once' }).click();
  await expect(
    step(joss, 'A backup exists, and was restored once').getByText('done', { exact: true }),
  ).toBeVisible();
  // what has to wait cannot be done yet
  const told = 'The host is told the domain';
  await expect(joss.getByRole('button', { name: `Done: ${told}` })).toHaveCount(0);
  await desk.getByRole('button', { name: 'Done: The hosting plan covers the site' }).click();
  await joss.getByRole('button', { name: `Done: ${told}` }).click();
  await expect(step(desk, told).getByText('to prove', { exact: true })).toBeVisible();
  // a word is held against the new address itself
  const lookAtTold = async (): Promise<void> => {
    const one = step(desk, told);
    const opener = one.getByRole('button', { name: told, exact: true });
    if ((await opener.getAttribute('aria-expanded')) !== 'true') await opener.click();
    await one.getByRole('button', { name: 'Look now' }).click();
  };
  await lookAtTold();
  await expect(step(desk, told).getByText('went back', { exact: true })).toBeVisible();
  await step(desk, 'The client knows when it happens')
    .getByRole('button', { name: 'The client knows when it happens', exact: true })
    .click();
  await desk.getByRole('button', { name: 'Leave out …' }).click();
  await desk.getByLabel('Why it is left out').fill('They make the change themselves.');
  await desk.getByRole('button', { name: 'Leave out', exact: true }).click();
  await expect(
    step(joss, 'The client knows when it happens').getByText('left out', { exact: true }),
  ).toBeVisible();

  // lowered at the operator, and seen by looking
  await saveZone(desk, (zone) => zone.replace(/^(\S+) \d+ IN (A|CNAME) /gm, '$1 300 IN $2 '));
  await openLaunch(desk, NAME);
  const lowered = step(desk, 'TTLs of the records that change are lowered');
  await lowered
    .getByRole('button', { name: 'TTLs of the records that change are lowered', exact: true })
    .click();
  await lowered.getByRole('button', { name: 'Look now' }).click();
  await expect(lowered.getByText(/^Proven, /)).toBeVisible();

  // going anyway takes both
  await desk.getByRole('button', { name: 'Go anyway …' }).click();
  await desk.getByLabel('Why all the same').fill('The day is fixed.');
  await desk.getByRole('button', { name: 'Ask a second person' }).click();
  await expect(desk.getByText('A second person has to agree.', { exact: true })).toBeVisible();
  await joss.getByRole('button', { name: 'Agree, and go' }).click();
  await expect(desk.getByText(/said by Mara Quill and Joss Teal/)).toBeVisible();

  await view(desk, 'Watch');
  await desk.getByRole('button', { name: 'Begin to watch' }).click();
  await watchSays(desk, /^Not changed at the DNS operator/);
  const launched = desk.url();

  // the wrong turn: the operator has it, the host was never told; and the way back
  await saveZone(desk, (zone) => zone.replace(/^(firth-trams\.example\. \d+ IN A) \S+/m, '$1 192.0.2.20'));
  await desk.goto(launched);
  await watchSays(desk, /^Set at the DNS operator, not told to the host/);
  await saveZone(desk, (zone) => zone.replace(/^(firth-trams\.example\. \d+ IN A) \S+/m, '$1 192.0.2.77'));
  await desk.goto(launched);
  await watchSays(desk, /^Not changed at the DNS operator/);

  // both ends, and an hour that passes in a minute, until the last cache has let go
  await atTheDesk(desk, async (accounts) => {
    await tick(accounts.getByLabel('The host is told the domain'));
    await tick(accounts.getByLabel('The hold is lifted'));
  });
  await openLaunch(desk, NAME);
  await lookAtTold();
  await expect(step(desk, told).getByText(/^Proven, /)).toBeVisible();
  await saveZone(desk, (zone) => zone.replace(/^(firth-trams\.example\. \d+ IN A) \S+/m, '$1 192.0.2.20'));
  const clock = async (speed: string): Promise<void> => {
    await chooseOption(desk, desk.locator('.v-select.clock'), speed);
  };
  await clock('an hour in a minute');
  await desk.goto(launched);
  await expect(desk.getByText('It holds everywhere.')).toBeVisible({ timeout: 150_000 });
  expect(await faultsOf(desk)).toEqual([]);
  await atTheDesk(desk, () => clock('real time'));

  // proven by looking, then launched, and ended with what was learnt
  await openLaunch(desk, NAME);
  await desk
    .getByRole('group', { name: 'Steps' })
    .getByRole('button', { name: /^By phase/ })
    .click();
  const records = step(desk, 'The records are changed');
  await records.getByRole('button', { name: 'The records are changed', exact: true }).click();
  await records.getByRole('button', { name: 'Look now' }).click();
  await expect(records.getByText(/^Proven, /)).toBeVisible();
  await chooseFrom(desk, desk.getByRole('button', { name: /^pre-launch/ }), 'launched');
  await desk
    .getByRole('dialog', { name: `Launch ${NAME}` })
    .getByRole('button', { name: 'Set to launched', exact: true })
    .click();
  await expect(step(desk, 'The site is set to launched').getByText('done', { exact: true })).toBeVisible();
  await expect(
    step(desk, 'The certificate covers every name').getByText('done', { exact: true }),
  ).toBeVisible({
    timeout: 120_000,
  });
  // what was proven before keeps its proof, and what was open stays open
  await expect(
    step(desk, 'TTLs of the records that change are lowered').getByText('done', { exact: true }),
  ).toBeVisible();
  await expect(
    step(desk, 'Default accounts and passwords are gone').getByText('open at go', { exact: true }),
  ).toBeVisible();
  await expect(desk.getByRole('region', { name: 'Run sheet' }).getByText(/^Launched /)).toBeVisible();
  await chooseFrom(desk, desk.getByRole('button', { name: 'More of this launch' }), 'End this launch …');
  await desk.getByLabel('What was learnt').fill('Tell the host first.');
  await desk.getByRole('button', { name: 'The launch is done' }).click();
  await view(desk, 'Log');
  const log = desk.getByRole('region', { name: 'Log of launch 1' });
  await expect(log.getByText('Tell the host first.').first()).toBeVisible();
  await expect(log.getByText(/They make the change themselves/)).toBeVisible();
  await seat.close();
});
