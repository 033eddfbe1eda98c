import { expect, type Page, test } from '@playwright/test';
import { expectAccessible, openSample, savedBook } from './support';

const list = (page: Page) => page.getByRole('listbox', { name: 'Bank lines' });
const chosen = (page: Page) => list(page).getByRole('option', { selected: true });
const suggestions = (page: Page) => page.getByRole('region', { name: 'Suggestions' });

/** November at the bank: what customers of the sample pay, and what the bank does. */
const NOVEMBER = [
  'Date,Name,Details,Amount,Balance',
  '2026-11-03,Kilkerrin Bay Harbour Commissioners,INV-2026-0007,287.80,1287.80',
  '2026-11-05,Inishmaan Shellfish,inv 2026 0010 thank you,295.20,1583.00',
  '2026-11-06,,Quarterly account fee,-12.50,1570.50',
  '2026-11-09,ORCAS MARINA,payment,3610.00,5180.50',
  '2026-11-10,Reederei Nordlicht Forschung GmbH,"INV-2026-0020, INV-2026-0005",3050.00,8230.50',
  '2026-11-12,Nordkapp Havinstitutt,INV-2026-0021 less charges,2155.00,10385.50',
  '2026-11-17,,Deposit interest,3.10,10388.60',
  '2026-11-18,Clew Bay Salmon Co-op,on account,300.00,10688.60',
  '2026-11-20,,Transfer to safe,-1000.00,9688.60',
  '2026-11-21,Clew Bay Salmon Co-op,Q4,457.88,10146.48',
].join('\n');

async function readStatement(page: Page, name: string, text: string): Promise<void> {
  await page.getByRole('button', { name: 'Import a statement…' }).click();
  await page.getByLabel('File of the bank').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
}

/** Waits until the line that stands first is looked at, accepts its first suggestion, and waits for the next one. */
async function acceptFirst(page: Page, words: string, becomes: string): Promise<void> {
  await expect(chosen(page)).toContainText(words);
  await expect(suggestions(page)).toContainText(becomes);
  await page.keyboard.press('Enter');
  await expect(list(page).getByText(words, { exact: true })).toHaveCount(0);
  await expect(list(page)).toBeVisible();
}

test('a statement with ten lines of all kinds is matched by keyboard, and the account reconciled', async ({ page }) => {
  await openSample(page);
  await page.goto('/receipts/bank');
  await test.step('read the statement: its columns are guessed and shown', async () => {
    await readStatement(page, 'november.csv', NOVEMBER);
    const slip = page.getByRole('dialog', { name: /Import a statement/ });
    await expect(slip.getByLabel('What Details holds')).toHaveValue('text');
    await expect(slip).toContainText('10 lines, 3 Nov 2026 to 21 Nov 2026');
    await expect(slip).toContainText('from 1,000.00 to 10,146.48');
    await expectAccessible(page, 'reading a statement');
    await slip.getByRole('button', { name: 'Import' }).click();
    await expect(page.getByText('10 lines imported')).toBeVisible();
  });
  await test.step('imported by mistake it is removed, and imported again', async () => {
    await page.getByRole('button', { name: 'Statements', exact: true }).click();
    await page.getByRole('button', { name: 'Remove… november.csv' }).click();
    await page.getByRole('button', { name: 'Remove it' }).click();
    await expect(page.getByText('No statement is imported yet.')).toBeVisible();
    await readStatement(page, 'november.csv', NOVEMBER);
    await page.getByRole('dialog').getByRole('button', { name: 'Import' }).click();
    await expect(page.getByRole('row', { name: /november\.csv.*10 0 10,146\.48/ })).toBeVisible();
    await page.getByRole('button', { name: 'To match', exact: true }).click();
  });
  await test.step('one key a line where the first suggestion is right', async () => {
    await list(page).focus();
    await acceptFirst(page, 'INV-2026-0007', 'certain · names INV-2026-0007');
    await acceptFirst(page, 'inv 2026 0010 thank you', 'Receipt for INV-2026-0010');
  });
  await test.step('a fee is booked to its account and remembered', async () => {
    await expect(chosen(page)).toContainText('Quarterly account fee');
    await page.keyboard.press('b');
    const slip = page.getByRole('dialog', { name: 'Book this line' });
    await slip.getByLabel('Account, part 1').selectOption('7930');
    await slip.getByLabel('Always book lines like this').check();
    await slip.getByLabel('Lines whose text holds').fill('account fee');
    await page.keyboard.press('Control+Enter');
    await expect(slip).toBeHidden();
    await expect(page.getByRole('region', { name: 'Rules' })).toContainText('“account fee” out → 7930');
  });
  await test.step('name and sum, two invoices, a bank charge', async () => {
    await expect(list(page)).toBeFocused();
    await acceptFirst(page, 'payment', 'from Orcas Marina');
    await acceptFirst(page, 'INV-2026-0020, INV-2026-0005', 'Receipt for INV-2026-0020, INV-2026-0005');
    await expect(suggestions(page)).toContainText('less 15.00 bank charge');
    await page.keyboard.press('Enter');
    // It came before its invoice was issued, which is asked about.
    await expect(page.getByRole('dialog', { name: 'Is this right?' })).toContainText('INV-2026-0021 was issued later');
    await page.keyboard.press('Enter');
    await expect(list(page).getByText('INV-2026-0021 less charges', { exact: true })).toHaveCount(0);
    await expect(list(page)).toBeFocused();
  });
  await test.step('interest in parts, what was recorded before, and what stays open', async () => {
    await page.keyboard.press('b');
    const slip = page.getByRole('dialog', { name: 'Book this line' });
    await slip.getByLabel('Account, part 1').selectOption('4100');
    await slip.getByLabel('Amount, EUR, part 1').fill('3.00');
    await expect(slip).toContainText('0.10 of the line stays open.');
    await slip.getByRole('button', { name: 'Add part' }).click();
    await slip.getByLabel('Account, part 2').selectOption('7910');
    await page.keyboard.press('Control+Enter');
    await expect(slip).toBeHidden();
    await expect(list(page)).toBeFocused();
    await acceptFirst(page, 'on account', 'Recorded: REC-2026-0013');
    await expect(chosen(page)).toContainText('Transfer to safe');
    await expect(suggestions(page)).toContainText('Nothing fits');
    await expectAccessible(page, 'bank lines');
  });
  await test.step('the last match is undone by its key, and made again', async () => {
    await page.keyboard.press('ArrowDown');
    await acceptFirst(page, 'Q4', 'Receipt for INV-2026-0022');
    await page.keyboard.press('Control+z');
    await expect(page.getByText('The match is undone')).toBeVisible();
    await expect(list(page).getByText('Q4', { exact: true })).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await acceptFirst(page, 'Q4', 'Receipt for INV-2026-0022');
  });
  await test.step('the account is held against the statement, and the evidence kept', async () => {
    await page.getByRole('link', { name: 'Reconcile', exact: true }).click();
    const bridge = page.getByRole('table', { name: 'From the ledger to the statement' });
    await expect(bridge).toContainText('10,146.48');
    await expect(bridge.getByRole('row', { name: /Unmatched/ })).toContainText('−1,000.00');
    await page.getByLabel('Why the difference is accepted').fill('opening balance of the bank not entered yet');
    await page.getByRole('button', { name: 'Save the reconciliation' }).click();
    await expect(page.getByText(/opening balance of the bank not entered yet/)).toBeVisible();
    await expectAccessible(page, 'bank reconciliation');
  });
  // The book is sound: it saves to a file, which is checked whole.
  expect((await savedBook(page)).length).toBeGreaterThan(1000);
});

test('a file that is none is refused in words, and lines that are known are not taken twice', async ({ page }) => {
  await openSample(page);
  await page.goto('/receipts/bank');
  await readStatement(page, 'letter.csv', '<Invoice xmlns="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2"/>');
  await expect(page.getByText('This XML file is no bank statement: choose a camt.053 file.')).toBeVisible();
  const slip = page.getByRole('dialog', { name: /Import a statement/ });
  await expect(slip.getByRole('button', { name: 'Import' })).toBeDisabled();
  const file = (text: string) => ({ name: 'n.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const input = page.getByLabel('File of the bank');
  await input.setInputFiles(file('When,What,How much\n3.11.2026,Kilkerrin,"287,80"'));
  await expect(slip.getByRole('alert')).toContainText('Say which columns hold the date and the amount');
  await slip.getByLabel('What When holds').selectOption('date');
  await slip.getByLabel('What What holds').selectOption('name');
  await slip.getByLabel('What How much holds').selectOption('amount');
  await slip.getByLabel('Decimal separator').selectOption(',');
  await expect(slip).toContainText('1 lines, 3 Nov 2026');
  await slip.getByRole('button', { name: 'Import' }).click();
  await expect(page.getByText('1 line imported')).toBeVisible();
  // The columns are remembered for the next file of this form.
  await page.getByRole('button', { name: 'Import a statement…' }).click();
  await input.setInputFiles(file('When,What,How much\n3.11.2026,Kilkerrin,"287,80"'));
  await expect(slip.getByLabel('What How much holds')).toHaveValue('amount');
  await slip.getByRole('button', { name: 'Import' }).click();
  await expect(slip.getByText('All lines of this file are in the book already. Nothing was changed.')).toBeVisible();
});

test('all that are certain are accepted together after a look', async ({ page }) => {
  await openSample(page);
  await page.goto('/receipts/bank');
  await readStatement(page, 'november.csv', NOVEMBER);
  await page.getByRole('button', { name: 'Import' }).click();
  await page.getByRole('button', { name: 'Accept 3 certain…' }).click();
  const slip = page.getByRole('dialog', { name: 'Accept all that are certain' });
  await slip.getByLabel('Accept 5 Nov 2026 inv 2026 0010 thank you').uncheck();
  await expectAccessible(page, 'certain matches');
  await slip.getByRole('button', { name: 'Accept 2', exact: true }).click();
  await expect(page.getByText('2 lines are matched')).toBeVisible();
  await page.getByRole('button', { name: 'Matched', exact: true }).click();
  await expect(list(page).getByRole('option')).toHaveCount(2);
  await expect(page.getByRole('region', { name: 'Matched with' })).toContainText('REC-2026-0015');
  await page.getByRole('button', { name: 'Undo the match' }).click();
  await expect(list(page).getByRole('option')).toHaveCount(1);
});

test('an invoice is paid by card, taken into the book, and paid out less the fee', async ({ page }) => {
  await openSample(page);
  const origin = await page.evaluate(() => location.origin);
  await test.step('the page where customers pay, and a surcharge', async () => {
    await page.goto('/setup/business');
    await page.getByLabel('Page where customers pay').fill('somewhere');
    await page.getByRole('button', { name: 'Save the business' }).click();
    await expect(page.getByText('Enter the address of the page, beginning with http.')).toBeVisible();
    await page.getByLabel('Page where customers pay').fill(`${origin}/pay`);
    await page.getByLabel('Surcharge, percent').fill('2');
    await page.getByRole('button', { name: 'Save the business' }).click();
    await expect(page.getByText('The business is saved')).toBeVisible();
  });
  await test.step('an invoice with the surcharge as a charge with its tax', async () => {
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('clew');
    await page.getByRole('option', { name: /Clew Bay/ }).click();
    await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Mooring survey');
    await page.getByLabel('Price, line 1', { exact: true }).fill('100');
    await page.getByRole('button', { name: 'Add the card surcharge' }).click();
    await expect(page.getByLabel('Percent or amount of the charge, 1')).toHaveValue('2%');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  });
  await test.step('its link leads to the card page: declined, then paid', async () => {
    const opening = page.context().waitForEvent('page');
    await page.getByRole('link', { name: 'Page to pay by card' }).click();
    const card = await opening;
    await expect(card.getByRole('heading', { name: 'Pay INV-2026-0025' })).toBeVisible();
    await card.getByLabel('Card number').fill('4000 0000 0000 0002');
    await card.getByRole('button', { name: 'Pay 125.46 EUR' }).click();
    await expect(card.getByText('The card was declined. Try another card.')).toBeVisible();
    await expectAccessible(card, 'the card page');
    await card.getByLabel('Card number').fill('4000 0000 0000 0011');
    await card.getByRole('button', { name: 'Pay 125.46 EUR' }).click();
    await expect(card.getByText('Paid. Thank you.')).toBeVisible();
    await card.close();
  });
  await test.step('the book takes it in by itself', async () => {
    await page.clock.runFor(6000);
    await expect(page.getByRole('region', { name: 'Settlement' }).getByText(/CARD-SIM-/)).toBeVisible();
  });
  await test.step('its payout comes less the fee', async () => {
    await page.goto('/receipts/bank');
    const statement = 'Date,Details,Amount\n2026-12-02,CARD PAYOUT,123.20';
    await readStatement(page, 'december.csv', statement);
    await page.getByRole('button', { name: 'Import' }).click();
    await expect(suggestions(page)).toContainText('Payout of 1 card payment');
    await expect(suggestions(page)).toContainText('less 2.26 card fee');
    await list(page).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('Every line is matched.')).toBeVisible();
  });
});

test('an account that no statement speaks of is not reconciled until its balance is typed', async ({ page }) => {
  await openSample(page);
  await page.goto('/receipts/bank/reconcile');
  await expect(page.getByText('Enter the balance per statement to see the unexplained')).toBeVisible();
  const save = page.getByRole('button', { name: 'Save the reconciliation' });
  const balance = page.getByLabel('Balance per statement, EUR');
  await save.click();
  await expect(page.getByText('Enter the balance per statement.')).toBeVisible();
  await balance.fill('much');
  await save.click();
  await expect(balance).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByText('Reconciled so far')).toBeHidden();
  await balance.fill('1.00');
  const bridge = page.getByRole('table', { name: 'From the ledger to the statement' });
  await expect(bridge.getByRole('row', { name: /Balance per statement, typed/ })).toContainText('1.00');
  await page.getByLabel('Why the difference is accepted').fill('opening balance not entered yet');
  await save.click();
  await expect(page.getByText('Reconciled so far')).toBeVisible();

  const before = await bridge.getByRole('row', { name: /Balance per ledger/ }).innerText();
  await page.goto('/setup/bank-accounts/bank');
  await page.getByRole('button', { name: 'Enter the opening balance…' }).click();
  const slip = page.getByRole('dialog', { name: /^Opening balance of/ });
  await slip.getByLabel('At the end of').fill('30 jun 2026');
  await slip.getByLabel('Balance, EUR').fill('1200');
  await expectAccessible(page, 'opening balance of a bank account');
  await slip.getByLabel('Balance, EUR').press('Enter');
  await expect(page.getByText('at the end of 30 Jun 2026')).toBeVisible();
  await page.goto('/receipts/bank/reconcile');
  await expect(bridge.getByRole('row', { name: /Balance per ledger/ })).not.toHaveText(before);
  // The bank shows it in its own balance, never as a line.
  await expect(page.getByText('Opening balance of')).toHaveCount(0);
});
