import { expect, test } from '@playwright/test';
import { onTheDay, openSample, typeCells } from './support';

test('two tabs issuing at the same time get different, consecutive numbers', async ({ page, context }) => {
  await openSample(page);
  const other = await context.newPage();
  await onTheDay(other);
  for (const [tab, reference] of [
    [page, 'A-1'],
    [other, 'B-1'],
  ] as const) {
    await tab.goto('/sales');
    await expect(tab.getByRole('link', { name: /INV-(2026-)?0024/ })).toBeVisible();
    await tab.keyboard.press('Alt+n');
    await expect(tab.getByRole('combobox', { name: 'Customer' })).toBeFocused();
    await tab.keyboard.type('bally');
    await expect(tab.getByRole('option', { name: /Ballyvaughan/ })).toBeVisible();
    await tab.keyboard.press('Enter');
    await expect(tab.getByLabel('Issue date')).toBeFocused();
    await typeCells(tab, '', '', '', '', reference);
    await typeCells(tab, 'Two tabs', '', '10', '', '');
    await expect(tab.getByRole('status').getByText(/^saved/)).toBeVisible();
  }
  // Both promise the same number; only one can have it.
  await expect(page.getByRole('button', { name: 'Issue INV-2026-0025' })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Issue INV-2026-0025' })).toBeVisible();
  await Promise.all([page, other].map((tab) => tab.getByRole('button', { name: /^Issue INV/ }).click()));
  const numbers = await Promise.all(
    [page, other].map(async (tab) => {
      const heading = tab.getByRole('heading', { name: /^Invoice INV-/ });
      await expect(heading).toBeVisible();
      return heading.innerText();
    }),
  );
  expect(numbers.sort()).toEqual(['Invoice INV-2026-0025', 'Invoice INV-2026-0026']);
});

test('a draft changed in another tab is not overwritten, and can be loaded again', async ({ page, context }) => {
  await openSample(page);
  const draft = page.getByRole('link', { name: /Draft.*Ballyvaughan/ });
  await draft.click();
  await expect(page.getByLabel('Buyer reference')).toHaveValue('BHB-7750');
  const other = await context.newPage();
  await onTheDay(other);
  await other.goto(page.url());
  await other.getByLabel('Buyer reference').fill('THEIRS');
  await expect(other.getByRole('status').getByText(/^saved/)).toBeVisible();
  await page.getByLabel('Order number').fill('MINE');
  await expect(page.getByText('Another tab has changed this in the meantime.')).toBeVisible();
  await page.getByRole('button', { name: 'Reload it' }).click();
  await expect(page.getByLabel('Buyer reference')).toHaveValue('THEIRS');
  await expect(page.getByLabel('Order number')).toHaveValue('');
});

test('a draft issued in another tab cannot be issued again', async ({ page, context }) => {
  await openSample(page);
  await page.getByRole('link', { name: /Draft.*Orcas/ }).click();
  await expect(page.getByLabel('Quantity, line 1')).toHaveValue('2');
  const other = await context.newPage();
  await onTheDay(other);
  await other.goto(page.url());
  for (const tab of [other, page]) {
    await tab.getByRole('button', { name: /^Issue INV/ }).click();
    if (tab === other) await expect(tab.getByRole('heading', { name: /^Invoice INV-/ })).toBeVisible();
  }
  await expect(page.getByText('This draft was issued or deleted in another tab.')).toBeVisible();
});
