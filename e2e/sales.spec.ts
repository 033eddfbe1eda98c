import { expect, type Page, test } from '@playwright/test';
import { bytesOf, expectAccessible, figuresIn, openSample, pdfText, typeCells } from './support';

/** Begins an invoice for a customer and goes to its first line. */
async function begin(page: Page, customer: string): Promise<void> {
  await page.keyboard.press('Alt+n');
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
  await page.keyboard.type(customer);
  await expect(page.getByRole('listbox', { name: 'Customer' }).getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await typeCells(page, '', '', '', '', '');
}

const line = (page: Page, i: number) =>
  page.getByRole('combobox', { name: `Item or description, line ${i}`, exact: true });
const sheet = (page: Page) => page.getByRole('main', { name: 'Draft invoice' });

/** Issues past the question about what is still open. */
async function issue(page: Page): Promise<string> {
  await page.keyboard.press('Control+Enter');
  const asked = page.getByRole('dialog').getByRole('button', { name: /^Issue INV/ });
  const heading = page.getByRole('heading', { name: /^Invoice INV-/ });
  await expect(asked.or(heading)).toBeVisible();
  if (await asked.isVisible()) await asked.press('Enter');
  await expect(heading).toBeVisible();
  return heading.innerText();
}

test('a sale at the counter: prices include tax, and the paper says what the screen says', async ({ page }) => {
  await openSample(page);
  await begin(page, 'repair counter');
  await expect(page.getByLabel('Price mode')).toHaveValue('gross');
  await expect(line(page, 1)).toBeFocused();
  await page.keyboard.type('instrument rep');
  await expect(page.getByRole('option', { name: /Instrument repair/ })).toBeVisible();
  await page.keyboard.press('Enter');
  // 62.00 without tax is 70.37 with 13.5 % inside.
  await expect(page.getByLabel('Price, line 1')).toHaveValue('70.37');
  await expect(page.getByRole('complementary').getByText('70.37 holds 13.5 % (line 1)')).toBeVisible();
  await expect(sheet(page).getByText('VAT 13.5 % on 62.00')).toBeVisible();
  const heading = await issue(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  const { text } = await pdfText(await bytesOf(download));
  for (const figure of await figuresIn(page, heading)) expect(text).toContain(figure);
  expect(text).toContain('With tax');
});

test('lines are moved, taken out and given further text by keyboard', async ({ page }) => {
  await openSample(page);
  await begin(page, 'clew');
  await typeCells(page, 'First', '1', '10', '', '');
  await typeCells(page, 'Second', '2', '20', '', '');
  await typeCells(page, 'Third', '3', '30', '', '');
  await line(page, 3).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(line(page, 2)).toHaveValue('Third');
  await expect(line(page, 2)).toBeFocused();
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Alt+ArrowUp');
  await expect(line(page, 1)).toHaveValue('Third');
  await line(page, 2).focus();
  await page.keyboard.press('Alt+Delete');
  await expect(line(page, 2)).toHaveValue('Second');
  await expect(line(page, 3)).toHaveValue('');
  await line(page, 1).focus();
  await page.keyboard.press('Shift+Enter');
  await page.getByLabel('Further text, line 1').fill('serial 2211-08');
  await expect(sheet(page).getByText('130.00').first()).toBeVisible();
  await issue(page);
  await expect(page.getByText('serial 2211-08')).toBeVisible();
});

test('a code chosen manually stays when the customer changes, the others follow', async ({ page }) => {
  await openSample(page);
  await begin(page, 'clew');
  await typeCells(page, 'Survey', '1', '100', '', '');
  await typeCells(page, 'Charts', '1', '10', '', '');
  await page.getByLabel('Tax, line 2').selectOption('IE-Z');
  await page.getByLabel('Price, line 1').focus();
  await page.getByRole('complementary', { name: 'Margin' }).getByLabel('Supplied').selectOption('service');
  const customer = page.getByRole('combobox', { name: 'Customer' });
  await customer.fill('nordlicht');
  await page.getByRole('option', { name: /Nordlicht/ }).click();
  await expect(page.getByLabel('Tax, line 1')).toHaveValue('IE-RC');
  await expect(page.getByLabel('Tax, line 2')).toHaveValue('IE-Z');
  await page.getByLabel('Price, line 2').focus();
  await expect(page.getByRole('complementary').getByText(/was chosen manually; by itself/)).toBeVisible();
  await issue(page);
  await expect(page.getByText('Steuerschuldnerschaft des Leistungsempfängers.')).toBeVisible();
});

test('reverse charge for a customer without a tax number is not issued', async ({ page }) => {
  await openSample(page);
  await begin(page, 'repair counter');
  await typeCells(page, 'Survey', '1', '100', '', '');
  await page.getByLabel('Tax, line 1').selectOption('IE-RC');
  // At the counter prices include tax: the one that falls away is asked about.
  await page.getByRole('button', { name: 'Keep what the customer pays' }).click();
  const checks = page.getByRole('region', { name: 'Checks' });
  await expect(checks.getByText(/With reverse charge give the buyer's VAT number/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Issue INV-2026-0025' })).toBeVisible();
  await checks.getByRole('button', { name: 'Go there' }).first().click();
  await expect(page.getByRole('heading', { name: 'Repair counter' })).toBeVisible();
});

test('free text is never turned into an item by Enter', async ({ page }) => {
  await openSample(page);
  await begin(page, 'clew');
  await typeCells(page, 'Tide tables for the whole west coast', '1', '12.30', '', '');
  await expect(line(page, 1)).toHaveValue('Tide tables for the whole west coast');
  await expect(page.getByLabel('Price, line 1')).toHaveValue('12.30');
  await expect(line(page, 2)).toBeFocused();
});

test('a new item is made from a line without leaving it', async ({ page }) => {
  await openSample(page);
  await begin(page, 'clew');
  await line(page, 1).fill('Anchor weight');
  await page.getByRole('option', { name: 'New item “Anchor weight”' }).click();
  const slip = page.getByRole('dialog', { name: 'New item' });
  await expectAccessible(page, 'slip over a draft');
  await slip.getByLabel('Price, EUR').fill('a lot');
  await slip.getByRole('button', { name: 'Save the item' }).click();
  await expect(slip.getByText(/Enter a price such as 12\.50/)).toBeVisible();
  await slip.getByLabel('Price, EUR').fill('45.5');
  await slip.getByRole('button', { name: 'Save the item' }).press('Enter');
  await expect(page.getByLabel('Price, line 1')).toHaveValue('45.5');
  await expect(page.getByLabel('Quantity, line 1')).toBeFocused();
});

test('dates are typed as people say them, and terms follow the issue date', async ({ page }) => {
  await openSample(page);
  await begin(page, 'inishmaan');
  const [issued, due, point] = [page.getByLabel('Issue date'), page.getByLabel('Due'), page.getByLabel('Tax point')];
  await expect(due).toHaveValue('10 Dec 2026 · eom+10d');
  await issued.fill('1/11');
  await issued.press('Enter');
  await expect(issued).toHaveValue('1 Nov 2026');
  await expect(due).toHaveValue('10 Dec 2026 · eom+10d');
  await due.fill('2w');
  await due.press('Enter');
  await expect(due).toHaveValue('15 Nov 2026 · 2w');
  await point.fill('28 aug');
  await point.press('Enter');
  await expect(
    page.getByText('Will be reported in Sep–Oct 2026, late: its own period is filed already.'),
  ).toBeVisible();
  await issued.fill('today');
  await issued.press('Tab');
  await expect(due).toHaveValue('7 Dec 2026 · 2w');
});

test('a draft can be deleted, and its address then says so', async ({ page }) => {
  await openSample(page);
  await page.getByRole('link', { name: /Draft.*Orcas/ }).click();
  await expect(page.getByLabel('Quantity, line 1')).toHaveValue('2');
  const address = page.url();
  await page.getByRole('button', { name: 'Delete this draft' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete the draft' }).click();
  await expect(page.getByRole('heading', { name: 'Sales' })).toBeVisible();
  await expect(page.getByRole('link', { name: /Draft.*Orcas/ })).toHaveCount(0);
  await page.goto(address);
  await expect(page.getByText('This draft is gone: it was issued or deleted.')).toBeVisible();
});

test('money is spread oldest first, and what is left over is said', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('heading', { name: 'Receipts', level: 1 })).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.getByRole('combobox', { name: 'Customer' }).fill('bally');
  await page.getByRole('option', { name: /Ballyvaughan/ }).click();
  await page.getByLabel('Amount received').fill('99999');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Unallocated, on account')).toBeVisible();
  await expect(page.getByText('97,975.26')).toBeVisible();
  await page.getByLabel('Amount received').fill('1,500.00');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Paid on INV-2026-0013')).toHaveValue('595.86');
  await expect(page.getByLabel('Paid on INV-2026-0018')).toHaveValue('904.14');
  await page.getByLabel('Paid on INV-2026-0018').fill('some');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Enter an amount such as 12\.50/)).toBeVisible();
  // More settled than came is said, and nothing else is recorded in its place.
  await page.getByLabel('Paid on INV-2026-0018').fill('905.00');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/1,500\.00 was received, but 1,500\.86 is settled/)).toBeVisible();
  await page.getByLabel('Paid on INV-2026-0018').fill('904.14');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /^Receipt REC-/ })).toBeVisible();
  const settled = page.getByRole('table', { name: 'Allocations' });
  await expect(settled.getByRole('row').last()).toContainText('1,500.00');
  await page.getByRole('link', { name: 'INV-2026-0018' }).click();
  await expect(page.getByRole('main').getByText(/part-paid ·/)).toBeVisible();
});

test('a credited invoice shows its note, and the note its invoice', async ({ page }) => {
  await openSample(page);
  await page
    .getByRole('toolbar', { name: 'Tax periods' })
    .getByRole('button', { name: /Jul–Aug/ })
    .click();
  await page.getByRole('main').getByRole('link', { name: 'INV-2026-0006' }).click();
  await expect(page.getByRole('main').getByText(/credited ·/)).toBeVisible();
  await page.getByRole('button', { name: /^More/ }).click();
  await expect(page.getByRole('menuitem', { name: /^Credit…/ })).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.getByRole('region', { name: 'Settlement' }).getByRole('link', { name: 'CN-2026-0001' }).click();
  await expect(page.getByText('Hire was ordered, not a sale')).toBeVisible();
  const margin = page.getByRole('complementary');
  await expect(margin.getByText('Cr Receivables')).toBeVisible();
  await margin.getByRole('link', { name: 'set off against INV-2026-0006' }).click();
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0006' })).toBeVisible();
});
