import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, more, openSample } from './support';

test('an invoice goes out as e-invoice in three forms, and comes back as it went, checked and pointed at', async ({
  page,
}) => {
  await openSample(page);
  await page.getByRole('link', { name: /INV-(2026-)?0018/ }).click();
  await expect(page.getByRole('heading', { name: 'Invoice INV-2026-0018' })).toBeVisible();
  await more(page, 'Show its e-invoice');
  const sheet = page.getByRole('main', { name: 'Received e-invoice' });
  await expect(sheet.getByText('meets all rules · UBL')).toBeVisible();
  await sheet.getByRole('button', { name: '1427.88' }).first().click();
  await sheet.getByRole('button', { name: 'Show XML' }).click();
  const xml = page.getByRole('complementary', { name: 'XML' });
  await expect(xml.getByRole('button', { name: /^Line/ }).and(xml.locator('[aria-current=true]'))).toContainText(
    '1427.88',
  );
  await expectAccessible(page, 'e-invoice beside its XML');

  await page.goBack();
  const [hybrid] = await Promise.all([page.waitForEvent('download'), more(page, 'Save PDF with e-invoice')]);
  const pdf = await bytesOf(hybrid);
  const [cii] = await Promise.all([page.waitForEvent('download'), more(page, 'Save CII file')]);
  const text = (await bytesOf(cii)).toString('utf8');
  await page.goto('/sales/einvoice');
  const choose = page.getByLabel('Choose a file');
  await choose.setInputFiles({ name: 'hybrid.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(sheet.getByText('meets all rules · CII inside a PDF')).toBeVisible();

  const wrong = text.replace('<ram:DuePayableAmount>1427.88', '<ram:DuePayableAmount>1427.99');
  await choose.setInputFiles({ name: 'wrong.xml', mimeType: 'text/xml', buffer: Buffer.from(wrong) });
  await expect(sheet.getByText('breaks rules · CII')).toBeVisible();
  const checks = page.getByRole('region', { name: 'Checks' });
  await expect(checks.getByText(/is 1427.99, but 1427.88/)).toBeVisible();
  await checks.getByRole('button', { name: 'Show it' }).first().click();
  await expect(xml.locator('[aria-current=true]')).toContainText('<ram:DuePayableAmount>1427.99');
});

test('a file that is no e-invoice says why, also when it is dropped', async ({ page }) => {
  await openSample(page);
  const bomb = '<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>';
  const data = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'bomb.xml', { type: 'text/xml' }));
    return transfer;
  }, bomb);
  await page.dispatchEvent('body', 'dragover', { dataTransfer: data });
  await expect(page.getByText('Drop an e-invoice to read and check it')).toBeVisible();
  await page.dispatchEvent('body', 'drop', { dataTransfer: data });
  await expect(page).toHaveURL(/\/sales\/einvoice$/);
  await expect(page.getByRole('alert').filter({ hasText: 'bomb.xml' })).toContainText('The file has a DTD');
  const choose = page.getByLabel('Choose a file');
  await choose.setInputFiles({
    name: 'letter.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.7 nothing'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'letter.pdf' })).toContainText('This PDF cannot be read');
  await choose.setInputFiles({ name: 'shop.xml', mimeType: 'text/xml', buffer: readFileSync('package.json') });
  await expect(page.getByRole('alert').filter({ hasText: 'shop.xml' })).toContainText('not well-formed XML');
});
