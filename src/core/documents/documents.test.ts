import { day, draftOf, EUR, lineOf, settingOf } from 'tests/book';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { DEMO_CUSTOMERS, DEMO_ITEMS } from '@/demo/setup';
import { type Content, figuresOf, trailOf } from './content';
import { contentFindings } from './contentRules';
import { takeCustomer, takeItem } from './determineLine';
import type { Draft } from './draft';
import { freezeDraft } from './freeze';
import { nextDue, stateOf } from './issued';
import { datesOf } from './lineTax';
import { preview } from './preview';
import { readLine } from './readLine';
import { firstBroken, sealOf } from './seal';
import { advance, FIRST_SERIES, nextNumber, type Series } from './series';

const setting = settingOf();
const customer = (id: string) => DEMO_CUSTOMERS.find((c) => c.id === id) ?? null;
const item = (id: string) => DEMO_ITEMS.find((i) => i.id === id) ?? DEMO_ITEMS[0];

function freeze(over: Partial<Draft> = {}, who = 'ballyvaughan'): Result<Content> {
  return freezeDraft(draftOf({ customerId: who, ...over }), 'INV-2026-0001', customer(who), setting);
}

function frozen(over: Partial<Draft> = {}, who?: string): Content {
  const result = freeze(over, who);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

describe('a typed line', () => {
  test('is read with marks as people write them', () => {
    expect(readLine(lineOf({ quantity: '1,5', price: '1,234.50', discount: '10 %' }), EUR)).toEqual({
      quantity: '1.5',
      unitPrice: '1234.50',
      discount: { percent: '10' },
    });
  });
  test.each([
    ['', undefined],
    ['5', { amount: '5' }],
    ['2.50', { amount: '2.50' }],
    ['12.5%', { percent: '12.5' }],
    ['2.505', null],
    ['much', null],
    ['%', null],
  ])('discount %p', (discount, read) => expect(readLine(lineOf({ discount }), EUR).discount).toEqual(read));
  test('takes a discount only in whole units of its currency', () => {
    expect(readLine(lineOf({ discount: '2.5' }), currency('JPY')).discount).toBeNull();
  });
});

describe('days of a draft', () => {
  test('the tax point is the issue date, and terms count from it', () => {
    expect(datesOf(draftOf({ issueDate: '2026-01-31', due: '1m' }))).toEqual({
      issueDate: '2026-01-31',
      taxPoint: '2026-01-31',
      dueDate: '2026-02-28',
    });
  });
  test('a due date may be a day of its own', () => {
    expect(datesOf(draftOf({ due: '2026-03-01', taxPoint: '2026-01-10' }))).toMatchObject({
      dueDate: '2026-03-01',
      taxPoint: '2026-01-10',
    });
  });
  test('what is no day is none', () => {
    expect(datesOf(draftOf({ issueDate: 'soon', due: '30d' }))).toEqual({
      issueDate: null,
      taxPoint: null,
      dueDate: null,
    });
  });
});

describe('freezing a draft', () => {
  test('takes seller, customer, rates and trail as they are that day', () => {
    const content = frozen({
      lines: [
        lineOf({ itemId: 'tables', taxCode: 'IE-Z', taxClass: 'zero', supply: 'goods', description: 'Tide tables' }),
        lineOf(),
      ],
    });
    expect(content.seller).toMatchObject({ name: setting.business.name, taxNumber: 'IE7654321G' });
    expect(content.buyer.name).toBe('Ballyvaughan Harbour Board');
    expect(content.taxes.map((tax) => [tax.code, tax.percent, tax.since])).toEqual([
      ['IE-Z', '0', '2026-01-15'],
      ['IE-S', '23', '2021-03-01'],
    ]);
    const [tables, typed] = content.lines.map((line) => trailOf(content, line));
    expect(tables?.at(-1)).toEqual({ held: true, text: 'so the code is IE-Z' });
    expect(typed?.at(-1)).toEqual({ held: true, text: 'so the code is IE-S' });
  });
  test('leaves blank lines out and keeps their places in refusals', () => {
    const lines = [lineOf({ description: '', price: '' }), lineOf({ price: 'lots' })];
    const result = freeze({ lines });
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['lines[1].price']);
  });
  test.each<[string, Partial<Draft>, string]>([
    ['no lines', { lines: [] }, 'lines'],
    ['an issue date in words', { issueDate: 'soon' }, 'issueDate'],
    ['a tax point in words', { taxPoint: 'later' }, 'taxPoint'],
    ['a due date before the issue date', { due: '2026-01-01' }, 'due'],
    ['a line without words', { lines: [lineOf({ description: ' ' })] }, 'lines[0].description'],
    ['a line without a quantity', { lines: [lineOf({ quantity: '' })] }, 'lines[0].quantity'],
    ['a discount that is none', { lines: [lineOf({ discount: 'x' })] }, 'lines[0].discount'],
    ['a line without a code', { lines: [lineOf({ taxCode: '' })] }, 'lines[0].taxCode'],
    ['a code that is gone', { lines: [lineOf({ taxCode: 'OLD' })] }, 'lines[0].taxCode'],
    [
      'a code without a rate that day',
      { taxPoint: '2000-01-01', lines: [lineOf({ taxCode: 'IE-S' })] },
      'lines[0].taxCode',
    ],
  ])('%s is refused at the field', (_, over, path) => {
    const result = freeze(over);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toContain(path);
  });
  test('without a customer it is refused', () => {
    const result = freezeDraft(draftOf(), 'INV', null, setting);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['customerId']);
  });
  test('the tax point chooses the rate: February 2021 had 21 %', () => {
    const content = frozen({ issueDate: '2021-03-02', taxPoint: '2021-02-28', due: '30d' });
    expect(figuresOf(content).totals).toMatchObject({ net: 10000n, taxAmount: 2100n });
  });
});

describe('preview', () => {
  test('computes what can be computed and leaves half-filled lines out', () => {
    const lines = [
      lineOf({ id: 'a' }),
      lineOf({ id: 'b', price: '' }),
      lineOf({ id: 'c', price: '50', discount: '10%' }),
    ];
    const shown = preview(draftOf({ lines }), customer('ballyvaughan'), setting);
    expect(shown.figures.totals).toMatchObject({ net: 14500n, taxAmount: 3335n, gross: 17835n });
    expect([...shown.byLine.keys()]).toEqual(['a', 'c']);
  });
  test('gives what freezing gives, in both price modes', () => {
    for (const priceMode of ['net', 'gross'] as const) {
      const over = {
        priceMode,
        lines: [lineOf({ price: '19.99', quantity: '3' }), lineOf({ taxCode: 'IE-R', price: '7.10' })],
      };
      expect(preview(draftOf(over), customer('ballyvaughan'), setting).figures).toEqual(figuresOf(frozen(over)));
    }
  });
});

describe('what a line takes', () => {
  test('from an item: words, unit, price, account, code', () => {
    const taken = takeItem(
      lineOf({ price: '', description: '' }),
      item('repair') as never,
      null,
      draftOf(),
      customer('clewbay'),
      setting,
    );
    expect(taken).toMatchObject({
      description: 'Instrument repair',
      unit: 'HUR',
      price: '62.00',
      account: '4300',
      taxCode: 'IE-R',
      taxByHand: false,
    });
  });
  test('with the tax inside, the item’s price becomes the one that holds it', () => {
    const draft = draftOf({ priceMode: 'gross' });
    expect(takeItem(lineOf(), item('repair') as never, null, draft, customer('counter'), setting).price).toBe('70.37');
    expect(takeItem(lineOf(), item('seals') as never, null, draft, customer('counter'), setting).price).toBe('22.69');
  });
  test('from a customer: terms and codes, but nothing chosen manually', () => {
    const draft = draftOf({
      lines: [lineOf(), lineOf({ supply: 'goods' }), lineOf({ taxCode: 'IE-Z', taxByHand: true })],
    });
    const nordlicht = customer('nordlicht');
    if (nordlicht === null) throw new Error('no customer');
    const taken = takeCustomer(draft, nordlicht, setting);
    expect(taken.lines.map((line) => line.taxCode)).toEqual(['IE-RC', 'IE-IC', 'IE-Z']);
    expect(taken.customerId).toBe('nordlicht');
  });
  test('a due day that was typed stays', () => {
    const clewbay = customer('clewbay');
    if (clewbay === null) throw new Error('no customer');
    expect(takeCustomer(draftOf({ due: '2026-09-09' }), clewbay, setting).due).toBe('2026-09-09');
    expect(takeCustomer(draftOf(), clewbay, setting).due).toBe('14d');
  });
});

describe('number series', () => {
  const first = FIRST_SERIES.find((series) => series.id === 'invoice') as Series;
  test('counts without gaps and begins anew each year', () => {
    const numbers: string[] = [];
    let series = first;
    for (const on of ['2026-12-30', '2026-12-31', '2027-01-01', '2026-12-31', '2027-02-01']) {
      numbers.push(nextNumber(series, isoDate(on)));
      series = advance(series, isoDate(on), 'seal');
    }
    expect(numbers).toEqual(['INV-2026-0001', 'INV-2026-0002', 'INV-2027-0001', 'INV-2026-0003', 'INV-2027-0002']);
  });
  test('outgrows its digits without losing any', () => {
    expect(nextNumber({ ...first, next: { '2026': 12345 } }, isoDate('2026-01-01'))).toBe('INV-2026-12345');
  });
  test('begins where it is told to, once; a later year begins at one', () => {
    const moved = { ...first, start: 143 };
    expect(nextNumber(moved, isoDate('2026-05-01'))).toBe('INV-2026-0143');
    expect(nextNumber(advance(moved, isoDate('2026-05-01'), ''), isoDate('2027-01-02'))).toBe('INV-2027-0001');
  });
  test('without yearly reset counts on, and the year does not stand in the number', () => {
    const on = advance({ ...first, yearly: false, prefix: 'W' }, isoDate('2026-12-31'), '');
    expect(nextNumber(on, isoDate('2027-01-01'))).toBe('W-0002');
  });
});

describe('the seal', () => {
  const contents = ['INV-1', 'INV-2', 'INV-3'].map((number) => ({ ...frozen(), number }));
  const chain: { content: Content; seal: ReturnType<typeof sealOf> }[] = [];
  for (const content of contents) chain.push({ content, seal: sealOf(content, chain.at(-1)?.seal.hash ?? '') });
  test('holds for an untouched chain', () => expect(firstBroken(chain)).toBeNull());
  test('names the document that was altered', () => {
    const altered = chain.map((link, i) =>
      i === 1 ? { ...link, content: { ...link.content, note: 'free of charge' } } : link,
    );
    expect(firstBroken(altered)).toBe('INV-2');
  });
  test('names the first after one that was taken out', () => {
    expect(firstBroken(chain.filter((_, i) => i !== 1))).toBe('INV-3');
  });
});

describe('content rules', () => {
  const rulesOf = (content: Content) =>
    contentFindings(content, figuresOf(content)).map((f) => `${f.severity} ${f.rule}`);
  test('a whole invoice has nothing to find', () => expect(rulesOf(frozen())).toEqual([]));
  test.each<[string, Partial<Content>, string]>([
    ['our tax number missing', { seller: { ...frozen().seller, taxNumber: '' } }, 'must EU-226-3'],
    ['a tax point before the issue date', { taxPoint: isoDate('2026-01-12') }, 'note EU-226-7'],
    ['an invoice long after its tax point', { taxPoint: isoDate('2025-11-01') }, 'should EU-222'],
    [
      'a customer without a town',
      { buyer: { ...frozen().buyer, address: { ...frozen().buyer.address, city: '' } } },
      'must EU-226-5',
    ],
  ])('%s', (_, over, rule) => expect(rulesOf({ ...frozen(), ...over })).toContain(rule));
  test('a code that charges nothing must say why', () => {
    const content = frozen({}, 'nordlicht');
    const wordless = {
      ...content,
      taxes: [{ ...frozen({ lines: [lineOf({ taxCode: 'IE-RC' })] }, 'nordlicht').taxes[0], legend: '' }],
    } as Content;
    expect(rulesOf(wordless)).toContain('must EU-226-11A');
  });
});

describe('state by settlement', () => {
  test.each([
    [100n, 0n, 0n, 'issued'],
    [40n, 60n, 0n, 'part-paid'],
    [40n, 0n, 60n, 'issued'],
    [0n, 100n, 0n, 'paid'],
    [0n, 0n, 100n, 'credited'],
    [0n, 60n, 40n, 'paid'],
  ])('open %s, received %s, credited %s: %s', (open, received, credited, state) => {
    const content = frozen();
    const figures = figuresOf(content);
    const settlement = {
      open: minor(open),
      received: minor(received),
      credited: minor(credited),
      writtenOff: minor(0n),
    };
    expect(stateOf({ ...settlement, content, figures, cancelled: null, quote: null })).toBe(state);
  });
});

describe('the next due date', () => {
  // 123.00 in three parts: 36.90 on 20 Jan, 36.90 on 31 Jan, 49.20 on 28 Feb.
  const content = {
    ...frozen(),
    instalments: [
      { percent: decimal('30'), due: day('2026-01-20') },
      { percent: decimal('30'), due: day('2026-01-31') },
      { percent: decimal('40'), due: day('2026-02-28') },
    ],
    dueDate: day('2026-02-28'),
  };
  const figures = figuresOf(content);
  const all = figures.totals.payable;
  const standing = (settled: bigint) => ({
    content,
    figures,
    open: minor(all - settled),
    received: minor(settled),
    credited: minor(0n),
    writtenOff: minor(0n),
    cancelled: null,
    quote: null,
  });
  const part = (percent: bigint) => (all * percent + 50n) / 100n;
  test.each([
    ['of the first part while nothing is paid', 0n, '2026-01-20'],
    ['of the first until all of it is paid', part(30n) - 1n, '2026-01-20'],
    ['of the second then', part(30n), '2026-01-31'],
    ['of the last', part(60n), '2026-02-28'],
    ['of the last too once all is paid', all, '2026-02-28'],
  ])('is that %s', (_, settled, due) => expect(nextDue(standing(settled))).toBe(due));
});
