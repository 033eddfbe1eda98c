import { mkdtempSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { build } from 'esbuild';
import type { MadeBook } from 'tests/moneyBooks';
import { onTheDay } from './support';

type Maker = typeof import('tests/moneyBooks');

let maker: Promise<Maker> | null = null;

/** The sources as one file: they hold data that are loaded in the way of the app, not in that of the test runner. */
async function bundled(): Promise<Maker> {
  const { outputFiles } = await build({
    entryPoints: ['tests/moneyBooks.ts'],
    bundle: true,
    write: false,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    alias: { '@': join(process.cwd(), 'src'), tests: join(process.cwd(), 'tests') },
  });
  const file = join(mkdtempSync(join(tmpdir(), 'able-books-')), 'moneyBooks.cjs');
  writeFileSync(file, outputFiles[0]?.contents ?? '');
  return createRequire(file)(file) as Maker;
}

/** Opens a book that was made without a browser in an empty one. */
export async function openMade(page: Page, name: MadeBook): Promise<void> {
  maker ??= bundled();
  const buffer = Buffer.from(await (await maker).madeBook(name));
  await onTheDay(page);
  await page.goto('/');
  await page.getByLabel('Open a book file').setInputFiles({ name: 'book.able', mimeType: 'application/zip', buffer });
  await expect(page).toHaveURL(/\/(today|sales)$/, { timeout: 30_000 });
}

/** A new receipt of the customer that begins with “bally”. */
export async function receiptOf(page: Page, customer = 'bally'): Promise<void> {
  await page.goto('/receipts/new');
  await page.getByRole('combobox', { name: 'Customer' }).fill(customer);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Amount received').first()).toBeVisible();
}

/** Records the receipt that is being written. */
export async function recorded(page: Page): Promise<void> {
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('heading', { name: /^Receipt REC-/ })).toBeVisible();
}
