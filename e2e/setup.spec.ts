import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, onTheDay, openSample } from './support';

test('a rate from a later day is used from its tax point on, and not before', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/jurisdictions/IE');
  const vat = page.getByRole('region', { name: 'VAT of Ireland' });
  await vat.getByRole('button', { name: 'Add rate' }).click();
  await vat
    .getByLabel(/^From, rate/)
    .last()
    .fill('2026-11-20');
  await vat
    .getByLabel(/^Percent, rate/)
    .last()
    .fill('a quarter');
  await vat.getByRole('button', { name: 'Save VAT' }).click();
  await expect(vat.getByText('Enter a percentage such as 23 or 13.5.')).toBeVisible();
  await vat
    .getByLabel(/^Percent, rate/)
    .last()
    .fill('25');
  await vat.getByRole('button', { name: 'Save VAT' }).click();
  await expect(page.getByText('VAT is saved')).toBeVisible();
  await page.goto('/setup/tax-codes');
  await expect(page.getByRole('row', { name: /IE-S/ })).toContainText('25 %');
  await page.goto('/sales');
  await page.getByRole('link', { name: /Draft.*Ballyvaughan/ }).click();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await page.getByLabel('Price, line 2').focus();
  // The draft keeps the rate it was written with, and says so.
  await expect(margin.getByText('23 % of 1,156.00 (lines 1, 2)')).toBeVisible();
  await expect(margin.getByText(/Setup now says 25 %/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  await margin.getByRole('button', { name: 'Use the new rate' }).first().click();
  await expect(margin.getByText('25 % of 1,156.00 (lines 1, 2)')).toBeVisible();
  await page.getByLabel('Tax point').fill('2026-11-19');
  await page.getByLabel('Tax point').press('Enter');
  await expect(margin.getByText('23 % of 1,156.00 (lines 1, 2)')).toBeVisible();
  await expect(margin.getByText(/Tax point is 4 days before the issue date/)).toBeVisible();
});

test('exempt without words, a code made twice, and a rate that documents rest on are refused at the field', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/setup/tax-codes/new');
  await expect(page.getByRole('heading', { name: 'New tax code' })).toBeVisible();
  await page.getByLabel('Code', { exact: true }).fill('IE-S');
  await page.getByLabel('Name, as printed').fill('Exempt');
  await page.getByLabel('Category').selectOption('E');
  await page.getByRole('button', { name: 'Save the tax code' }).click();
  await expect(page.getByText('This category must say why no tax is charged')).toBeVisible();
  await page.getByRole('button', { name: 'Add legend' }).click();
  await page.getByLabel('Words, legend 1').fill('Exempt under Art. 132');
  await page.getByRole('button', { name: 'Save the tax code' }).click();
  await expect(page.getByText('“IE-S” is there already')).toBeVisible();
  await page.goto('/setup/jurisdictions/IE');
  const vat = page.getByRole('region', { name: 'VAT of Ireland' });
  await vat.getByRole('button', { name: 'Remove rate 1' }).click();
  await vat.getByRole('button', { name: 'Save VAT' }).click();
  await expect(vat.getByText(/Documents use the rate of/)).toBeVisible();
});

test('customers and items are found by any part, changed, and refused when half-filled', async ({ page }) => {
  await openSample(page);
  await page.goto('/sales/customers');
  await page.getByLabel('Find in Customers').fill('shell');
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(2);
  await page.getByLabel('Find in Customers').fill('nobody at all');
  await expect(page.getByText('No customer matches.')).toBeVisible();
  await page.getByLabel('Find in Customers').fill('shell');
  await page.getByRole('link', { name: 'Inishmaan Shellfish' }).click();
  await page.getByLabel('Terms').fill('soon');
  await page.getByLabel('Street and number').fill('');
  await page.getByRole('button', { name: /^Save Inishmaan/ }).click();
  await expect(page.getByText('Enter terms as 30d, eom+10d, 30% 0d + 70% 30d, or 30d, 2% 10d.')).toBeVisible();
  await expect(page.getByText('Enter the street or place.')).toBeVisible();
  await page.getByLabel('Terms').fill('2w');
  await page.getByLabel('Street and number').fill('New Slip House');
  await page
    .getByLabel('Name', { exact: true })
    .fill('Inishmaan Shellfish, Oysters, Mussels and All Other Fruits of the Sea Cooperative Society');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('row', { name: /Fruits of the Sea/ })).toContainText('2w');
  // What was issued keeps the name of its day; the list and new work have the new one.
  await page.goto('/sales');
  await page.getByLabel('Find a document').fill('inishmaan');
  await page
    .getByRole('navigation', { name: 'Found' })
    .getByRole('link', { name: /INV-(2026-)?0017/ })
    .click();
  await expect(page.getByRole('main').getByRole('link', { name: 'Inishmaan Shellfish', exact: true })).toBeVisible();
});

test('a registration in use keeps its frequency and its first period', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/registrations/ie-vat');
  await page.getByLabel('Return frequency').selectOption('monthly');
  await page.getByRole('button', { name: /^Save Ireland/ }).click();
  await expect(page.getByText(/This can't change any more/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Return frequency')).toHaveValue('two-monthly');
});

/** Empty views of every kind; the others are made of the same parts. */
const LOOKED_AT: readonly string[] = ['/today', '/sales', '/tax', '/setup/places'];

test('without customers, items and documents every list teaches its first step', async ({ page }) => {
  await onTheDay(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a book' }).click();
  await page.getByLabel('Country', { exact: true }).selectOption('IE');
  await page.getByLabel('Name of the business').fill('Empty Harbour (sample)');
  await page.getByLabel('Street and number').fill('1');
  await page.getByLabel('Town or city').fill('Town');
  await page.getByLabel('VAT number').fill('IE8100234D');
  await page.getByText('More: short name, authority, currency, taxes').click();
  await page.getByLabel('Home currency').selectOption('JPY');
  await page.getByLabel('Taxes begin with').selectOption('rate');
  await page.getByLabel('Standard rate, percent').fill('10');
  await page.getByRole('button', { name: 'Begin the book' }).click();
  await expect(page.getByRole('navigation', { name: 'Areas' })).toBeVisible();
  for (const [path, words] of [
    ['/today', 'Printed on invoices, so that customers know where to pay'],
    ['/sales', 'No documents yet: write the first invoice.'],
    ['/receipts', 'No money received yet.'],
    ['/tax', 'No document has its tax point in this period.'],
    ['/ledger', 'No entries in this period.'],
    ['/ledger/reports/trial-balance', 'Nothing is posted until that day.'],
    ['/sales/customers', 'No customers yet'],
    ['/sales/items', 'No items yet'],
    ['/setup/places', 'No places yet'],
    ['/setup/withholding', 'No withholding types yet'],
    ['/setup/exchange-rates', 'No rates yet'],
    ['/sales/prices', 'No price lists yet'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByText(words)).toBeVisible();
    if (LOOKED_AT.includes(path)) await expectAccessible(page, `${path} without data`);
  }
  // A currency without decimals is refused the ones it does not have.
  await page.goto('/sales');
  await expect(page.getByText('No documents yet: write the first invoice.')).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.getByRole('combobox', { name: 'Item or description, line 1' }).fill('Chart');
  await page.getByLabel('Price, line 1').fill('1999');
  await page.getByLabel('Quantity, line 1').fill('3');
  await expect(page.getByRole('main').getByText('6,597')).toBeVisible();
  await page.getByLabel('Discount, line 1').fill('0.5');
  await expect(page.getByRole('region', { name: 'Checks' }).getByText(/at most 0 decimals/)).toBeVisible();
});

test('the name of the operator and the paper are kept in this browser', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/book');
  await page.getByLabel('Your name').fill('Niamh');
  await page.getByLabel('Your name').blur();
  await page.getByLabel('Paper').selectOption('night');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect(page.getByLabel('Your name')).toHaveValue('Niamh');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the book to a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Corran-Point-Instruments-Ltd-sample-2026-11-23.able');
  expect((await bytesOf(download)).subarray(0, 2).toString()).toBe('PK');
});
