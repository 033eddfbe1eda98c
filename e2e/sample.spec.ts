import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, figuresIn, openSample, pasteCells, pdfText, TODAY } from './support';

const VIEWS: readonly (readonly [string, string])[] = [
  ['/today', 'Today'],
  ['/sales', 'Sales'],
  ['/sales/sent', 'E-invoices sent'],
  ['/receipts', 'Receipts'],
  ['/receipts/new', 'Receipt'],
  ['/receipts/bank', 'Bank'],
  ['/receipts/bank/reconcile', 'Bank reconciliation'],
  ['/setup/bank-accounts', 'Bank accounts'],
  ['/setup/bank-accounts/bank', 'Bank'],
  ['/tax', 'Return Nov–Dec 2026'],
  ['/ledger', 'Journal Nov–Dec 2026'],
  ['/ledger/reports/trial-balance', 'Trial balance'],
  ['/ledger/reports/sales-by-item', 'Sales by item'],
  ['/ledger/reports/income-against-cash', 'Income against cash'],
  ['/ledger/years', 'Years and lock'],
  ['/ledger/chart', 'Chart of accounts'],
  ['/ledger/audit-file', 'Audit file'],
  ['/ledger/account/1100', '1100 Receivables'],
  ['/ledger/write', 'New journal'],
  ['/setup/business', 'Business'],
  ['/setup/registrations', 'Registrations'],
  ['/setup/registrations/ie-vat', 'Ireland · VAT'],
  ['/setup/packs', 'Starter packs'],
  ['/setup/jurisdictions', 'Jurisdictions and rates'],
  ['/setup/jurisdictions/IE', 'Ireland'],
  ['/setup/places', 'Places'],
  ['/setup/places/WA-SEATTLE', 'Seattle'],
  ['/setup/table', 'Decision table'],
  ['/setup/withholding/KE-WHVAT', 'Withholding VAT'],
  ['/setup/rate-change', 'What if a rate changes'],
  ['/setup/exchange-rates', 'Exchange rates'],
  ['/sales/prices/new', 'New price list'],
  ['/setup/csv', 'Tables as CSV files'],
  ['/setup/tax-codes', 'Tax codes'],
  ['/setup/tax-codes/IE-S', 'Standard'],
  ['/sales/customers', 'Customers'],
  ['/sales/customers/nordlicht', 'Reederei Nordlicht Forschung GmbH'],
  ['/sales/items', 'Items'],
  ['/setup/book', 'Book file'],
];

type View = (typeof VIEWS)[number];

/** Views that hold every kind of part the others are made of; the night version looks at these. */
const TELLING = [
  '/today',
  '/sales',
  '/receipts/new',
  '/receipts/bank',
  '/tax',
  '/setup/packs',
  '/setup/jurisdictions/IE',
  '/setup/table',
];

const half = Math.ceil(VIEWS.length / 2);
const LOOKS: readonly (readonly [theme: string, what: string, views: readonly View[]])[] = [
  ['paper', 'the first half of the views', VIEWS.slice(0, half)],
  ['paper', 'the second half of the views', VIEWS.slice(half)],
  ['night', 'every kind of view', VIEWS.filter(([path]) => TELLING.includes(path))],
];

for (const [theme, what, views] of LOOKS)
  test(`in the ${theme} version ${what} is accessible and fits 1024 px`, async ({ page }) => {
    test.setTimeout(300_000);
    await page.setViewportSize({ width: 1024, height: 768 });
    await page.addInitScript((choice) => localStorage.setItem('able-ledger-theme', choice), theme);
    await openSample(page);
    for (const [path, heading] of views) {
      await page.goto(path);
      await expect(page.getByRole('heading', { name: heading, level: 1, exact: true })).toBeVisible();
      await expectAccessible(page, `${path} (${theme})`);
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth),
        `${path} does not scroll sideways`,
      ).toBe(true);
    }
  });

test('the sample’s trouble is found: the journal in the tax account, the late document', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+4');
  await page
    .getByRole('toolbar', { name: 'Tax periods' })
    .getByRole('button', { name: /differences.*Sep–Oct/ })
    .click();
  await expect(page.getByText('They do not agree:').first()).toBeVisible();
  await expect(page.getByText('1 late').first()).toBeVisible();
  await page.getByRole('link', { name: 'Tax on own use, to be checked' }).first().click();
  await expect(page.getByRole('main').getByText('manual', { exact: true })).toBeVisible();
});

test('the picked registration and period stay, for a reload and a new tab; a return says when it can be filed', async ({
  page,
}) => {
  await openSample(page);
  const registration = page.getByLabel('Registration', { exact: true });
  const heading = page.getByRole('heading', { name: /^Return / });
  await page.keyboard.press('Alt+4');
  await expect(heading).toHaveText('Return Nov–Dec 2026');
  await expect(page.getByText('Sep–Oct 2026 is filed first.')).toBeVisible();
  // Washington files each month.
  await registration.selectOption({ label: 'Washington · sales tax' });
  await expect(heading).toHaveText('Return Nov 2026');
  await page.reload();
  await expect(heading).toHaveText('Return Nov 2026');
  await registration.selectOption({ label: 'Ireland · VAT' });
  await page
    .getByRole('toolbar', { name: 'Tax periods' })
    .getByRole('button', { name: /Jul–Aug/ })
    .click();
  await expect(heading).toHaveText('Return Jul–Aug 2026');
  const other = await page.context().newPage();
  await other.clock.install({ time: new Date(`${TODAY}T10:00:00`) });
  await other.goto('/tax');
  await expect(other.getByRole('heading', { name: /^Return / })).toHaveText('Return Jul–Aug 2026');
});

test('finding works over any part of any word, in the index and by Ctrl+K', async ({ page }) => {
  await openSample(page);
  await page.getByLabel('Find a document').fill('almon co');
  await expect(
    page.getByRole('navigation', { name: 'Found' }).getByRole('link', { name: /INV-(2026-)?0002/ }),
  ).toBeVisible();
  await page.keyboard.press('Control+k');
  await expect(page.getByPlaceholder('A number, a name, an amount, or what to do')).toBeFocused();
  await page.keyboard.type('avinst');
  await expect(page.getByRole('option', { name: /Nordkapp Havinstitutt/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^Invoice INV-/ })).toBeVisible();
});

test('a document of many pages repeats its heads, counts its pages and keeps its totals together', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').fill('clew');
  await page.getByRole('option', { name: /Clew Bay/ }).click();
  await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).focus();
  await pasteCells(page, Array.from({ length: 45 }, (_, i) => `Sensor ${i + 1}\t1\t${i + 1}.11`).join('\n'));
  await expect(page.getByLabel('Price, line 45', { exact: true })).toHaveValue('45.11');
  await page.keyboard.press('Control+Enter');
  const heading = page.getByRole('heading', { name: /^Invoice INV-/ });
  await expect(heading).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  const { pages, text } = await pdfText(await bytesOf(download));
  expect(pages).toBeGreaterThan(1);
  expect(text).toContain(`Page ${pages} of ${pages}`);
  const withLines = text.split('\n').filter((sheet) => sheet.includes('Sensor'));
  expect(withLines.length).toBeGreaterThan(1);
  for (const sheet of withLines) expect(sheet).toContain('Quantity');
  expect(text.match(/Carried forward/g)).toHaveLength(withLines.length - 1);
  for (const figure of await figuresIn(page, await heading.innerText())) expect(text).toContain(figure);
});

test('the whole book is proven by the keyboard, and the one difference it was made with is named with its cause', async ({
  page,
}) => {
  await openSample(page);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('prove the');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Prove the book' })).toBeVisible();
  await page.getByRole('button', { name: 'Prove the book' }).press('Enter');
  await expect(page.getByRole('main').getByRole('status')).toHaveText('Something does not fit.');
  const checks = page.getByRole('list', { name: 'Checks of the book' });
  const failed = checks.getByRole('listitem').filter({ has: page.getByRole('img', { name: 'does not hold' }) });
  await expect(failed).toHaveCount(1);
  await expect(failed).toContainText('Sep–Oct 2026: Tax on own use, to be checked');
  await expect(failed).toContainText('18.40');
  await expectAccessible(page, 'Prove the book');
});

test('the keys of the screen are listed on ?', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});
