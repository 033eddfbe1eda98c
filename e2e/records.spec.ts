import { expect, type Page, test } from '@playwright/test';
import { bytesOf, expectAccessible, openSample, pasteCells } from './support';

const heading = (page: Page, name: string) => page.getByRole('heading', { name, exact: true, level: 1 });
const slip = (page: Page, name: string) => page.getByRole('dialog', { name });

/** Opens the page of a record from its list. */
async function open(page: Page, list: string, record: string): Promise<void> {
  await page.goto(list);
  await page.getByRole('main').getByRole('link', { name: record, exact: true }).click();
  await expect(heading(page, record)).toBeVisible();
}

test('leaving a page with something typed asks first, whichever way it is left', async ({ page }) => {
  await openSample(page);
  await open(page, '/sales/customers', 'Orcas Marina');
  const name = page.getByLabel('Name', { exact: true });
  await name.fill('Orcas Marina and Boatyard');
  for (const away of [
    () => page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: 'Receipts' }).click(),
    () => page.keyboard.press('Alt+5'),
    () => page.getByRole('link', { name: 'Items', exact: true }).click(),
    () => page.evaluate(() => history.back()),
  ]) {
    await away();
    await expect(slip(page, 'Leave without saving?')).toBeVisible();
    await page.getByRole('button', { name: 'Stay here' }).click();
    await expect(name).toHaveValue('Orcas Marina and Boatyard');
  }
  await page.keyboard.press('Alt+3');
  await page.getByRole('button', { name: 'Leave without saving' }).click();
  await expect(heading(page, 'Receipts')).toBeVisible();
  // Back, and going on.
  await open(page, '/sales/customers', 'Orcas Marina');
  await name.fill('Orcas Marina and Boatyard');
  await page.evaluate(() => history.back());
  await page.getByRole('button', { name: 'Leave without saving' }).click();
  await expect(heading(page, 'Customers')).toBeVisible();
  // What was saved, or never changed, leaves without a question.
  await open(page, '/sales/customers', 'Orcas Marina');
  await expect(name).toHaveValue('Orcas Marina');
  await page.keyboard.press('Alt+3');
  await expect(heading(page, 'Receipts')).toBeVisible();
});

test('a slip with something typed asks before it closes, and keeps what is there', async ({ page }) => {
  await openSample(page);
  await page.getByRole('link', { name: 'INV-2026-0024' }).click();
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: 'Credit…' }).click();
  const reason = page.getByLabel('Reason, printed on the credit note');
  await reason.fill('Sent back');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Go on', exact: true }).click();
  await expect(reason).toHaveValue('Sent back');
  // Nothing typed, nothing asked.
  await reason.fill('');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a customer that is archived is not offered, is offered again, and is not deleted while it is used', async ({
  page,
}) => {
  await openSample(page);
  await open(page, '/sales/customers', 'Inishmaan Shellfish');
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('button', { name: 'Offer it again' })).toBeVisible();
  await page.goto('/sales');
  await expect(heading(page, 'Sales')).toBeVisible();
  await page.keyboard.press('Alt+n');
  const customer = page.locator('input[data-field=customerId]');
  await customer.fill('inish');
  await expect(page.getByRole('option', { name: /New customer/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /Inishmaan/ })).toHaveCount(0);
  await open(page, '/sales/customers', 'Inishmaan Shellfish');
  await page.getByRole('button', { name: 'Delete…' }).click();
  await slip(page, 'Delete Inishmaan Shellfish?').getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByRole('main').getByRole('alert')).toContainText(/used by .*INV-/i);
  await page.getByRole('button', { name: 'Offer it again' }).click();
  await expect(page.getByRole('button', { name: 'Archive' })).toBeVisible();
  await page.goto('/sales');
  await expect(heading(page, 'Sales')).toBeVisible();
  await page.keyboard.press('Alt+n');
  await customer.fill('inish');
  await expect(page.getByRole('option', { name: /Inishmaan/ })).toBeVisible();
});

test('a style is copied, and the copy deleted while nothing uses it', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/styles');
  const first = page.getByRole('main').getByRole('table').getByRole('link').first();
  const name = await first.innerText();
  await first.click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(heading(page, `${name}, copy`)).toBeVisible();
  await page.getByRole('button', { name: 'Delete…' }).click();
  await slip(page, `Delete ${name}, copy?`).getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(heading(page, 'Document styles')).toBeVisible();
  await expect(page.getByRole('link', { name: `${name}, copy` })).toHaveCount(0);
});

test('the taxes of one line are left out and charged again, and its price is typed with tax', async ({ page }) => {
  await openSample(page);
  await page.getByLabel('Find a document').fill('Orcas');
  await page.getByRole('link', { name: /Draft/ }).first().click();
  const total = page.getByRole('main').getByText('671.46').last();
  await expect(total).toBeVisible();
  const margin = page.getByRole('complementary');
  await margin.getByText('More: price, taxes, deferred revenue').click();
  const taxes = margin.getByRole('group', { name: 'Taxes of this line' });
  await taxes.getByRole('button', { name: /^remove .*San Juan|^remove .*local/i }).click();
  // 620.00 and 6.5 % of the state.
  await expect(page.getByRole('main').getByText('660.30').last()).toBeVisible();
  await taxes.getByRole('button', { name: /^charge it again/ }).click();
  await expect(total).toBeVisible();
  // 108.30 with 8.3 % inside is 100.00 without.
  const price = margin.getByLabel('Unit price with tax');
  await price.fill('108.30');
  await price.press('Enter');
  await expect(page.getByLabel('Price, line 1', { exact: true })).toHaveValue('100');
});

test('a price whose tax falls away asks which price stays', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').fill('clew');
  await page.getByRole('option', { name: /Clew Bay/ }).click();
  await page.getByLabel('Price mode').selectOption('gross');
  await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).focus();
  await pasteCells(page, 'Chart\t1\t123.00');
  // Its tax is worked out: 123.00 has 23.00 of it inside. (The amount alone stands there earlier, and has 23.00 in it, too.)
  await expect(page.getByRole('main').getByText('23.00', { exact: true }).first()).toBeVisible();
  const tax = page.getByRole('combobox', { name: 'Tax, line 1', exact: true });
  for (const [answer, price] of [
    ['Keep what the customer pays', '123.00'],
    ['Take the tax off the price', '100'],
  ] as const) {
    await tax.selectOption({ label: 'Zero · IE-Z' });
    await page.getByRole('dialog').getByRole('button', { name: answer }).click();
    await expect(page.getByLabel('Price, line 1', { exact: true })).toHaveValue(price);
    await tax.selectOption({ label: 'Standard 23' });
    await page.getByLabel('Price, line 1', { exact: true }).fill('123');
    await expect(
      page
        .getByRole('main')
        .getByText(/VAT 23 %/)
        .first(),
    ).toBeVisible();
  }
});

test('the list of documents is summed by currency, and the whole of it on demand', async ({ page }) => {
  await openSample(page);
  await page.getByRole('main').getByLabel('State').selectOption('overdue');
  const sums = page.getByRole('region', { name: 'Sums of the list' });
  // 2,570.00 + 287.80 + 295.20 + 3,610.00 + 469.18 + 595.86 + 1,596.75 are open.
  await expect(sums.getByRole('row', { name: /^EUR 7 9,424\.79/ })).toBeVisible();
});

test('an account without IBAN is checked by its form, and kept', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/bank-accounts/bank');
  await page.getByLabel('Local account').selectOption('routing');
  await page.getByLabel('Branch code').fill('123456789');
  await page.getByRole('button', { name: 'Save the bank account' }).click();
  await expect(page.getByLabel('Branch code')).toHaveAttribute('aria-invalid', 'true');
  // 3·(1+4+7) + 7·(2+5+8) + 1·(3+6+0) = 150, a multiple of ten.
  await page.getByLabel('Branch code').fill('123456780');
  await page.getByLabel('Account number').fill('000123456');
  await page.getByRole('button', { name: 'Save the bank account' }).click();
  await expect(page.getByRole('heading', { name: 'Bank accounts' })).toBeVisible();
  await page.goto('/setup/bank-accounts/bank');
  await expect(page.getByLabel('Branch code')).toHaveValue('123456780');
});

test('a tax number is verified from the draft that it decides about', async ({ page }) => {
  await openSample(page);
  await page.goto('/sales/customers/nordlicht');
  await page.getByLabel('Tax number, tax number 1').fill('DE812345665');
  await page.getByRole('button', { name: /^Save Reederei/ }).click();
  await expect(heading(page, 'Customers')).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.getByRole('combobox', { name: 'Customer' }).fill('Reederei');
  await page.getByRole('option', { name: /Forschung GmbH/ }).click();
  const note = page.getByRole('complementary').getByRole('listitem').filter({ hasText: 'DE812345665' });
  await expect(note).toContainText('not verified yet');
  await note.getByRole('button', { name: 'Verify DE812345665' }).click();
  await expect(page.getByText('DE812345665 is valid')).toBeVisible();
  await expect(note).toBeHidden();
});

test('opening invoices come from a file, all or none', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/csv');
  const file = page.getByLabel('File of opening invoices');
  const csv = (...rows: string[]) => ({
    name: 'open.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['customer,number,date,amount', ...rows].join('\n')),
  });
  await file.setInputFiles(csv('Orcas Marina,OLD-1,2025-11-30,120.00', 'Nobody,OLD-2,2025-11-30,1.00'));
  await expect(page.getByRole('alert').filter({ hasText: 'row 3, customer' })).toBeVisible();
  await file.setInputFiles(csv('Orcas Marina,OLD-1,2025-11-30,120.00', 'Inishmaan Shellfish,OLD-2,2025-11-30,80.00'));
  await expect(page.getByText('open.csv: 2 to add, 200.00 in all.')).toBeVisible();
  await page.getByRole('button', { name: 'Import open.csv' }).click();
  await expect(page.getByText('The opening invoices are saved')).toBeVisible();
  await page.goto('/receipts/customers/orcas');
  await expect(page.getByRole('main')).toContainText('120.00');
});

test('an invoice says the account of its style, currency or own choice', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/bank-accounts');
  await page.getByRole('button', { name: 'New bank account' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Dollar account');
  await page.getByLabel('Currency').selectOption('USD');
  await page.getByLabel('Local account').selectOption('routing');
  await page.getByLabel('Branch code').fill('123456780');
  await page.getByLabel('Account number').fill('000123456');
  await page.getByRole('button', { name: 'Save the bank account' }).click();
  await expect(page.getByRole('row', { name: /Dollar account USD 123456780 000123456 1001/ })).toBeVisible();
  await page.goto('/sales');
  await expect(heading(page, 'Sales')).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.getByText(/^More: subject/).click();
  const into = page.getByLabel('Paid into');
  await expect(into.locator('option').first()).toHaveText('Bank');
  await page.getByLabel('Currency', { exact: true }).selectOption('USD');
  await expect(into.locator('option').first()).toHaveText('Dollar account');
  await into.selectOption({ label: 'Bank, EUR' });
  await expect(into).toHaveValue('bank');
});

test('the book goes out to CSV, and journals come in from it: looked at first, wrong rows named', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/csv');
  const out = page.getByRole('region', { name: 'The book as CSV' });
  await out.getByLabel('What goes out').selectOption('receipts');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    out.getByRole('button', { name: 'Save receipts and what they settled to a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('receipts-2026-11-23.csv');
  expect((await bytesOf(download)).toString('utf8')).toContain('REC-2026-0007');
  const journals = page.getByRole('region', { name: 'Journals', exact: true });
  const file = (text: string) => ({ name: 'journals.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const choose = journals.getByLabel('File of journals');
  const heads = 'entry,date,text,account,debit,credit';
  await choose.setInputFiles(file(`${heads}\n1,2026-11-20,Stamps,7930,12.50,\n1,2026-11-20,Stamps,9999,,12.50`));
  await expect(journals.getByText('row 3, account: Choose an account.')).toBeVisible();
  await choose.setInputFiles(file(`${heads}\n1,2026-11-20,Stamps,7930,12.50,\n1,2026-11-20,Stamps,3000,,12.50`));
  await expect(journals.getByText('journals.csv: 1 to post, 12.50 in debits and credits.')).toBeVisible();
  await expectAccessible(page, 'tables as CSV');
  await journals.getByRole('button', { name: 'Import journals.csv' }).click();
  await expect(page.getByText('The journals are posted')).toBeVisible();
});
