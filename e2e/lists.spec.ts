import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, openSample } from './support';

test('a list is sorted by its heads, its columns chosen and kept, and saved as it is shown', async ({ page }) => {
  await openSample(page);
  await page.goto('/sales/customers');
  const list = page.getByRole('table', { name: 'Customers' });
  const first = list.getByRole('row').nth(1);
  await expect(first).toContainText('Ballyvaughan');
  await list.getByRole('button', { name: 'Town' }).click();
  await list.getByRole('button', { name: 'Town' }).click();
  await expect(list.getByRole('columnheader', { name: 'Town' })).toHaveAttribute('aria-sort', 'descending');
  await expect(first).toContainText('Westport');
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Terms' }).click();
  await page.keyboard.press('Escape');
  await expect(list.getByRole('columnheader', { name: 'Terms' })).toHaveCount(0);
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = (await bytesOf(await saving)).toString();
  expect(csv.split('\r\n').slice(0, 2)).toEqual([
    'Name,Customer type,Town,Tax number,Default tax code',
    'Clew Bay Salmon Co-op,business,"Westport, IE",IE8100456V,',
  ]);
  await page.reload();
  await expect(first).toContainText('Westport');
  await expect(list.getByRole('columnheader', { name: 'Terms' })).toHaveCount(0);
  await expectAccessible(page, 'a sorted list');
});

test('arrow keys go through a list, and thousands of rows are drawn as they come near', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/csv');
  const numbers = Array.from({ length: 2000 }, (_, i) => String(i).padStart(4, '0'));
  const rows = numbers.map((number) => `mark-${number},Mark ${number},,C62,${Number(number)}.50,,4000,,`);
  await page.getByRole('combobox', { name: 'Table' }).selectOption('items');
  await page.setInputFiles('input[type=file]', {
    name: 'items.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`id,name,description,unit,price,price holds,account,class,supply\n${rows.join('\n')}\n`),
  });
  await expect(page.getByText('2000 to add')).toBeVisible();
  await page.getByRole('button', { name: /^Import/ }).click();
  await expect(page.getByText(/2000 added/)).toBeVisible();
  await page.goto('/sales/items');
  await page.getByLabel('Find in Items').fill('mark');
  const list = page.getByRole('table', { name: 'Items' });
  const more = page.getByRole('button', { name: 'Show more' });
  await expect(list.getByRole('row')).toHaveCount(101);
  // In order of price only once all are there.
  await expect(list.getByRole('button', { name: 'Price' })).toHaveCount(0);
  for (let left = 3; left > 0; left--) await more.click();
  await expect(more).toHaveCount(0);
  await expect(list).toHaveAttribute('aria-rowcount', '2001');
  expect(await list.getByRole('row').count(), 'rows drawn').toBeLessThan(200);
  // The way to more stood at the end of the list.
  await page.getByLabel('Find in Items').focus();
  await list.getByRole('link', { name: 'Mark 0000' }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(list.getByRole('link', { name: 'Mark 0001' })).toBeFocused();
  await page.keyboard.press('End');
  await expect(list.getByRole('link', { name: 'Mark 1999' })).toBeFocused();
  await page.keyboard.press('PageUp');
  await expect(list.getByRole('link', { name: 'Mark 1979' })).toBeFocused();
  await list.getByRole('button', { name: 'Price' }).click();
  await expect(list.getByRole('columnheader', { name: 'Price' })).toHaveAttribute('aria-sort', 'descending');
  await list.getByRole('button', { name: 'Price' }).press('Tab');
  await page.keyboard.press('Home');
  await expect(list.getByRole('link', { name: 'Mark 1999' })).toBeFocused();
});
