import { expect, test } from '@playwright/test';
import { openMade, receiptOf, recorded } from './moneyBook';
import { bytesOf, expectAccessible, more, openSample, pdfText } from './support';

/* The end of a period: a filed return is paid and opened again, revenue is deferred, open foreign items are revalued. */

test('a filed return is paid in parts, reopened with a reason, and its version kept', async ({ page }) => {
  await openSample(page);
  await page.goto('/tax');
  await page.getByRole('navigation', { name: 'Periods' }).getByText('Jul–Aug 2026').click();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await expect(margin.getByText('Left to pay')).toBeVisible();
  await margin.getByRole('button', { name: 'Record a payment…' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Amount, EUR').fill('2000');
  await expect(slip.getByText('Dr Tax payable')).toHaveCount(0);
  await slip.getByRole('button', { name: 'Record the payment' }).click();
  await expect(slip.getByText('▲ Of the return Jul–Aug 2026 1813.17 EUR is left.')).toBeVisible();
  await slip.getByLabel('Amount, EUR').fill('1000');
  await slip.getByLabel('Reference').fill('VAT-JA');
  await expect(slip.getByText('Dr Tax payable')).toBeVisible();
  await expectAccessible(page, 'payment to the authority');
  await slip.getByRole('button', { name: 'Record the payment' }).click();
  await expect(margin.getByText(/Paid 23 Nov 2026 VAT-JA/)).toBeVisible();
  await expect(margin.getByText('813.17').first()).toBeVisible();

  await page.getByRole('button', { name: 'Reopen…' }).click();
  await slip.getByRole('button', { name: 'Reopen it' }).click();
  await expect(slip.getByText('Enter why the return is opened again.')).toBeVisible();
  await slip.getByLabel('Reason').fill('an invoice was left out');
  await slip.getByRole('button', { name: 'Reopen it' }).click();
  await expect(page.getByRole('button', { name: 'File the Jul–Aug 2026 return' })).toBeVisible();
  const versions = margin.getByRole('list', { name: 'Earlier versions of this return' });
  await expect(versions.getByText(/1,813\.17; reopened 23 Nov 2026 .* an invoice was left out/)).toBeVisible();

  await page.getByRole('button', { name: 'File the Jul–Aug 2026 return' }).click();
  await slip.getByRole('button', { name: 'File Jul–Aug 2026' }).click();
  // What was paid before stays paid.
  await expect(margin.getByText('813.17').first()).toBeVisible();
});

test('a yearly licence is deferred, and credited by half midway: entries, list, and what goes back', async ({
  page,
}) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').fill('clew');
  await page.getByRole('option', { name: /Clew Bay/ }).click();
  await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Chart licence, a year');
  const price = page.getByLabel('Price, line 1', { exact: true });
  await price.fill('1200');
  await price.focus();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await margin.getByRole('button', { name: /More: price, taxes, deferred revenue/ }).click();
  await margin.getByLabel('Revenue belongs to').selectOption('months');
  await margin.getByLabel('Months').fill('0');
  await expect(margin.getByText(/Enter when the revenue belongs/).first()).toBeVisible();
  await margin.getByLabel('Months').fill('12');
  await margin.getByLabel('First month').fill('2026-06');
  await expect(margin.getByText('Cr Deferred income')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();

  await page.goto('/ledger/deferred');
  const row = page.getByRole('row', { name: /INV-2026-0025/ });
  // June to October have ended: 500.00 are earned on the day of the invoice.
  await expect(row).toContainText(/1,200\.00.*500\.00.*700\.00/);
  await page.getByLabel('As at').fill('31 dec 2026');
  await page.getByLabel('As at').press('Tab');
  // So are November and December then.
  await expect(row).toContainText(/1,200\.00.*700\.00.*500\.00/);
  await expectAccessible(page, 'deferred revenue');

  await test.step('half of it goes back: the newest six months, before the month that is still running', async () => {
    await row.getByRole('link', { name: 'INV-2026-0025' }).click();
    await more(page, 'Credit…');
    await page.getByLabel('Reason, printed on the credit note').fill('Given up after half a year');
    await page.getByLabel('What is credited').selectOption('amount');
    await page.getByLabel('Amount with tax, EUR').fill('738.00');
    await page.getByRole('button', { name: 'Credit INV-2026-0025' }).click();
    await expect(page.getByRole('heading', { name: /Credit note/ })).toBeVisible();
    await page.goto('/ledger/deferred');
    // 500.00 earned, 600.00 taken back, November’s 100.00 still to earn.
    await expect(row).toContainText(/1,200\.00.*600\.00.*500\.00.*100\.00/);
  });
});

test('what is open in dollars is revalued at a month’s end, item by item', async ({ page }) => {
  await openMade(page, 'an invoice in dollars, the rate moved within the month');
  await page.goto('/ledger/revaluation');
  await page.getByLabel('Last day of the month').fill('30 oct 2026');
  await page.getByLabel('Last day of the month').press('Tab');
  await expect(page.getByRole('button', { name: 'Post the revaluation' })).toHaveCount(0);
  await page.getByLabel('Last day of the month').fill('31 oct 2026');
  await page.getByLabel('Last day of the month').press('Tab');
  // 1,230.00 USD at 1.25 are 984.00, at 1.20 they are 1,025.00.
  const items = page.getByRole('table', { name: 'Open items' });
  await expect(items.getByRole('row', { name: /984\.00.*1,025\.00.*41\.00/ })).toBeVisible();
  await expectAccessible(page, 'revaluation');
  await page.getByRole('button', { name: 'Post the revaluation' }).click();
  await expect(page.getByText('Revalued as at 31 Oct 2026')).toBeVisible();
  await page.reload();
  await page.getByRole('link', { name: 'Entry', exact: true }).click();
  await expect(page.getByText('Revaluation of open items').first()).toBeVisible();
});

test('a month’s end in two currencies: revalued, part settled, and each difference with its workings', async ({
  page,
}) => {
  await openMade(page, 'invoices in dollars and pounds, the rates moved within the month');
  await test.step('1,230.00 USD at 1.25 are 984.00, at 1.20 1,025.00; 615.00 GBP at 0.80 are 768.75, at 0.82 750.00', async () => {
    await page.goto('/ledger/revaluation');
    await page.getByLabel('Last day of the month').fill('31 oct 2026');
    await page.getByLabel('Last day of the month').press('Tab');
    const items = page.getByRole('table', { name: 'Open items' });
    await expect(items.getByRole('row', { name: /984\.00.*1,025\.00.*41\.00/ })).toBeVisible();
    await expect(items.getByRole('row', { name: /768\.75.*750\.00.*−18\.75/ })).toBeVisible();
    await page.getByRole('button', { name: 'Post the revaluation' }).press('Enter');
    await expect(page.getByText('Revalued as at 31 Oct 2026')).toBeVisible();
  });
  await test.step('half of the dollars come in November, worth 520.00 where they stood at 492.00', async () => {
    await receiptOf(page);
    await page.getByLabel('Date', { exact: true }).fill('10 nov 2026');
    await page.getByLabel('Amount in EUR').fill('520');
    await page.getByLabel('Amount received').fill('615');
    await page.keyboard.press('Enter');
    await recorded(page);
  });
  await test.step('the report: 28.00 realised, 22.25 unrealised and taken back', async () => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox').last().fill('exchange diff');
    await page.keyboard.press('Enter');
    const realised = page.getByRole('region', { name: 'Realised', exact: true });
    await expect(
      realised.getByRole('row', {
        name: /REC-2026-0001 on INV-2026-0001 USD615\.00 492\.00 520\.00 1\.25 → 1\.182692 USD for 1 EUR 28\.00/,
      }),
    ).toBeVisible();
    const unrealised = page.getByRole('region', { name: 'Unrealised, by currency' });
    await expect(unrealised.getByRole('row', { name: /USD −41\.00 41\.00 0\.00/ })).toBeVisible();
    await page.getByLabel('Until').fill('31 oct 2026');
    await page.getByLabel('Until').press('Tab');
    await expect(unrealised.getByRole('row', { name: /GBP 0\.00 −18\.75 −18\.75/ })).toBeVisible();
    const items = page.getByRole('region', { name: 'Open items as at 31 Oct 2026' });
    await expect(
      items.getByRole('row', { name: /615\.00 ÷ 0\.82 of 31 Oct 2026 750\.00 768\.75 −18\.75/ }),
    ).toBeVisible();
    await expectAccessible(page, 'exchange differences');
    // The address brings the same days back.
    await page.reload();
    await expect(unrealised.getByRole('row', { name: /GBP 0\.00 −18\.75/ })).toBeVisible();
  });
});

test('an advance is invoiced, taken off by the final invoice, and the return counts each part once', async ({
  page,
}) => {
  await openSample(page);
  const margin = page.getByRole('complementary', { name: 'Margin' });
  const begin = async () => {
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('clew');
    await page.getByRole('option', { name: /Clew Bay/ }).click();
  };
  const write = async (words: string, price: string) => {
    await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill(words);
    await page.getByLabel('Price, line 1', { exact: true }).fill(price);
    await page.getByLabel('Order number').fill('CB-10');
  };
  await test.step('the advance: 300.00 and its tax', async () => {
    await begin();
    await write('Advance for the mooring survey', '300');
    await page.getByText(/^More: subject/).click();
    await page.getByLabel('Invoice for').selectOption('advance');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  });
  await test.step('the final invoice takes it off by a line below zero', async () => {
    await begin();
    await write('Mooring survey', '1000');
    await page.getByRole('button', { name: 'Deduct an advance…' }).click();
    const slip = page.getByRole('dialog', { name: 'Deduct an advance' });
    await expect(slip).toContainText('300.00 EUR without tax left');
    await expectAccessible(page, 'taking off an advance');
    await slip.getByRole('button', { name: 'Deduct INV-2026-0025' }).click();
    await expect(page.getByLabel('Quantity, line 2')).toHaveValue('-1');
    await expect(page.getByLabel('Price, line 2', { exact: true })).toHaveValue('300.00');
    // Nothing is left to be taken off again.
    await expect(page.getByRole('button', { name: 'Deduct an advance…' })).toBeHidden();
    await page.getByLabel('Price, line 2', { exact: true }).fill('300.01');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText(/Of the advance INV-2026-0025 300\.00 EUR is left/).first()).toBeVisible();
    await page.getByLabel('Price, line 2', { exact: true }).fill('300');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0026' })).toBeVisible();
    await expect(page.getByRole('main').getByText('861.00').first()).toBeVisible();
  });
  await test.step('both are 1,000.00 and 230.00 of tax in the return', async () => {
    const before = 338.82;
    await page.goto('/tax');
    await expect(
      page
        .getByRole('main')
        .getByText((before + 230).toFixed(2))
        .first(),
    ).toBeVisible();
    await expect(margin.getByText(/All three agree|agree/).first()).toBeVisible();
  });
});

test('a day is locked, a year is closed and opened again, by keyboard', async ({ page }) => {
  await openMade(page, 'one invoice');
  await page.clock.setSystemTime(new Date('2027-01-15T09:00:00'));
  await page.goto('/today');
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('close a fiscal');
  await page.keyboard.press('Enter');
  const main = page.getByRole('main');
  await expect(main.getByRole('heading', { name: 'Years and lock' })).toBeVisible();
  await test.step('nothing is posted up to a day that is locked', async () => {
    await main.getByLabel('Locked until').fill('31 oct 2026');
    await main.getByRole('button', { name: 'Save', exact: true }).press('Enter');
    await expect(page.getByText('The days are saved')).toBeVisible();
    await page.goto('/ledger/write');
    await page.getByLabel('Date').fill('31 oct 2026');
    await page.getByLabel('What it is for').fill('Insurance');
    await page.getByLabel('Account 1').selectOption('7900');
    await page.getByLabel('Account 2').selectOption('1000');
    await page.getByLabel('Debit').first().fill('5');
    await page.getByLabel('Credit').nth(1).fill('5');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText(/Nothing is posted up to 31 Oct 2026 any more/).first()).toBeVisible();
    await page.getByLabel('Date').fill('1 dec 2026');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Journal entry' })).toBeVisible();
  });
  await test.step('the year is closed: its result goes to retained earnings', async () => {
    await page.goto('/ledger/years');
    await main.getByRole('button', { name: 'Close 2026…' }).press('Enter');
    const slip = page.getByRole('dialog', { name: 'Close 2026' });
    await expect(slip.getByText('Cr Retained earnings')).toBeVisible();
    await expectAccessible(page, 'closing a year');
    await slip.getByRole('button', { name: 'Close 2026' }).press('Enter');
    await expect(main.getByText('2026, closed 15 Jan 2027 by Bookkeeper')).toBeVisible();
    await main.getByRole('link', { name: 'Income statement' }).click();
    await expect(page.getByRole('heading', { name: 'Income statement' })).toBeVisible();
    await page.goto('/ledger/reports/income-statement?from=2026-01-01&until=2026-12-31');
    const expenses = page.getByRole('table', { name: 'Income statement, expenses' });
    await expect(expenses.getByRole('row', { name: /7900/ })).toContainText('5.00');
    await expectAccessible(page, 'an income statement');
  });
  await test.step('and opened again with a reason', async () => {
    await page.goto('/ledger/years');
    await main.getByRole('button', { name: 'Reopen… 2026' }).click();
    const slip = page.getByRole('dialog', { name: 'Reopen 2026' });
    await slip.getByLabel('Why it is opened again').fill('an invoice was found');
    await slip.getByRole('button', { name: 'Reopen 2026' }).click();
    await expect(main.getByText('2026, opened again: an invoice was found')).toBeVisible();
    await expect(main.getByRole('button', { name: 'Close 2026…' })).toBeVisible();
  });
});

test('reports open what is behind them, print, and come back by their address; the audit file is saved', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/ledger/reports/income-against-cash?from=2026-07-01&until=2026-11-23');
  const bridge = page.getByRole('table', { name: 'Income against cash, from income to money received' });
  await expect(bridge.getByRole('row').last()).toContainText('Received from customers');
  await expectAccessible(page, 'a report');
  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save PDF' }).click();
  expect((await pdfText(await bytesOf(await pdf))).text).toMatch(/Income against cash[\s\S]*Received from customers/);
  await bridge.getByRole('link', { name: 'Owed by customers at the end' }).click();
  await expect(page.getByRole('heading', { name: '1100 Receivables' })).toBeVisible();
  await test.step('a chart shows it, and each figure stands in the table', async () => {
    await page.goBack();
    await expect(
      page.getByRole('img', { name: /From income to money received; the figures stand in the table/ }),
    ).toBeVisible();
  });
  await test.step('the return prints as its form, by code, jurisdiction and document', async () => {
    await page.goto('/tax');
    await expect(page.getByRole('table', { name: 'VAT 3 return, boxes' })).toBeVisible();
    const printed = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save PDF' }).click();
    expect((await pdfText(await bytesOf(await printed))).text).toMatch(
      /VAT on sales[\s\S]*By jurisdiction[\s\S]*INV-2026-/,
    );
  });
  await test.step('an account is added to the chart and offered; the code of another is refused', async () => {
    await page.goto('/ledger/chart');
    await page.getByRole('button', { name: 'Add an account' }).click();
    const slip = page.getByRole('dialog', { name: 'Add an account' });
    await slip.getByLabel('Code').fill('4000');
    await slip.getByLabel('Name').fill('Training');
    await slip.getByRole('button', { name: 'Save the account' }).click();
    await expect(slip.getByText(/4000/).first()).toBeVisible();
    await slip.getByLabel('Code').fill('4150');
    await expectAccessible(page, 'an account');
    await slip.getByRole('button', { name: 'Save the account' }).click();
    await expect(page.getByRole('row', { name: /4150 Training income/ })).toBeVisible();
    await page.goto('/ledger/write');
    await page.getByLabel('Account 1').selectOption({ label: '4150 Training' });
  });
  await test.step('the recapitulative list of the research vessel', async () => {
    await page.goto('/ledger/reports/recapitulative-list');
    const list = page.getByRole('table', { name: 'Recapitulative list, supplies inside the union' });
    await expect(list.getByRole('row', { name: /DE812345673 Reederei Nordlicht/ })).toContainText(
      /2,570\.00.*1,120\.00/,
    );
    await page.getByLabel('Until').fill('1 jan 2020');
    await expect(page.getByText('Enter days in their order.')).toBeVisible();
  });
  await test.step('exempt sales name their certificate', async () => {
    await page.goto('/ledger/reports/exempt-sales');
    await expect(page.getByRole('row', { name: /INV-2026-0024.*WA-R-000-SAMPLE.*31 Dec 2027/ })).toContainText(
      '2,570.00',
    );
  });
  await test.step('and the audit file', async () => {
    await page.goto('/ledger/audit-file');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the audit file' }).click();
    const xml = (await bytesOf(await saved)).toString();
    expect(xml).toMatch(
      /<AuditFile xmlns="urn:OECD[\s\S]*<InvoiceNo>INV-2026-0024<\/InvoiceNo>[\s\S]*<\/AuditFile>\s*$/,
    );
    await expect(page.getByText('The audit file is saved.')).toBeVisible();
  });
});

test('input tax is typed into the return by keyboard, filed with it, and stays as it was stated', async ({ page }) => {
  await openMade(page, 'one invoice');
  await page.clock.setSystemTime(new Date('2027-01-15T09:00:00'));
  await page.goto('/tax');
  await page
    .getByRole('toolbar', { name: 'Tax periods' })
    .getByRole('button', { name: /Nov–Dec/ })
    .click();
  const form = page.getByRole('table', { name: 'VAT 3 return, boxes' });
  await expect(form.getByRole('row', { name: /^T1/ })).toBeVisible();
  await page.getByRole('button', { name: 'Amounts from other books…' }).press('Enter');
  const slip = page.getByRole('dialog', { name: 'Amounts from other books, Nov–Dec 2026' });
  await slip.getByRole('button', { name: 'Add amount' }).press('Enter');
  await slip.getByRole('combobox', { name: /Box/ }).selectOption('T2');
  await slip.getByRole('textbox', { name: /Amount/ }).fill('41,50x');
  await slip.getByRole('button', { name: 'Save the amounts' }).press('Enter');
  await expect(slip.getByText(/Enter an amount such as/).first()).toBeVisible();
  await slip.getByRole('textbox', { name: /Amount/ }).fill('41.50');
  await slip.getByRole('button', { name: 'Save the amounts' }).press('Enter');
  await expect(slip.getByText(/Say where the amount comes from/).first()).toBeVisible();
  await slip.getByRole('textbox', { name: /Where it comes from/ }).fill('purchase ledger');
  await slip.getByRole('combobox', { name: /Account/ }).selectOption('7900');
  await expectAccessible(page, 'amounts of other books');
  await slip.getByRole('button', { name: 'Save the amounts' }).press('Enter');
  await expect(form.getByRole('row', { name: /^T2/ })).toContainText(/purchase ledger, against 7900.*41\.50/);
});
