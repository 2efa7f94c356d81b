/** The agency shares, the client remarks and says yes on a phone, the site changes, and a new yes is given. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { at, expect, noneRunning, openSite, test } from './person';

/** Switches a fault of the practice net. */
const turn = (desk: Page, fault: string, on: boolean) =>
  desk.request.post(at('/api/practice-net'), {
    data: { site: 'choir', environment: 'staging', fault, on },
  });
const NAME = 'Sallow Choir';

/** No rule of WCAG is broken that a program can see. */
async function accessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag22aa']).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes[0]!.html}`)).toEqual([]);
}

test('two browsers: shared, remarked, approved, changed, approved again', async ({ desk, browser }) => {
  // the agency puts the report together and makes a link
  await openSite(desk, NAME, 'Staging');
  await desk.getByRole('tab', { name: 'Report' }).click();
  await expect(desk.getByRole('heading', { name: 'How your site stands' })).toBeVisible();
  await accessible(desk);
  await desk
    .getByRole('textbox', { name: 'Letter', exact: true })
    .fill('Dear {client},\n\nplease have a look.');
  await expect(desk.getByText(`Dear ${NAME},`)).toBeVisible();
  await desk.getByRole('button', { name: 'Publish edition 1' }).click();
  await expect(desk.getByRole('button', { name: 'Publish edition 2' })).toBeVisible();
  await desk.getByRole('button', { name: 'Shown to the client' }).click();
  await desk.getByRole('button', { name: 'Share with a contact' }).click();
  const dialog = desk.getByRole('dialog', { name: 'Share with a contact' });
  await dialog.getByLabel('Name').fill('Ada Brook');
  await dialog.getByLabel('Mail address').fill('ada@sallow-choir.example');
  await dialog.getByLabel('Passphrase').fill('low tide');
  await dialog.getByRole('button', { name: 'Make the link' }).click();
  const link = await desk.locator('code.address').textContent();

  // the client opens it on a phone
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const client = await phone.newPage();
  const faults: string[] = [];
  client.on('pageerror', (e) => faults.push(e.message));
  await client.goto(link!);
  await client.getByLabel('Passphrase').fill('high tide');
  await client.getByRole('button', { name: 'Open the report' }).click();
  await expect(client.getByRole('alert')).toHaveText('This is not the passphrase.');
  await client.getByLabel('Passphrase').fill('low tide');
  await client.getByRole('button', { name: 'Open the report' }).click();
  await expect(client.getByText('please have a look.')).toBeVisible();
  expect(await client.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await accessible(client);

  // a remark on the whole, by words alone
  await client.locator('#remarks').getByRole('button', { name: 'Say something' }).click();
  const form = client.getByRole('dialog', { name: 'Say something about this' });
  await form.getByLabel('Your remark').fill('The second verse is missing.');
  await form.getByRole('button', { name: 'Send' }).click();
  await expect(client.locator('#remarks').getByText('The second verse is missing.')).toBeVisible();
  await expect(client.locator('#remarks').getByText('arrived', { exact: true })).toBeVisible();

  // the agency sees it without looking again, and makes it a fix
  const remarks = desk.getByRole('region', { name: 'Remarks' });
  await expect(remarks.getByText('The second verse is missing.')).toBeVisible();
  await remarks.getByRole('button', { name: 'Make it a fix' }).click();
  await expect(remarks.getByText('a fix, open')).toBeVisible();
  await client.reload();
  await expect(client.locator('#remarks').getByText('will be done')).toBeVisible();

  // the client says yes
  await client.getByLabel('Anything you would like to add').fill('Lovely otherwise.');
  await client.getByRole('button', { name: 'I say yes to this' }).click();
  await expect(client.getByText(/You said yes to this on/)).toBeVisible();
  await expect(desk.getByRole('region', { name: 'Yes' }).getByText('Lovely otherwise.')).toBeVisible();

  // the site changes, and the yes does not stand for it
  await turn(desk, 'changed-since-yes', true);
  await desk.getByRole('button', { name: 'Audit now' }).click();
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await desk.getByRole('textbox', { name: /^Filter/ }).fill('approved this content');
  await expect(desk.getByText(/text changed since the yes/)).toBeVisible();
  await client.reload();
  await expect(client.getByText('The site has changed since your yes.')).toBeVisible();

  // a new edition asks again
  await desk.getByRole('tab', { name: 'Report' }).click();
  await desk.getByRole('button', { name: 'Publish edition 2' }).click();
  await expect(desk.getByRole('button', { name: 'Publish edition 3' })).toBeVisible();
  await client.reload();
  await expect(client.getByText('Your yes was to an earlier edition.')).toBeVisible();
  await client.getByRole('button', { name: 'I say yes to this' }).click();
  await expect(client.getByText('Your yes was to an earlier edition.')).toBeHidden();
  await desk.getByRole('tab', { name: 'Ledger' }).click();
  await desk.getByRole('button', { name: /^All/ }).click();
  await desk.getByRole('textbox', { name: /^Filter/ }).fill('approved this content');
  const line = desk.getByRole('row', { name: /Client has approved this content/ });
  await expect(line.getByText('passed')).toBeVisible();
  await desk.getByRole('tab', { name: 'History' }).click();
  await expect(desk.getByRole('region', { name: 'Yes' }).getByText('Ada Brook')).toHaveCount(2);
  await turn(desk, 'changed-since-yes', false);
  expect(faults).toEqual([]);
  await phone.close();
});

test('a part of a picture is marked with the keyboard', async ({ desk, browser }) => {
  await openSite(desk, NAME, 'Staging');
  const id = Number(/\/sites\/(\d+)/.exec(desk.url())![1]);
  const { clientId } = (await (await desk.request.get(at(`/api/sites/${id}/report/shown`))).json()) as {
    clientId: number;
  };
  const post = async (path: string, data: object) =>
    (await (await desk.request.post(at(path), { data })).json()) as { id: number; secret: string };
  const contact = await post(`/api/clients/${clientId}/contacts`, { name: 'Bram', email: 'bram@x.example' });
  const environment = new URL(desk.url()).searchParams.get('environment');
  const staging = environment
    ? Number(environment)
    : ((await (await desk.request.get(at(`/api/sites/${id}`))).json()) as { shown: number }).shown;
  await post('/api/audits', { environmentIds: [staging], scope: { parts: ['rendered'] } });
  await noneRunning(desk);
  await post(`/api/sites/${id}/report/publish`, { environmentId: staging });
  const { secret } = await post(`/api/sites/${id}/share-links`, { contactId: contact.id, days: 7 });

  const seat = await browser.newContext({ viewport: { width: 1280, height: 900 } });
  const client = await seat.newPage();
  await client.goto(at(`/shared/${secret}`));
  await client.locator('figcaption').first().getByRole('button', { name: 'Say something' }).click();
  const form = client.getByRole('dialog', { name: 'Say something about this' });
  await form.getByLabel('Your remark').fill('This picture, please.');
  await form.getByRole('application').focus();
  await client.keyboard.press('ArrowDown');
  await client.keyboard.press('ArrowDown');
  await client.keyboard.press('Shift+ArrowRight');
  await expect(form.getByText('Marked on the picture')).toBeVisible();
  await form.getByRole('button', { name: 'Send' }).click();
  await expect(client.locator('#remarks').getByText('This picture, please.')).toBeVisible();
  await seat.close();

  await desk.goto(at(`/sites/${id}?environment=${staging}&tab=report&view=shown`));
  const remarks = desk.getByRole('region', { name: 'Remarks' });
  await remarks.getByRole('button', { name: 'Show what is meant' }).click();
  await expect(remarks.getByRole('img', { name: 'Where Bram pointed' })).toBeVisible();
  const mark = await remarks.locator('.mark').boundingBox();
  expect(mark!.width).toBeGreaterThan(20);
});
