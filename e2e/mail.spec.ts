import { expect, type Page, test } from '@playwright/test';
import { bytesOf, expectAccessible, openSample } from './support';

const margin = (page: Page) => page.getByRole('complementary', { name: 'Margin' });

/** The record of a customer of the sample, on its page. */
async function editCustomer(page: Page, id: string, email: string): Promise<void> {
  await page.goto(`/sales/customers/${id}`);
  await page.getByLabel('E-mail', { exact: true }).fill(email);
  await page.getByLabel('Documents go out by').selectOption('mail');
  await page.getByRole('button', { name: /^Save / }).click();
  await expect(page).toHaveURL(/\/sales\/customers$/);
}

test('an invoice is issued and sent, bounces, is mended and sent again, and what went out is kept', async ({
  page,
}) => {
  await openSample(page);
  await editCustomer(page, 'clewbay', 'unknown@clewbay.example');
  await test.step('issued and sent in one step, by the keyboard', async () => {
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
    await page.keyboard.press('Alt+n');
    await page.locator('input[data-field=customerId]').fill('clew');
    await page.getByRole('option', { name: /Clew Bay/ }).click();
    await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).fill('Mooring survey');
    await page.getByLabel('Price, line 1', { exact: true }).fill('1000');
    await page.getByLabel('Order number').fill('CB-11');
    await page.keyboard.press('Control+Shift+Enter');
    await expect(page.getByText(/INV-2026-0025 is issued and goes by mail to unknown@clewbay\.example/)).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0025' })).toBeVisible();
  });
  const mail = margin(page).getByRole('region', { name: 'Mail' });
  await test.step('it bounces, and stands on Today', async () => {
    await expect(mail.getByText('550 5.1.1 Mailbox unknown')).toBeVisible();
    await expectAccessible(page, 'a bounced message');
    await page.goto('/today');
    await expect(page.getByText(/unknown@clewbay\.example: 550 5\.1\.1/)).toBeVisible();
    await page.getByRole('link', { name: 'INV-2026-0025 bounced' }).click();
  });
  await test.step('mended in the outbox, and sent again', async () => {
    await expect(page.getByRole('heading', { name: 'Outbox' })).toBeVisible();
    await expectAccessible(page, 'the outbox');
    await margin(page).getByRole('button', { name: 'Send again…' }).click();
    const slip = page.getByRole('dialog', { name: 'Send INV-2026-0025 by mail' });
    await expect(slip.getByLabel('Subject')).toHaveValue(/^Invoice INV-2026-0025 from/);
    await slip.getByLabel('To', { exact: true }).fill('accounts at clewbay');
    await slip.getByRole('button', { name: 'Send INV-2026-0025' }).click();
    await expect(slip.getByText('Enter an e-mail address such as').first()).toBeVisible();
    await slip.getByLabel('To', { exact: true }).fill('opens@clewbay.example, harbour@clewbay.example');
    await slip.getByLabel('Delivery note').check();
    await slip.getByLabel('The document in the message').check();
    await expect(slip.getByRole('region', { name: 'The document in the message' })).toContainText('Mooring survey');
    await expectAccessible(page, 'writing a message');
    await slip.getByRole('button', { name: 'Send INV-2026-0025' }).click();
    await expect(slip).toBeHidden();
    await expect(page.getByText('No message needs you.')).toBeVisible();
  });
  await test.step('the document tells all of it', async () => {
    await page.goto('/sales');
    await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: 'INV-2026-0025' }).click();
    await expect(mail.getByText('opened', { exact: false }).first()).toBeVisible();
    const timeline = margin(page).getByRole('region', { name: 'Timeline' });
    for (const words of [
      /bounced: unknown@clewbay\.example, 550/,
      /message resolved: sent again/,
      /sent by mail to opens@clewbay\.example, harbour@clewbay\.example/,
      /delivered: harbour@clewbay\.example/,
      /opened: opens@clewbay\.example/,
    ])
      await expect(timeline.getByText(words)).toBeVisible();
  });
  await test.step('and what went out opens again: words, files, and a copy to ourselves', async () => {
    await mail.getByRole('button', { name: 'See the message' }).first().click();
    const slip = page.getByRole('dialog', { name: 'Message about INV-2026-0025' });
    await expect(slip).toContainText('accounts@corranpoint.example');
    await expect(slip.getByRole('button', { name: /^Invoice-INV-2026-0025\.pdf/ })).toBeVisible();
    const saved = page.waitForEvent('download');
    await slip.getByRole('button', { name: 'Save as .eml' }).click();
    const eml = (await bytesOf(await saved)).toString();
    expect(eml).toContain('To: <opens@clewbay.example>');
    expect(eml).toMatch(/Content-Type: application\/pdf; name="Invoice-INV-2026-0025\.pdf"/);
    expect(eml).toMatch(/Content-Type: application\/pdf; name="Delivery-note-INV-2026-0025\.pdf"/);
  });
});

test('the words of a message are changed, and a placeholder that stands for nothing is refused', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/messages');
  await page.getByRole('link', { name: 'Invoice', exact: true }).click();
  const preview = page.getByRole('region', { name: 'Preview' });
  await expect(preview).toContainText('Invoice INV-2026-0024 from');
  const text = page.getByLabel('Message', { exact: true });
  await text.fill('Dear {contact},\n\n{numbr} is attached.');
  await page.getByRole('button', { name: 'Save the message' }).click();
  await expect(page.getByText('{numbr} stands for nothing.')).toBeVisible();
  await text.fill('Dear {contact},\n\nyour order {order number}: ');
  await page.getByLabel('Insert a placeholder').selectOption('number');
  await expect(text).toHaveValue(/\{number\}$/);
  await expectAccessible(page, 'the words of a message');
  await page.getByRole('button', { name: 'Save the message' }).click();
  await expect(page.getByText('The message is saved')).toBeVisible();
  await page.goto('/setup/messages');
  await expect(page.getByRole('row', { name: /^Invoice Invoice \{number\}.*our own/ })).toBeVisible();
});

test('a whole list is sent, each document by its customer’s own way, and statements in one go', async ({ page }) => {
  await openSample(page);
  await test.step('what is overdue and was not sent', async () => {
    await page.getByRole('main').getByLabel('State').selectOption('overdue');
    await page.getByRole('button', { name: 'Send the list…' }).click();
    const slip = page.getByRole('dialog', { name: 'Send the list' });
    await slip.getByRole('button', { name: 'Send what was not sent' }).click();
    await expect(slip.getByRole('status')).toHaveText(/\d for the post/);
    await expectAccessible(page, 'sending a list');
    // Those without an address are printed together, and have gone by post.
    const saved = page.waitForEvent('download');
    await slip.getByRole('button', { name: /^Print \d for the post$/ }).click();
    await saved;
    await expect(slip.getByRole('status')).toHaveText(/^\d printed, and marked as sent by post\.$/);
    await slip.getByRole('button', { name: 'Close' }).click();
  });
  await test.step('statements of all who owe something', async () => {
    await page.goto('/receipts/customers');
    await page.getByRole('button', { name: /statements/i }).click();
    const slip = page.getByRole('dialog', { name: /^Statements of/ });
    await slip.getByRole('button', { name: /^Send \d+ by mail$/ }).click();
    await expect(slip.getByText(/^\d on their way by mail, \d not sent\.$/)).toBeVisible();
    await expect(slip.getByRole('list', { name: 'Not sent' })).toContainText('No e-mail address is known');
    await test.step('or one after the other, after a look', async () => {
      await slip.getByLabel('Look at the message first').selectOption({ label: 'Inishmaan Shellfish' });
      const message = page.getByRole('dialog', { name: 'Send Statement, Inishmaan Shellfish by mail' });
      await message.getByLabel('Subject').fill('How we stand');
      await message.getByLabel('To', { exact: true }).fill('office@inishmaan.example');
      await expectAccessible(page, 'a statement as a message');
      await message.getByRole('button', { name: /^Send Statement/ }).click();
      await expect(message).toBeHidden();
    });
    await page.goto('/sales/outbox');
    await page.getByRole('navigation', { name: 'Status' }).getByRole('button', { name: /^Sent/ }).click();
    await expect(page.getByRole('row', { name: /^Statement, Ballyvaughan/ })).toBeVisible();
    await page.getByRole('row', { name: /^Statement, Inishmaan/ }).click();
    await page.getByRole('button', { name: 'See the message' }).click();
    await expect(page.getByRole('dialog')).toContainText('How we stand');
    await expect(page.getByRole('button', { name: /^statement\.pdf/ })).toBeVisible();
  });
});
