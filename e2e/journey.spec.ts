import { expect, type Page, test } from '@playwright/test';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import {
  bytesOf,
  expectAccessible,
  figuresIn,
  more,
  onTheDay,
  payInto,
  pdfText,
  ribbonTax,
  typeCells,
} from './support';

/** One bookkeeper's path from an empty browser to a filed period and a saved book, by keyboard where they would. */
test('from a tax code to a filed tax period', async ({ page, browser }) => {
  test.setTimeout(180_000);
  await onTheDay(page);

  await test.step('begin an empty book', async () => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Begin a book' }).click();
    await page.getByRole('button', { name: 'Begin the book' }).click();
    for (const words of [
      'Enter the name of the business.',
      'Enter the town or city.',
      'Enter the registration number.',
    ])
      await expect(page.getByText(words)).toBeVisible();
    await page.getByLabel('Country', { exact: true }).selectOption('IE');
    await page.getByLabel('Name of the business').fill('Skerry Light Optics (sample)');
    await page.getByLabel('Street and number').fill('2 Lamp Lane');
    await page.getByLabel('Postal code').fill('D00 X0X0');
    await page.getByLabel('Town or city').fill('Skerries');
    await page.getByLabel('VAT number').fill('IE8100234D');
    await page.getByLabel('Start of the first tax period').fill('2026-09-15');
    await page.getByText('More: short name, authority, currency, taxes').click();
    await page.getByLabel('Taxes begin with').selectOption('rate');
    await page.getByLabel('Standard rate, percent').fill('23');
    await page.getByRole('button', { name: 'Begin the book' }).click();
    await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  });

  await test.step('set up the payment account, a code and an item, with errors at the field', async () => {
    await page.keyboard.press('Alt+6');
    await page.getByLabel('Scheme', { exact: true }).fill('9935');
    await page.getByLabel('Id in that scheme').fill('IE8100234D');
    await page.getByRole('button', { name: 'Save the business' }).click();
    await expect(page.getByText('The business is saved')).toBeVisible();
    await payInto(page, 'IE31 CPTB 9900 0012 3456 78');

    await page.getByRole('link', { name: 'Jurisdictions and rates' }).click();
    await page.getByRole('link', { name: 'Ireland' }).click();
    const vat = page.getByRole('region', { name: 'VAT of Ireland' });
    await vat.getByRole('button', { name: 'Add rate' }).click();
    await vat.getByLabel('Class, rate 2').fill('repair');
    await vat.getByLabel('From, rate 2').fill('2003-01-01');
    await vat.getByLabel('Percent, rate 2').fill('13.5');
    await vat.getByRole('button', { name: 'Save VAT' }).click();
    await expect(page.getByText('VAT is saved')).toBeVisible();

    await page.getByRole('link', { name: 'Tax codes' }).click();
    await page.getByRole('button', { name: 'New tax code' }).click();
    await page.getByLabel('Code', { exact: true }).fill('IE-R');
    await page.getByLabel('Name, as printed').fill('Reduced {rate}');
    await page.getByRole('button', { name: 'Save the tax code' }).click();
    await expect(page.getByText('Name at least one tax that this code charges.')).toBeVisible();
    await page.getByRole('button', { name: 'Add tax' }).click();
    await page.getByLabel('Tax, tax 1').selectOption('IE-VAT');
    await page.getByLabel('Class, tax 1').selectOption('repair');
    await page.getByRole('button', { name: 'Save the tax code' }).click();
    await expect(page.getByRole('row', { name: /IE-R/ })).toContainText('13.5 %');

    await page.getByRole('link', { name: 'Decision table' }).click();
    await page.getByRole('button', { name: 'New row' }).click();
    await page.getByLabel('Name of the row').fill('Repairs');
    await page.getByLabel('repair', { exact: true }).check();
    await page.getByLabel('Then').selectOption('code');
    await page.getByLabel('The code').selectOption('IE-R');
    await page.getByRole('button', { name: 'Save the row' }).click();
    await expect(page.getByRole('button', { name: 'Repairs', exact: true })).toBeVisible();

    await page.keyboard.press('Alt+2');
    await page.getByRole('link', { name: 'Items', exact: true }).click();
    await page.getByRole('button', { name: 'New item' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Lens repair');
    await page.getByLabel('Price, EUR').fill('62.00');
    await page.getByLabel('Unit').selectOption('HUR');
    await page.getByLabel('Tax class').selectOption('repair');
    await page.getByLabel('What is supplied').selectOption('service');
    await page.getByRole('button', { name: 'Save the item' }).click();
    await expect(page.getByRole('link', { name: 'Lens repair' })).toBeVisible();
  });

  await test.step('write an invoice by keyboard, with a new customer made on the way', async () => {
    await page.keyboard.press('Alt+2');
    await expect(page.getByRole('heading', { name: 'Sales' })).toBeVisible();
    await page.keyboard.press('Alt+n');
    const customer = page.locator('input[data-field=customerId]');
    await customer.focus();
    await page.keyboard.type('Rockabill Ferries');
    await expect(page.getByRole('option', { name: 'New customer “Rockabill Ferries”' })).toBeVisible();
    await page.keyboard.press('Enter');
    await page.getByLabel('Street and number').fill('North Pier');
    await page.getByLabel('Town or city').fill('Skerries');
    await page.getByRole('button', { name: 'Add tax number' }).click();
    await page.getByLabel('Tax number, tax number 1').fill('IE8100345M');
    await page.getByText('More: terms, language, prices').click();
    await page.getByLabel('E-invoice scheme').fill('9935');
    await page.getByLabel('E-invoice id').fill('IE8100345M');
    await page.getByRole('button', { name: 'Save the customer' }).press('Enter');
    await expect(customer).toHaveValue('Rockabill Ferries');
    // The focus is on the issue date; Enter goes on through the sheet.
    await expect(page.getByLabel('Issue date')).toBeFocused();
    await typeCells(page, '20/10', '14d', 'PO-9', '', 'RF-100');
    await expect(page.getByLabel('Due')).toHaveValue('3 Nov 2026 · 14d');
    await expect(page.getByRole('combobox', { name: 'Item or description, line 1' })).toBeFocused();
    await page.keyboard.type('lens');
    await expect(page.getByRole('option', { name: /Lens repair/ })).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Quantity, line 1')).toBeFocused();
    await typeCells(page, '1.5', '', '10%', '');
    await typeCells(page, 'Lamp housing, brass', '3', '19.99', '10%', '');
    await expect(page.getByLabel('Tax, line 2')).toHaveValue('STD');
    const sheet = page.getByRole('main', { name: 'Draft invoice' });
    // 1.5 × 62.00 − 9.30 = 83.70 at 13.5 %; 3 × 19.99 − 6.00 = 53.97 at 23 %.
    for (const figure of ['83.70', '53.97', '137.67', '11.30', '12.41', '161.38'])
      await expect(sheet.getByText(figure).first()).toBeVisible();
    const margin = page.getByRole('complementary', { name: 'Margin' });
    await page.getByLabel('Price, line 2').focus();
    await expect(margin.getByText('3 × 19.99')).toBeVisible();
    await expect(margin.getByText('Dr Receivables')).toBeVisible();
    await expect(margin.getByText(/checks passed/)).toBeVisible();
    await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
    await expectAccessible(page, 'draft');
  });

  await test.step('switch the price mode and back: the figures follow', async () => {
    const sheet = page.getByRole('main', { name: 'Draft invoice' });
    await page.getByLabel('Price mode').selectOption('gross');
    await page.getByRole('button', { name: 'Keep the prices' }).click();
    await expect(sheet.getByText('137.67').first()).toBeVisible();
    await expect(sheet.getByText('VAT 23 % on 43.88')).toBeVisible();
    await page.getByLabel('Price mode').selectOption('net');
    await page.getByRole('button', { name: 'Keep the prices' }).click();
    await expect(sheet.getByText('161.38')).toBeVisible();
  });

  await test.step('survive a reload: drafts keep themselves', async () => {
    await expect(page.getByRole('status').getByText(/^saved/)).toBeVisible();
    await page.getByRole('link', { name: /Draft/ }).click();
    await page.reload();
    await expect(page.getByLabel('Quantity, line 1')).toHaveValue('1.5');
  });

  let invoice = '';
  await test.step('issue it', async () => {
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0001' })).toBeVisible();
    invoice = 'Invoice INV-2026-0001';
    const margin = page.getByRole('complementary', { name: 'Margin' });
    await expect(margin.getByText('Reported in Sep–Oct 2026.')).toBeVisible();
    expect(await ribbonTax(page, 'Sep–Oct')).toBe('23.71');
    await expectAccessible(page, 'issued document');
  });

  await test.step('print it: the PDF says every figure on the screen', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save PDF' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('Invoice-INV-2026-0001.pdf');
    const { text, pages } = await pdfText(await bytesOf(download));
    expect(pages).toBe(1);
    const figures = await figuresIn(page, invoice);
    expect(figures.length).toBeGreaterThan(6);
    for (const figure of figures) expect(text).toContain(figure);
    for (const words of [
      'Skerry Light Optics',
      'Rockabill Ferries',
      'IE31 CPTB 9900 0012 3456 78',
      'RF-100',
      'Page 1 of 1',
    ])
      expect(text).toContain(words);
    await page.getByRole('button', { name: 'Print preview' }).click();
    await expect(page.getByRole('dialog').locator('iframe')).toBeVisible();
    await page.keyboard.press('Escape');
  });

  await test.step('save it as UBL: well-formed, with the same sums', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save UBL file' }).click(),
    ]);
    const xml = (await bytesOf(download)).toString('utf8');
    expect(XMLValidator.validate(xml)).toBe(true);
    const { Invoice } = new XMLParser({ parseTagValue: false, removeNSPrefix: true }).parse(xml);
    expect(Invoice.LegalMonetaryTotal).toMatchObject({
      LineExtensionAmount: '137.67',
      TaxExclusiveAmount: '137.67',
      TaxInclusiveAmount: '161.38',
      PayableAmount: '161.38',
    });
    expect(Invoice.TaxTotal.TaxSubtotal.map((s: { TaxAmount: string }) => s.TaxAmount).sort()).toEqual([
      '11.30',
      '12.41',
    ]);
    // A strict parser of the browser opens it too.
    expect(
      await page.evaluate(
        (text) => new DOMParser().parseFromString(text, 'application/xml').querySelector('parsererror'),
        xml,
      ),
    ).toBeNull();
  });

  await test.step('correct a wrong one by a full credit note', async () => {
    await writeInvoice(page, '2026-10-25', 'Wrong lamp', '500');
    await more(page, 'Credit…');
    await page.getByRole('button', { name: 'Credit INV-2026-0002' }).click();
    await expect(page.getByText('Enter the reason for the credit.')).toBeVisible();
    await page.getByLabel('Reason, printed on the credit note').fill('Not what was ordered');
    await page.getByLabel('Date').fill('26/10');
    await page.getByRole('button', { name: 'Credit INV-2026-0002' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Credit note CN-2026-0001' })).toBeVisible();
    expect(await ribbonTax(page, 'Sep–Oct')).toBe('23.71');
  });

  await test.step('receive part, then the rest', async () => {
    await page
      .getByRole('toolbar', { name: 'Tax periods' })
      .getByRole('button', { name: /Sep–Oct/ })
      .click();
    await page.getByRole('link', { name: /INV-(2026-)?0001/ }).click();
    await page.getByRole('button', { name: 'Record a receipt' }).click();
    await expect(page.getByLabel('Paid on INV-2026-0001')).toHaveValue('161.38');
    await page.getByLabel('Paid on INV-2026-0001').fill('999');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('▲ This is more than is open on INV-2026-0001')).toBeVisible();
    await page.getByLabel('Paid on INV-2026-0001').fill('100');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Receipt REC-2026-0001' })).toBeVisible();
    await page.getByRole('link', { name: 'INV-2026-0001' }).click();
    await expect(page.getByText('overdue, part-paid ·')).toBeVisible();
    // The main thing is to send it; once it is on its way, to record what comes in.
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('button', { name: 'Send INV-2026-0001' })).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'E-invoice', exact: true })).toBeVisible();
    await page.keyboard.press('Control+Enter');
    await expect(page.getByLabel('Paid on INV-2026-0001')).toHaveValue('61.38');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Receipt REC-2026-0002' })).toBeVisible();
    await page.getByRole('link', { name: 'INV-2026-0001' }).click();
    await expect(page.getByRole('main').getByText('paid ·')).toBeVisible();
    await expectAccessible(page, 'receipts');
  });

  await test.step('prove the period and open what is behind its figures', async () => {
    await page.keyboard.press('Alt+4');
    await expect(page.getByRole('heading', { name: 'Return Sep–Oct 2026' })).toBeVisible();
    await expect(page.getByText('All three agree.')).toBeVisible();
    const form = page.getByRole('table', { name: 'VAT 3 return, boxes' });
    await expect(form.getByRole('row', { name: /^T1 VAT on sales/ })).toContainText('23.71');
    await page.getByRole('button', { name: 'Box T1: open the documents' }).press('Enter');
    await expect(page.getByRole('region', { name: 'Documents behind Box T1' }).getByRole('row')).toHaveCount(6);
    await page.getByRole('button', { name: 'By tax code' }).click();
    await page.getByRole('button', { name: 'Tax of Standard 23: open the documents' }).press('Enter');
    const behind = page.getByRole('region', { name: 'Documents behind Standard 23' });
    await expect(behind.getByRole('row')).toHaveCount(5);
    await expect(behind.getByText('\u2212115.00')).toBeVisible();
    await expectAccessible(page, 'return');
  });

  await test.step('a journal in the tax account is named as a difference', async () => {
    await page.keyboard.press('Control+k');
    await page.keyboard.type('new jour');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'New journal' })).toBeVisible();
    await page.getByLabel('Date').fill('2026-10-30');
    await page.getByLabel('What it is for').fill('Own use');
    await page.getByLabel('Account 1').selectOption('7900');
    await page.getByLabel('Account 2').selectOption('2200');
    await page.getByLabel('Debit').first().fill('5');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('Debits and credits must be equal.')).toBeVisible();
    await page.getByLabel('Credit').nth(1).fill('5');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Journal entry' })).toBeVisible();
    await page.keyboard.press('Alt+4');
    await expect(page.getByText('a manual journal on the tax account that nothing has cleared yet')).toBeVisible();
  });

  await test.step('file it, with a word on the difference', async () => {
    await page.getByRole('button', { name: 'File the Sep–Oct 2026 return' }).click();
    await page.getByRole('button', { name: 'File Sep–Oct 2026' }).click();
    await expect(page.getByText('Enter why the differences are accepted.')).toBeVisible();
    await page.getByLabel('The reconciliation or the form shows differences').fill('Paid with the next return');
    await page.getByRole('button', { name: 'File Sep–Oct 2026' }).press('Enter');
    await expect(page.getByText(/filed 23 Nov 2026 by Bookkeeper/)).toBeVisible();
    await expect(page.getByText('Differences accepted: Paid with the next return')).toBeVisible();
  });

  await test.step('a later document dated into it goes to the next period, marked late', async () => {
    await writeInvoice(page, '2026-10-28', 'Forgotten lamp', '200');
    await expect(page.getByText('Reported in Nov–Dec 2026, late')).toBeVisible();
    expect(await ribbonTax(page, 'Sep–Oct')).toBe('23.71');
    expect(await ribbonTax(page, 'Nov–Dec')).toBe('46.00');
  });

  await test.step('the ledger: trial balance, account, journal', async () => {
    await page
      .getByRole('toolbar', { name: 'Tax periods' })
      .getByRole('button', { name: /Nov–Dec/ })
      .click();
    await page.keyboard.press('Alt+5');
    await page.getByRole('link', { name: 'Trial balance' }).click();
    const totals = page
      .getByRole('table', { name: 'Trial balance, accounts' })
      .getByRole('row')
      .last()
      .getByRole('cell');
    await expect(totals.nth(3)).toHaveText(/\d/);
    await expect(totals.nth(3)).toHaveText(await totals.nth(4).innerText());
    await expectAccessible(page, 'trial balance');
    await page.getByRole('main').getByRole('link', { name: '1100 Receivables' }).click();
    await expect(page.getByText('Brought forward')).toBeVisible();
    await page.getByRole('link', { name: /INV-2026-0003/ }).click();
    await expect(page.getByRole('rowheader', { name: /INV-2026-0003/ })).toBeVisible();
    await page
      .getByRole('main')
      .getByRole('link', { name: /INV-2026-0003/ })
      .click();
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0003' })).toBeVisible();
  });

  await test.step('save the book and open it in an empty browser: identical', async () => {
    await page.goto('/setup/book');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save the book to a file' }).click(),
    ]);
    const saved = await bytesOf(download);
    const other = await (await browser.newContext()).newPage();
    await onTheDay(other);
    await other.goto('/');
    await other
      .getByLabel('Open a book file')
      .setInputFiles({ name: 'book.able', mimeType: 'application/zip', buffer: saved });
    await expect(other.getByRole('heading', { name: 'Today' })).toBeVisible();
    const contents = (p: Page) =>
      p.evaluate(async () => {
        const request = indexedDB.open('able-ledger');
        const db = await new Promise<IDBDatabase>((resolve) => {
          request.onsuccess = () => resolve(request.result);
        });
        // Keys in one order, so that only what is held counts; both go on asking for answers meanwhile.
        const plain = (key: string, v: unknown) =>
          key === 'dueAt' || key === 'asked'
            ? ''
            : typeof v === 'bigint'
              ? `${v}n`
              : v !== null && typeof v === 'object' && !Array.isArray(v)
                ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
                : v;
        const tables: Record<string, string[]> = {};
        for (const name of db.objectStoreNames) {
          const all = db.transaction(name).objectStore(name).getAll();
          const rows = await new Promise<unknown[]>((resolve) => {
            all.onsuccess = () => resolve(all.result);
          });
          tables[name] = rows.map((row) => JSON.stringify(row, plain)).sort();
        }
        return tables;
      });
    const [here, there] = [await contents(page), await contents(other)];
    expect(Object.keys(here).length).toBe(59);
    expect(there).toEqual(here);
    expect(await ribbonTax(other, 'Sep–Oct')).toBe('23.71');
    await other.context().close();
  });
});

/** Writes and issues a one-line invoice for the customer of the journey. */
async function writeInvoice(page: Page, date: string, words: string, price: string): Promise<void> {
  await page.keyboard.press('Alt+2');
  await expect(page.getByRole('heading', { name: 'Sales' })).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').focus();
  await page.keyboard.type('rockabill');
  await expect(page.getByRole('option', { name: /Rockabill Ferries Skerries/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await typeCells(page, date, '', `PO ${words}`, '', '');
  await typeCells(page, words, '', price, '', '');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /Invoice INV-2026-/ })).toBeVisible();
}
