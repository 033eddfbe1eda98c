import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { type BrowserContext, type Download, expect, type Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The day all journeys happen on. */
export const TODAY = '2026-11-23';

/** Gives the page a clock that stands on the day of the journeys and runs from there. */
export async function onTheDay(page: Page): Promise<void> {
  await page.clock.install({ time: new Date(`${TODAY}T10:00:00`) });
}

type StorageState = Awaited<ReturnType<BrowserContext['storageState']>>;

/** The browser's data after the sample was opened; made once by each worker, as building the book takes seconds. */
let sample: StorageState | null = null;

/** Opens the sample book in an empty browser, as its user does. */
export async function buildSample(page: Page): Promise<void> {
  await onTheDay(page);
  await page.goto('/open/demo');
  await expect(page).toHaveURL(/\/sales$/, { timeout: 30_000 });
  await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
}

/** The sample book in an empty browser, on the Sales page. */
export async function openSample(page: Page): Promise<void> {
  const context = page.context();
  if (sample === null) {
    await buildSample(page);
    const { cookies, origins } = await context.storageState({ indexedDB: true });
    // What a test has set for itself is not for others.
    sample = { cookies, origins: origins.map((origin) => ({ ...origin, localStorage: [] })) };
  } else {
    await onTheDay(page);
    await context.setStorageState(sample);
    await page.goto('/sales');
    await expect(page.getByRole('heading', { name: 'Sales', level: 1 })).toBeVisible();
  }
}

/** Nothing serious or critical by axe's rules for WCAG A and AA. */
export async function expectAccessible(page: Page, what: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    // No other frame is looked at, and gathering from frames takes a page of its own each time.
    .setLegacyMode()
    .options({ resultTypes: ['violations'], runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] })
    .exclude('iframe')
    // A slip that fades in or out is paler than it stands.
    .exclude('[data-sonner-toaster]')
    .analyze();
  const grave = violations
    .filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
    .map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
  expect(grave, what).toEqual([]);
}

export async function bytesOf(download: Download): Promise<Buffer> {
  return readFileSync(await download.path());
}

/** The book as it is saved to a file. */
export async function savedBook(page: Page): Promise<Buffer> {
  await page.goto('/setup/book');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the book to a file' }).click(),
  ]);
  return bytesOf(download);
}

/** The text of a PDF, pages joined. */
export async function pdfText(bytes: Buffer): Promise<{ pages: number; text: string }> {
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages: string[] = [];
  for (let i = 1; i <= pdf.numPages; i++) {
    const content = await (await pdf.getPage(i)).getTextContent();
    pages.push(content.items.map((item) => ('str' in item ? item.str : '')).join(' '));
  }
  return { pages: pdf.numPages, text: pages.join('\n') };
}

/** Every figure with decimals that an element shows. */
export async function figuresIn(page: Page, label: string): Promise<string[]> {
  const text = await page.getByRole('main', { name: label }).innerText();
  return [...new Set(text.match(/\u2212?\d[\d,]*\.\d{2}/g) ?? [])];
}

/** Types into what has the focus, then goes on with Enter, cell by cell. */
export async function typeCells(page: Page, ...cells: readonly string[]): Promise<void> {
  for (const cell of cells) {
    if (cell !== '') {
      await page.keyboard.press('Control+A');
      await page.keyboard.type(cell);
    }
    await page.keyboard.press('Enter');
  }
}

/** Pastes a block of cells, as a spreadsheet copies it, into what has the focus. */
export async function pasteCells(page: Page, text: string): Promise<void> {
  await page.evaluate((cells) => {
    const data = new DataTransfer();
    data.setData('text/plain', cells);
    const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(paste);
  }, text);
}

/** Takes an entry of the menu of further things to do. */
export async function more(page: Page, words: string): Promise<void> {
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('menuitem', { name: words }).click();
}

/** What the ribbon says of a period: `Sep–Oct` → its tax. */
export async function ribbonTax(page: Page, period: string): Promise<string> {
  const cell = page.getByRole('toolbar', { name: 'Tax periods' }).getByRole('button', { name: new RegExp(period) });
  return (await cell.innerText()).split('\n').at(-1)?.trim() ?? '';
}

/** Says in Setup which account customers pay into; an account that does not pass its check digits is refused first. */
export async function payInto(page: Page, iban: string): Promise<void> {
  await page.getByRole('link', { name: 'Bank accounts' }).click();
  await page.getByRole('link', { name: 'Bank', exact: true }).click();
  await page.getByLabel('IBAN').fill(`${iban.slice(0, 2)}00${iban.slice(4)}`);
  await page.getByRole('button', { name: 'Save the bank account' }).click();
  await expect(page.getByText('The check digits of this IBAN do not fit')).toBeVisible();
  await expect(page.getByLabel('IBAN')).toHaveAttribute('aria-invalid', 'true');
  await page.getByLabel('IBAN').fill(iban);
  await page.getByRole('button', { name: 'Save the bank account' }).click();
  await expect(page.getByRole('heading', { name: 'Bank accounts' })).toBeVisible();
}
