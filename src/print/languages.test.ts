import { discountOf, draftOf, EUR, lineOf, settingOf } from 'tests/book';
import { type Content, figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { PLAIN_STYLE } from '@/core/documents/style';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { codeSquares, paymentCode } from './epc';
import { WORDINGS, wordingOf } from './wording';
import { type PrintOptions, printed } from './words';
import { Writer } from './writer';

const setting = settingOf({ rateOf: () => ({ perHome: decimal('1.25'), date: '2026-01-10' as IsoDate, source: '' }) });

function content(over: Partial<Draft> = {}): Content {
  const result = freezeDraft(draftOf(over), 'INV-2026-0001', DEMO_CUSTOMERS[0] ?? null, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

const page = (over: Partial<Draft> = {}, options: PrintOptions = {}) => {
  const frozen = content(over);
  return printed(frozen, figuresOf(frozen), options);
};

/** Every text of a wording, by its path. */
function texts(value: unknown, path = ''): readonly (readonly [string, string])[] {
  if (typeof value === 'string') return [[path, value]];
  return Object.entries(value as object).flatMap(([key, member]) => texts(member, `${path}.${key}`));
}

describe('wordings', () => {
  const english = texts(wordingOf('en'));
  test.each(WORDINGS.map((wording) => [wording.language, wording] as const))(
    '%s says everything, with the same blanks to fill',
    (_, wording) => {
      const own = new Map(texts(wording));
      for (const [path, text] of english) {
        expect([path, own.get(path) === undefined || own.get(path) === '']).toEqual([path, false]);
        const blanks = (of: string) => (of.match(/\{\w+\}/g) ?? []).sort();
        if (!path.startsWith('.months')) expect([path, blanks(own.get(path) ?? '')]).toEqual([path, blanks(text)]);
      }
    },
  );
  test('a language without a wording is written in English', () => expect(wordingOf('nl').language).toBe('en'));
});

describe('a document in five languages', () => {
  test('says its discounts in its language, unless words of one’s own were typed', () => {
    const adjustments = [discountOf('10%'), { ...discountOf('5.00'), id: 'own', text: 'For the storm' }];
    const { totals } = page({ lines: [lineOf({})], adjustments }, { language: 'de' });
    expect(totals.slice(0, 2).map(([label]) => label)).toEqual(['Rabatt, 10 %', 'For the storm']);
  });
  test('writes the first of a month as French does', () =>
    expect(new Writer('fr', EUR).day(isoDate('2026-03-01'))).toBe('1er mars 2026'));

  test.each([
    ['en', 'Invoice', '14 Feb 2026', '1,234.50'],
    ['ga', 'Sonrasc', '14 Feabhra 2026', '1,234.50'],
    ['de', 'Rechnung', '14. Februar 2026', '1.234,50'],
    ['fr', 'Facture', '14 février 2026', '1\u00a0234,50'],
    ['es', 'Factura', '14 de febrero de 2026', '1.234,50'],
  ])('%s', (language, title, due, amount) => {
    const shown = page({ lines: [lineOf({ price: '1234.50' })] }, { language });
    expect([shown.title, shown.lines[0]?.value]).toEqual([title, amount]);
    expect(shown.facts.map(([, value]) => value)).toContain(due);
  });
});

describe('what a style and a variant change', () => {
  test('columns and facts are left out, own words stand in', () => {
    const style = {
      ...PLAIN_STYLE,
      leaveOutColumns: ['tax', 'price'] as const,
      leaveOut: ['phone', 'subject'] as const,
      words: [{ language: 'en', title: 'Tax invoice', foot: 'Thank you.' }],
    };
    const shown = page({ subject: 'Pier' }, { style });
    expect(shown.columns.map((column) => column.field)).toEqual(['title', 'quantity', 'value']);
    expect([shown.title, shown.foot, shown.facts.some(([label]) => label === 'Subject')]).toEqual([
      'Tax invoice',
      'Thank you.',
      false,
    ]);
    expect(shown.seller).not.toContain('+353 91 000 000');
  });
  test('the footer of a style stands on every page, the code of an item below its words', () => {
    const style = { ...PLAIN_STYLE, footer: 'Court of Galway 1234\nDirectors: A. Sample' };
    const shown = page({ lines: [lineOf({ description: 'Gauge\n20 m', itemCode: '901530' })] }, { style });
    expect([shown.footer, shown.lines[0]?.detail]).toEqual([style.footer, '20 m\nItem code 901530']);
  });
  test('a delivery note shows where it goes and no money', () => {
    const delivery = { street: 'Pier 2', city: 'Rossaveel', region: '', postalCode: '', country: 'IE' };
    const note = page({ delivery, carrier: 'Van', tracking: 'T-1' }, { variant: 'delivery-note' });
    expect([note.title, note.totals, note.payment]).toEqual(['Delivery note', [], []]);
    expect(note.buyer).toContain('Pier 2');
    expect(Object.fromEntries(note.facts)).toMatchObject({ Carrier: 'Van', 'Tracking number': 'T-1' });
    expect(note.columns.map((column) => column.field)).toEqual(['title', 'quantity']);
  });
  test('a cash sale says that it is paid, and asks for no money', () => {
    const sale = page({ kind: 'cash-sale', paidBy: 'card', due: '0d' });
    expect([sale.title, sale.payment, sale.slip]).toEqual([
      'Invoice, paid',
      [['Paid on 15 Jan 2026, by card', '']],
      null,
    ]);
  });
  test('a receipt says what was received, by whom it asks for no more', () => {
    const received = [{ date: isoDate('2026-01-20'), method: 'bank' as const, amount: minor(12300n) }];
    const receipt = page({}, { variant: 'receipt', received });
    expect(receipt.payment).toEqual([['Paid on 20 Jan 2026, by bank transfer', '123.00 EUR']]);
    expect([receipt.terms, receipt.code, receipt.slip]).toEqual([[], null, null]);
    expect(receipt.facts.map(([label]) => label)).not.toContain('Due');
    expect(page({}, {}).facts.map(([label]) => label)).toContain('Due');
  });
  test('instalments add up to what is payable, and an early payment is offered', () => {
    const shown = page({ due: '33.3% 0d + 66.7% 30d, 2% 10d' });
    expect(shown.terms).toEqual([
      '33.3 % by 15 Jan 2026: 40.96 EUR',
      '66.7 % by 14 Feb 2026: 82.04 EUR',
      '2 % off if it is paid by 25 Jan 2026',
    ]);
  });
  test('a document in foreign currency says its tax at home, with the rate', () => {
    expect(page({ currency: 'USD' }).homeTax).toBe('Tax in EUR: 18.40 (1 EUR = 1.25 USD, rate of 10 Jan 2026)');
    expect(page().homeTax).toBe('');
  });
  test('what was summed so far is carried forward', () => {
    expect(page({ lines: [lineOf(), lineOf()] }).lines.map((line) => line.running)).toEqual(['100.00', '200.00']);
  });
  test('the code of the seal prints unless it is left out', () => {
    expect(page({}, { seal: 'AAAA-BBBB-CCCC' }).seal).toBe('Seal AAAA-BBBB-CCCC');
    expect(page({}, { seal: 'A', style: { ...PLAIN_STYLE, leaveOut: ['seal'] } }).seal).toBe('');
  });
});

describe('the code for banking apps', () => {
  test('follows EPC069-12, version 002', () => {
    const frozen = content();
    expect(paymentCode(frozen, figuresOf(frozen))?.split('\n')).toEqual([
      'BCD',
      '002',
      '1',
      'SCT',
      '',
      'Corran Point Instruments Ltd (sample)',
      'IE31CPTB99000012345678',
      'EUR123.00',
      '',
      '',
      'INV-2026-0001',
    ]);
  });
  test('can’t be said in another currency, without an account, or for nothing', () => {
    const dollars = content({ currency: 'USD' });
    const free = content({ lines: [lineOf({ price: '0' })] });
    const poor = { ...content(), seller: { ...content().seller, iban: '' } };
    for (const one of [dollars, free, poor]) expect(paymentCode(one, figuresOf(one))).toBeNull();
  });
  test('is drawn in squares with its three corners', () => {
    const { size, dark } = codeSquares('BCD\n002');
    expect([dark(0, 0), dark(size - 1, 0), dark(0, size - 1), dark(1, 1)]).toEqual([true, true, true, false]);
  });
  test('stands on the document only where the style wants it', () => {
    expect(page().code).toBeNull();
    const slip = page({}, { style: { ...PLAIN_STYLE, payment: 'slip' } });
    expect([slip.code?.words, slip.slip?.rows.length]).toEqual(['Scan with a banking app to pay', 5]);
  });
});
