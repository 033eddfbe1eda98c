import { expect, type Locator, type Page, test } from '@playwright/test';
import { bytesOf, onTheDay, pdfText } from './support';

/** A book of a country, begun from nothing, and what its first invoice of 100.00 and its return must say. */
interface CountryCase {
  readonly country: string;
  /** Code of ISO 3166-2, where the country's taxes go by region. */
  readonly region?: string;
  readonly town: string;
  readonly postalCode: string;
  /** A number of the form that the authority publishes, with its check digits. */
  readonly number: string;
  /** What the number is called where it is typed. */
  readonly asked: string;
  readonly total: string;
  /** What stands on paper. */
  readonly paper: readonly string[];
  /** What the return says. */
  readonly boxes: readonly string[];
}

const CASES: readonly CountryCase[] = [
  {
    // VAT Consolidation Act 2010 s. 46: 23 %; form VAT3, box T1.
    country: 'IE',
    town: 'Galway',
    postalCode: 'H91 X0X0',
    number: 'IE7654321G',
    asked: 'VAT number',
    total: '123.00',
    paper: ['Invoice', 'VAT no. IE7654321G', 'VAT 23 % on 100.00', 'Ireland'],
    boxes: ['T1 VAT on sales 23.00'],
  },
  {
    // UStG § 12 (1): 19 %, § 14 (4) no. 2; UStVA, Kz 81.
    country: 'DE',
    town: 'Husum',
    postalCode: '25813',
    number: 'DE812345673',
    asked: 'VAT number',
    total: '119,00',
    paper: ['Rechnung', 'USt-IdNr. DE812345673', 'USt 19 % auf 100,00', 'Deutschland'],
    boxes: ['81 Taxable supplies at the standard rate 100.00', '83 Advance payment 19.00'],
  },
  {
    // CGI art. 278: 20 %; CA3, lines A1 and 08.
    country: 'FR',
    town: 'Brest',
    postalCode: '29200',
    number: 'FR31000123455',
    asked: 'VAT number',
    total: '120,00',
    paper: ['Facture', 'N° TVA FR31000123455', 'TVA 20 % sur 100,00', 'France'],
    boxes: ['A1 Sales and services, excluding tax 100', '08 At 20 %, tax 20'],
  },
  {
    // Ley 37/1992 art. 90: 21 %; modelo 303, boxes 07 and 09.
    country: 'ES',
    town: 'Vigo',
    postalCode: '36201',
    number: 'ESB00123455',
    asked: 'VAT number',
    total: '121,00',
    paper: ['Factura', 'NIF-IVA ESB00123455', 'IVA 21 % sobre 100,00', 'España'],
    boxes: ['07 At the standard rate, taxable amount 100.00', '09 Tax on 07 21.00'],
  },
  {
    // Wet OB 1968 art. 9: 21 %; aangifte, rubriek 1a.
    country: 'NL',
    town: 'Den Helder',
    postalCode: '1781 AA',
    number: 'NL000123456B01',
    asked: 'VAT number',
    total: '121.00',
    paper: ['Invoice', 'VAT no. NL000123456B01', 'VAT 21 % on 100.00', 'Netherlands'],
    boxes: ['1a Supplies at the standard rate 100', '5g To be paid or refunded 21'],
  },
  {
    // VAT Act 1994 s. 2: 20 %; VAT return, boxes 1 and 6.
    country: 'GB',
    town: 'Oban',
    postalCode: 'PA34 4AA',
    number: 'GB999000103',
    asked: 'VAT number',
    total: '120.00',
    paper: ['Invoice', 'VAT no. GB999000103', 'VAT 20 % on 100.00', 'United Kingdom'],
    boxes: ['1 VAT due on sales and other outputs 20.00', '6 Total value of sales, excluding VAT 100'],
  },
  {
    // RCW 82.08.020 and local rates of Seattle from 1 Jan 2026: 6.5 + 1.7 + 0.95 + 1.4 = 10.55 %.
    country: 'US',
    region: 'WA',
    town: 'Seattle',
    postalCode: '98101',
    number: '600-000-001',
    asked: 'Tax registration number',
    total: '110.55',
    paper: ['Invoice', 'Tax no. 600-000-001', 'Seattle, 10.55 % on 100.00', 'United States of America'],
    boxes: ['State tax State sales tax 6.50', 'Local tax Local sales tax by location code 4.05'],
  },
  {
    // Excise Tax Act s. 165 (2) and Sch. VIII: HST of Ontario, 13 %.
    country: 'CA',
    region: 'ON',
    town: 'Kingston',
    postalCode: 'K7L 1A1',
    number: '123456782RT0001',
    asked: 'GST/HST no.',
    total: '113.00',
    paper: ['Invoice', 'GST/HST no. 123456782RT0001', 'HST 13 % on 100.00', 'Canada'],
    boxes: ['103 GST and HST collected or collectible 13.00'],
  },
  {
    // GST Act 1999 s. 9-70: 10 %, s. 29-70 names the tax invoice; BAS, labels G1 and 1A.
    country: 'AU',
    region: 'TAS',
    town: 'Hobart',
    postalCode: '7000',
    number: '56 000 123 455',
    asked: 'ABN',
    total: '110.00',
    paper: ['Tax invoice', 'ABN 56 000 123 455', 'GST 10 % on 100.00', 'Australia'],
    boxes: ['G1 Total sales, excluding GST 100', '1A GST on sales 10'],
  },
  {
    // CGST Act 2017 s. 9 and notification 9/2025: 9 + 9 %; CGST Rules r. 46 names the tax invoice.
    country: 'IN',
    region: 'MH',
    town: 'Mumbai',
    postalCode: '400001',
    number: '27AAAAA0000A1Z2',
    asked: 'GSTIN',
    total: '118.00',
    paper: ['Tax invoice', 'GSTIN 27AAAAA0000A1Z2', 'CGST 9 % on 100.00', 'SGST 9 % on 100.00', 'India'],
    boxes: [
      '3.1(a) CGST Outward taxable supplies, central tax 9',
      '3.1(a) SGST Outward taxable supplies, state or union territory tax 9',
    ],
  },
];

/** Counts what a person enters: a field typed, a choice made. */
class Entries {
  count = 0;

  async type(field: Locator, text: string): Promise<void> {
    this.count += 1;
    await field.fill(text);
  }

  async choose(field: Locator, value: string): Promise<void> {
    this.count += 1;
    await field.selectOption(value);
  }
}

async function begin(page: Page, one: CountryCase, entries: Entries): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a book' }).click();
  await entries.choose(page.getByLabel('Country', { exact: true }), one.country);
  if (one.region !== undefined) await entries.choose(page.getByLabel('State or province'), one.region);
  await entries.type(page.getByLabel('Name of the business'), 'Corran Point (sample)');
  await entries.type(page.getByLabel('Street and number'), '1 Quay');
  await entries.type(page.getByLabel('Postal code'), one.postalCode);
  await entries.type(page.getByLabel('Town or city'), one.town);
  await entries.type(page.getByLabel(one.asked), one.number);
  await page.getByRole('button', { name: 'Begin the book' }).click();
  await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
}

async function issueFirst(page: Page, one: CountryCase, entries: Entries): Promise<void> {
  await page.getByRole('region', { name: 'First steps' }).getByRole('link', { name: 'First invoice' }).click();
  await entries.type(page.locator('input[data-field=customerId]'), 'Pier Traders');
  await page.getByRole('option', { name: 'New customer “Pier Traders”' }).click();
  const slip = page.getByRole('dialog');
  await entries.type(slip.getByLabel('Street and number'), '2 Quay');
  await entries.type(slip.getByLabel('Postal code'), one.postalCode);
  await entries.type(slip.getByLabel('Town or city'), one.town);
  if (one.region !== undefined) await entries.choose(slip.getByLabel('State or province'), one.region);
  await slip.getByRole('button', { name: 'Save the customer' }).click();
  await expect(slip).toHaveCount(0);
  await entries.type(page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }), 'Buoy check');
  await entries.type(page.getByLabel('Price, line 1', { exact: true }), '100');
  await expect(page.getByRole('main').getByText(one.total.replace(',', '.')).first()).toBeVisible();
  await page.keyboard.press('Control+Enter');
  // No payment account is given yet.
  await page.getByRole('dialog').getByRole('button', { name: 'Issue INV-2026-0001' }).click();
  await expect(page.getByRole('heading', { name: /nvoice INV-2026-0001/ })).toBeVisible();
}

for (const one of CASES)
  test(`${one.country}: begun from nothing, one invoice in few entries, and what paper and return say`, async ({
    page,
  }) => {
    await onTheDay(page);
    const entries = new Entries();
    await begin(page, one, entries);
    await issueFirst(page, one, entries);
    expect(entries.count, 'entries').toBeLessThanOrEqual(15);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save PDF' }).click(),
    ]);
    const { text } = await pdfText(await bytesOf(download));
    for (const words of [...one.paper, one.total]) expect(text.replaceAll(/\s+/g, ' ')).toContain(words);
    await page.keyboard.press('Alt+4');
    const sheet = page.getByRole('main');
    await expect(sheet.getByRole('heading', { name: /^Return/ })).toBeVisible();
    for (const words of one.boxes)
      await expect(async () => expect((await sheet.innerText()).replaceAll(/\s+/g, ' ')).toContain(words)).toPass();
  });
