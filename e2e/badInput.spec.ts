import { expect, type Page, test } from '@playwright/test';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { onTheDay, openSample, savedBook } from './support';

async function offer(page: Page, name: string, buffer: Buffer): Promise<void> {
  await page.getByLabel('Open a book file').setInputFiles({ name, mimeType: 'application/zip', buffer });
  await page.getByRole('button', { name: 'Replace it' }).click();
}

test('a damaged or foreign book file says what is wrong and changes nothing', async ({ page }) => {
  await openSample(page);
  const saved = await savedBook(page);
  const files = unzipSync(new Uint8Array(saved));
  const forged = {
    ...files,
    'tables/documents.jsonl': strToU8(
      strFromU8(files['tables/documents.jsonl'] as Uint8Array).replace('Dock Road', 'Duck Road'),
    ),
  };
  const cases: readonly (readonly [string, Buffer, RegExp])[] = [
    ['notes.txt', Buffer.from('hello'), /This is not a book archive of Able Ledger\. Nothing was changed\./],
    ['half.able', saved.subarray(0, saved.length / 2), /The file is damaged/],
    ['forged.able', Buffer.from(zipSync(forged)), /damaged at tables\/documents\.jsonl/],
  ];
  for (const [name, buffer, message] of cases) {
    await offer(page, name, buffer);
    await expect(page.getByRole('alert').getByText(message)).toBeVisible();
  }
  await page.goto('/sales');
  await expect(page.getByRole('link', { name: /INV-(2026-)?0022/ })).toBeVisible();
  expect((await savedBook(page)).length).toBeGreaterThan(saved.length * 0.9);
});

test('the sample asks before it replaces a book', async ({ page }) => {
  await openSample(page);
  await page.goto('/open/demo');
  await expect(page.getByText('This browser holds a book already.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep my book' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
});

test('a half-filled invoice is refused at its fields and nothing is lost', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await page.getByRole('combobox', { name: 'Item or description, line 1' }).fill('Long name '.repeat(30).trim());
  await page.keyboard.press('Escape');
  await page.getByLabel('Price, line 1').fill('a lot');
  await page.getByLabel('Quantity, line 1').fill('');
  await page.getByLabel('Issue date').fill('some day');
  await page.keyboard.press('Control+Enter');
  const checks = page.getByRole('region', { name: 'Checks' });
  await expect(checks.getByText('Choose the customer.')).toBeVisible();
  await expect(checks.getByText(/Enter a price such as 12\.50/)).toBeVisible();
  await expect(page.getByLabel('Price, line 1')).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByLabel('Price, line 1')).toHaveValue('a lot');
  await checks.getByRole('button', { name: 'Go there' }).first().click();
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
});

test('a blank invoice is refused with what it needs', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('Alt+n');
  await expect(page.getByRole('heading', { name: 'Invoice', exact: true })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('alert').getByText('Write at least one line.')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Customer' })).toBeFocused();
});

test('addresses of what is not there say so', async ({ page }) => {
  await openSample(page);
  for (const [path, words] of [
    ['/sales/doc/nothing', 'There is no such document.'],
    ['/sales/draft/nothing', 'This draft is gone'],
    ['/receipts/nothing', 'There is no such receipt.'],
    ['/ledger/account/9999', 'There is no account 9999.'],
    ['/sales/customers/nobody', 'There is no such customer.'],
    ['/setup/nonsense', 'There is no such part of Setup.'],
    ['/nowhere', 'There is no such page'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByText(words)).toBeVisible();
  }
});

test('without a book every address leads to the beginning', async ({ page }) => {
  await onTheDay(page);
  await page.goto('/tax');
  await expect(page.getByRole('button', { name: 'Begin a book' })).toBeVisible();
});

test('the page takes no script or frame from elsewhere', async ({ page }) => {
  const response = await page.goto('/');
  const policy = response?.headers()['content-security-policy'] ?? '';
  expect(policy).toMatch(/script-src 'self'( 'sha256-[A-Za-z0-9+/=]{44}')+(;|$)/);
  expect(policy).not.toContain('unsafe-eval');
  expect(policy).toContain("object-src 'none'");
});

test('workers and built files run nothing from elsewhere either', async ({ page }) => {
  const built: Record<string, string>[] = [];
  page.on('response', (response) => {
    if (/\/_next\/static\/|\/fonts\//.test(response.url())) built.push(response.headers());
  });
  await openSample(page);
  expect(built.length).toBeGreaterThan(3);
  for (const headers of built) {
    expect(headers['content-security-policy']).toContain("default-src 'none'; script-src 'self'; connect-src 'self'");
    expect(headers['x-content-type-options']).toBe('nosniff');
  }
});
