import { draftOf, EUR, lineOf, settingOf } from 'tests/book';
import { homeRate, priceAbroad } from '@/core/currency/exchangeRate';
import { readCells } from '@/core/files/csv';
import { readRateXml } from '@/core/files/rateXml';
import { currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import { type ReadTerms, readTerms } from '@/core/parties/terms';
import { explainTotal, type TotalNames } from '@/core/tax/explainTotal';
import { DEMO_CUSTOMERS, DEMO_ITEMS } from '@/demo/setup';
import { rateFeed } from '@/standins/rateFeed';
import { bookFigures } from './bookFigures';
import { CHECK_PACKS, checkPackFor } from './checks';
import { checkPackSchema } from './checks/pack';
import { figuresOf } from './content';
import { contentChecks, contentFindings } from './contentRules';
import { takeCustomer, takeItem } from './determineLine';
import { blankAdjustment, type Draft, type DraftAdjustment } from './draft';
import { freezeDraft } from './freeze';
import { linesFromCells } from './pasteLines';
import { preview } from './preview';
import { readSealCode, sealCode } from './seal';

const dollars = settingOf({
  rateOf: () => ({ perHome: decimal('1.25'), date: '2026-01-10' as IsoDate, source: 'bank' }),
});
const customer = DEMO_CUSTOMERS.find((c) => c.id === 'ballyvaughan') ?? null;
const from = isoDate('2026-01-31');

const charge = (over: Partial<DraftAdjustment>): DraftAdjustment => ({
  ...blankAdjustment('x', 'charge', '4400'),
  text: 'Freight',
  amount: '20',
  taxCode: 'IE-Z',
  taxByHand: true,
  ...over,
});

function frozen(over: Partial<Draft>, setting = dollars) {
  const result = freezeDraft(draftOf(over), 'INV-1', customer, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

describe('terms', () => {
  const of = (read: ReadTerms | null) =>
    read && [read.dueDate, read.instalments.map((i) => `${i.percent} ${i.due}`), read.settlement?.until ?? ''];
  test.each<[string, unknown]>([
    ['30d', ['2026-03-02', [], '']],
    ['day 15', ['2026-02-15', [], '']],
    ['day 31', ['2026-02-28', [], '']],
    ['30d, 2% 10d', ['2026-03-02', [], '2026-02-10']],
    ['30% 0d + 70% eom+10d', ['2026-02-10', ['30 2026-01-31', '70 2026-02-10'], '']],
    ['50% 0d + 50% 2026-06-01, 1.5% 5d', ['2026-06-01', ['50 2026-01-31', '50 2026-06-01'], '2026-02-05']],
    ['2026-04-01', ['2026-04-01', [], '']],
    ['30% 0d + 60% 30d', null],
    ['70% 30d + 30% 0d', null],
    ['30d, 100% 10d', null],
    ['day 40', null],
    ['soon', null],
    ['', null],
  ])('%p', (text, expected) => expect(of(readTerms(from, text))).toEqual(expected));
});

describe('cells pasted from a spreadsheet', () => {
  const paste = (text: string) => linesFromCells(readCells(text));
  test('with heads are read by them, in any order', () => {
    expect(paste('Price\tDescription\tQty\n12.50\tSeal kit\t3\n€ 1,200.00\tGauge\t')).toEqual([
      { description: 'Seal kit', quantity: '3', unit: 'C62', price: '12.50', discount: '' },
      { description: 'Gauge', quantity: '1', unit: 'C62', price: '1,200.00', discount: '' },
    ]);
  });
  test('without heads tell words, quantity, unit, price and discount by what they look like', () => {
    expect(paste('On-site calibration\t2\tday\t160.00\t10%\nFreight\t35')).toEqual([
      { description: 'On-site calibration', quantity: '2', unit: 'DAY', price: '160.00', discount: '10%' },
      { description: 'Freight', quantity: '1', unit: 'C62', price: '35', discount: '' },
    ]);
  });
  test('keep a text of several lines as one description, and leave empty rows out', () => {
    expect(paste('"Gauge\nwith bracket"\t1\t940\n\t\t\n').map((line) => line.description)).toEqual([
      'Gauge\nwith bracket',
    ]);
  });
});

describe('allowances and charges', () => {
  test('a discount is spread over what the lines carry, a charge has a tax of its own', () => {
    const content = frozen({
      lines: [lineOf({ price: '100' }), lineOf({ price: '50', taxCode: 'IE-R', taxByHand: true })],
      adjustments: [charge({}), charge({ id: 'd', kind: 'allowance', text: 'Discount', amount: '10%', spread: true })],
    });
    const figures = figuresOf(content);
    expect(figures.groups.map((g) => [g.tax, g.net, g.taxAmount])).toEqual([
      ['IE-S', 9000n, 2070n],
      ['IE-R', 4500n, 608n],
      ['IE-Z', 2000n, 0n],
    ]);
    expect(content.adjustments?.map((a) => [a.kind, a.tax, a.percent, a.amount])).toEqual([
      ['charge', 'IE-Z', undefined, '20'],
      ['allowance', undefined, '10', undefined],
    ]);
  });
  test.each<[Partial<DraftAdjustment>, string]>([
    [{ amount: '' }, 'adjustments[0].amount'],
    [{ amount: '1.005' }, 'adjustments[0].amount'],
    [{ text: ' ' }, 'adjustments[0].text'],
    [{ taxCode: '' }, 'adjustments[0].taxCode'],
  ])('%p is pointed out at its field', (over, path) => {
    const result = freezeDraft(draftOf({ adjustments: [charge(over)] }), 'INV-1', customer, dollars);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toContain(path);
  });
});

describe('a tax that is typed', () => {
  const typed = (amount: string, reason: string, tax = 'IE-S') => ({
    overrides: [{ tax, family: 'IE-VAT', amount, reason }],
  });
  test('replaces what is computed, with its reason', () => {
    const content = frozen(typed('22.99', 'as the order says'));
    expect(figuresOf(content).totals).toMatchObject({ taxAmount: 2299n, gross: 12299n });
    expect(content.overrides?.[0]?.reason).toBe('as the order says');
  });
  test('needs a reason, and is forgotten with the tax that no line carries any more', () => {
    const result = freezeDraft(draftOf(typed('22.99', ' ')), 'INV-1', customer, dollars);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['overrides[0].reason']);
    expect(frozen(typed('5', '', 'IE-R')).overrides).toBeUndefined();
  });
});

describe('foreign currency', () => {
  test('a rate per home unit turns into home units, and prices of items into the currency', () => {
    expect([homeRate(decimal('1.25')), homeRate(decimal('3'))]).toEqual(['0.8', '0.333333333333333']);
    expect(priceAbroad(decimal('940'), decimal('1.085'), 2)).toBe('1019.90');
    const gauge = DEMO_ITEMS.find((item) => item.id === 'gauge');
    if (gauge === undefined) throw new Error('no gauge');
    const line = takeItem(lineOf(), gauge, null, draftOf({ currency: 'USD' }), customer, dollars);
    expect([line.price, line.priceFrom]).toEqual(['1175.00', '940.00 EUR, at 1.25 1,175.00 USD']);
  });
  test('figures in the books add up group by group, and to the home gross', () => {
    const content = frozen({
      currency: 'USD',
      lines: [lineOf({ price: '33.33' }), lineOf({ price: '9.99', taxCode: 'IE-R', taxByHand: true })],
      adjustments: [charge({ amount: '7.77' })],
    });
    const counted = bookFigures(content, figuresOf(content));
    expect(counted.currency).toBe('EUR');
    expect(total(counted.groups.map((g) => g.gross))).toBe(counted.gross);
    expect(total([...counted.lineNets, ...counted.adjustmentNets])).toBe(counted.net);
    expect(total(counted.groups.flatMap((g) => g.components))).toBe(counted.taxAmount);
  });
  test('a draft shows its home figures as it is written, and none while no rate is known', () => {
    expect(preview(draftOf({ currency: 'USD' }), customer, dollars).figures.home?.gross).toBe(9840n);
    expect(preview(draftOf({ currency: 'USD' }), customer, settingOf()).figures.home).toBeUndefined();
  });
  test('a customer brings currency and style, unless prices are typed already', () => {
    const abroad = { ...(customer as NonNullable<typeof customer>), currency: 'USD', styleId: 'house' };
    const empty = draftOf({ lines: [lineOf({ price: '' })] });
    expect(takeCustomer(empty, abroad, dollars)).toMatchObject({ currency: 'USD', styleId: 'house' });
    expect(takeCustomer(draftOf(), abroad, dollars).currency).toBe('');
  });
});

describe('files of daily rates', () => {
  const read = (text: string, home = EUR) => readRateXml(text, home, 'feed');
  test('the feed is read, with a rate for each currency and the same each time', () => {
    const result = read(rateFeed(isoDate('2026-11-23')));
    const rates = result.ok ? result.value : [];
    expect(rates).toHaveLength(9);
    expect(rates.find((r) => r.currency === 'USD')).toMatchObject({ id: 'USD|2026-11-23', source: 'feed' });
    expect(read(rateFeed(isoDate('2026-11-23')))).toEqual(result);
  });
  test('another home currency is worked out over the euro', () => {
    const text =
      '<Envelope><Cube><Cube time="2026-01-02"><Cube currency="USD" rate="1.25"/><Cube currency="GBP" rate="0.80"/></Cube></Cube></Envelope>';
    const result = read(text, currency('GBP'));
    expect(result.ok && result.value.map((r) => [r.currency, r.perHome])).toEqual([
      ['EUR', '1.25'],
      ['USD', '1.5625'],
    ]);
  });
  test.each([
    ['a document type', '<!DOCTYPE a [<!ENTITY b SYSTEM "file:///x">]><Envelope/>'],
    ['half a file', '<Envelope><Cube>'],
    ['something else', '<html><body>rates</body></html>'],
    ['nothing', ''],
    [
      'no rate above zero',
      '<Envelope><Cube><Cube time="2026-01-02"><Cube currency="USD" rate="0"/></Cube></Cube></Envelope>',
    ],
  ])('%s is refused', (_, text) => expect(read(text).ok).toBe(false));
});

describe('content rules as packs', () => {
  test.each(CHECK_PACKS.map((pack) => [pack.id, pack] as const))(
    '%s is whole, and each rule has its source',
    (_, pack) => {
      expect(checkPackSchema.isValidSync(pack, { strict: true })).toBe(true);
      const ids = new Set(pack.rules.map((rule) => rule.id));
      for (const id of pack.simplified?.rules ?? []) expect(ids).toContain(id);
    },
  );
  test.each([
    ['IE', '2026-01-01', 'EU'],
    ['GB', '2020-12-31', 'EU'],
    ['GB', '2021-01-01', 'GB'],
    ['US', '2026-01-01', 'US'],
    ['NZ', '2026-01-01', 'GST'],
    ['KE', '2026-01-01', 'COMMON'],
  ])('a registration in %s on %s takes %s', (country, on, id) =>
    expect(checkPackFor(country, isoDate(on)).id).toBe(id),
  );

  const found = (over: object) => {
    const content = { ...frozen({ lines: [lineOf({ price: '500' })] }), ...over };
    return contentFindings(content, figuresOf(content)).map((f) => `${f.severity} ${f.rule}`);
  };
  test('a small sale needs no address of the customer, a large one does', () => {
    const buyer = { ...frozen({}).buyer, name: '', address: { ...frozen({}).buyer.address, city: '' } };
    expect(found({ buyer })).toContain('must EU-226-5');
    const small = { ...frozen({ lines: [lineOf({ price: '80' })] }), buyer };
    expect(contentFindings(small, figuresOf(small))).toEqual([]);
    expect(contentChecks(small, figuresOf(small)).title).toBe('EU simplified invoice');
  });
  test('nothing that says where to pay is asked about, but not on a sale that is paid', () => {
    const seller = { ...frozen({}).seller, iban: '' };
    expect(found({ seller })).toContain('should PAY-1');
    expect(found({ seller, paidBy: 'cash' })).not.toContain('should PAY-1');
  });
});

describe('workings of totals', () => {
  const content = frozen({
    currency: 'USD',
    lines: [lineOf({ id: 'a', price: '100' }), lineOf({ id: 'b', price: '6', taxCode: 'IE-Z', taxByHand: true })],
    adjustments: [charge({ id: 'c', amount: '10' })],
  });
  const shown = preview(draftOf({ currency: 'USD', lines: [lineOf({ id: 'a' })] }), customer, dollars);
  const names: TotalNames = {
    component: (id) => id,
    tax: (code) => code,
    withholding: (id) => id,
    adjustment: () => 'Freight',
    account: (id) => (id === 'c' ? '4400' : '4100'),
  };
  const figures = figuresOf(content);
  const steps = (key: string) =>
    explainTotal({ ...shown.input, lines: [] }, figures, key, names).map((s) => [s.words, s.amount]);
  test.each<[string, unknown]>([
    [
      'net',
      [
        ['net of IE-S', 10000n],
        ['net of IE-Z', 1600n],
        ['net of all', 11600n],
      ],
    ],
    [
      'tax',
      [
        ['IE-S', 2300n],
        ['IE-Z', 0n],
        ['tax in all', 2300n],
      ],
    ],
    [
      'payable',
      [
        ['net of all', 11600n],
        ['tax in all', 2300n],
        ['total', 13900n],
      ],
    ],
    [
      'adjustment:c',
      [
        ['on IE-Z', 1000n],
        ['Freight', 1000n],
      ],
    ],
    [
      'account:4400',
      [
        ['Freight', 1000n],
        ['net', 1000n],
      ],
    ],
    [
      'account:4100',
      [
        ['net of line 1', 10000n],
        ['net of line 2', 600n],
        ['net', 10600n],
      ],
    ],
    ['group:nowhere', []],
    ['unheard of', []],
  ])('%s', (key, expected) => expect(steps(key)).toEqual(expected));
  test('in home currency say the rate, and what is left is the net', () => {
    expect(steps('home').at(-1)).toEqual(['net is what is left', 9280n]);
    expect(minor(figures.home?.gross ?? 0n)).toBe(11120n);
  });
});

test('a seal’s short code is read back as people type it', () => {
  const code = sealCode({ hash: '0123456789abcdef'.repeat(4) });
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}$/);
  expect(readSealCode(` ${code.toLowerCase()} `)).toBe(code.replaceAll('-', ''));
  expect(readSealCode('oil0')).toBe('0110');
});
