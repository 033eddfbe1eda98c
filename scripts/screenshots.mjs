// Takes the pictures of docs/screenshots from the sample book; needs a build. `npm run screenshots -- today tax` takes those alone.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { bin, freePort, ROOT } from './lib/setup.mjs';

const SIZE = { width: 1280, height: 800 };
const NOW = new Date('2026-11-23T10:00:00');

/** Opens a document or a draft by the words that find it. */
const found = (path, words, name) => async (page, at) => {
  await page.goto(at(path));
  await page.getByLabel('Find a document').first().fill(words);
  await page.getByRole('link', { name }).first().click();
};
const at = (path) => (page, address) => page.goto(address(path));
const follow = (path, name) => async (page, address) => {
  await page.goto(address(path));
  await page.getByRole('main').getByRole('link', { name }).first().click();
};

/** How each view is reached from the sample book. */
const VIEWS = {
  today: async (page, address) => {
    await page.goto(address('/today'));
    await page.getByText('Expected this month').waitFor();
  },
  register: at('/sales'),
  quote: found('/sales', 'QUO-2026-0001', /QUO-0001 v2/),
  draft: found('/sales', 'Orcas', /Draft/),
  issued: found('/sales', 'INV-2026-0021', /INV-(2026-)?0021/),
  print: async (page, address) => {
    await found('/sales', 'INV-2026-0022', /INV-(2026-)?0022/)(page, address);
    await page.getByRole('button', { name: 'Print preview' }).click();
  },
  'e-invoice': async (page, address) => {
    await found('/sales', 'Ballyvaughan', /Draft/)(page, address);
    await page.getByRole('button', { name: 'XML' }).click();
  },
  receipt: follow('/receipts/list', /REC-2026-0007/),
  'customer-account': follow('/receipts/customers', /Clew Bay/),
  closing: async (page, address) => {
    await page.goto(address('/today'));
    await page.getByRole('link', { name: /Reconcile and file/ }).click();
    await page.getByText('Late entries').waitFor();
  },
  'expected-cash': at('/ledger/reports/expected-cash'),
  withholding: at('/receipts/withholding'),
  tax: at('/tax'),
  'return-jurisdictions': async (page, address) => {
    await page.goto(address('/tax'));
    await page.getByLabel('Registration', { exact: true }).selectOption({ label: 'Washington · sales tax' });
    await page.getByRole('button', { name: 'By jurisdiction' }).click();
  },
  bank: async (page, address) => {
    await page.goto(address('/receipts/bank'));
    await page.getByRole('button', { name: 'Import a statement…' }).click();
    const statement = [
      'Date,Name,Details,Amount,Balance',
      '2026-11-03,Kilkerrin Bay Harbour Commissioners,INV-2026-0007,287.80,1287.80',
      '2026-11-05,Inishmaan Shellfish,inv 2026 0010 thank you,295.20,1583.00',
      '2026-11-06,,Quarterly account fee,-12.50,1570.50',
      '2026-11-09,ORCAS MARINA,payment,3610.00,5180.50',
      '2026-11-10,Reederei Nordlicht Forschung GmbH,"INV-2026-0020, INV-2026-0005",3050.00,8230.50',
      '2026-11-12,Nordkapp Havinstitutt,INV-2026-0021 less charges,2155.00,10385.50',
      '2026-11-18,Clew Bay Salmon Co-op,on account,300.00,10685.50',
      '2026-11-21,Clew Bay Salmon Co-op,Q4,457.88,11143.38',
    ].join('\n');
    const file = { name: 'november.csv', mimeType: 'text/csv', buffer: Buffer.from(statement) };
    await page.getByLabel('File of the bank').setInputFiles(file);
    await page.getByRole('button', { name: 'Import' }).click();
    await page.getByRole('button', { name: /^Accept \d+ certain/ }).waitFor();
    await page.getByText('8 lines imported').waitFor({ state: 'hidden' });
  },
  'income-against-cash': at('/ledger/reports/income-against-cash'),
  'decision-table': at('/setup/table'),
  customer: follow('/sales/customers', /Salish/),
  night: found('/sales', 'INV-2026-0022', /INV-(2026-)?0022/),
};

const wanted = process.argv.slice(2);
const port = await freePort();
const server = spawn(bin('next'), ['start', '-H', '127.0.0.1', '-p', String(port)], { cwd: ROOT, detached: true });
await new Promise((ready) => server.stdout.on('data', (chunk) => String(chunk).includes('Ready') && ready()));
const address = (path) => `http://localhost:${port}${path}`;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
let failed = 0;
for (const [name, reach] of Object.entries(VIEWS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const context = await browser.newContext({ viewport: SIZE, serviceWorkers: 'block' });
  const page = await context.newPage();
  page.setDefaultTimeout(8000);
  try {
    await page.clock.install({ time: NOW });
    if (name === 'night') await page.addInitScript(() => localStorage.setItem('able-ledger-theme', 'night'));
    await page.goto(address('/open/demo'));
    await page.waitForURL(/\/(today|sales)/, { timeout: 30_000 });
    await reach(page, address);
    await page.waitForLoadState('load');
    await page.waitForTimeout(1500);
    await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
  } catch (error) {
    failed++;
    console.error(`${name}: ${error.message.split('\n')[0]}`);
  }
  await context.close();
}
await browser.close();
process.kill(-server.pid);
process.exit(failed > 0 ? 1 : 0);
