import { randomBytes } from 'node:crypto';
import { expect, type Page, test } from '@playwright/test';
import {
  buildSample,
  bytesOf,
  expectAccessible,
  more,
  onTheDay,
  openSample,
  pdfText,
  savedBook,
  TODAY,
} from './support';

/* The book attacked for real: storage blocked, full or taken away, pages closed, workers dead, clocks set back. */

const BOOK = 'able-ledger';

/** A page of this site that runs nothing, in the same browser: what it does to the data is done by another window. */
async function besidePage(page: Page): Promise<Page> {
  const other = await page.context().newPage();
  await other.goto('/icon.svg');
  return other;
}

/** Opens the database as a program of a later version would, or takes it away; others have to let go of it. */
async function takeBook(other: Page, how: 'newer' | 'gone'): Promise<void> {
  await other.evaluate(
    ([name, what]) =>
      new Promise<void>((resolve, reject) => {
        const asked = what === 'newer' ? indexedDB.open(name, 9990) : indexedDB.deleteDatabase(name);
        asked.onsuccess = () => {
          if (asked.result instanceof IDBDatabase) asked.result.close();
          resolve();
        };
        asked.onerror = () => reject(asked.error);
      }),
    [BOOK, how] as const,
  );
}

/** Writes an invoice that is fine, up to its being issued. */
async function writeInvoice(page: Page): Promise<void> {
  await expect(page.getByRole('link', { name: /INV-(2026-)?0024|Draft/ }).first()).toBeVisible();
  await page.keyboard.press('Alt+n');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  await page.locator('input[data-field=customerId]').fill('clew');
  await page.getByRole('option', { name: /Clew Bay/ }).click();
  await page.getByLabel('Order number').fill('CB-77');
  await page.getByRole('combobox', { name: 'Item or description, line 1' }).fill('Buoy chain');
  await page.keyboard.press('Escape');
  await page.getByLabel('Price, line 1', { exact: true }).fill('80');
}

const letGo = (page: Page) => page.getByRole('dialog', { name: 'Load this page again' });

test('a newer program that opens the book makes this one let go of it, and say so', async ({ page }) => {
  await openSample(page);
  await takeBook(await besidePage(page), 'newer');
  await expect(letGo(page)).toContainText('newer version of the program');
  await letGo(page).getByRole('button', { name: 'Load the page again' }).click();
  // An old program does not open what a newer one has written.
  await expect(page.getByText('A newer version of the program has opened this book.')).toBeVisible();
  await expect(page.getByRole('link', { name: /Save what is there/ })).toBeVisible();
});

test('a book deleted under an open page is gone in words, and another one can begin', async ({ page }) => {
  await openSample(page);
  await takeBook(await besidePage(page), 'gone');
  await expect(letGo(page)).toContainText('has deleted it');
  await letGo(page).getByRole('button', { name: 'Load the page again' }).click();
  await expect(page.getByRole('button', { name: 'Begin a book' })).toBeVisible();
});

test('a browser that keeps no database says so, with the way on', async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('The operation is insecure.', 'SecurityError');
    };
  });
  for (const path of ['/', '/sales', '/setup/book']) {
    await page.goto(path);
    await expect(page.getByRole('heading', { name: 'The book can’t be read here' })).toBeVisible();
    await expect(page.getByText('This browser does not let this page save data')).toBeVisible();
  }
  await page.getByRole('link', { name: /Save what is there/ }).click();
  await expect(page.getByRole('heading', { name: 'Rescue' })).toBeVisible();
});

test('a browser that keeps no small notes works all the same', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'localStorage', {
      get() {
        throw new DOMException('The operation is insecure.', 'SecurityError');
      },
    });
  });
  await buildSample(page);
  await writeInvoice(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
});

test('a book that lost its registration leads to the rescue page, which saves what is there', async ({ page }) => {
  await openSample(page);
  await page.evaluate(
    (name) =>
      new Promise<void>((resolve, reject) => {
        const asked = indexedDB.open(name);
        asked.onerror = () => reject(asked.error);
        asked.onsuccess = () => {
          const work = asked.result.transaction('registrations', 'readwrite');
          work.objectStore('registrations').clear();
          work.oncomplete = () => {
            asked.result.close();
            resolve();
          };
        };
      }),
    BOOK,
  );
  await page.goto('/tax');
  await expect(page.getByRole('heading', { name: 'Rescue' })).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save what is there' }).click();
  expect((await bytesOf(await saved)).subarray(0, 2).toString()).toBe('PK');
  await page.getByRole('button', { name: 'Start over' }).click();
  await page.getByRole('button', { name: 'Delete it' }).click();
  await expect(page.getByRole('button', { name: 'Begin a book' })).toBeVisible();
});

test('two tabs editing one customer: the second is told, and loses nothing of the first', async ({ page, context }) => {
  await openSample(page);
  await page.goto('/sales/customers/clewbay');
  const other = await context.newPage();
  await onTheDay(other);
  await other.goto('/sales/customers/clewbay');
  await expect(other.getByLabel('Street and number')).not.toHaveValue('');
  await page.getByLabel('Street and number').fill('North Pier');
  await page.getByRole('button', { name: /^Save Clew/ }).click();
  await expect(page.getByRole('heading', { name: 'Customers' })).toBeVisible();
  await other.getByLabel('City').fill('Elsewhere');
  await other.getByRole('button', { name: /^Save Clew/ }).click();
  await expect(other.getByText('Another tab has changed this in the meantime.')).toBeVisible();
  await other.reload();
  await expect(other.getByLabel('Street and number')).toHaveValue('North Pier');
  await expect(other.getByLabel('City')).not.toHaveValue('Elsewhere');
});

test('the way back after issuing leads to the document, not to a ghost of its draft', async ({ page }) => {
  await openSample(page);
  await writeInvoice(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  const issued = page.url();
  await page.goto(issued.replace('/doc/', '/draft/'));
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('button', { name: 'Delete this draft' })).toHaveCount(0);
});

test('words typed in the last moment before a page closes are there when it opens again', async ({ page }) => {
  await openSample(page);
  await writeInvoice(page);
  await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
  // The database answers no more: what is typed now can only be kept beside it.
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('Internal error', 'UnknownError');
    };
  });
  await page.getByLabel('Order number').fill('LAST-WORDS');
  await page.reload();
  await expect(page.getByLabel('Order number')).toHaveValue('LAST-WORDS');
  await page.getByLabel('Buyer reference').fill('R-1');
  await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Order number')).toHaveValue('LAST-WORDS');
});

test('a disk that is full keeps nothing halfway, says so, and goes on when there is room', async ({ page }) => {
  const browser = await page.context().newCDPSession(page);
  await page.goto('/icon.svg');
  // The sample and its indexes fit; a file of nine million bytes that do not compress does not.
  await browser.send('Storage.overrideQuotaForOrigin', { origin: new URL(page.url()).origin, quotaSize: 6e6 });
  await buildSample(page);
  await writeInvoice(page);
  await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  await page.getByText('Internal: tags').click();
  const attach = async (name: string, size: number) => {
    const chosen = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Attach a file…' }).click();
    await (await chosen).setFiles({ name, mimeType: 'application/pdf', buffer: randomBytes(size) });
  };
  await attach('large.pdf', 9e6);
  await expect(
    page.getByText(/The disk space of this browser is used up\. Nothing was written\./).first(),
  ).toBeVisible();
  await expect(page.getByText('large.pdf', { exact: true })).toHaveCount(0);
  await attach('small.pdf', 100);
  await expect(page.getByText('small.pdf', { exact: true }).first()).toBeVisible();
});

/** From here on no worker finds its program; the page has all of its own. */
const killWorkers = (page: Page) => page.route('**/_next/static/**', (route) => route.abort());
const reviveWorkers = (page: Page) => page.unroute('**/_next/static/**');
const DEAD = 'A part of the program that works in the background did not start, or stopped. Try again.';

test.describe('a worker that does not start says so, and the next try', () => {
  test('prints', async ({ page }) => {
    await openSample(page);
    await page
      .getByRole('main')
      .getByRole('link', { name: /INV-(2026-)?0022/ })
      .click();
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0022' })).toBeVisible();
    await killWorkers(page);
    await page.getByRole('button', { name: 'Save PDF' }).click();
    await expect(page.getByText(`The PDF could not be made: ${DEAD}`)).toBeVisible();
    await reviveWorkers(page);
    const pdf = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save PDF' }).click();
    expect((await pdfText(await bytesOf(await pdf))).text).toContain('INV-2026-0022');
  });

  test('proves the period', async ({ page }) => {
    await openSample(page);
    await page.keyboard.press('Alt+4');
    const proof = page.getByRole('region', { name: /^Reconciliation/ });
    await expect(proof.getByText('They do not agree:')).toBeVisible();
    await killWorkers(page);
    await page.getByRole('button', { name: /filed/ }).first().click();
    await expect(proof.getByRole('alert')).toContainText(`It could not be reconciled: ${DEAD}`);
    await reviveWorkers(page);
    await proof.getByRole('button', { name: 'Reconcile' }).click();
    await expect(proof.getByText('All three agree.')).toBeVisible();
  });

  test('saves the book', async ({ page }) => {
    await openSample(page);
    await page.goto('/setup/book');
    const save = page.getByRole('button', { name: 'Save the book to a file' });
    await expect(save).toBeVisible();
    await killWorkers(page);
    await save.click();
    await expect(page.getByText(`No file was made: ${DEAD}`)).toBeVisible();
    await reviveWorkers(page);
    const file = page.waitForEvent('download');
    await save.click();
    expect((await bytesOf(await file)).subarray(0, 2).toString()).toBe('PK');
  });

  test('reads an e-invoice', async ({ page }) => {
    await openSample(page);
    await page.goto('/sales/einvoice');
    const choose = page.getByLabel('Choose a file');
    const file = { name: 'a.xml', mimeType: 'text/xml', buffer: Buffer.from('<a/>') };
    await killWorkers(page);
    await choose.setInputFiles(file);
    await expect(page.getByText(`It could not be read: ${DEAD}`)).toBeVisible();
    await reviveWorkers(page);
    await choose.setInputFiles(file);
    await expect(page.getByText(/a\.xml is not shown: The root is a, which is no e-invoice/)).toBeVisible();
  });
});

test('nobody writes without checks: where their worker does not start, the page works them out itself', async ({
  page,
}) => {
  await openSample(page);
  await page.addInitScript(() => {
    const Real = Worker;
    Object.assign(window, {
      Worker: class extends Real {
        constructor(_program: string | URL, options?: WorkerOptions) {
          super('/_next/static/chunks/not-there.js', options);
        }
      },
    });
  });
  await page.goto('/sales');
  await writeInvoice(page);
  await expect(page.getByRole('region', { name: 'Checks' }).getByText(/^\d+ checks passed/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
});

test('a cancelled document says so across its PDF', async ({ page }) => {
  await openSample(page);
  await writeInvoice(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  await more(page, 'Cancel it…');
  await page.getByLabel('Reason').fill('Typed twice');
  await page.getByRole('button', { name: 'Cancel INV-2026-0025' }).click();
  await expect(page.getByText(/^Cancelled on 23 Nov 2026: Typed twice/)).toBeVisible();
  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save PDF' }).click();
  const { text } = await pdfText(await bytesOf(await pdf));
  expect(text).toMatch(/cancelled/i);
  expect(text).toContain('Typed twice');
});

test('a book that was replaced is brought back in one step', async ({ page }) => {
  await openSample(page);
  const file = await savedBook(page);
  await page.goto('/sales');
  await writeInvoice(page);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  await page.goto('/setup/book');
  await page
    .getByLabel('Open a book file')
    .setInputFiles({ name: 'old.able', mimeType: 'application/zip', buffer: file });
  await page.getByRole('button', { name: 'Replace it' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto('/sales');
  await expect(page.getByRole('link', { name: /INV-(2026-)?0024/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /INV-(2026-)?0025/ })).toHaveCount(0);
  await page.goto('/setup/book');
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto('/sales');
  await expect(page.getByRole('link', { name: /INV-(2026-)?0025/ })).toBeVisible();
});

test('an unusual day is asked about once more before it is issued', async ({ page }) => {
  await openSample(page);
  await writeInvoice(page);
  await page.getByLabel('Issue date').fill('15 mar 2027');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Control+Enter');
  const slip = page.getByRole('dialog', { name: 'Issue INV-2027-0001 anyway?' });
  await expect(slip).toContainText('The issue date 15 Mar 2027 is 112 days ahead: is it right?');
  await slip.getByRole('button', { name: 'Back to the draft' }).click();
  await page.getByLabel('Issue date').fill('today');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
});

test('a clock set back says that numbers and days go forward together', async ({ page }) => {
  await openSample(page);
  await page.clock.setSystemTime(new Date('2026-08-01T10:00:00'));
  await page.goto('/sales');
  await writeInvoice(page);
  await expect(page.getByLabel('Issue date')).toHaveValue('1 Aug 2026');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('alert').getByText(/set the clock of this computer right/)).toBeVisible();
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await page.clock.setSystemTime(new Date(`${TODAY}T10:00:00`));
  await page.getByLabel('Issue date').fill('today');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
});

for (const timezoneId of ['Pacific/Kiritimati', 'Pacific/Pago_Pago'])
  test.describe(`by the real clock in ${timezoneId}`, () => {
    test.use({ timezoneId });
    test('today is the day of that place, on screen and in what is written', async ({ page }) => {
      await page.goto('/open/demo');
      await expect(page).toHaveURL(/\/sales$/, { timeout: 30_000 });
      await expect(page.getByRole('link', { name: /Draft/ }).first()).toBeVisible();
      await page.keyboard.press('Alt+n');
      const day = new Intl.DateTimeFormat('en-GB', {
        timeZone: timezoneId,
        day: 'numeric',
        month: 'short',
        year: 'numeric',
      })
        .format(new Date())
        .replace('Sept', 'Sep');
      await expect(page.getByLabel('Issue date')).toHaveValue(day);
      await page.getByLabel('Issue date').fill('yesterday');
      await page.keyboard.press('Tab');
      await expect(page.getByLabel('Issue date')).not.toHaveValue(day);
      await page.getByLabel('Issue date').fill('today');
      await page.keyboard.press('Tab');
      await expect(page.getByLabel('Issue date')).toHaveValue(day);
    });
  });

test('a book file that did not come to its end is told as such, and cleared or opened again', async ({ page }) => {
  await openSample(page);
  const file = await savedBook(page);
  const other = await besidePage(page);
  // As a window leaves it that was closed in the middle: the mark, and rows without a book.
  await other.evaluate(
    (name) =>
      new Promise<void>((resolve, reject) => {
        const asked = indexedDB.open(name);
        asked.onsuccess = () => {
          const book = asked.result.transaction('book', 'readwrite').objectStore('book');
          book.delete('book');
          book.put({ id: 'unfinished', by: 'a window that was closed' });
          book.transaction.oncomplete = () => {
            asked.result.close();
            resolve();
          };
        };
        asked.onerror = () => reject(asked.error);
      }),
    BOOK,
  );
  await page.goto('/sales');
  await expect(page.getByText('A book that is not whole')).toBeVisible();
  await expectAccessible(page, 'a book that is not whole');
  await expect(page.getByRole('button', { name: 'Begin a book' })).toHaveCount(0);
  await page
    .getByLabel('Open a book file')
    .setInputFiles({ name: 'book.able', mimeType: 'application/zip', buffer: file });
  await page.waitForURL('**/today');
  await page.goto('/');
  await page.waitForURL('**/today');
});
