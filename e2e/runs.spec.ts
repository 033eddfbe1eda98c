import { expect, test } from '@playwright/test';
import { openMade } from './moneyBook';
import { expectAccessible, pasteCells } from './support';

test('one invoice for forty customers: three need a look, the others are issued without gaps and sent', async ({
  page,
}) => {
  await openMade(page, 'forty berth holders, three of whom we know little');
  const main = page.getByRole('main');
  const summary = page.getByRole('complementary', { name: 'Margin' }).getByRole('region', { name: 'Summary' });
  await test.step('a draft becomes a run', async () => {
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('berth 01');
    await page.getByRole('option', { name: /Berth 01/ }).click();
    await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Berth dues, winter');
    await page.getByLabel('Price, line 1', { exact: true }).fill('100');
    await page.getByRole('button', { name: 'Make it a run' }).click();
    await expect(page.getByRole('heading', { name: 'Berth dues, winter' })).toBeVisible();
  });
  await test.step('its customers by a search, kept as a group', async () => {
    await main.getByLabel('Name holds').fill('berth');
    await main.getByRole('button', { name: 'Add 39' }).click();
    await expect(main.getByRole('table', { name: 'Customers of the run' }).getByRole('row')).toHaveCount(41);
    await main.getByLabel('Save these customers as a group').fill('Berth holders');
    await main.getByRole('button', { name: 'Save', exact: true }).last().click();
    await expect(page.getByText('Berth holders is saved')).toBeVisible();
  });
  await test.step('figures from a spreadsheet, one left out', async () => {
    await main.getByLabel('Quantity, Berth 02').focus();
    await pasteCells(page, 'Berth 02\t2\t\nBerth 03\t1\t80\nBerth 99\t1\t1');
    await expect(main.getByText('2 customers have new figures. Not in the run: Berth 99.')).toBeVisible();
    await expect(main.getByLabel('Price, Berth 03')).toHaveValue('80');
    await main.getByLabel('Berth 40 is in').click();
    await expect(main.getByLabel('Berth 40 is in')).not.toBeChecked();
  });
  await test.step('looked at: terms, way, tax, total, and what should be looked at', async () => {
    await main.getByRole('button', { name: 'Review', exact: true }).click();
    await expect(main.getByText('3 should be looked at.')).toBeVisible();
    // 2 × 100.00 and 23 %.
    await expect(main.getByRole('row', { name: /Berth 02/ })).toContainText(/14d · mail · Standard 23.*246\.00/);
    await expect(main.getByRole('row', { name: /Berth 03/ })).toContainText('98.40');
    await expectAccessible(page, 'a run');
  });
  await test.step('one of them is opened and changed by itself', async () => {
    await main.getByRole('button', { name: 'Open the draft of Berth 30' }).click();
    await expect(page.getByRole('heading', { name: 'Invoice' })).toBeVisible();
    await page.getByLabel('Price, line 1', { exact: true }).fill('90');
    await page.getByRole('button', { name: 'Save as draft' }).click();
    await page.goto('/sales/runs');
    await page.getByRole('link', { name: 'Berth dues, winter' }).click();
    await expect(main.getByRole('row', { name: /Berth 30/ }).getByRole('link', { name: 'draft' })).toBeVisible();
  });
  await test.step('the sound ones are issued, the others wait as drafts', async () => {
    await main.getByRole('button', { name: 'Issue those without findings' }).click();
    await expect(main.getByText('35 issued, 3 wait as drafts.')).toBeVisible();
    await expect(main.getByRole('link', { name: 'INV-2026-0001' })).toBeVisible();
    await expect(main.getByRole('link', { name: 'INV-2026-0035' })).toBeVisible();
    await expect(main.getByRole('link', { name: 'INV-2026-0036' })).toHaveCount(0);
    await expect(summary).toContainText(/planned\s*1.*waits\s*3.*draft\s*1.*issued\s*35/);
    // What stood still meanwhile is asked again: 23 % of 2 × 100, of 80, and of 33 × 100.
    await expect(page.getByRole('toolbar', { name: 'Tax periods' })).toContainText('823.40');
  });
  await test.step('and each is sent its own way', async () => {
    await main.getByRole('button', { name: 'Send what is issued…' }).click();
    const slip = page.getByRole('dialog', { name: 'Send the list' });
    await slip.getByRole('button', { name: 'Send what was not sent' }).click();
    await expect(slip.getByRole('status')).toHaveText('35 by mail.', { timeout: 120_000 });
    await slip.getByRole('button', { name: 'Close' }).click();
    await page.goto('/sales/runs');
    await page.getByRole('link', { name: 'Berth dues, winter' }).click();
    await expect(summary).toContainText(/issued\s*35/);
  });
  await test.step('and the same comes every month for whoever belongs to the group then', async () => {
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('berth 01');
    await page.getByRole('option', { name: /Berth 01/ }).click();
    await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Berth dues {month}');
    await page.getByLabel('Price, line 1', { exact: true }).fill('100');
    await page.getByRole('button', { name: 'Make it recurring' }).click();
    await main.getByLabel('For', { exact: true }).selectOption({ label: 'group: Berth holders' });
    await main.getByLabel('When it is due').selectOption({ label: 'issue it' });
    await main.getByLabel(/^Paused/).uncheck();
    await expectAccessible(page, 'a recurring document for a group');
    await main.getByRole('button', { name: 'Save the recurring document' }).click();
    const made = page.getByRole('region', { name: 'Made so far' });
    await expect(made.getByText(/waits: 3 customers need a look/)).toBeVisible();
    await made.getByRole('link', { name: 'run' }).click();
    await expect(main.getByRole('row', { name: /Berth 05/ }).getByRole('link', { name: /INV-2026-/ })).toBeVisible();
  });
});
