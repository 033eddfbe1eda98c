import { expect, type Page, test } from '@playwright/test';
import { bytesOf, expectAccessible, more, openSample, pasteCells, pdfText } from './support';

const margin = (page: Page) => page.getByRole('complementary');
const description = (page: Page, n: number) =>
  page.getByRole('combobox', { name: `Item or description, line ${n}`, exact: true });

async function pickCustomer(page: Page, part: string, name: string) {
  await page.getByRole('combobox', { name: 'Customer' }).fill(part);
  await page.getByRole('option', { name: new RegExp(name) }).click();
}

async function newInvoice(page: Page) {
  await page.keyboard.press('Alt+n');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
}

test('quote, new version, accepted, two stages, invoices, part of one credited', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+q');
  await expect(page.getByRole('heading', { name: 'Quote', exact: true })).toBeVisible();
  await pickCustomer(page, 'clew', 'Clew Bay');
  await description(page, 1).fill('Mooring survey');
  await page.getByLabel('Quantity, line 1').fill('4');
  await page.getByLabel('Price, line 1', { exact: true }).fill('250');
  await page.getByRole('button', { name: 'Send QUO-2026-0002' }).click();
  await expect(page.getByRole('heading', { name: 'Quote QUO-2026-0002' })).toBeVisible();
  await expect(margin(page).getByText('A quote posts nothing.')).toBeVisible();

  await more(page, 'New version');
  await expect(page.getByText('A new version of')).toBeVisible();
  await page.getByLabel('Price, line 1', { exact: true }).fill('300');
  await page.getByRole('button', { name: /^Send QUO-2026-0002/ }).click();
  await expect(margin(page).getByText('v2')).toBeVisible();
  await page.getByRole('button', { name: 'Accepted…' }).click();
  await page.getByLabel('Accepted by').fill('Skipper');
  await page.getByRole('button', { name: 'Mark as accepted' }).click();
  await expect(page.getByText('Accepted on 23 Nov 2026: Skipper')).toBeVisible();
  await expectAccessible(page, 'a quote');

  await page.getByRole('button', { name: 'Invoice it…' }).click();
  await page.getByLabel('What is invoiced now').selectOption('percent');
  await page.getByLabel('Percent').fill('30');
  await page.getByRole('button', { name: 'Create the invoice' }).click();
  await expect(page.getByLabel('Price, line 1', { exact: true })).toHaveValue('360.00');
  await page.getByLabel('Order number').fill('CB-9');
  await page.getByRole('button', { name: 'Issue INV-2026-0025' }).click();
  await confirmIfAsked(page, 'INV-2026-0025');
  await page.getByRole('link', { name: 'QUO-2026-0002 v2' }).click();
  await page.getByRole('button', { name: 'Invoice it…' }).click();
  await expect(page.getByText(/Still to invoice: 840\.00/)).toBeVisible();
  // By quantity, the last of it asks for what is left of the sum: 840 over four.
  await page.getByLabel('What is invoiced now').selectOption('quantities');
  const quantity = page.getByLabel('Quantity now of Mooring survey');
  await quantity.fill('2');
  await expect(page.getByRole('cell', { name: '300.00', exact: true })).toBeVisible();
  await quantity.fill('4');
  await expect(page.getByText('210.00 instead of 300.00')).toBeVisible();
  await page.getByLabel('What is invoiced now').selectOption('rest');
  await page.getByRole('button', { name: 'Create the invoice' }).click();
  await expect(page.getByLabel('Price, line 1', { exact: true })).toHaveValue('840.00');
  // More than what is left is asked about before it is billed.
  await page.getByLabel('Price, line 1', { exact: true }).fill('900');
  await page.getByLabel('Order number').fill('CB-9');
  await page.getByRole('button', { name: 'Issue INV-2026-0026' }).click();
  await confirmIfAsked(page, 'INV-2026-0026', 'This invoices more than QUO-2026-0002 quoted for');
  await more(page, 'Credit…');
  await page.getByLabel('Reason, printed on the credit note').fill('Agreed price');
  await page.getByLabel('What is credited').selectOption('amount');
  await page.getByLabel('Amount with tax, EUR').fill('73.80');
  await page.getByRole('button', { name: 'Credit INV-2026-0026' }).click();
  await expect(page.getByRole('heading', { name: 'Credit note CN-2026-0002' })).toBeVisible();
  await expect(
    page
      .getByRole('main', { name: /CN-2026-0002/ })
      .getByText('60.00')
      .first(),
  ).toBeVisible();
  const family = page.getByRole('region', { name: 'Related documents' });
  for (const number of ['QUO-2026-0002 v2', 'INV-2026-0025', 'INV-2026-0026', 'CN-2026-0002'])
    await expect(family.getByText(number, { exact: true })).toBeVisible();
  await family.getByRole('link', { name: 'QUO-2026-0002 v2' }).click();
  await expect(page.getByRole('main').getByText(/invoiced · prices/)).toBeVisible();
});

/** Goes through the questions before an invoice is issued, however many there are. */
async function confirmIfAsked(page: Page, number: string, words?: string) {
  const issued = page.getByRole('heading', { name: `Invoice ${number}` });
  const again = page.getByRole('dialog').getByRole('button', { name: `Issue ${number}` });
  const told = words === undefined ? null : page.getByRole('dialog').getByText(words);
  for (let i = 0; i < 3; i++) {
    await expect(issued.or(again).first()).toBeVisible();
    if (await issued.isVisible()) return;
    const last = told !== null && (await told.isVisible());
    await again.click();
    await expect(again.or(issued).first()).toBeVisible();
    if (last) break;
  }
  await expect(issued).toBeVisible();
}

test('ten lines are written by keyboard alone, with few keys beyond the text', async ({ page }) => {
  await openSample(page);
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  await press('Alt+n');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  // A new document begins in its customer.
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
  await page.keyboard.type('clew bay');
  await expect(page.getByRole('option', { name: /Clew Bay/ })).toBeVisible();
  await press('Enter');
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await press('Alt+Enter');
  const items = [
    'Tide gauge',
    'Salinity',
    'Wave buoy h',
    'On-site',
    'Instrument',
    'Seal kit',
    'Tide tables',
    'Tide gauge',
  ];
  for (const [i, item] of [...items, 'Seal kit', 'On-site'].entries()) {
    await expect(description(page, i + 1)).toBeFocused();
    await page.keyboard.type(item);
    await expect(page.getByRole('listbox').getByRole('option').first()).toBeVisible();
    await press('Enter');
    await expect(page.getByLabel(`Quantity, line ${i + 1}`, { exact: true })).toBeFocused();
    // What stands in a cell is chosen as it is entered: a 1 that is there does not become 11.
    await page.keyboard.type(String(i + 1));
    await expect(page.getByLabel(`Quantity, line ${i + 1}`, { exact: true })).toHaveValue(String(i + 1));
    await press('Alt+Enter');
  }
  await press('Control+Enter');
  await confirmIfAsked(page, 'INV-2026-0025');
  await expect(page.getByRole('table', { name: 'Lines' }).getByRole('row')).toHaveCount(11);
  expect(keys, 'keys beyond the text').toBeLessThanOrEqual(35);
});

test('fifty rows are pasted from a spreadsheet, and moved, copied and discounted', async ({ page }) => {
  await openSample(page);
  await newInvoice(page);
  await pickCustomer(page, 'inish', 'Inishmaan');
  const rows = Array.from({ length: 50 }, (_, i) => `Sensor ${i + 1}\t${i + 1}\t10.00`).join('\n');
  await description(page, 1).focus();
  await pasteCells(page, rows);
  await expect(page.getByText('50 lines pasted')).toBeVisible();
  await expect(description(page, 50)).toHaveValue('Sensor 50');
  // 1 + … + 50 = 1275 pieces at 10.00.
  await expect(page.getByRole('main').getByText('12,750.00').first()).toBeVisible();
  await description(page, 2).focus();
  await page.keyboard.press('Alt+Insert');
  await expect(description(page, 3)).toHaveValue('Sensor 2');
  await description(page, 3).focus();
  await page.keyboard.press('Alt+Delete');
  await expect(description(page, 3)).toHaveValue('Sensor 3');
  await page.keyboard.press('Control+z');
  await expect(description(page, 3)).toHaveValue('Sensor 2');
  await expect(description(page, 3)).toBeFocused();
  await page.keyboard.press('Alt+Delete');
  // What was typed since is not touched.
  await page.getByLabel('Order number').fill('A-7');
  await page.getByRole('button', { name: 'Bring back Sensor 2' }).click();
  await expect(description(page, 3)).toHaveValue('Sensor 2');
  await expect(page.getByLabel('Order number')).toHaveValue('A-7');
  await page.keyboard.press('Alt+Delete');
  await expect(description(page, 3)).toHaveValue('Sensor 3');
  await page.getByRole('button', { name: 'Add a discount' }).click();
  await page.getByLabel('Percent or amount of the discount, 1').fill('10%');
  await page.getByRole('button', { name: 'Add a charge' }).click();
  await page.getByLabel('Percent or amount of the charge, 2').fill('25');
  await expect(page.getByRole('main').getByText('−1,275.00').first()).toBeVisible();
  await page.getByRole('main').getByRole('button', { name: '11,500.00' }).click();
  await expect(page.getByRole('region', { name: 'Workings — net' }).getByText('net of all')).toBeVisible();
  await expectAccessible(page, 'a draft with discounts and charges');
});

test('an invoice in crowns shows the tax at home, prints in the customer’s words, and posts the rate', async ({
  page,
}) => {
  await openSample(page);
  await newInvoice(page);
  await pickCustomer(page, 'ballyv', 'Ballyvaughan');
  await page.getByLabel('Buyer reference').fill('BHB-8000');
  await page.getByText(/^More: subject/).click();
  await page.getByRole('combobox', { name: 'Currency' }).selectOption('NOK');
  await expect(page.getByLabel(/1 EUR in NOK, rate of 1 Jul 2026/)).toBeVisible();
  await description(page, 1).fill('Survey');
  await page.getByLabel('Price, line 1', { exact: true }).fill('11640');
  await expect(page.getByText(/Tax in EUR, 1 EUR = 11.64 NOK/)).toBeVisible();
  await expect(margin(page).getByText('1,230.00')).toBeVisible();
  await page.getByRole('button', { name: 'Issue INV-2026-0025' }).click();
  await confirmIfAsked(page, 'INV-2026-0025');
  await page.getByRole('button', { name: 'Print preview' }).click();
  await page.getByLabel('Language').selectOption('de');
  const download = page.waitForEvent('download');
  await page.getByRole('dialog').getByRole('button', { name: 'Save PDF' }).click();
  const { text } = await pdfText(await bytesOf(await download));
  for (const words of ['Rechnung', '14.317,20', 'Steuer in EUR: 230,00', 'Siegel']) expect(text).toContain(words);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Record a receipt' }).click();
  await expect(page.getByLabel('Currency', { exact: true })).toHaveValue('NOK');
  await page.getByLabel('1 EUR in NOK').fill('11.50');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /Receipt REC/ })).toBeVisible();
  await expect(margin(page).getByText('Cr Exchange differences')).toBeVisible();
});

test('a wrong invoice is corrected in one step, a double one cancelled, and the seals hold', async ({ page }) => {
  await openSample(page);
  await page
    .getByRole('main')
    .getByRole('link', { name: /INV-(2026-)?0022/ })
    .click();
  await more(page, 'Correct it…');
  await page.getByRole('button', { name: 'Credit and reissue' }).click();
  await expect(page.getByText('Enter the reason for the credit.')).toBeVisible();
  await page.getByLabel('Reason, printed on the credit note').fill('Wrong hours');
  await page.getByRole('button', { name: 'Credit and reissue' }).click();
  await expect(page.getByText('Corrects')).toBeVisible();
  await page.getByLabel('Quantity, line 1').fill('6');
  await page.getByRole('button', { name: 'Issue INV-2026-0025' }).click();
  await confirmIfAsked(page, 'INV-2026-0025');
  await more(page, 'Copy into a new draft');
  await page.getByRole('button', { name: 'Issue INV-2026-0026' }).click();
  await confirmIfAsked(page, 'INV-2026-0026');
  await more(page, 'Cancel it…');
  await page.getByLabel('Reason').fill('Copied by mistake');
  await page.getByRole('button', { name: 'Cancel INV-2026-0026' }).click();
  await expect(page.getByText('Cancelled on 23 Nov 2026: Copied by mistake')).toBeVisible();
  await page.getByRole('link', { name: 'History with before and after' }).click();
  await expect(page.getByText('cancelled: INV-2026-0026')).toBeVisible();
  await page.getByRole('link', { name: 'Seals' }).click();
  await page.getByRole('button', { name: 'Verify all seals' }).click();
  await expect(page.getByRole('row', { name: /invoices 26 .*whole/ })).toBeVisible();
  await expectAccessible(page, 'the seals');
});

test('among many documents any part of a word finds at once, views are kept, and the list goes out', async ({
  page,
}) => {
  await openSample(page);
  // Copies of one document under other numbers and words, as the store would have written them.
  await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve, reject) => {
      const asked = indexedDB.open('able-ledger');
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(asked.error);
    });
    const work = db.transaction(['documents', 'vocabulary'], 'readwrite');
    const documents = work.objectStore('documents');
    const request = documents.index('number').get('INV-2026-0022');
    request.onsuccess = () => {
      for (let i = 1; i <= 1000; i++) {
        const word = `krill${String(i).padStart(5, '0')}`;
        const number = `OLD-${i}`;
        const row = { ...request.result, id: `many-${i}`, number, words: [word], seriesId: 'old', position: i };
        documents.put(row);
        const endings = Array.from({ length: word.length - 1 }, (_, k) => word.slice(k));
        work.objectStore('vocabulary').put({ word, count: 1, endings });
      }
    };
    await new Promise((resolve) => {
      work.oncomplete = resolve;
    });
    db.close();
  });
  await page.getByRole('link', { name: 'Sales' }).click();
  await page.getByLabel('Find in all documents').fill('ill00718');
  await expect(page.getByRole('link', { name: 'OLD-718' })).toBeVisible();
  await page.getByLabel('Find in all documents').fill('');
  await page.getByLabel('State').selectOption('overdue');
  await expect(page.getByRole('table', { name: 'Documents' }).getByText('overdue').first()).toBeVisible();
  await page.getByRole('button', { name: 'Columns and view…' }).click();
  await page.getByRole('checkbox', { name: 'References' }).check();
  await page.getByLabel('Save this view as').fill('Who owes');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByLabel('Saved view')).toHaveValue(/.+/);
  const csv = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const text = (await bytesOf(await csv)).toString('utf8');
  expect(text.split('\r\n')[0]).toBe('kind,number,customer,issued,due,state,open,reference,net,tax,total,currency');
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByLabel('Kind').selectOption('quote');
  await page.getByRole('button', { name: 'Print the list…' }).click();
  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'One PDF' }).click();
  const printed = await pdfText(await bytesOf(await pdf));
  expect(printed.pages).toBe(2);
  expect(printed.text).toContain('version 2');
  await expectAccessible(page, 'the register');
});
