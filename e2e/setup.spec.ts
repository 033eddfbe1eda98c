import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, onTheDay, openSample } from './support';

test('a rate from a later day is used from its tax point on, and not before', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/tax-codes/IE-S');
  await page.getByRole('button', { name: 'One more rate' }).click();
  await page.getByLabel('From').last().fill('2026-11-20');
  await page.getByLabel('Percent').last().fill('a quarter');
  await page.getByRole('button', { name: 'Keep Standard 23' }).click();
  await expect(page.getByText('Give a percentage such as 23 or 13.5.')).toBeVisible();
  await page.getByLabel('Percent').last().fill('25');
  await page.getByRole('button', { name: 'Keep Standard 23' }).click();
  await expect(page.getByRole('row', { name: /IE-S/ })).toContainText('25 %');
  await page.goto('/sales');
  await page.getByRole('link', { name: /Draft.*Ballyvaughan/ }).click();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await page.getByLabel('Price, line 2').focus();
  await expect(margin.getByText('25 % of 1,156.00 (lines 1, 2)')).toBeVisible();
  await page.getByLabel('Tax point').fill('2026-11-19');
  await page.getByLabel('Tax point').press('Enter');
  await expect(margin.getByText('23 % of 1,156.00 (lines 1, 2)')).toBeVisible();
  await expect(margin.getByText(/Tax point is 4 days before the issue date/)).toBeVisible();
});

test('two rates on one day, exempt without words, and a code made twice are refused at the field', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/tax-codes/new');
  await expect(page.getByRole('heading', { name: 'New tax code' })).toBeVisible();
  await page.getByLabel('Code', { exact: true }).fill('IE-S');
  await page.getByLabel('Name, as it prints').fill('Exempt');
  await page.getByLabel('Category').selectOption('E');
  await page.getByRole('button', { name: 'One more rate' }).click();
  await page.getByRole('button', { name: 'Keep the tax code' }).click();
  await expect(page.getByText('This category must say why no tax is charged')).toBeVisible();
  await expect(page.getByText('Two rates begin on the same day.')).toBeVisible();
  await page.getByRole('button', { name: 'Take out rate 2' }).click();
  await page.getByLabel('Words the document must carry').fill('Exempt under Art. 132');
  await page.getByRole('button', { name: 'Keep the tax code' }).click();
  await expect(page.getByText('“IE-S” is there already')).toBeVisible();
});

test('customers and items are found by any part, changed, and refused when half-filled', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/customers');
  await page.getByLabel('Find in Customers').fill('shell');
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(2);
  await page.getByLabel('Find in Customers').fill('nobody at all');
  await expect(page.getByText('No customer holds this.')).toBeVisible();
  await page.getByLabel('Find in Customers').fill('shell');
  await page.getByRole('link', { name: 'Inishmaan Shellfish' }).click();
  await page.getByLabel('Terms').fill('soon');
  await page.getByLabel('Street and number').fill('');
  await page.getByRole('button', { name: /^Keep Inishmaan/ }).click();
  await expect(page.getByText('Say terms as 30d, 2w, 1m, eom or eom+10d.')).toBeVisible();
  await expect(page.getByText('Give the street or place.')).toBeVisible();
  await page.getByLabel('Terms').fill('2w');
  await page.getByLabel('Street and number').fill('New Slip House');
  await page
    .getByLabel('Name', { exact: true })
    .fill('Inishmaan Shellfish, Oysters, Mussels and All Other Fruits of the Sea Cooperative Society');
  await page.getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByRole('row', { name: /Fruits of the Sea/ })).toContainText('2w');
  // What was issued keeps the name of its day; the list and new work have the new one.
  await page.goto('/sales');
  await page.getByLabel('Find a document').fill('inishmaan');
  await page
    .getByRole('navigation', { name: 'Found' })
    .getByRole('link', { name: /INV-0017/ })
    .click();
  await expect(page.getByRole('main').getByRole('link', { name: 'Inishmaan Shellfish', exact: true })).toBeVisible();
});

test('a registration in use keeps its frequency and its first period', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/registration');
  await page.getByLabel('A return is due').selectOption('monthly');
  await page.getByRole('button', { name: 'Keep the registration' }).click();
  await expect(page.getByText(/This can't change any more/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('A return is due')).toHaveValue('two-monthly');
});

test('without customers, items and documents every list teaches its first step', async ({ page }) => {
  await onTheDay(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a book' }).click();
  await page.getByLabel('Name of the business').fill('Empty Harbour (sample)');
  await page.getByLabel('Home currency').selectOption('JPY');
  await page.getByLabel('Street and number').fill('1');
  await page.getByLabel('Town or city').fill('Town');
  await page.getByLabel('Country', { exact: true }).selectOption('IE');
  await page.getByLabel('Short name').fill('VAT');
  await page.getByLabel('Authority', { exact: true }).fill('Authority');
  await page.getByLabel('Registration number').fill('X1');
  await page.getByLabel('Country of the authority').selectOption('IE');
  await page.getByLabel('Standard rate, percent').fill('10');
  await page.getByRole('button', { name: 'Begin the book' }).click();
  await expect(page.getByRole('navigation', { name: 'Areas' })).toBeVisible();
  for (const [path, words] of [
    ['/today', 'Nothing needs you.'],
    ['/sales', 'No documents in this period.'],
    ['/receipts', 'No money received yet.'],
    ['/tax', 'No document has its tax point in this period.'],
    ['/ledger', 'No entry lies in this period.'],
    ['/ledger/trial-balance', 'Nothing was posted up to this day.'],
    ['/setup/customers', 'No customers yet'],
    ['/setup/items', 'No items yet'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByText(words)).toBeVisible();
    await expectAccessible(page, `${path} without data`);
  }
  // A currency without decimals is refused the ones it does not have.
  await page.goto('/sales');
  await expect(page.getByText('No documents in this period.')).toBeVisible();
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
  await page.getByLabel('Who is working here').fill('Niamh');
  await page.getByLabel('Who is working here').blur();
  await page.getByLabel('Paper').selectOption('night');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect(page.getByLabel('Who is working here')).toHaveValue('Niamh');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the book to a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Corran-Point-Instruments-Ltd-sample-2026-11-23.able');
  expect((await bytesOf(download)).subarray(0, 2).toString()).toBe('PK');
});
