import { expect, test } from '@playwright/test';
import { expectAccessible, more, openSample } from './support';

test('money is kept on account, settles an invoice later, and is moved to another', async ({ page }) => {
  await openSample(page);
  await page.goto('/receipts/new');
  await page.getByRole('combobox', { name: 'Customer' }).fill('bally');
  await page.getByRole('option', { name: /Ballyvaughan/ }).click();
  await page.getByLabel('Amount received').fill('700');
  await expect(page.getByText('Unallocated, on account')).toBeVisible();
  // The margin shows what the receipt itself will post.
  const entries = page.getByRole('region', { name: 'Entries' });
  await expect(entries.getByText('Dr Bank')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /^Receipt REC-/ })).toBeVisible();
  await expect(page.getByText('On account')).toBeVisible();
  await page.getByRole('button', { name: 'Allocate…' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Amount, EUR').fill('lots');
  await page.keyboard.press('Enter');
  await expect(slip.getByText(/Enter an amount such as 12\.50/).first()).toBeVisible();
  await slip.getByLabel('Amount, EUR').fill('2000');
  await page.keyboard.press('Enter');
  await expect(slip.getByText(/This is more than is open on/).first()).toBeVisible();
  await slip.getByLabel('Amount, EUR').fill('');
  await page.keyboard.press('Enter');
  const settled = page.getByRole('table', { name: 'Allocations' });
  await expect(settled.getByRole('row', { name: /INV-2026-0013/ })).toContainText('595.86');
  await expect(page.getByText('104.14')).toBeVisible();
  await expectAccessible(page, 'a receipt with money on account');

  // The customer’s record and the next receipt tell what is on account.
  await page.getByRole('main').getByRole('link', { name: 'Ballyvaughan Harbour Board' }).click();
  await expect(page.getByRole('list', { name: 'On account' })).toContainText('104.14');
  await page.getByRole('list', { name: 'On account' }).getByRole('link').click();

  // Moved: undone, and made with another invoice.
  await settled.getByRole('button', { name: 'Undo INV-2026-0013' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo' }).click();
  await expect(settled.getByRole('row', { name: /INV-2026-0013/ })).toContainText('⊘ undone 23 Nov 2026');
  await page.getByRole('button', { name: 'Allocate…' }).click();
  await slip.getByLabel('Allocate to').selectOption({ label: 'INV-2026-0018, due 3 Dec 2026: 1,427.88 open' });
  await page.keyboard.press('Enter');
  await slip.getByRole('button', { name: 'Allocate' }).click();
  await expect(settled.getByRole('row', { name: /INV-2026-0018/ })).toContainText('700.00');
  await settled.getByRole('link', { name: 'INV-2026-0018' }).click();
  await expect(page.getByRole('main').getByText(/part-paid ·/)).toBeVisible();
  await page.goto('/sales');
  await page
    .getByRole('table', { name: 'Documents' })
    .getByRole('row', { name: /INV-2026-0013/ })
    .getByText('overdue')
    .waitFor();
});

test('a credit note on a paid invoice settles another, and the rest is given back', async ({ page }) => {
  await openSample(page);
  await page.goto('/sales');
  await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: 'INV-2026-0015' }).click();
  await more(page, 'Credit…');
  await page.getByLabel('Reason, printed on the credit note').fill('Returned');
  await page.getByRole('button', { name: 'Credit INV-2026-0015' }).click();
  await expect(page.getByRole('heading', { name: /Credit note/ })).toBeVisible();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await margin.getByRole('button', { name: 'Allocate…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Allocate' }).click();
  await expect(margin.getByRole('link', { name: /INV-2026-0022/ })).toBeVisible();
  // What is left of it is given back.
  await margin.getByRole('button', { name: 'Refund…' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Amount, EUR').fill('5000');
  await page.keyboard.press('Enter');
  await expect(slip.getByText(/This is more than is open on CN-2026/).first()).toBeVisible();
  await slip.getByLabel('Amount, EUR').fill('');
  await expectAccessible(page, 'a refund');
  await slip.getByRole('button', { name: 'Refund' }).click();
  await expect(margin.getByText(/REF-2026-0001/)).toBeVisible();
  await expect(margin.getByRole('button', { name: 'Refund…' })).toHaveCount(0);
  await margin.getByRole('link', { name: /INV-2026-0022/ }).click();
  await expect(page.getByRole('main').getByText(/paid/).first()).toBeVisible();
});
