import { expect, type Page, test } from '@playwright/test';
import { expectAccessible, openSample } from './support';

/* The sample's quarter by keyboard: from the bank statement to a return that is filed, paid and proven. */

const NOVEMBER = [
  'Date,Name,Details,Amount,Balance',
  '2026-11-03,Kilkerrin Bay Harbour Commissioners,INV-2026-0007,287.80,1287.80',
  '2026-11-05,Inishmaan Shellfish,inv 2026 0010 thank you,295.20,1583.00',
].join('\n');

/** Goes somewhere by the palette. */
async function goTo(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(words);
  await expect(page.getByRole('option', { name: words }).first()).toBeVisible();
  await page.keyboard.press('Enter');
}

const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).press('Enter');

test('the sample’s quarter from the bank statement to filed, paid and proven, by keyboard', async ({ page }) => {
  await openSample(page);
  await test.step('what the bank says is matched', async () => {
    await goTo(page, 'Bank lines, match and read statements');
    await press(page, 'Import a statement…');
    const file = { name: 'november.csv', mimeType: 'text/csv', buffer: Buffer.from(NOVEMBER) };
    await page.getByLabel('File of the bank').setInputFiles(file);
    await page.getByRole('dialog').getByRole('button', { name: 'Import' }).press('Enter');
    await press(page, /^Accept 2 certain/);
    await page.getByRole('dialog').getByRole('button', { name: 'Accept 2', exact: true }).press('Enter');
    await expect(page.getByText('2 lines are matched')).toBeVisible();
  });
  await test.step('the closing of the period names a journal that nothing explains', async () => {
    await page.keyboard.press('Alt+1');
    await expect(page.getByRole('list', { name: 'At a glance' })).toBeVisible();
    await expectAccessible(page, 'today at a glance');
    await page.getByRole('link', { name: 'Reconcile and file Sep–Oct 2026' }).press('Enter');
    const closing = page.getByRole('region', { name: 'Closing the period' });
    await expect(closing.getByText('1 difference to explain, named beside')).toBeVisible();
    await expect(closing.getByText(/tax point 28 Aug 2026, whose own return was filed/)).toBeVisible();
    await expectAccessible(page, 'closing a period');
  });
  await test.step('it is taken back', async () => {
    await page.getByRole('link', { name: 'Tax on own use, to be checked' }).press('Enter');
    await press(page, 'Take it back…');
    const slip = page.getByRole('dialog');
    await slip.getByLabel('On').fill('1 oct 2026');
    await page.keyboard.press('Enter');
    await expect(slip.getByText('Enter a day that is not before the journal’s own.')).toBeVisible();
    await slip.getByLabel('On').fill('31 oct 2026');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Tax on own use, to be checked, taken back')).toBeVisible();
  });
  await test.step('the return is filed and paid', async () => {
    await goTo(page, 'Close a tax period');
    const closing = page.getByRole('region', { name: 'Closing the period' });
    await expect(closing.getByText('documents, tax entries and ledger agree')).toBeVisible();
    await press(page, 'File the Sep–Oct 2026 return');
    await page.getByRole('dialog').getByRole('button', { name: 'File Sep–Oct 2026' }).press('Enter');
    await expect(page.getByText(/filed 23 Nov 2026/).first()).toBeVisible();
    // Locked: what is filed has no closing any more.
    await expect(page.getByRole('button', { name: 'Closing', exact: true })).toHaveCount(0);
    await press(page, 'Record a payment…');
    const slip = page.getByRole('dialog');
    await slip.getByLabel('Reference').fill('VAT-SO');
    await expect(slip.getByText('Dr Tax payable')).toBeVisible();
    await slip.getByRole('button', { name: 'Record the payment' }).press('Enter');
    await expect(page.getByText(/Paid 23 Nov 2026 VAT-SO/)).toBeVisible();
  });
  await test.step('nothing of it is left to pay, and the book is proven', async () => {
    await goTo(page, 'Owed to authorities');
    const owed = page.getByRole('table', { name: /by return/ });
    await expect(owed.getByRole('row', { name: /Jul–Aug 2026/ })).toBeVisible();
    await expect(owed.getByRole('row', { name: /Sep–Oct 2026/ })).toHaveCount(0);
    await goTo(page, 'Prove the book');
    await press(page, 'Prove the book');
    await expect(page.getByText('All of it holds.')).toBeVisible({ timeout: 30_000 });
  });
});

test('a journal is kept, posts itself each month, and its files stay with it', async ({ page }) => {
  await openSample(page);
  await page.goto('/ledger/write');
  await page.getByLabel('Date').fill('31 aug 2026');
  await page.getByLabel('What it is for').fill('Rent of the yard');
  await page.getByLabel('Account 1').selectOption('7930');
  await page.getByLabel('Debit').first().fill('400');
  await page.getByLabel('Account 2').selectOption('3000');
  await page.getByLabel('Credit').nth(1).fill('400');
  await page.getByLabel('Post it again').selectOption('1');
  await page.getByRole('button', { name: /Post the journal/ }).click();
  await expect(page.getByText('Enter a name.')).toBeVisible();
  await page.getByLabel('Keep as a template named').fill('Rent');
  await expectAccessible(page, 'new journal');
  await page.getByRole('button', { name: /Post the journal/ }).click();
  await expect(page.getByText('The journal is posted')).toBeVisible();
  await page
    .getByRole('complementary', { name: 'Margin' })
    .locator('input[type=file]')
    .setInputFiles({ name: 'lease.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4') });
  await expect(page.getByText('lease.pdf')).toBeVisible();
  await test.step('September’s and October’s posted themselves', async () => {
    await page.goto('/ledger/reports/general-ledger?from=2026-08-01&until=2026-11-23&of=7930');
    const account = page.getByRole('table', { name: /7930/ });
    await expect(account.getByText('Rent of the yard')).toHaveCount(3);
    await expect(account.getByRole('row', { name: /31 Oct 2026/ })).toBeVisible();
  });
  await test.step('a template fills a new journal, and repeats no more when it is told to', async () => {
    await page.goto('/ledger/write');
    await page.getByRole('button', { name: 'Use Rent' }).click();
    await expect(page.getByLabel('What it is for')).toHaveValue('Rent of the yard');
    await expect(page.getByLabel('Debit').first()).toHaveValue('400.00');
    await page.getByRole('button', { name: 'End repeating Rent' }).click();
    await expect(page.getByText('Rent repeats no more')).toBeVisible();
  });
});

test('opening balances are stated by account, and again', async ({ page }) => {
  await openSample(page);
  await page.goto('/ledger/opening');
  await page.getByLabel('At the end of').fill('30 jun 2026');
  await page.getByLabel('Cash, debit').fill('lots');
  await page.getByRole('button', { name: 'Post the opening balances' }).click();
  await expect(page.getByText(/Enter an amount such as/)).toBeVisible();
  await page.getByLabel('Cash, debit').fill('250');
  await expectAccessible(page, 'opening balances');
  await page.getByRole('button', { name: 'Post the opening balances' }).click();
  await expect(page.getByText('The opening balances are posted')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Cash, debit')).toHaveValue('250.00');
});
