/** A day's work, driven through the real interface. */
import {
  choose,
  at,
  auditNow,
  chooseEnvironment,
  chooseFrom,
  chooseOption,
  expect,
  openSite,
  showAll,
  signIn,
  test,
  tick,
  turn,
} from './person';

test('sign-in: a wrong password is told, a page that was asked for comes after the right one, signing out ends it', async ({
  page,
}) => {
  await page.goto(at('/fixes'));
  await expect(page).toHaveURL(/sign-in\?to=/);
  await expect(page.getByLabel('Mail address')).toBeFocused();
  await page.getByLabel('Mail address').fill('mara@marram-studio.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await page.getByLabel('Password').fill('marram-demo');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Fixes' })).toBeVisible();
  await chooseFrom(page, page.getByRole('button', { name: 'You' }), 'Sign out');
  await expect(page).toHaveURL(/sign-in/);
  await page.goto(at('/'));
  await expect(page).toHaveURL(/sign-in/);
});

test('roster: worst first, filter by words, sort, choose several and audit them', async ({ desk }) => {
  await desk.goto(at('/'));
  const rows = desk.getByRole('row').filter({ has: desk.getByRole('link') });
  // of a long list only what fits is drawn
  await expect(desk.getByText(/^\d\d sites/)).toBeVisible();
  expect(await rows.count()).toBeGreaterThan(10);
  await expect(rows.first()).toContainText('held');
  await expect(rows.first().getByRole('img')).toHaveAttribute('aria-label', /Identity: .*points? lost/);
  await desk.getByLabel('Filter by words').fill('lifeboat cairn');
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText('launch in 9 days');
  await desk.getByLabel('Filter by words').fill('no such words');
  await expect(desk.getByText('No site matches')).toBeVisible();
  await desk.getByLabel('Filter by words').fill('');
  await desk.getByRole('columnheader', { name: 'Open fixes' }).click();
  await expect(desk.getByRole('columnheader', { name: 'Open fixes' })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  // the rows of the order before stay until the server has answered
  await expect(async () => {
    const counts = (await rows.locator('.fixes').allTextContents()).map(Number);
    expect(counts.length).toBeGreaterThan(10);
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
  }).toPass();
  await tick(desk.getByLabel('Choose Lifeboat Loft'));
  await tick(desk.getByLabel('Choose Firth Tram Society'));
  await desk.getByRole('button', { name: 'Audit 2 sites' }).click();
  await expect(desk.getByText('2 audits started')).toBeVisible();
  await expect(desk.getByText(/audits? running/)).toBeHidden();
});

test('ledger: keys move and open, the evidence says what was expected and found, how to fix it, and what it rests on', async ({
  desk,
}) => {
  await openSite(desk, 'Sallow Ferries');
  await expect(desk.getByText('Held by')).toContainText(
    'Apex or www does not redirect to the preferred host',
  );
  await desk.keyboard.press('j');
  await expect(desk.locator('tr.at')).toHaveCount(1);
  const first = await desk.locator('tr.at').getAttribute('id');
  await desk.keyboard.press('ArrowDown');
  expect(await desk.locator('tr.at').getAttribute('id')).not.toBe(first);
  await desk.keyboard.press('k');
  expect(await desk.locator('tr.at').getAttribute('id')).toBe(first);
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('complementary', { name: /Evidence/ })).toBeVisible();
  await desk.keyboard.press('Escape');
  await expect(desk.getByRole('complementary', { name: /Evidence/ })).toBeHidden();

  await showAll(desk);
  await desk.locator('[id="row-domain.records-match"]').click();
  const panel = desk.getByRole('complementary', { name: /Evidence/ });
  await expect(panel).toContainText('A sallow-ferries.example at ns2.registry.example');
  await expect(
    panel.getByText('sallow-ferries.example. 3600 IN A 192.0.2.20', { exact: true }),
  ).toBeVisible();
  await expect(panel.locator('pre').filter({ hasText: /^sallow.*IN A 192\.0\.2\.77/ })).toBeVisible();
  await expect(panel).toContainText('Rests on: RFC 1034');

  await desk.locator('[id="row-identity.phone"]').click();
  await expect(panel).toContainText('only +44');
  await desk.locator('[id="row-https.hsts"]').click();
  await expect(
    panel.locator('pre').filter({ hasText: 'Strict-Transport-Security: max-age=31536000' }),
  ).toBeVisible();
});

test('the score opens up into its sum', async ({ desk }) => {
  await openSite(desk, 'Sallow Ferries');
  const score = await desk.getByTitle('How this score came about').textContent();
  await desk.getByTitle('How this score came about').click();
  const dialog = desk.getByRole('dialog', { name: 'How this score came about' });
  await expect(dialog).toContainText('points lost');
  const value = (t: string) => {
    const [n, d] = t.split('/').map(Number);
    return n! / (d ?? 1);
  };
  const exact = await dialog
    .locator('tbody tr td:last-child')
    .evaluateAll((cells) => cells.map((c) => (c as HTMLElement).title));
  const losses = exact.map(value);
  expect(losses.length).toBeGreaterThan(3);
  expect(losses).toEqual([...losses].sort((a, b) => b - a));
  expect(Math.max(0, Math.floor(100 - losses.reduce((s, t) => s + t, 0) + 1e-9))).toBe(Number(score));
});

test('mend a fault, say it is done, audit, see it verified; plant it again, see it come back', async ({
  desk,
}) => {
  await openSite(desk, 'Tarn Planetarium');
  await showAll(desk);
  const row = desk.locator('[id="row-indexing.let-in"]');
  await expect(row).toContainText('failed');
  await row.click();
  const panel = desk.getByRole('complementary', { name: /Evidence/ });
  await expect(panel).toContainText('<meta name="robots" content="noindex, nofollow">');
  await panel.getByRole('button', { name: 'To verify' }).click();
  await expect(panel).toContainText('The next look will say');
  await turn(desk, 'Tarn Planetarium', 'The noindex of the draft is still there', false);
  await openSite(desk, 'Tarn Planetarium');
  await showAll(desk);
  await auditNow(desk);
  await expect(row).toContainText('passed');
  await expect(row).toContainText('verified');
  await turn(desk, 'Tarn Planetarium', 'The noindex of the draft is still there', true);
  await openSite(desk, 'Tarn Planetarium');
  await showAll(desk);
  await auditNow(desk);
  await expect(row).toContainText('failed');
  await row.click();
  await expect(panel).toContainText('came back once');
  await expect(panel.getByRole('list', { name: 'History' })).toContainText('verified: no longer seen');
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByRole('table').getByRole('time').nth(2)).toHaveAttribute('title', / UTC$/);
});

test('an audit shows its progress, survives a reload, refuses a second one and can be stopped', async ({
  desk,
}) => {
  await turn(desk, 'Saltmarsh Seed Library', 'Every page takes a second', true);
  await openSite(desk, 'Saltmarsh Seed Library');
  await desk.getByRole('button', { name: 'Audit now' }).click();
  const progress = desk.locator('.head').getByRole('status');
  await expect(progress).toContainText(/Pages \d+ of \d+|Names and hosts/);
  await desk.reload();
  await expect(progress).toContainText(/\d+ of \d+/);
  await expect(desk.getByRole('button', { name: '1 audit running' })).toBeVisible();
  const environment = Number(
    /environment=(\d+)/.exec(desk.url())?.[1] ??
      (await desk.evaluate(
        async () =>
          ((await (await fetch('/api/audits/running')).json()) as { environmentId: number }[])[0]!
            .environmentId,
      )),
  );
  const refused = await desk.evaluate(
    async (id) =>
      (
        (await (
          await fetch('/api/audits', {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ environmentIds: [id] }),
          })
        ).json()) as { refused: { reason: string }[] }
      ).refused[0]!.reason,
    environment,
  );
  expect(refused).toContain('running already');
  await progress.getByRole('button', { name: 'Stop' }).click();
  await expect(desk.getByRole('button', { name: 'Audit now' })).toBeVisible();
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByText('stopped: Stopped by a person.')).toBeVisible();
  await turn(desk, 'Saltmarsh Seed Library', 'Every page takes a second', false);
});

test('add a site: read from the site, confirm one by one, save, audit both environments', async ({
  desk,
}) => {
  await desk.goto(at('/'));
  await desk.getByRole('link', { name: 'Add a site' }).click();
  await desk.getByRole('button', { name: 'Add the site' }).first().click();
  await expect(desk.getByRole('alert').filter({ hasText: 'Name the site' })).not.toHaveCount(0);
  await desk.getByLabel('Client').fill('Reedling Puppet Theatre');
  await desk.getByLabel('Live address').fill('reedling-puppets.example');
  await desk.getByRole('button', { name: 'Read from the site' }).first().click();
  const read = desk.getByRole('region', { name: 'Read from the site' });
  await expect(read).toContainText('Small figures, tall tales');
  await expect(read).toContainText('og:site_name');
  await read.getByRole('button', { name: 'Use Name', exact: true }).click();
  await read.getByRole('button', { name: 'Use Phone' }).click();
  await read.getByRole('button', { name: 'Use Preferred host' }).click();
  await expect(read).toContainText('Tagline');
  await desk.getByLabel('Name of the site').fill('Puppets, second look');
  await desk.getByLabel('Address before the live one').fill('https://reedling-puppets.cairn-draft.example/');
  await desk
    .getByRole('textbox', { name: 'Records the host asked for' })
    .fill('reedling-puppets.example A 192.0.2.31\nnonsense');
  await desk.getByRole('button', { name: 'Add the site' }).first().click();
  await expect(
    desk.getByRole('alert').filter({ hasText: '1 field needs a look before this can be saved' }),
  ).not.toHaveCount(0);
  await expect(desk.getByText('Line 2: “NONSENSE” is no record type')).toBeVisible();
  await desk
    .getByRole('textbox', { name: 'Records the host asked for' })
    .fill('reedling-puppets.example A 192.0.2.31');
  await chooseOption(desk, desk.locator('.v-select').filter({ hasText: 'Stage' }), 'launched');
  await desk.getByRole('button', { name: 'Add the site' }).first().click();
  await expect(desk.getByRole('heading', { name: 'Puppets, second look' })).toBeVisible();
  await expect(desk.getByText('Nothing is known of live yet')).toBeVisible();
  await auditNow(desk);
  await showAll(desk);
  await desk.locator('[id="row-domain.records-match"]').click();
  const marks = desk.getByRole('complementary', { name: /Evidence/ }).locator('mark');
  await expect(marks).toHaveText(['1', '0', '1', '0']);
  await expect(desk.locator('[id="row-identity.phone"]')).toContainText('passed');
  await chooseEnvironment(desk, 'Staging');
  await expect(desk.getByText('Nothing is known of staging yet')).toBeVisible();
  await desk.getByRole('tab', { name: 'Brief' }).click();
  await desk
    .getByRole('textbox', { name: 'Records the host asked for' })
    .fill('reedling-puppets.example A 192.0.2.30');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByText('Saved as version 2')).toBeVisible();
  await chooseEnvironment(desk, 'Live');
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await showAll(desk);
  await expect(desk.locator('[id="row-domain.records-match"]')).toContainText('passed');
});

test('accept, assign and attest with one key each', async ({ desk }) => {
  await openSite(desk, 'Firth Tram Society', 'Staging');
  await showAll(desk);
  await desk.locator('[id="row-metadata.title-unique"]').click();
  await desk.keyboard.press('o');
  await expect(desk.getByText('assigned to you')).toBeVisible();
  await desk.keyboard.press('Escape');
  await expect(desk.locator('[id="row-metadata.title-unique"]')).toContainText('open, Mara');
  await desk.keyboard.press('a');
  await desk.getByLabel('Why it is left').fill('the two pages become one next week');
  await desk.getByRole('button', { name: 'Accept the fault' }).click();
  await expect(desk.locator('[id="row-metadata.title-unique"]')).toContainText('accepted');
  await desk.getByRole('button', { name: 'Withdraw the acceptance' }).click();
  await expect(desk.locator('[id="row-metadata.title-unique"]')).toContainText('failed');
  await desk.locator('[id="row-delivery.backup"]').click();
  await desk.keyboard.press('t');
  await desk.getByLabel(/^Note/).fill('seen in the host’s list');
  await desk.getByRole('button', { name: 'It is done' }).click();
  await expect(desk.locator('[id="row-delivery.backup"]')).toContainText('passed');
});

test('fixes one by one: filter, open, comment, set a state, follow to the ledger', async ({ desk }) => {
  await desk.goto(at('/fixes'));
  await desk.getByRole('button', { name: 'One by one' }).click();
  await desk.getByLabel('Filter fixes by words').fill('ferries blocker');
  const rows = desk.getByRole('row').filter({ hasText: 'Sallow Ferries' });
  await expect(rows).toHaveCount(2);
  // what was found is there, beside what is wrong
  await expect(rows.filter({ hasText: 'A DNS record differs from the brief' })).toContainText('192.0.2.');
  await expect(desk).toHaveURL(/words=ferries(%20|\+)blocker/);
  // a fix keeps its number wherever its state moves it
  const id = await rows.first().getAttribute('id');
  const row = desk.locator(`[id="${id}"]`);
  await row.click();
  const side = desk.getByRole('complementary', { name: 'Fix' });
  await side.getByLabel('Comment').fill('<img src=x onerror=alert(1)>');
  await side.getByRole('button', { name: 'Add' }).click();
  await expect(side.getByRole('list', { name: 'History' })).toContainText('<img src=x onerror=alert(1)>');
  await side.getByRole('button', { name: 'In progress' }).click();
  await expect(row).toContainText('in progress');
  await desk.keyboard.press('Escape');
  await expect(side).toBeHidden();
  await desk.keyboard.press('j');
  await expect(side).toBeVisible();
  await side.getByRole('link').click();
  await expect(desk.getByRole('heading', { name: 'Sallow Ferries' })).toBeVisible();
});

test('a view of the fixes is kept under a name and brought back', async ({ desk }) => {
  await desk.goto(at('/fixes?view=due&words=ferries'));
  await desk.getByRole('button', { name: 'Views' }).click();
  await expect(desk.getByText('No view saved yet.')).toBeVisible();
  await desk.getByLabel('Save these filters as').fill('What the ferries owe');
  await desk.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(desk.getByText('saved as What the ferries owe')).toBeVisible();
  await desk.goto(at('/fixes'));
  await desk.getByRole('button', { name: 'Views' }).click();
  await choose(desk.locator('.v-overlay--active .v-list-item').filter({ hasText: 'What the ferries owe' }));
  await expect(desk.getByLabel('Filter fixes by words')).toHaveValue('ferries');
  await expect(desk.getByRole('button', { name: 'By due date' })).toHaveAttribute('aria-pressed', 'true');
});

test('fixes by fault: the recipe once, each site’s own text, many changed at once', async ({ desk }) => {
  await desk.goto(at('/fixes'));
  const faults = desk.getByRole('table').first();
  await expect(faults.locator('tbody tr').first()).toContainText(/holds \d+ gates?/);
  await desk.getByLabel('Filter fixes by words').fill('minor');
  await expect(faults.locator('tbody tr').first()).toContainText('minor');
  // the first fault that more than one site has
  const several = faults
    .locator('tbody tr')
    .filter({ has: desk.locator('td.sites', { hasText: /^([2-9]|\d\d+)$/ }) });
  await several.first().getByRole('button').click();
  await expect(faults).toContainText('How to fix it.');
  const inside = faults.locator('.inside');
  const sites = await inside.getByRole('listitem').count();
  expect(sites).toBeGreaterThan(1);
  await tick(inside.getByLabel('Choose all'));
  await expect(inside.getByText(`${sites} chosen`)).toBeVisible();
  await inside
    .getByRole('group', { name: 'For all chosen' })
    .getByRole('button', { name: 'In progress' })
    .click();
  await expect(desk.getByText(`${sites} fixes are in progress.`)).toBeVisible();
  await expect(inside.getByText(/^in progress, /)).toHaveCount(sites);
});

test('a blocker’s acceptance needs a second person', async ({ desk, browser }) => {
  await openSite(desk, 'Sallow Ferries');
  await showAll(desk);
  await desk.locator('[id="row-domain.preferred-host"]').click();
  await desk.keyboard.press('a');
  await desk.getByLabel('Why it is left').fill('moves with the new contract');
  await desk.getByRole('button', { name: 'Accept the fault' }).click();
  await expect(desk.getByText('A blocker needs a second person’s agreement before it counts.')).toBeVisible();
  await expect(desk.locator('[id="row-domain.preferred-host"]')).toContainText('failed');
  const other = await (await browser.newContext()).newPage();
  await signIn(other, 'joss@marram-studio.example');
  await openSite(other, 'Sallow Ferries');
  await other.locator('[id="row-domain.preferred-host"]').click();
  await other.getByRole('button', { name: 'Agree' }).click();
  await expect(other.locator('[id="row-domain.preferred-host"]')).toContainText('accepted');
  await other.context().close();
});

test('Ctrl+K goes to any site and check', async ({ desk }) => {
  await desk.goto(at('/'));
  await expect(desk.getByRole('heading', { name: 'Roster' })).toBeVisible();
  await desk.keyboard.press('Control+k');
  await desk.getByRole('dialog', { name: 'Go to' }).locator('input').fill('kite');
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('heading', { name: 'Windrow Kite Works' })).toBeVisible();
  await desk.keyboard.press('Control+k');
  await desk.getByRole('dialog', { name: 'Go to' }).locator('input').fill('https.hsts');
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('heading', { name: 'Fixes' })).toBeVisible();
  await expect(desk.getByLabel('Filter fixes by words')).toHaveValue('https.hsts');
});

test('Go to: Enter before the list has come counts once it is here', async ({ desk }) => {
  let letGo = (): void => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await desk.route('**/api/sites/find**', async (route) => {
    await held;
    await route.continue();
  });
  await desk.goto(at('/'));
  await desk.getByRole('button', { name: 'Go to a site or check' }).click();
  await desk.getByRole('dialog', { name: 'Go to' }).locator('input').fill('kite');
  await desk.keyboard.press('Enter');
  await expect(desk.getByText('The list is on its way')).toBeVisible();
  letGo();
  await expect(desk.getByRole('heading', { name: 'Windrow Kite Works' })).toBeVisible();
});

for (const [scheme, width, height] of [
  ['dark', 1280, 800],
  ['light', 390, 844],
] as const) {
  test(`nothing overflows at ${width} wide, ${scheme}`, async ({ desk }) => {
    await desk.emulateMedia({ colorScheme: scheme });
    await desk.setViewportSize({ width, height });
    for (const path of [
      '/',
      '/fixes',
      '/practice-net',
      '/sites/new',
      '/sites/1',
      '/sites/1?tab=brief',
      '/sites/1?tab=history',
      '/fixes?view=site',
      '/sites/1/edit',
      '/clients',
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
      const paper = await desk.evaluate(
        () => getComputedStyle(document.querySelector('.v-application')!).backgroundColor,
      );
      expect(paper, path).toBe(scheme === 'dark' ? 'rgb(20, 24, 31)' : 'rgb(246, 244, 239)');
    }
  });
}

test('environments: access is entered once and shown no more, and the next audit gets in', async ({
  desk,
}) => {
  await turn(desk, 'Clay Lane Pottery', 'Staging is open to everybody', false, 'Staging');
  await openSite(desk, 'Clay Lane Pottery', 'Staging');
  await desk.getByRole('link', { name: 'Edit site' }).click();
  const environment = desk.getByRole('form', { name: 'Staging' });
  const kind = environment.locator('.v-select').filter({ hasText: 'Access' });
  await chooseOption(desk, kind, 'user name and password');
  await environment.getByLabel('User name').fill('marram');
  await environment.getByRole('button', { name: 'Save' }).click();
  await expect(environment.getByRole('alert')).toHaveText('Say the password.');
  await environment.getByLabel('Password').fill('draft-pottery-516');
  await environment.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByText('Staging is saved')).toBeVisible();
  await expect(environment.getByLabel('Password')).toHaveValue('');
  await openSite(desk, 'Clay Lane Pottery', 'Staging');
  await auditNow(desk);
  await desk.getByLabel('Filter checks by words').fill('delivery.staging-locked');
  await expect(desk.getByRole('row', { name: /Staging asks for credentials/ })).toContainText('passed');
  await desk.getByLabel('Filter checks by words').fill('identity.default-author');
  await expect(desk.getByRole('row', { name: /default person/ })).toContainText('failed');
});

test('evidence is saved as a file in an open format', async ({ desk }) => {
  await openSite(desk, 'Sallow Ferries', 'Live');
  await desk.getByRole('tab', { name: 'History' }).click();
  const saved = desk.waitForEvent('download');
  await chooseFrom(
    desk,
    desk.getByRole('button', { name: /^Evidence of .* as a file$/ }).first(),
    /^DNS, as a zone file/,
  );
  expect((await saved).suggestedFilename()).toMatch(/^sallow-ferries-live-\d{4}-\d\d-\d\d\.zone$/);
});

test('a site is renamed and deleted, its client merged: what goes with them is named first', async ({
  desk,
}) => {
  const add = async (name: string, client: string): Promise<number> => {
    const answer = await desk.request.post(at('/api/sites'), {
      data: {
        name,
        client,
        liveUrl: 'https://reed-organ.example/',
        environments: [],
        stage: 'building',
        replaces: false,
        brief: {},
      },
      headers: { 'sec-fetch-site': 'same-origin' },
    });
    return ((await answer.json()) as { id: number }).id;
  };
  const id = await add('Reed Organ', 'Reed Trust');
  await add('Reed Flute', 'Reed Trusts');
  await desk.goto(at(`/sites/${id}/edit`));
  await desk.getByLabel('Name of the site').fill('Reed Organ Museum');
  // typing beside what looks alike says so
  await expect(desk.getByRole('status').filter({ hasText: 'Reed Flute' })).toContainText(
    'has this address already',
  );
  await desk.getByRole('form', { name: 'The site' }).getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('heading', { name: 'Edit Reed Organ Museum' })).toBeVisible();

  await desk.goto(at('/clients'));
  await desk.getByLabel('Filter clients by words').fill('Reed');
  await desk.getByRole('button', { name: 'Merge Reed Trusts' }).click();
  const merge = desk.getByRole('dialog', { name: 'Merge clients' });
  await merge.getByLabel('Into').fill('Reed Trust');
  await choose(desk.getByRole('option', { name: 'Reed Trust', exact: true }));
  await merge.getByRole('button', { name: 'Merge' }).click();
  await expect(desk.getByText('Reed Trusts is merged.')).toBeVisible();
  await desk.getByRole('button', { name: 'Delete Reed Trust', exact: true }).click();
  const ask = desk.getByRole('dialog', { name: 'Delete Reed Trust?' });
  await expect(ask).toContainText('With it go 2 sites and 2 environments.');
  await ask.getByRole('button', { name: 'Keep' }).click();

  await desk.goto(at(`/sites/${id}/edit`));
  await desk.getByRole('button', { name: 'Delete …' }).click();
  const gone = desk.getByRole('dialog', { name: 'Delete Reed Organ Museum?' });
  await expect(gone).toContainText('With it go 1 environment.');
  await gone.getByRole('button', { name: 'Delete' }).click();
  await expect(desk.getByRole('heading', { name: 'Roster' })).toBeVisible();
  await desk.getByLabel('Filter by words').fill('Reed Organ Museum');
  await expect(desk.getByText('No site matches')).toBeVisible();
});
