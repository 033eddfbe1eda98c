import { expect, type Page, test } from '@playwright/test';
import { openMade, receiptOf, recorded } from './moneyBook';
import { bytesOf, expectAccessible, more, pdfText } from './support';

const entries = (page: Page) => page.getByRole('complementary').getByRole('region', { name: 'Entries' });

test('five invoices are paid by two parts, with tax withheld and a discount', async ({ page }) => {
  await openMade(page, 'five invoices, one with a discount, of a customer that keeps tax back');
  await receiptOf(page);
  await page.getByRole('button', { name: 'All' }).click();
  // 1,000.00 at 23 % is 1,230.00: less 2 % is 24.60, less 5 % of the net is 50.00.
  await expect(page.getByLabel('Paid on INV-2026-0005')).toHaveValue('1,155.40');
  await expect(page.getByLabel('Withholding 5 % withheld from INV-2026-0005')).toHaveValue('50.00');
  await expect(page.getByLabel('Discount on INV-2026-0005')).toHaveValue('24.60');
  // 1,230.00 less 50.00 of the others is 1,180.00.
  await expect(page.getByRole('button', { name: 'Record 2,335.40 EUR' })).toBeVisible();
  await page.getByRole('button', { name: 'Add another payment' }).click();
  await page.getByLabel('Amount received 1').fill('2000');
  await page.getByLabel('Payment method 2').selectOption('cheque');
  await page.getByLabel('Cheque no. 2').fill('000117');
  await page.getByLabel('Amount received 2').fill('335.40');
  await expect(page.getByText('Unallocated')).toContainText('0.00');
  await expect(entries(page).getByText('Dr Tax withheld by customers')).toBeVisible();
  await expect(entries(page).getByText('Dr Settlement discounts')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Checks' })).toContainText('ask for the certificate');
  await expectAccessible(page, 'a receipt of two parts');
  await recorded(page);
  const came = page.getByRole('table', { name: 'Payments' });
  await expect(came.getByRole('row', { name: /000117/ })).toContainText('335.40');
  await expect(came.getByRole('row').last()).toContainText('2,435.40');
  await test.step('the receipt goes by mail', async () => {
    await page.getByRole('button', { name: 'Send by mail…' }).click();
    const slip = page.getByRole('dialog', { name: /^Send REC-2026-0001 by mail$/ });
    await expect(slip.getByLabel('Message', { exact: true })).toHaveValue(
      /Receipt REC-2026-0001 of .* for 2,435\.40 EUR/,
    );
    await slip.getByLabel('To', { exact: true }).fill('accounts@ballyvaughan.example');
    await slip.getByRole('button', { name: 'Send REC-2026-0001' }).click();
    const mail = page.getByRole('complementary').getByRole('region', { name: 'Mail' });
    await expect(mail.getByText('to accounts@ballyvaughan.example')).toBeVisible();
  });
  await page.getByRole('link', { name: 'INV-2026-0005' }).first().click();
  await expect(page.getByRole('main').getByText(/paid ·/)).toBeVisible();
  await page.getByRole('region', { name: 'Settlement' }).getByRole('link', { name: 'CN-2026-0001' }).click();
  await expect(page.getByText('Discount for paying INV-2026-0005 early')).toBeVisible();
});

test('a sum and Enter settle five invoices oldest first in few keys', async ({ page }) => {
  await openMade(page, 'five invoices');
  await page.goto('/receipts/new');
  await page.getByRole('combobox', { name: 'Customer' }).focus();
  let keys = 0;
  const press = async (key: string) => {
    keys += 1;
    await page.keyboard.press(key);
  };
  await page.keyboard.type('bally');
  await expect(page.getByRole('option', { name: /Ballyvaughan/ })).toBeVisible();
  await press('Enter');
  await expect(page.getByLabel('Amount received')).toBeVisible();
  for (
    let i = 0;
    i < 12 && !(await page.getByLabel('Amount received').evaluate((e) => e === document.activeElement));
    i++
  )
    await press('Tab');
  await page.keyboard.type('1845');
  await press('Enter');
  await expect(page.getByLabel('Paid on INV-2026-0005')).toHaveValue('615.00');
  await press('Control+Enter');
  await expect(page.getByRole('heading', { name: /^Receipt REC-/ })).toBeVisible();
  expect(keys).toBeLessThanOrEqual(25);
});

test('a cheque comes back after its invoice was paid and its period filed', async ({ page }) => {
  await openMade(page, 'an invoice of August on payment basis, paid by cheque, its period filed');
  await page.goto('/receipts');
  await page.getByRole('link', { name: /REC-0001/ }).click();
  await page.getByRole('button', { name: 'Returned unpaid…' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Bank charge, EUR').fill('7.50');
  await slip.getByLabel(/^Reason/).fill('No funds');
  await expect(slip.getByText('Dr Output tax')).toBeVisible();
  await expectAccessible(page, 'a receipt that came back');
  await slip.getByRole('button', { name: 'Record the return' }).click();
  await expect(page.getByText(/Returned unpaid on 23 Nov 2026: No funds/)).toBeVisible();
  await page.getByRole('link', { name: 'INV-2026-0001' }).click();
  await expect(page.getByRole('main').getByText(/overdue ·/)).toBeVisible();
  // Its tax goes back in the period of the day.
  await page.goto('/tax');
  await expect(
    page.getByRole('toolbar', { name: 'Tax periods' }).getByRole('button', { name: /Nov–Dec/ }),
  ).toContainText('−23.00');
});

test('a post-dated cheque covers its invoice, and stands apart until its day', async ({ page }) => {
  await openMade(page, 'one invoice');
  await receiptOf(page);
  await page.getByLabel('Payment method').selectOption('cheque');
  await page.getByLabel('Cheque no.').fill('000118');
  await page.getByLabel('Cheque date').fill('2026-12-15');
  await page.getByLabel('Amount received').fill('123');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Checks' })).toContainText('Post-dated: it counts from 15 Dec 2026');
  await recorded(page);
  await page.getByRole('link', { name: 'INV-2026-0001' }).click();
  await expect(page.getByText('Covered by a post-dated cheque until 15 Dec 2026.')).toBeVisible();
  await page.goto('/receipts/customers');
  const owed = page.getByRole('table', { name: 'Aged receivables' });
  await expect(owed.getByRole('row', { name: /Ballyvaughan/ })).toContainText('123.00');
  await owed.getByRole('link', { name: /Ballyvaughan/ }).click();
  await expect(page.getByText(/Post-dated cheque of 15 Dec 2026/)).toBeVisible();
  await expectAccessible(page, 'the account of a customer');
});

test('a foreign receipt takes what the bank credited, and its charge', async ({ page }) => {
  await openMade(page, 'an invoice in dollars');
  await receiptOf(page);
  await page.getByLabel('Amount in EUR').fill('1100');
  await page.getByLabel('Bank charge').fill('10');
  await page.getByLabel('Amount received').fill('1230');
  await page.keyboard.press('Enter');
  // 1,230.00 ÷ 1.0850 stood at 1,133.64; the charge is 10 × 1,100 ÷ 1,230 = 8.94.
  await expect(entries(page)).toContainText('8.94');
  await expect(entries(page)).toContainText('1,091.06');
  await recorded(page);
  await expect(page.getByRole('table', { name: 'Payments' })).toContainText('1,100.00');
});

test('a debt is written off with relief, comes into its return, and is undone', async ({ page }) => {
  await openMade(page, 'one invoice');
  await page.goto('/sales');
  await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: 'INV-2026-0001' }).click();
  await more(page, 'Write off…');
  const slip = page.getByRole('dialog');
  await slip.getByRole('button', { name: 'Write off' }).click();
  await expect(slip.getByText(/Enter the reason for the write-off/).first()).toBeVisible();
  await slip.getByLabel('Reason').fill('Insolvent');
  await expect(slip.getByText('Dr Bad debts')).toBeVisible();
  await expectAccessible(page, 'a write-off');
  // The main key sends the slip, not the page below it.
  await slip.getByLabel('Reason').press('Control+Enter');
  await expect(page.getByRole('main').getByText(/written off ·/)).toBeVisible();
  const toolbar = page.getByRole('toolbar', { name: 'Tax periods' });
  await expect(toolbar.getByRole('button', { name: /Nov–Dec/ })).toContainText('−23.00');
  await page.getByRole('button', { name: /^Undo written off/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo' }).click();
  await expect(toolbar.getByRole('button', { name: /Nov–Dec/ })).toContainText('0.00');
});

test('one certificate covers three receipts, and is claimed', async ({ page }) => {
  await openMade(page, 'three invoices of a customer that keeps tax back');
  for (const _ of [1, 2, 3]) {
    await receiptOf(page);
    await page.getByLabel('Date', { exact: true }).fill('2026-09-20');
    await page.getByRole('checkbox').first().check();
    await recorded(page);
  }
  await page.goto('/today');
  await expect(page.getByRole('heading', { name: 'Withholding certificates missing' })).toBeVisible();
  await page.getByRole('link', { name: /Withholding 5 %, REC-2026-0001/ }).click();
  const table = page.getByRole('table', { name: 'Withheld by customer' });
  await expect(table.getByRole('row', { name: /Ballyvaughan/ })).toContainText('80.00');
  await page.getByRole('button', { name: 'Request missing certificates' }).click();
  const [letter] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('dialog').getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  expect((await pdfText(await bytesOf(letter))).text).toMatch(/Withholding certificates[\s\S]*80\.00/);
  await page.getByRole('dialog').getByRole('button', { name: 'Send by mail…' }).click();
  const message = page.getByRole('dialog', { name: /^Send Withholding certificates, Ballyvaughan.* by mail$/ });
  await expect(message.getByLabel('Subject')).toHaveValue('Withholding certificate missing: 80.00 EUR');
  await message.getByLabel('To', { exact: true }).fill('accounts@ballyvaughan.example');
  await message.getByRole('button', { name: /^Send Withholding certificates/ }).click();
  await expect(message).toBeHidden();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Enter a certificate' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Number').fill('C-118');
  await slip
    .getByLabel('Its file')
    .setInputFiles({ name: 'c118.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4') });
  await expectAccessible(page, 'a certificate');
  await slip.getByRole('button', { name: 'Save the certificate' }).click();
  await expect(page.getByRole('region', { name: 'Certificates' })).toContainText('C-118');
  await page.getByRole('button', { name: 'Claim', exact: true }).click();
  await slip.getByLabel('Claimed by').selectOption('refund');
  await expect(slip.getByText('Cr Tax withheld by customers')).toBeVisible();
  await slip.getByRole('button', { name: 'Claim' }).click();
  await expect(table.getByRole('row').last()).toContainText('80.00');
  await expect(page.getByRole('region', { name: 'Claims' })).toContainText('asked back');
  await expectAccessible(page, 'withholding');
});

test('on payment basis parts release their tax, and undoing takes it back', async ({ page }) => {
  await openMade(page, 'an invoice on payment basis');
  const period = page.getByRole('toolbar', { name: 'Tax periods' }).getByRole('button', { name: /Nov–Dec/ });
  await receiptOf(page);
  await page.getByLabel('Amount received').fill('41');
  await page.keyboard.press('Enter');
  await expect(entries(page)).toContainText('7.67');
  await recorded(page);
  await expect(period).toContainText('7.67');
  await page.getByRole('button', { name: 'Undo INV-2026-0001' }).click();
  await expect(page.getByRole('dialog').getByText('Cr Deferred output tax')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo' }).click();
  await expect(period).toContainText('0.00');
});

/** Keeps every reader of the book waiting until what it returns is called, as a slow disk would. */
async function bookHeld(page: Page): Promise<() => Promise<void>> {
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const asked = indexedDB.open('able-ledger');
        asked.onsuccess = () => {
          const store = asked.result.transaction('documents', 'readwrite').objectStore('documents');
          // A transaction lives as long as it is asked for something.
          const ask = () => {
            store.count().onsuccess = () => {
              if (document.documentElement.dataset.held === 'yes') ask();
              else asked.result.close();
            };
          };
          document.documentElement.dataset.held = 'yes';
          ask();
          resolve();
        };
      }),
  );
  return () =>
    page.evaluate(() => {
      document.documentElement.dataset.held = 'no';
    });
}

test('a receipt typed faster than the open documents are read is allocated all the same', async ({ page }) => {
  await openMade(page, 'two invoices');
  await page.goto('/receipts/new');
  await page.getByRole('combobox', { name: 'Customer' }).fill('bally');
  await expect(page.getByRole('option', { name: /Ballyvaughan/ })).toBeVisible();
  const letGo = await bookHeld(page);
  await page.keyboard.press('Enter');
  await page.getByLabel('Amount received').fill('200');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('main').getByRole('button', { name: 'Record 200.00 EUR' })).toBeDisabled();
  await letGo();
  await expect(page.getByRole('heading', { name: 'Receipt REC-2026-0001' })).toBeVisible();
  await expect(page.getByRole('main').getByRole('link', { name: /INV-2026-0001/ })).toBeVisible();
});

test('a statement of account and a receipt print in the customer’s words', async ({ page }) => {
  await openMade(page, 'two invoices');
  await receiptOf(page);
  await page.getByLabel('Amount received').fill('200');
  await page.keyboard.press('Enter');
  await recorded(page);
  await page.getByRole('button', { name: 'Print preview' }).click();
  const save = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('dialog').getByRole('button', { name }).click(),
    ]);
    return (await pdfText(await bytesOf(file))).text;
  };
  expect(await save('Save PDF')).toMatch(/Receipt[\s\S]*REC-2026-0001[\s\S]*INV-2026-0001[\s\S]*123\.00/);
  await page.keyboard.press('Escape');
  await page.getByRole('main').getByRole('link', { name: 'Ballyvaughan Harbour Board' }).click();
  await page.getByRole('button', { name: 'Statement of account' }).click();
  expect(await save('Save PDF')).toMatch(/Statement of account[\s\S]*INV-2026-0002[\s\S]*169\.00/);
  await page.getByLabel('Contents').selectOption('span');
  const whole = await save('Save PDF');
  expect(whole).toMatch(/Opening balance[\s\S]*Payment received REC-2026-0001[\s\S]*200\.00/);
  await page.keyboard.press('Escape');
  await page.goto('/receipts/list');
  await page.getByLabel('Number, customer or reference').fill('bally');
  await expect(page.getByRole('table', { name: 'Receipts' }).getByRole('row')).toHaveCount(2);
  await page.getByLabel('Status').selectOption('dishonoured');
  await expect(page.getByText('No receipt is of this kind.')).toBeVisible();
  await expectAccessible(page, 'all receipts');
});
