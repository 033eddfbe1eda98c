import { expect, type Page, test } from '@playwright/test';
import { bytesOf, expectAccessible, onTheDay, openSample, payInto, pdfText, typeCells } from './support';

/** Fills in the form of a new registration from its pack. */
async function register(
  page: Page,
  pack: string,
  name: RegExp,
  number: string,
  more: Readonly<Record<string, string>>,
) {
  await page.getByRole('link', { name: 'Registrations' }).click();
  await page.getByRole('button', { name: 'New registration' }).click();
  await page.getByLabel('Preset for').selectOption({ label: pack });
  await page.getByLabel('Registration number').fill(number);
  for (const [label, value] of Object.entries(more)) await page.getByLabel(label).fill(value);
  await page.getByRole('button', { name: 'Save the registration' }).click();
  await expect(page.getByRole('link', { name })).toBeVisible();
}

async function addPack(page: Page, title: string) {
  await page.getByRole('link', { name: 'Starter packs' }).click();
  await page.getByRole('button', { name: title, exact: true }).click();
  await expect(page.getByText(/Check before use: known on/)).toBeVisible();
  await page.getByRole('button', { name: /^Add \d+ records/ }).click();
  await expect(page.getByText('Your book has all of it already.')).toBeVisible();
}

interface Buyer {
  readonly name: string;
  readonly city: string;
  readonly country: string;
  readonly region?: string;
  readonly postalCode?: string;
  readonly kind?: string;
}

async function addCustomer(page: Page, buyer: Buyer) {
  await page.keyboard.press('Alt+2');
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await page.getByRole('button', { name: 'New customer' }).click();
  await page.getByLabel('Name', { exact: true }).fill(buyer.name);
  if (buyer.kind !== undefined) await page.getByLabel('Customer type').selectOption(buyer.kind);
  await page.getByLabel('Street and number').fill('1 Quay');
  await page.getByLabel('Town or city').fill(buyer.city);
  await page.getByLabel('Postal code').fill(buyer.postalCode ?? '');
  await page.getByLabel('Country', { exact: true }).selectOption(buyer.country);
  if (buyer.region !== undefined) await page.getByLabel('State or province').selectOption(buyer.region);
  await page.getByRole('button', { name: 'Save the customer' }).click();
  await expect(page.getByRole('heading', { name: buyer.name })).toBeVisible();
}

/** Writes a one-line invoice and issues it; gives its heading. */
async function sell(page: Page, customer: string, price: string): Promise<string> {
  await page.keyboard.press('Alt+2');
  await expect(page.getByRole('heading', { name: 'Sales', exact: true })).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').fill(customer);
  await page
    .getByRole('option', { name: new RegExp(customer) })
    .first()
    .click();
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await page.getByRole('combobox', { name: 'Item or description, line 1' }).focus();
  await typeCells(page, 'Tide gauge', '1', price, '', '');
  await page.getByLabel('Price, line 1').focus();
  await page.keyboard.press('Control+Enter');
  const asked = page.getByRole('dialog').getByRole('button', { name: /^Issue INV/ });
  const heading = page.getByRole('heading', { name: /^Invoice INV-/ });
  await expect(asked.or(heading)).toBeVisible();
  if (await asked.isVisible()) await asked.press('Enter');
  await expect(heading).toBeVisible();
  return heading.innerText();
}

async function returnOf(page: Page, registration: string): Promise<string> {
  await page.getByLabel('Registration', { exact: true }).selectOption({ label: registration });
  await page.keyboard.press('Alt+4');
  await expect(page.getByRole('heading', { name: /^Return / })).toBeVisible();
  await expect(page.getByText('All three agree.')).toBeVisible();
  const main = page.getByRole('main');
  let said = '';
  for (const view of ['By box', 'By tax code', 'By jurisdiction']) {
    await main.getByRole('button', { name: view }).click();
    said += await main.innerText();
  }
  return said;
}

/** Keeps everything the sheet says from now on, at each change of it. */
async function watchSheet(page: Page): Promise<() => Promise<readonly string[]>> {
  const said = await page.evaluateHandle(() => {
    const states: string[] = [];
    const observer = new MutationObserver(() => states.push(document.querySelector('main')?.textContent ?? ''));
    observer.observe(document.body, { subtree: true, childList: true, characterData: true });
    return states;
  });
  return () => said.jsonValue();
}

test('a business in three regimes sets all of it up on screen, and each return shows just its own', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await onTheDay(page);
  await test.step('begin with one registration', async () => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Begin a book' }).click();
    await page.getByLabel('Country', { exact: true }).selectOption('IE');
    await page.getByLabel('Name of the business').fill('Three Shores Gauges (sample)');
    await page.getByLabel('Street and number').fill('2 Lamp Lane');
    await page.getByLabel('Town or city').fill('Galway');
    await page.getByLabel('VAT number').fill('IE7654321F');
    await page.getByText('More: short name, authority, currency, taxes').click();
    await page.getByLabel('Taxes begin with').selectOption('rate');
    await page.getByLabel('Standard rate, percent').fill('23');
    await page.getByRole('button', { name: 'Begin the book' }).click();
    await expect(page.getByText(/The check digits of this number do not fit/)).toBeVisible();
    await page.getByLabel('VAT number').fill('IE7654321G');
    await page.getByRole('button', { name: 'Begin the book' }).click();
    await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
    await page.keyboard.press('Alt+6');
    await payInto(page, 'IE31 CPTB 9900 0012 3456 78');
  });

  await test.step('add the packs of Washington and Canada, and register in both', async () => {
    await addPack(page, 'United States, Washington sales tax with local rates');
    await addPack(page, 'Canada, GST, HST, PST and QST by province of delivery');
    const from = { 'Start of the first tax period in this book': '2026-10-01', 'Valid from': '2026-10-01' };
    await register(page, 'United States, Washington sales tax with local rates', /Washington/, '600-000-001', from);
    await register(page, 'Canada, GST, HST, PST and QST by province of delivery', /Canada/, '123456782RT0001', from);
    await page.getByRole('link', { name: 'Exchange rates' }).click();
    for (const [code, rate] of [
      ['USD', '1.1000'],
      ['CAD', '1.5000'],
    ] as const) {
      await page.getByLabel('Currency').selectOption(code);
      const day = page.getByLabel('Day of the rate');
      await day.fill('1 oct');
      await expect(page.getByText('1 Oct 2026', { exact: true }).first()).toBeVisible();
      await day.blur();
      await expect(day).toHaveValue('1 Oct 2026');
      await page.getByLabel('Units per EUR').fill(rate);
      await page.getByRole('button', { name: 'Save the exchange rate' }).click();
      await expect(page.getByRole('cell', { name: rate })).toBeVisible();
    }
  });

  await test.step('the decision table tells the three apart', async () => {
    await addCustomer(page, {
      name: 'Elliott Marina',
      city: 'Seattle',
      region: 'WA',
      postalCode: '98101',
      country: 'US',
    });
    await addCustomer(page, { name: 'Halifax Buoys', city: 'Halifax', region: 'NS', country: 'CA' });
    await addCustomer(page, { name: 'Claddagh Boats', city: 'Galway', country: 'IE', kind: 'consumer' });
    await page.keyboard.press('Alt+6');
    await page.getByRole('link', { name: 'Decision table' }).click();
    const tester = page.getByRole('region', { name: 'Tester' });
    await tester.getByRole('combobox', { name: 'Customer' }).fill('elliott');
    await page.getByRole('option', { name: /Elliott/ }).click();
    await expect(tester.getByText(/Seattle, 10\.55 %: 6\.5 \+ 1\.7 \+ 0\.95 \+ 1\.4 %/)).toBeVisible();
    await expect(tester.getByText(/reported under Washington/)).toBeVisible();
    await expect(tester.getByText('row “Delivered in Washington” applies')).toBeVisible();
    await expectAccessible(page, 'decision table and tester');
  });

  await test.step('one document in each', async () => {
    await sell(page, 'Elliott Marina', '129.99');
    const sheet = page.getByRole('main');
    // 6.5 + 1.7 + 0.95 + 1.4 on 129.99: 13.713945, once 13.71, split by share.
    await expect(sheet.getByText('Seattle, 10.55 % on 129.99')).toBeVisible();
    await expect(sheet.getByText('143.70').first()).toBeVisible();
    await sell(page, 'Halifax Buoys', '200');
    await expect(sheet.getByText('HST 14 % on 200.00')).toBeVisible();
    await sell(page, 'Claddagh Boats', '100');
    await expect(sheet.getByText('VAT 23 % on 100.00')).toBeVisible();
  });

  await test.step('each return shows just its own, by jurisdiction', async () => {
    const washington = await returnOf(page, 'Washington · sales tax');
    for (const words of ['King County', 'Regional Transit Authority', '8.45', '2.21', '1.23', '1.82', '13.71', '15.08'])
      expect(washington).toContain(words);
    expect(washington).not.toMatch(/Nova Scotia|Standard 23/);
    const said = await watchSheet(page);
    const canada = await returnOf(page, 'Canada · GST/HST');
    // Not even for a moment does the return of one stand under the name of the other.
    const mixed = (await said()).filter((text) => text.includes('Canada Revenue') && text.includes('Seattle'));
    expect(mixed).toEqual([]);
    for (const words of ['Nova Scotia', '28.00', '42.00']) expect(canada).toContain(words);
    expect(canada).not.toMatch(/Seattle|Standard 23/);
    const ireland = await returnOf(page, 'Ireland · VAT');
    expect(ireland).toContain('Standard 23');
    expect(ireland).not.toMatch(/Seattle|Nova Scotia/);
  });
});

test('a customer’s tax side: verified number, certificate with its paper, and what the document says of it', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/sales/customers/nordlicht');
  const numbers = page.getByRole('region', { name: 'Verification of tax numbers' });
  await numbers.getByRole('button', { name: 'Verify DE812345673' }).click();
  await expect(numbers.getByText(/valid, 23 Nov 2026, SIM-DE-/)).toBeVisible();
  // A number whose digits end in 99 finds the simulated registry down.
  await page.goto('/sales/customers/ballyvaughan');
  await page.getByLabel('Tax number, tax number 1').fill('IE8100199E');
  await page.getByRole('button', { name: /^Save Ballyvaughan/ }).click();
  await page.getByRole('main').getByRole('link', { name: 'Ballyvaughan Harbour Board' }).click();
  await numbers.getByRole('button', { name: /^Verify/ }).click();
  await expect(numbers.getByText(/the registry did not answer/)).toBeVisible();

  await page.goto('/sales/customers/orcas');
  const certificates = page.getByRole('region', { name: 'Exemption certificates' });
  await certificates.getByRole('button', { name: 'New certificate' }).click();
  const slip = page.getByRole('dialog', { name: 'New certificate' });
  await slip.getByLabel('Number of the certificate').fill('WA-77');
  await slip.getByLabel('Jurisdiction that gave it').selectOption('US-WA-SANJUAN');
  await slip.getByLabel('Valid from').fill('2026-11-01');
  await slip.getByLabel('Valid until').fill('2026-12-15');
  await slip.getByRole('button', { name: 'Save the certificate' }).click();
  await expect(slip.getByText('Enter the reason, such as research institution.')).toBeVisible();
  await slip.getByLabel('Reason').fill('harbour safety');
  await slip
    .getByLabel('A scan or PDF of it')
    .setInputFiles({ name: 'paper.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4 sample') });
  await expect(slip.getByText('paper.pdf goes into the book.')).toBeVisible();
  await slip.getByRole('button', { name: 'Save the certificate' }).click();
  await expect(certificates.getByText(/San Juan County, harbour safety, lapses soon/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    certificates.getByRole('button', { name: 'paper.pdf' }).click(),
  ]);
  expect((await bytesOf(download)).toString()).toBe('%PDF-1.4 sample');
  await page.goto('/today');
  await expect(page.getByRole('link', { name: 'Certificate WA-77' })).toBeVisible();

  // The state still charges its part; the county does not, and the paper says why.
  await page.goto('/sales');
  await page.getByRole('link', { name: /Draft.*Orcas/ }).click();
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await page.getByLabel('Price, line 1').focus();
  await expect(margin.getByText(/Setup now says 6\.5 %/)).toBeVisible();
  await margin.getByRole('button', { name: 'Use the new rate' }).click();
  await expect(page.getByRole('main').getByText('San Juan Islands, 6.5 % on 620.00')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const asked = page.getByRole('dialog').getByRole('button', { name: /^Issue INV/ });
  await expect(asked.or(page.getByRole('heading', { name: /^Invoice INV-/ }))).toBeVisible();
  if (await asked.isVisible()) await asked.press('Enter');
  await expect(page.getByRole('heading', { name: /^Invoice INV-/ })).toBeVisible();
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  expect((await pdfText(await bytesOf(pdf))).text).toContain('certificate WA-77: harbour safety');
});

test('rows of the decision table are moved by keyboard and by drag; what is never reached and what no row catches is shown', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/setup/table');
  const names = page.getByRole('main').locator('ol > li');
  await expect(names.first()).toContainText('Standard in Ireland');
  await page.getByRole('button', { name: 'Move row 1, Standard in Ireland' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/Picked up draggable item|was moved over/)).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(/was moved over droppable area IE-here-reduced/)).toBeAttached();
  await page.keyboard.press('Space');
  await expect(names.nth(1)).toContainText('Standard in Ireland');
  const from = await page.getByRole('button', { name: /^Move row 3,/ }).boundingBox();
  const to = await page.getByRole('button', { name: /^Move row 1,/ }).boundingBox();
  if (from === null || to === null) throw new Error('the handles are not on screen');
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 12, { steps: 12 });
  await expect(page.getByText(/was moved over droppable area IE-here-reduced/)).toBeAttached();
  await page.mouse.up();
  await expect(names.first()).toContainText('Second reduced in Ireland');
  await page.getByRole('button', { name: 'New row' }).click();
  const slip = page.getByRole('dialog');
  await slip.getByLabel('Name of the row').fill('Once more');
  await slip.getByLabel('standard', { exact: true }).check();
  await slip.getByLabel('Ireland', { exact: true }).check();
  await slip
    .getByRole('group', { name: /Shipped from/ })
    .getByLabel('inside the territory')
    .check();
  await slip.getByRole('group', { name: 'Shipped to' }).getByLabel('inside the territory').check();
  await slip.getByLabel('Then').selectOption('code');
  await slip.getByRole('button', { name: 'Save the row' }).click();
  await expect(slip.getByText('Choose the code.')).toBeVisible();
  await slip.getByLabel('The code').selectOption('IE-S');
  await slip.getByRole('button', { name: 'Save the row' }).click();
  await expect(names.last()).toContainText('never reached: rows above already cover it');
  await expect(
    page
      .getByRole('region', { name: 'Cases no row catches' })
      .getByText(/any other/)
      .first(),
  ).toBeVisible();
});

test('what if a rate changes: drafts are shown with the effect, and only chosen ones take it', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/rate-change');
  await page.getByRole('combobox', { name: 'Tax', exact: true }).selectOption('IE-VAT');
  await page.getByLabel('From the tax point').fill('2026-11-01');
  await page.getByLabel('New rate, percent').fill('24');
  const row = page.getByRole('row', { name: /Ballyvaughan/ });
  await expect(row).toContainText('1,427.88');
  await expect(row).toContainText('1,439.44');
  await row.getByRole('checkbox').uncheck();
  await page.getByRole('button', { name: 'Save the rate; 0 drafts take it' }).click();
  await expect(page.getByText('The rate is saved; 0 drafts take it, 1 keep theirs')).toBeVisible();
  await page.goto('/sales');
  await page.getByRole('link', { name: /Draft.*Ballyvaughan/ }).click();
  await expect(page.getByRole('main').getByText('1,427.88').first()).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Margin' }).getByText(/Setup now says 24 %/)).toBeVisible();
});

test('prices: a list that holds the tax, a typed total, and a switch that keeps what the customer pays', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/sales/prices/new');
  await page.getByLabel('Name of the list').fill('Harbours');
  await page.getByRole('button', { name: 'Add price' }).click();
  await page.getByLabel('Item, price 1').selectOption({ label: 'Tide gauge, radar, 20 m' });
  await page.getByLabel('Price, price 1').fill('1230');
  await page.getByRole('button', { name: 'Save the list' }).click();
  await expect(page.getByRole('link', { name: 'Harbours' })).toBeVisible();
  await page.getByRole('link', { name: 'Customers' }).click();
  await page.getByRole('link', { name: 'Clew Bay Salmon Co-op' }).click();
  await page.getByLabel('Price list').selectOption({ label: 'Harbours' });
  await page.getByRole('button', { name: /^Save Clew Bay/ }).click();
  await expect(page.getByRole('heading', { name: 'Customers' })).toBeVisible();
  await page.keyboard.press('Alt+2');
  await expect(page.getByRole('heading', { name: 'Sales', exact: true })).toBeVisible();
  await page.keyboard.press('Alt+n');
  await page.locator('input[data-field=customerId]').fill('clew');
  await page.getByRole('option', { name: /Clew Bay/ }).click();
  await expect(page.getByLabel('Issue date')).toBeFocused();
  await page.getByRole('combobox', { name: 'Item or description, line 1' }).fill('tide gauge');
  await page.getByRole('option', { name: /Tide gauge/ }).click();
  await expect(page.getByLabel('Price, line 1')).toHaveValue('1000');
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await page.getByLabel('Price, line 1').focus();
  await expect(margin.getByText(/1,230\.00 with tax from “Harbours”, at 23 % 1,000\.00 without tax/)).toBeVisible();
  await margin.getByLabel('With tax', { exact: true }).fill('1500');
  await margin.getByLabel('With tax', { exact: true }).press('Enter');
  const sheet = page.getByRole('main');
  await expect(sheet.getByText('1,500.00').first()).toBeVisible();
  await expect(margin.getByText(/from the typed total with tax of 1,500\.00/)).toBeVisible();
  await page.getByLabel('Price mode').selectOption('gross');
  await page.getByRole('button', { name: 'Keep what the customer pays' }).click();
  await expect(page.getByLabel('Price, line 1')).toHaveValue('1500');
  await expect(sheet.getByText('VAT 23 % on 1,219.51')).toBeVisible();
});

test('tables go out as CSV and come in with a preview; a wrong row is named and nothing is taken', async ({ page }) => {
  await openSample(page);
  await page.goto('/setup/csv');
  await page.getByRole('combobox', { name: 'Table' }).selectOption('places');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save Places to a file' }).click(),
  ]);
  const text = (await bytesOf(download)).toString();
  expect(text).toContain('WA-SEATTLE,Seattle,together,US-WA > US-WA-KING > US-WA-SEATTLE > US-WA-RTA,US,WA,,,Seattle');
  const offer = (content: string) =>
    page
      .getByLabel('File to import')
      .setInputFiles({ name: 'places.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  await offer(`${text}WA-NEW,New,together,NOWHERE,US,WA,,,New\r\n`);
  await expect(page.getByText(/row \d+, stack: Choose the jurisdiction\./)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import places.csv' })).toHaveCount(0);
  await offer(`${text}WA-NEW,New,together,US-WA,US,WA,,,New\r\n`);
  await expect(page.getByText('places.csv: 1 to add, 0 to change')).toBeVisible();
  await page.getByRole('button', { name: 'Import places.csv' }).click();
  await expect(page.getByText('1 added, 0 changed')).toBeVisible();
  await page.getByRole('link', { name: 'Places', exact: true }).click();
  await page.getByLabel('Try an address: country').selectOption('US');
  await page.getByLabel('Region').fill('WA');
  await page.getByLabel('Town or city').fill('New');
  await expect(page.getByText('It belongs to New.')).toBeVisible();
  await page.getByLabel('Town or city').fill('Nowhere');
  await expect(page.getByText('No place covers this address.')).toBeVisible();
});
