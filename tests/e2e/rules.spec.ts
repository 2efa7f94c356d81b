/** The brief, host profiles, checklists, manual checks and sites in bulk: driven as people drive them. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import {
  choose,
  at,
  auditNow,
  chooseFrom,
  chooseOption,
  expect,
  openSite,
  showAll,
  signIn,
  test,
  tick,
} from './person';

const saved = async (page: Page, click: () => Promise<void>): Promise<string> => {
  const [download] = await Promise.all([page.waitForEvent('download'), click()]);
  return readFileSync(await download.path(), 'utf8');
};
const chooseFile = async (page: Page, button: string, name: string, text: string): Promise<void> => {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: button }).click(),
  ]);
  await chooser.setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
};

/** A field by its label; the button that leaves it blank on purpose is named after it too. */
const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });

test('the brief: checked field by field, none wanted with a reason, versions brought back, files in and out', async ({
  desk,
}) => {
  await openSite(desk, 'Heron Tea House');
  await desk.getByRole('tab', { name: 'Brief' }).click();
  const save = desk.getByRole('button', { name: 'Save', exact: true });
  await expect(save).toBeDisabled();
  const phone = await field(desk, 'Phone').inputValue();
  await field(desk, 'Phone').fill('01632 1');
  await field(desk, 'Tagline').click();
  await expect(desk.getByText('must be a phone number with its country code')).toBeVisible();
  await save.click();
  await expect(desk.getByRole('alert').filter({ hasText: '1 field needs a look' })).not.toHaveCount(0);
  await field(desk, 'Phone').fill(phone);
  await field(desk, 'Tagline').fill('Leaves, slowly');
  // the fields below move up when the fault goes
  await expect(desk.getByText('must be a phone number with its country code')).toBeHidden();
  await desk.getByRole('button', { name: 'No Crawlers that matter wanted' }).click();
  await field(desk, 'Crawlers that matter: none wanted, because').fill('all of them are welcome');
  await save.click();
  await expect(desk.getByText('Saved as version 2')).toBeVisible();

  await desk.getByRole('button', { name: 'Versions' }).click();
  const versions = desk.getByRole('region', { name: 'Versions' });
  await expect(versions.getByRole('listitem').first()).toContainText('Leaves, slowly');
  await versions.getByRole('button', { name: 'Bring back' }).click();
  await expect(desk.getByText('is back, as version 3')).toBeVisible();
  await expect(field(desk, 'Tagline')).not.toHaveValue('Leaves, slowly');

  const files = desk.getByRole('button', { name: 'Files' });
  const json = JSON.parse(await saved(desk, () => chooseFrom(desk, files, 'Save as JSON'))) as {
    name: string;
    records: unknown[];
  };
  expect(json.name).toBe('Heron Tea House');
  const zone = await saved(desk, () => chooseFrom(desk, files, 'Save the records as a zone file'));
  expect(zone.split('\n')).toHaveLength(json.records.length + 1);
  expect(zone).toMatch(/ IN A 192\.0\.2\.\d+\n/);
  await chooseFile(
    desk,
    'Records from a zone file',
    'new.zone',
    '$ORIGIN heron-tea.example.\n@ 300 IN A 192.0.2.99\nwww IN CNAME @\n@ IN SOA a. b. 1 2 3 4 5\n',
  );
  await expect(desk.getByText('2 records taken, 1 left out')).toBeVisible();
  await expect(field(desk, 'Records the host asked for')).toHaveValue(
    'heron-tea.example 300 A 192.0.2.99\nwww.heron-tea.example CNAME heron-tea.example',
  );
  await chooseFile(desk, 'Fill from a JSON file', 'bad.json', '{"phone":"1"}');
  await expect(
    desk.getByRole('alert').filter({ hasText: 'bad.json: phone must be a phone number' }),
  ).not.toHaveCount(0);
  await desk.getByRole('button', { name: 'Records that Quayside Pages asks for' }).click();
  await expect(field(desk, 'Records the host asked for')).toHaveValue(/192\.0\.2\.20/);
  await desk.getByRole('button', { name: 'Undo changes' }).click();
  await expect(save).toBeDisabled();
});

test('two people at one brief: what each changed is joined, and where both changed the same somebody says', async ({
  desk,
  browser,
}) => {
  await openSite(desk, 'Tin Roof Cinema');
  await desk.getByRole('tab', { name: 'Brief' }).click();
  await field(desk, 'Tagline').fill('Mine');
  await field(desk, 'Time zone').fill('Europe/Dublin');
  const other = await browser.newPage();
  await signIn(other, 'joss@marram-studio.example');
  await openSite(other, 'Tin Roof Cinema');
  await other.getByRole('tab', { name: 'Brief' }).click();
  await field(other, 'Tagline').fill('Theirs');
  await field(other, 'Public mail address').fill('hello@tin-roof.example');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(other.getByText('Saved as version 2')).toBeVisible();
  // it is told at once, and what is typed stays
  await expect(desk.getByText('saved version 2 while you were at it')).toBeVisible();
  await expect(field(desk, 'Tagline')).toHaveValue('Mine');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  const dialog = desk.getByRole('dialog', { name: 'Somebody saved meanwhile' });
  await expect(dialog).toContainText('Joss Teal saved version 2 meanwhile');
  await expect(dialog).toContainText('Taken over from there: Public mail address');
  await dialog.getByRole('button', { name: 'Go on editing' }).click();
  await expect(field(desk, 'Tagline')).toHaveValue('Mine');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await tick(dialog.getByLabel('Theirs: Theirs'));
  await dialog.getByRole('button', { name: 'Save both together' }).click();
  await expect(desk.getByText('Saved as version 3')).toBeVisible();
  await expect(field(desk, 'Tagline')).toHaveValue('Theirs');
  await expect(field(desk, 'Time zone')).toHaveValue('Europe/Dublin');
  await expect(field(desk, 'Public mail address')).toHaveValue('hello@tin-roof.example');
  // the other's form was left alone since it was saved, and follows without a reload
  await expect(field(other, 'Time zone')).toHaveValue('Europe/Dublin');
  await other.close();
});

test('use the found value in the brief, with one key', async ({ desk }) => {
  await openSite(desk, 'Sallow Ferries', 'Live');
  await showAll(desk);
  const row = desk.locator('[id="row-identity.phone"]');
  await expect(row).toContainText('failed');
  await row.click();
  await expect(desk.getByRole('button', { name: 'Use in the brief' })).toBeVisible();
  await desk.keyboard.press('b');
  await expect(desk.getByText('Phone now says what was found')).toBeVisible();
  await expect(row).toContainText('passed');
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByText('brief 1 → 2')).toBeVisible();
});

test('what would help most leads to its finding', async ({ desk }) => {
  await openSite(desk, 'Sallow Ferries', 'Live');
  await desk.getByTitle('How this score came about').click();
  const dialog = desk.getByRole('dialog', { name: 'How this score came about' });
  await expect(dialog.locator('tbody tr').first()).toContainText('holds the gate');
  const worst = dialog.locator('tbody tr').first().getByRole('link');
  const title = await worst.textContent();
  await worst.click();
  await expect(desk.getByRole('complementary', { name: `Evidence: ${title}` })).toBeVisible();
});

test('a checklist of one’s own: compose, order, an own check, preview, save, assign, re-evaluate, audit', async ({
  desk,
}) => {
  await desk.goto(at('/checklists'));
  await desk.getByRole('link', { name: 'Full', exact: true }).click();
  await expect(desk.getByText('This one comes with Armband')).toBeVisible();
  await expect(desk.getByLabel('Severity').first()).toBeDisabled();
  await desk.getByRole('button', { name: 'Copy to change it' }).click();
  await expect(desk.getByRole('heading', { name: 'Full copy' })).toBeVisible();
  await desk.getByLabel('Name', { exact: true }).fill('Marram standard');

  const item = (id: string) => desk.locator(`[data-check="${id}"]`);
  await item('https.certificate-days')
    .getByRole('button', { name: /^Certificate does not end soon/ })
    .click();
  await item('https.certificate-days')
    .getByLabel(/fewest days left/)
    .fill('400');
  await expect(item('https.certificate-days').locator('.limits')).toHaveAttribute(
    'title',
    /^400 days: fewest days left/,
  );
  await expect(item('domain.registration-days').locator('.limits')).toHaveAttribute(
    'title',
    /\n14 days: .*renews by itself$/,
  );
  await item('https.hsts').getByLabel('Severity').selectOption('minor');
  await tick(item('https.protocol').getByRole('checkbox'), false);
  const order = () =>
    desk
      .getByRole('region', { name: 'HTTPS' })
      .locator('[data-check]')
      .evaluateAll((all) => all.slice(0, 3).map((e) => (e as HTMLElement).dataset.check));
  expect(await order()).toEqual(['https.answers', 'https.certificate-valid', 'https.certificate-names']);
  await item('https.certificate-names').getByRole('button', { name: /^Move/ }).dragTo(item('https.answers'));
  expect(await order()).toEqual(['https.certificate-names', 'https.answers', 'https.certificate-valid']);
  await item('https.answers').getByRole('button', { name: /^Move/ }).focus();
  await desk.keyboard.press('Alt+ArrowUp');
  expect(await order()).toEqual(['https.answers', 'https.certificate-names', 'https.certificate-valid']);

  await desk
    .getByRole('region', { name: 'Delivery' })
    .getByRole('button', { name: 'A check of our own' })
    .click();
  await desk.keyboard.type('The opening hours are on the home page');
  const own = item('own.delivery-1');
  await chooseOption(desk, own.locator('.v-select').first(), 'an element of the page');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(own.getByRole('alert')).toHaveText('The opening hours are on the home page: say the selector');
  await expect(item('https.certificate-days').getByRole('alert')).toContainText('between 1 and 90 days');
  await own.getByLabel('CSS selector').fill('.opening-hours');
  await item('https.certificate-days')
    .getByRole('button', { name: /^Certificate does not end soon/ })
    .click();
  await item('https.certificate-days')
    .getByLabel(/fewest days left/)
    .fill('30');

  await desk.getByRole('button', { name: 'What would change' }).click();
  const ahead = desk.getByRole('region', { name: 'What would change' });
  await tick(ahead.getByLabel('All sites'));
  await ahead.getByRole('button', { name: 'Preview changes' }).click();
  await expect(ahead).toContainText('of 52 environments would change', {
    timeout: 150_000,
  });
  await ahead.getByRole('button', { name: 'Close' }).click();
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByText('Saved as version 2')).toBeVisible();

  await desk.getByRole('button', { name: 'What it is for' }).click();
  const assign = desk.getByRole('region', { name: 'What it is for' });
  await assign.getByLabel('Sites', { exact: true }).fill('Wharf');
  await choose(desk.getByRole('option', { name: 'Wharf Sauna' }));
  await desk.keyboard.press('Escape');
  await assign.getByRole('button', { name: 'Assign' }).click();
  await desk.getByRole('button', { name: 'Re-evaluate their stored evidence' }).click();
  await expect(desk.getByText('is being re-evaluated')).toBeVisible();

  await openSite(desk, 'Wharf Sauna', 'Staging');
  await showAll(desk);
  await expect(desk.locator('[id="row-own.delivery-1"]')).toContainText('audit again');
  await expect(desk.locator('[id="row-https.protocol"]')).toHaveCount(0);
  await auditNow(desk);
  await expect(desk.locator('[id="row-own.delivery-1"]')).toContainText('failed');
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByText('another checklist').first()).toBeVisible();
});

test('two people at one checklist: an untouched one follows, changes of different checks are joined', async ({
  desk,
  browser,
}) => {
  await desk.goto(at('/checklists'));
  await desk.getByRole('button', { name: 'Copy Quick launch' }).click();
  await expect(desk.getByRole('heading', { name: 'Quick launch copy' })).toBeVisible();
  const other = await browser.newPage();
  await signIn(other, 'joss@marram-studio.example');
  await other.goto(desk.url());
  const item = (page: Page, id: string) => page.locator(`[data-check="${id}"]`);
  const save = (page: Page) => page.getByRole('button', { name: 'Save', exact: true });
  await expect(save(desk)).toBeDisabled();
  await item(other, 'sharing.favicon').getByLabel('Severity').selectOption('minor');
  await save(other).click();
  await expect(other.getByText('Saved as version 2')).toBeVisible();
  await expect(save(other)).toBeDisabled();
  await expect(item(desk, 'sharing.favicon').getByLabel('Severity')).toHaveValue('minor');
  await expect(save(desk)).toBeDisabled();

  // one that this list has not mentioned so far
  await tick(item(desk, 'https.hsts').getByRole('checkbox'));
  await item(desk, 'sharing.favicon').getByLabel('Severity').selectOption('blocker');
  await item(other, 'https.answers').getByLabel('Severity').selectOption('minor');
  await save(other).click();
  await expect(other.getByText('Saved as version 3')).toBeVisible();
  await expect(desk.getByText('Version 3 was saved while you were at it')).toBeVisible();
  await save(desk).click();
  const dialog = desk.getByRole('dialog', { name: 'Somebody saved meanwhile' });
  await expect(dialog).toContainText('both fit together');
  await dialog.getByRole('button', { name: 'Save both together' }).click();
  await expect(desk.getByText('Saved as version 4')).toBeVisible();
  for (const page of [desk, other]) {
    await expect(item(page, 'https.answers').getByLabel('Severity')).toHaveValue('minor');
    await expect(item(page, 'https.hsts').getByRole('checkbox')).toBeChecked();
    await expect(item(page, 'sharing.favicon').getByLabel('Severity')).toHaveValue('blocker');
    await expect(save(page)).toBeDisabled();
  }
  await other.close();
});

test('checklists leave and come back as files', async ({ desk }) => {
  await desk.goto(at('/checklists'));
  await desk.getByRole('link', { name: 'Quick launch', exact: true }).click();
  const more = desk.getByRole('button', { name: 'More' });
  const json = await saved(desk, () => chooseFrom(desk, more, 'Save as JSON'));
  const list = await saved(desk, () => chooseFrom(desk, more, /^Save as a list to print/));
  expect(list).toMatch(/^# Quick launch\n/);
  const chosen = list.split('\n').filter((l) => l.startsWith('- [ ]')).length;
  await desk.goto(at('/checklists'));
  await chooseFile(desk, 'From a JSON file', 'quick.json', json);
  await expect(desk.getByRole('heading', { name: 'Quick launch 2' })).toBeVisible();
  await expect(desk.getByText(new RegExp(`\\b${chosen} of \\d+ checks`))).toBeVisible();
  await chooseFrom(desk, more, 'Delete');
  await desk.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect(desk.getByRole('heading', { name: 'Checklists' })).toBeVisible();
  await chooseFile(desk, 'From a JSON file', 'bad.json', '{"name":"x","items":[{"check":"https.magic"}]}');
  await expect(desk.getByRole('alert')).toContainText('there is no such check');
});

test('host profiles: copy, change, learn defaults from an untouched site, versions, save and take away', async ({
  desk,
}) => {
  await desk.goto(at('/host-profiles'));
  await desk.getByRole('button', { name: 'Copy Quayside Pages' }).click();
  await expect(desk.getByRole('heading', { name: 'Quayside Pages copy' })).toBeVisible();
  await desk.getByLabel('Longest description, characters').fill('many');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByRole('alert').filter({ hasText: '1 field needs a look' })).not.toHaveCount(0);
  await desk.getByLabel('Longest description, characters').fill('250');
  await desk.getByLabel('Address of an untouched site').fill('climbing-barn.example');
  await desk.getByRole('button', { name: 'Look at it' }).click();
  const learnt = desk.locator('.learnt').filter({ hasText: 'Default titles' });
  await learnt.getByRole('button', { name: /^Use all/ }).click();
  await expect(field(desk, 'Default titles')).toHaveValue(/^New berth\n.+\n.+/);
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByText('Saved as version 2')).toBeVisible();
  await desk.getByRole('button', { name: 'Versions' }).click();
  const versions = desk.getByRole('region', { name: 'Versions' });
  await expect(versions.getByRole('listitem').first()).toContainText('Longest description');
  await versions.getByRole('button', { name: 'Bring back' }).click();
  await expect(desk.getByLabel('Longest description, characters')).toHaveValue('300');
  await desk.getByRole('button', { name: 'Undo changes' }).click();
  expect(
    (
      JSON.parse(await saved(desk, () => desk.getByRole('button', { name: 'Save as JSON' }).click())) as {
        descriptionLimit: number;
      }
    ).descriptionLimit,
  ).toBe(250);
  await desk.getByRole('button', { name: 'Delete' }).click();
  await desk.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect(desk.getByRole('heading', { name: 'Host profiles' })).toBeVisible();
  // the message that it is gone names it too, so the list's own link is asked for
  await expect(desk.getByRole('link', { name: 'Quayside Pages', exact: true })).toBeVisible();
  await expect(desk.getByRole('link', { name: 'Quayside Pages copy' })).toHaveCount(0);
});

test('manual checks, one after the other, by keyboard alone', async ({ desk }) => {
  await openSite(desk, 'Pedal Kitchen', 'Live');
  await showAll(desk);
  await desk.keyboard.press('w');
  const walk = desk.getByRole('dialog', { name: /^Manual checks/ });
  const title = walk.locator('h2');
  const first = await title.textContent();
  await desk.keyboard.press('d');
  await expect(title).not.toHaveText(first!);
  const second = await title.textContent();
  await desk.keyboard.press('x');
  await expect(walk.getByRole('alert')).toHaveText('Say in the note why it is not applicable.');
  await desk.keyboard.press('w');
  await desk.keyboard.type('nobody has one');
  await desk.keyboard.press('Escape');
  await desk.keyboard.press('x');
  await expect(title).not.toHaveText(second!);
  const third = await title.textContent();
  await desk.keyboard.press('n');
  await expect(title).not.toHaveText(third!);
  await desk.keyboard.press('k');
  await expect(title).toHaveText(third!);
  await expect(walk).toContainText('just said: not done');
  await desk.keyboard.press('Escape');
  await expect(walk).toBeHidden();
  const row = (text: string) => desk.getByRole('row').filter({ hasText: text });
  await expect(row(first!)).toContainText('passed');
  await expect(row(second!)).toContainText('not applicable');
  await expect(row(third!)).toContainText('failed');
});

test('an attestation with a picture, shown beside the finding', async ({ desk }) => {
  await openSite(desk, 'The Climbing Barn', 'Live');
  await desk.locator('[id="row-delivery.backup"]').click();
  await desk.keyboard.press('t');
  await desk.getByLabel('Note').fill('restored last week');
  await tick(desk.getByLabel('until the stage changes'));
  await chooseFile(desk, 'Add a picture or file', 'proof.txt', 'all fine');
  await expect(desk.getByText('proof.txt')).toBeVisible();
  await desk.getByRole('button', { name: 'It is done' }).click();
  await expect(desk.locator('[id="row-delivery.backup"]')).toContainText('passed');
  const panel = desk.getByRole('complementary', { name: /^Evidence/ });
  await expect(panel).toContainText('good while the site is launched');
  await expect(panel.getByRole('link', { name: 'proof.txt' })).toHaveAttribute('href', /^\/api\/files\/\d+$/);
});

test('sites in bulk: bad cells are marked, the good rows added', async ({ desk }) => {
  await desk.goto(at('/sites/new'));
  await desk.getByRole('link', { name: 'Many at once' }).click();
  await desk
    .getByLabel('Paste the table here')
    .fill(
      'name,client,live address,mail\nOyster School,Oyster Trust,oyster.example,hello@oyster.example\nMud Lark,,not an address,hello@',
    );
  await desk.getByRole('button', { name: 'Look at it' }).click();
  await expect(desk.getByText('2 rows: 1 good, 1 with faults')).toBeVisible();
  await expect(desk.locator('td.bad')).toHaveText([
    /not an address.*must be an address with http/s,
    /hello@.*must be an email/s,
  ]);
  await desk.getByRole('button', { name: 'Add 1 good one, leave 1 out' }).click();
  await expect(desk.getByText('1 site is added, 1 left out.')).toBeVisible();
  await desk.getByLabel('Filter by words').fill('oyster');
  await expect(desk.getByRole('link', { name: 'Oyster School' })).toBeVisible();
});

for (const width of [1280, 390]) {
  test(`nothing overflows at ${width} wide`, async ({ desk }) => {
    await desk.setViewportSize({ width, height: 844 });
    for (const path of [
      '/checklists',
      '/checklists/1',
      '/host-profiles',
      '/host-profiles/1',
      '/sites/import',
      '/sites/new',
      '/schedules',
      '/team',
      '/sites/2?tab=brief',
    ]) {
      await desk.goto(at(path));
      await expect(desk.getByRole('heading').first()).toBeVisible();
      await expect(desk.getByRole('progressbar', { name: 'Loading' })).toHaveCount(0);
      expect(
        await desk.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        ),
        path,
      ).toBeLessThanOrEqual(0);
    }
  });
}
