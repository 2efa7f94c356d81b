/** What others change is seen without a reload, over one stream a browser. */
import type { BrowserContext, Locator, Page, Request } from '@playwright/test';
import { at, expect, signIn, test } from './person';

/** Streams that a browser holds open, over all its tabs. */
function streams(seat: BrowserContext): { open: number } {
  const count = { open: 0 };
  const isStream = (url: string): boolean => url.endsWith('/api/live');
  seat.on('request', (r) => {
    if (isStream(r.url())) count.open++;
  });
  const ended = (r: Request): void => {
    if (isStream(r.url())) count.open--;
  };
  seat.on('requestfinished', ended);
  seat.on('requestfailed', ended);
  return count;
}

const stateOf = (page: Page, site: string) =>
  page
    .getByRole('row')
    .filter({ hasText: site })
    .filter({ hasText: 'HSTS is missing or too short on a host' });

test('two tabs share one stream; the one that is left takes it over; what somebody else does appears in both', async ({
  browser,
}) => {
  const seat = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const count = streams(seat);
  const first = await seat.newPage();
  await signIn(first);
  await expect.poll(() => count.open).toBe(1);
  const second = await seat.newPage();
  for (const tab of [first, second]) {
    await tab.goto(at('/fixes?view=worst&words=hsts+missing+sallow+ferries'));
    await expect(stateOf(tab, 'Sallow Ferries')).toContainText('open');
  }
  await expect.poll(() => count.open).toBe(1);

  const other = await (await browser.newContext()).newPage();
  await signIn(other, 'joss@marram-studio.example');
  await other.goto(at('/fixes?view=worst&words=hsts+missing+sallow+ferries'));
  await stateOf(other, 'Sallow Ferries').click();
  const side = other.getByRole('complementary', { name: 'Fix' });
  await side.getByRole('button', { name: 'In progress' }).click();
  for (const tab of [first, second])
    await expect(stateOf(tab, 'Sallow Ferries')).toContainText('in progress');

  await first.close();
  await expect.poll(() => count.open).toBe(1);
  await side.getByRole('button', { name: 'To verify' }).click();
  await expect(stateOf(second, 'Sallow Ferries')).toContainText('to verify');
  await other.context().close();
  await seat.close();
});

/** A fix’s due date, set by somebody who is not at this browser. */
async function setDue(row: Locator, dueDate: string): Promise<void> {
  const fix = await row.getAttribute('id');
  const answer = await fetch(at(`/api/fixes/${fix!.replace('fix-', '')}`), {
    method: 'PATCH',
    headers: { cookie: process.env.ARMBAND_COOKIE!, 'content-type': 'application/json' },
    body: JSON.stringify({ dueDate }),
  });
  expect(answer.ok).toBe(true);
}

test('a stream that breaks is opened again, and what was missed is asked for', async ({ desk }) => {
  const opened = desk.waitForResponse(at('/api/live'));
  await desk.goto(at('/fixes?view=worst&words=hsts+missing+sallow+ferries'));
  const row = stateOf(desk, 'Sallow Ferries').first();
  await expect(row).toBeVisible();
  await opened;
  await desk.context().setOffline(true);
  await setDue(row, '2027-02-03');
  await desk.context().setOffline(false);
  await expect(row).toContainText('2027');
});

test('what changes before the first stream is open is asked for', async ({ desk }) => {
  let open = (): void => {};
  const isTime = new Promise<void>((resolve) => {
    open = resolve;
  });
  await desk.route('**/api/live', async (route) => {
    await isTime;
    await route.continue();
  });
  await desk.goto(at('/fixes?view=worst&words=hsts+missing+sallow+ferries'));
  const row = stateOf(desk, 'Sallow Ferries').first();
  await expect(row).toBeVisible();
  await setDue(row, '2028-02-03');
  open();
  await expect(row).toContainText('2028');
});
