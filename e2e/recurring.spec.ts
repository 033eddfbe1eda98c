import { expect, test } from '@playwright/test';
import { expectAccessible, more, openSample } from './support';

test('an invoice comes again: an end, a skip, a price change, and a filed period in its way', async ({ page }) => {
  await openSample(page);
  await page.goto('/sales');
  await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: 'INV-2026-0022' }).click();
  await more(page, 'Repeat…');
  const form = page.getByRole('main');
  await test.step('five times from the end of August on, not in September, dearer from December', async () => {
    await form.getByLabel('Name').fill('Mooring hire');
    await form.getByLabel('First date').fill('31 aug 2026');
    await form.getByLabel('Ends').selectOption('times');
    await form.getByLabel('Times').fill('none');
    await form.getByRole('button', { name: 'Save the recurring document' }).click();
    await expect(form.getByText('Enter a whole number.').first()).toBeVisible();
    await form.getByLabel('Times').fill('5');
    await form.getByLabel('When it is due').selectOption('issue');
    await form.getByRole('button', { name: 'Add price change' }).click();
    await form.getByLabel('From, price change 1').fill('2026-12-01');
    await form.getByLabel('Percent, price change 1').fill('10');
    await form.getByLabel('30 Sep 2026').uncheck();
    await form.getByRole('button', { name: 'Save the recurring document' }).click();
    await expect(page.getByText('It is saved').first()).toBeVisible();
  });
  await test.step('what December will be is shown exactly', async () => {
    await form.getByRole('button', { name: '31 Dec 2026' }).click();
    const next = form.getByRole('region', { name: 'The document of that date' });
    // 5.25 × 68.20 = 358.05, 2 × 20.30 = 40.60 (18.45 and a tenth, to the cent), 38.50; tax 48.34 and 18.19.
    await expect(next).toContainText('503.68');
    await expectAccessible(page, 'a recurring document');
  });
  await test.step('what falls into a filed period waits, with its reason', async () => {
    await form.getByLabel('Paused: nothing is made until this is unticked').uncheck();
    await form.getByRole('button', { name: 'Save the recurring document' }).click();
    await expect(page.getByText('It is saved: next on 31 Aug 2026')).toBeVisible();
    const made = page.getByRole('complementary', { name: 'Margin' }).getByRole('region', { name: 'Made so far' });
    await expect(made.getByText(/waits: Its tax period is filed, until 31 Aug 2026/)).toBeVisible();
    await page.goto('/today');
    await expect(page.getByRole('link', { name: 'Mooring hire, 31 Aug 2026' })).toBeVisible();
  });
  await test.step('after weeks away it is made when it was due, with the prices of its days', async () => {
    await page.clock.setSystemTime(new Date('2027-01-04T09:00:00'));
    await page.goto('/sales/recurring');
    await page.getByRole('link', { name: 'Mooring hire' }).click();
    const made = page.getByRole('complementary', { name: 'Margin' }).getByRole('region', { name: 'Made so far' });
    await expect(made.getByText('31 Dec 2026')).toBeVisible();
    await expect(made.getByText('30 Sep 2026')).toHaveCount(0);
    await expect(page.getByText('ended')).toBeVisible();
    await made.getByRole('listitem').filter({ hasText: '31 Dec 2026' }).getByRole('link', { name: /^INV-/ }).click();
    await expect(page.getByRole('main').getByText('503.68').first()).toBeVisible();
  });
});
