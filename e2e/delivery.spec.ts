import { expect, type Page, test } from '@playwright/test';
import { expectAccessible, more, openSample } from './support';

/** Puts the e-invoice that is on screen into the queue. */
async function send(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Send e-invoice…' }).click();
  const slip = page.getByRole('dialog');
  await expect(slip.getByText('The receiver is registered')).toBeVisible();
  await expectAccessible(page, 'slip to send an e-invoice');
  await slip.getByRole('button', { name: /^Send INV-/ }).click();
}

const note = (page: Page) => page.getByRole('region', { name: 'E-invoice', exact: true });

test('a government invoice without a reference is corrected, issued, sent, rejected, corrected, sent again, accepted', async ({
  page,
}) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  await page.locator('input[data-field=customerId]').fill('ballyv');
  await page.getByRole('option', { name: /Ballyvaughan/ }).click();
  await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Buoy check');
  await page.getByLabel('Price, line 1', { exact: true }).fill('120');

  const checks = page.getByRole('region', { name: 'Checks' });
  const finding = checks.getByRole('listitem').filter({ hasText: 'PEPPOL-EN16931-R003' });
  await finding.getByRole('button', { name: 'Go there' }).click();
  await expect(page.getByLabel('Buyer reference')).toBeFocused();
  await page.keyboard.type('BHB-9001');
  await expect(finding).toHaveCount(0);
  await page.getByRole('button', { name: 'Show XML' }).click();
  const xml = page.getByRole('complementary', { name: 'XML' });
  await page.getByLabel('Order number').fill('4711');
  await expect(xml.locator('[aria-current=true]')).toContainText('<cbc:ID>4711</cbc:ID>');
  await xml.getByRole('button', { name: /^Line/ }).filter({ hasText: 'BHB-9001' }).click();
  await expect(page.getByLabel('Buyer reference')).toBeFocused();
  await expectAccessible(page, 'draft beside its XML');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();

  await send(page);
  await expect(
    note(page)
      .getByText(/^rejected/)
      .first(),
  ).toBeVisible();
  await expect(note(page).getByText('Our order numbers begin with PO-.')).toBeVisible();
  await page.keyboard.press('Alt+1');
  const task = page.getByRole('main', { name: 'Today' }).getByRole('listitem').filter({ hasText: 'INV-2026-0025' });
  await expect(task).toContainText('rejected: a reference is wrong or missing');
  await task.getByRole('link').click();

  await page.getByRole('button', { name: 'Correct it…' }).click();
  await page.getByRole('dialog').getByLabel('Reason, printed on the credit note').fill('Order number');
  await page.getByRole('dialog').getByRole('button', { name: 'Credit and reissue' }).click();
  await page.getByLabel('Order number').fill('PO-4711');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0026' })).toBeVisible();
  await send(page);
  await expect(
    note(page)
      .getByText(/^accepted/)
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Timeline' }).getByText('e-invoice answered').first()).toBeVisible();
  await page.keyboard.press('Alt+1');
  await expect(page.getByRole('main', { name: 'Today' }).getByRole('link', { name: 'INV-2026-0018' })).toBeVisible();
  await expect(task).toHaveCount(0);
});

test('a whole list is sent, with what cannot go named; a draft is written from a file that was kept', async ({
  page,
}) => {
  await openSample(page);
  await page.getByRole('button', { name: 'Send as e-invoices…' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByRole('button', { name: 'Send what was not sent' }).click();
  await expect(slip.getByRole('status')).toContainText('7 on their way, 3 sent before.');
  await slip.getByRole('button', { name: 'Send what was not sent' }).click();
  await expect(slip.getByRole('status')).toContainText('0 on their way, 10 sent before.');
  await page.keyboard.press('Escape');
  await page.goto('/sales/sent');
  const stands = page.getByRole('navigation', { name: 'Status' });
  await expect(stands.getByRole('button', { name: /^In the queue/ })).toContainText('0');
  await stands.getByRole('button', { name: /^Answered/ }).click();
  await page.getByRole('main').getByRole('link', { name: 'INV-2026-0007' }).click();
  await more(page, 'Show its e-invoice');
  const sheet = page.getByRole('main', { name: 'Received e-invoice' });
  await sheet.getByRole('button', { name: 'Save it in the book' }).click();
  await expect(sheet.getByRole('button', { name: 'Saved in the book' })).toBeDisabled();
  await sheet.getByRole('button', { name: 'Saved files' }).click();
  await page.reload();
  await sheet.getByRole('button', { name: 'INV-2026-0007.xml', exact: true }).click();
  await expect(sheet.getByText('meets all rules · UBL')).toBeVisible();
  await sheet.getByRole('button', { name: 'Create a draft from it' }).click();
  await expect(page.getByRole('combobox', { name: 'Customer' })).toHaveValue('Kilkerrin Bay Harbour Commissioners');
  await expect(page.getByLabel('Buyer reference')).toHaveValue('KB-3');
});

test('what waits in the queue is taken out of it, and a file is embedded in the e-invoice', async ({ page }) => {
  await openSample(page);
  // The way to the access point is cut: the message waits, and is tried again with the same id.
  await page.route('**/standins/access-point/send', (route) => route.abort());
  await page.getByRole('main').getByRole('link', { name: 'INV-2026-0007' }).click();
  await page.getByText('Internal: tags').click();
  const chosen = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Attach a file…' }).click();
  await (await chosen).setFiles({ name: 'order.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-') });
  const goesOut = page.getByLabel('order.pdf is embedded in the e-invoice');
  await goesOut.click();
  await expect(goesOut).toBeChecked();
  await send(page);
  await expect(note(page).getByText('is tried again')).toBeVisible();
  await expect(note(page).getByText('The access point could not be reached.').first()).toBeVisible();
  await page.unroute('**/standins/access-point/send');
  await note(page).getByRole('button', { name: 'Remove it from the queue…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByRole('dialog').getByText('Enter what was done about it.')).toBeVisible();
  await page.getByRole('dialog').getByLabel('Why').fill('Wrong day');
  await page.getByRole('dialog').getByRole('button', { name: 'Remove it' }).click();
  await expect(note(page).getByText('removed from the queue')).toBeVisible();
  await note(page).getByRole('button', { name: 'See what goes out' }).click();
  await page.getByRole('button', { name: 'Show XML' }).click();
  await expect(page.getByRole('complementary', { name: 'XML' })).toContainText('order.pdf');
});
