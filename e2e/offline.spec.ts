import { test as base, expect, type Page } from '@playwright/test';
import { laterBuild, type OwnServer, ownServer } from 'tests/ownServer';
import { buildSample, bytesOf, more, pdfText } from './support';

/* The app kept in the browser: its server stopped, and come back with a later build. */

const test = base.extend<{ server: OwnServer }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads from the pattern what a fixture rests on
  server: async ({}, use) => {
    const server = await ownServer();
    await server.start();
    await use(server);
    await server.stop();
  },
  baseURL: async ({ server }, use) => use(server.url),
});
test.use({ serviceWorkers: 'allow' });

/** Opens the sample and waits until everything is kept. */
async function firstVisit(page: Page): Promise<void> {
  await buildSample(page);
  await expect(page.getByText('Ready to work without a connection')).toBeVisible();
}

/** Faults of the page, and answers that came from anywhere but the browser itself. */
function watch(page: Page): { readonly faults: readonly string[]; readonly foreign: readonly string[] } {
  const faults: string[] = [];
  const foreign: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  page.on('response', (response) => {
    if (response.url().startsWith('http') && !response.fromServiceWorker()) foreign.push(response.url());
  });
  return { faults, foreign };
}

/** Looks for a later build, as the page does when it is looked at again. */
const lookForNew = (page: Page) => page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));

test('with the server stopped the book is opened, written, issued, printed, checked, saved, and opened again', async ({
  page,
  server,
}) => {
  await firstVisit(page);
  await page.getByRole('link', { name: /INV-(2026-)?0018/ }).click();
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0018' })).toBeVisible();
  await server.stop();
  const seen = watch(page);

  await test.step('a deep address is loaded again, and pages never seen are gone to', async () => {
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0018' })).toBeVisible();
    await page.evaluate(() => Object.assign(window, { since: 'the reload' }));
    for (const [key, heading] of [
      ['Alt+4', /^Return /],
      ['Alt+5', /^Journal /],
      ['Alt+6', 'Business'],
      ['Alt+1', 'Today'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
    }
    await page.goto('/nowhere');
    await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
    await page.goto('/sales/customers/clewbay');
    await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue('Clew Bay Salmon Co-op');
  });

  await test.step('the stand-ins alone say that they cannot be reached', async () => {
    await page.goto('/setup/exchange-rates');
    await page.getByRole('button', { name: 'Get today’s rates' }).click();
    await expect(page.getByText('The rate feed did not answer. Try again later, or import a file.')).toBeVisible();
  });

  await test.step('an invoice is written, issued, printed and sent later; its e-invoice is checked', async () => {
    await page.keyboard.press('Alt+2');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('clew');
    await page.getByRole('option', { name: /Clew Bay/ }).click();
    await page.getByLabel('Order number').fill('CB-77');
    await page.getByRole('combobox', { name: 'Item or description, line 1' }).fill('Buoy chain');
    await page.keyboard.press('Escape');
    await page.getByLabel('Price, line 1', { exact: true }).fill('80');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
    await page.evaluate(() => Object.assign(window, { since: 'issue' }));
    const pdf = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save PDF' }).click();
    expect((await pdfText(await bytesOf(await pdf))).text).toContain('INV-2026-0025');
    await more(page, 'Show its e-invoice');
    await expect(page.getByText(/rules · UBL$/)).toBeVisible();
    expect(await page.evaluate(() => Reflect.get(window, 'since'))).toBe('issue');
  });

  await test.step('the book is saved to a file, and opened in its place', async () => {
    await page.goto('/setup/book');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the book to a file' }).click();
    const buffer = await bytesOf(await download);
    const file = { name: 'book.able', mimeType: 'application/zip', buffer };
    await page.getByLabel('Open a book file').setInputFiles(file);
    await page.getByRole('button', { name: 'Replace it' }).click();
    await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
    await page.goto('/sales');
    await expect(page.getByRole('link', { name: /INV-(2026-)?0025/ })).toBeVisible();
  });

  await test.step('the policy holds without the server too', async () => {
    const ran = await page.evaluate(() => {
      const script = document.createElement('script');
      script.textContent = 'window.injected = true';
      document.body.append(script);
      return Reflect.get(window, 'injected') ?? false;
    });
    expect(ran).toBe(false);
  });

  expect(seen.foreign).toEqual([]);
  expect(seen.faults).toEqual([]);
});

test('a later build is offered, loaded when the person says so, and nothing typed is lost', async ({
  page,
  server,
}) => {
  const later = laterBuild('Able Ledger, later');
  try {
    await firstVisit(page);
    const other = await page.context().newPage();
    await other.goto('/tax');
    await expect(other.getByRole('heading', { name: /^Return / })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.getByLabel('Order number').fill('TYPED-BEFORE');
    await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
    await server.stop();
    await server.start(later.folder);

    await lookForNew(page);
    await expect(page.getByText('A new version is ready.')).toBeVisible();
    await expect(page).toHaveTitle('Able Ledger');
    await page.getByLabel('Order number').fill('TYPED-WHILE-IT-WAITS');
    await page.getByRole('button', { name: 'Load it' }).click();
    // The browser lets the earlier version finish what it is at, which a busy machine may take its time over.
    await expect(page).toHaveTitle('Able Ledger, later', { timeout: 60_000 });
    await expect(page.getByLabel('Order number')).toHaveValue('TYPED-WHILE-IT-WAITS');

    // The other window goes on with what it has, until it is told to load the new version too.
    await expect(other).toHaveTitle('Able Ledger');
    await other.keyboard.press('Alt+1');
    await expect(other.getByText('Another window has loaded the new version. Load it here too.')).toBeVisible();
    await other.getByRole('button', { name: 'Load it' }).click();
    await expect(other).toHaveTitle('Able Ledger, later');
  } finally {
    later.remove();
  }
});
