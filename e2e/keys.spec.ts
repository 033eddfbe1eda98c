import { expect, type Page, test } from '@playwright/test';
import { openSample } from './support';

/* Journeys of the day by keyboard alone, with the keys counted that are no text; each bound is what it takes today. */

/** Presses keys and counts them; text is typed and not counted. */
function keyboard(page: Page) {
  let count = 0;
  return {
    press: async (...keys: readonly string[]) => {
      for (const key of keys) {
        count++;
        await page.keyboard.press(key);
      }
    },
    type: (text: string) => page.keyboard.type(text),
    count: () => count,
  };
}

const heading = (page: Page, name: string | RegExp) => page.getByRole('heading', { name, level: 1 });

test('a receipt for a customer’s oldest invoice', async ({ page }) => {
  await openSample(page);
  const keys = keyboard(page);
  await keys.press('Alt+3');
  await expect(heading(page, 'Receipts')).toBeVisible();
  await keys.press('Alt+n');
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
  await keys.type('inishmaan');
  await expect(page.getByRole('option', { name: /Inishmaan/ })).toBeVisible();
  await keys.press('Enter');
  await expect(page.getByRole('row', { name: /INV-2026-0010/ })).toBeVisible();
  await expect(page.getByLabel('Amount received')).toBeFocused();
  await keys.type('295.20');
  await keys.press('Enter');
  await expect(page.getByText('Unallocated, on account')).toBeHidden();
  await keys.press('Control+Enter');
  await expect(heading(page, /^Receipt REC-/)).toBeVisible();
  expect(keys.count()).toBeLessThanOrEqual(5);
});

test('an invoice found, and credited whole', async ({ page }) => {
  await openSample(page);
  const keys = keyboard(page);
  await keys.press('Control+k');
  await keys.type('0022');
  await expect(page.getByRole('option', { name: /INV-2026-0022/ })).toBeVisible();
  await keys.press('Enter');
  await expect(heading(page, 'Invoice INV-2026-0022')).toBeVisible();
  await page.getByRole('button', { name: /^More/ }).focus();
  await keys.press('Enter');
  await expect(page.getByRole('menuitem', { name: 'Credit…' })).toBeVisible();
  await keys.type('cred');
  await expect(page.getByRole('menuitem', { name: 'Credit…' })).toBeFocused();
  await keys.press('Enter');
  const reason = page.getByLabel('Reason, printed on the credit note');
  await expect(reason).toBeVisible();
  for (let i = 0; i < 4 && !(await reason.evaluate((field) => field === document.activeElement)); i++)
    await keys.press('Tab');
  await keys.type('Returned');
  await keys.press('Control+Enter');
  await expect(heading(page, /^Credit note CN-/)).toBeVisible();
  expect(keys.count()).toBeLessThanOrEqual(8);
});

test('a quote sent, and the date understood while it is typed', async ({ page }) => {
  await openSample(page);
  const keys = keyboard(page);
  await keys.press('Alt+q');
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
  await keys.type('orcas');
  await expect(page.getByRole('option', { name: /Orcas/ })).toBeVisible();
  await keys.press('Enter');
  await expect(page.getByLabel('Date', { exact: true })).toBeFocused();
  await keys.type('yesterday');
  await expect(page.getByText('22 Nov 2026').first()).toBeVisible();
  await keys.press('Alt+Enter');
  await keys.type('Mooring survey');
  await keys.press('Enter');
  await expect(page.getByLabel('Quantity, line 1', { exact: true })).toBeFocused();
  await keys.type('2');
  await keys.press('Enter');
  await expect(page.getByLabel('Price, line 1', { exact: true })).toBeFocused();
  await keys.type('450');
  await keys.press('Control+Enter');
  await expect(page.getByText(/QUO-2026-0002/).first()).toBeVisible();
  expect(keys.count()).toBeLessThanOrEqual(7);
});
