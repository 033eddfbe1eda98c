import { day, draftOf, lineOf, settingOf } from 'tests/book';
import { type Content, figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { packOf } from '@/core/tax/packs';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { fileName, type PrintedDocument, printed, printName } from './words';

const setting = settingOf();

function content(over: Partial<Draft> = {}, who = 'ballyvaughan'): Content {
  const customer = DEMO_CUSTOMERS.find((c) => c.id === who) ?? null;
  const result = freezeDraft(draftOf({ customerId: who, ...over }), 'INV-2026-0001', customer, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}
const pageOf = (over: Partial<Draft> = {}, who?: string) => {
  const frozen = content(over, who);
  return printed(frozen, figuresOf(frozen));
};

const fieldsOf = (page: PrintedDocument) => page.columns.map((column) => column.field);

test('a cancelled invoice says so across it, when and why, and asks for no payment', () => {
  const frozen = content();
  const plain = printed(frozen, figuresOf(frozen));
  const cancelled = printed(frozen, figuresOf(frozen), { cancelled: { on: day('2026-01-20'), reason: 'Typed twice' } });
  expect([plain.stamp, plain.stampLine, plain.payment.length > 0]).toEqual(['', '', true]);
  expect([cancelled.stamp, cancelled.stampLine]).toEqual(['Cancelled', 'Cancelled on 20 Jan 2026: Typed twice']);
  expect([cancelled.payment, cancelled.code, cancelled.slip]).toEqual([[], null, null]);
});

describe('a printed invoice', () => {
  test('says who sells and who buys, with addresses and tax numbers', () => {
    const page = pageOf();
    expect(page.seller).toEqual(
      expect.arrayContaining([
        'Corran Point Instruments Ltd (sample)',
        'Dock Road',
        'VAT no. IE7654321G',
        'Company number 000000',
      ]),
    );
    expect(page.buyer).toEqual([
      'Ballyvaughan Harbour Board',
      'Pier Road',
      'Ballyvaughan',
      'Co. Clare',
      'H91 X0X1',
      'Ireland',
      'VAT no. IE8100234D',
    ]);
  });
  test('has its facts, and only those that were given', () => {
    const facts = Object.fromEntries(pageOf({ taxPoint: '2026-01-10', buyerReference: 'BHB-7' }).facts);
    expect(facts).toEqual({
      Number: 'INV-2026-0001',
      'Issue date': '15 Jan 2026',
      'Tax point': '10 Jan 2026',
      Due: '14 Feb 2026',
      'Your reference': 'BHB-7',
    });
    expect(Object.keys(Object.fromEntries(pageOf({ buyerReference: '', orderNumber: 'PO-1' }).facts))).toContain(
      'Order number',
    );
  });
  test('prints lines with quantity and unit, discount and further text', () => {
    const page = pageOf({
      lines: [
        lineOf({
          description: 'Calibration\non site\ntwo days',
          unit: 'DAY',
          quantity: '1.50',
          price: '1160',
          discount: '10%',
        }),
        lineOf({ price: '0.0125', discount: '0.01' }),
      ],
    });
    expect(page.lines[0]).toEqual({
      title: 'Calibration',
      detail: 'on site\ntwo days',
      quantity: '1.5 days',
      price: '1,160.00',
      less: '10 %',
      tax: 'VAT 23 %',
      value: '1,566.00',
      supplied: '',
      running: '1,566.00',
    });
    expect(page.lines[1]).toMatchObject({ price: '0.0125', less: '0.01', value: '0.00' });
    expect(fieldsOf(page)).toContain('less');
  });
  test('leaves out the columns that nobody uses', () =>
    expect(fieldsOf(pageOf())).toEqual(['title', 'quantity', 'price', 'tax', 'value']));
  test('adds up net, tax by code, and the total', () => {
    expect(pageOf({ lines: [lineOf(), lineOf({ price: '6', taxCode: 'IE-Z' })] }).totals).toEqual([
      ['Net', '106.00'],
      ['VAT 23 % on 100.00', '23.00'],
      ['Zero on 6.00', '0.00'],
      ['Total', '129.00'],
    ]);
  });
  test('says what the customer withholds and what money is expected', () => {
    const types = { withholdingTypes: packOf('KE').withholdingTypes };
    const withholding = settingOf({ setup: { ...settingOf().setup, ...types } });
    const customer = DEMO_CUSTOMERS.find((c) => c.id === 'mombasa') ?? null;
    const result = freezeDraft(draftOf({ lines: [lineOf({ taxCode: 'IE-OS' })] }), 'INV-1', customer, withholding);
    if (!result.ok) throw new Error(JSON.stringify(result.refusals));
    const page = printed(result.value, figuresOf(result.value));
    expect(page.withheld).toEqual([
      ['Withholding VAT on 100.00', '\u22122.00'],
      ['Net of withholding', '98.00'],
    ]);
  });
  test('says that prices include tax when they do', () => {
    const page = pageOf({ priceMode: 'gross', lines: [lineOf({ price: '123' })] });
    expect([page.valueHead, page.lines[0]?.value, page.totals[0]]).toEqual(['With tax', '123.00', ['Net', '100.00']]);
  });
  test('carries the legend of a code that charges nothing, once', () => {
    const page = pageOf({ lines: [lineOf({ taxCode: 'IE-RC' }), lineOf({ taxCode: 'IE-RC' })] }, 'nordlicht');
    expect(page.legends).toEqual(['Steuerschuldnerschaft des Leistungsempfängers.']);
  });
  test('says where to pay, unless no account is known', () => {
    expect(Object.fromEntries(pageOf().payment)).toMatchObject({
      IBAN: 'IE31 CPTB 9900 0012 3456 78',
      Reference: 'INV-2026-0001',
      Due: '14 Feb 2026',
    });
    const frozen = content();
    const poor = { ...frozen, seller: { ...frozen.seller, iban: '' } };
    expect(printed(poor, figuresOf(poor)).payment).toEqual([]);
  });
});

describe('a printed credit note', () => {
  const frozen = content();
  const note: Content = {
    ...frozen,
    kind: 'credit-note',
    number: 'CN-2026-0001',
    reason: 'Returned',
    corrects: { documentId: 'x', number: 'INV-2026-0001', issueDate: day('2026-01-15') },
  };
  const page = printed(note, figuresOf(note));
  test('names the invoice and the reason, and asks for no money', () => {
    expect(page.title).toBe('Credit note');
    expect(Object.fromEntries(page.facts)).toMatchObject({
      'Credits invoice': 'INV-2026-0001 of 15 Jan 2026',
      Reason: 'Returned',
    });
    expect(Object.keys(Object.fromEntries(page.facts))).not.toContain('Due');
    expect(page.payment).toEqual([]);
  });
});

test('file names hold nothing a file system could stumble over', () => {
  expect(fileName({ number: 'INV/2026:01 ä' }, 'pdf')).toBe('INV-2026-01-ä.pdf');
  const invoice = { kind: 'invoice', number: 'INV-1', buyer: { language: 'de' } } as Parameters<typeof printName>[0];
  expect(printName(invoice)).toBe('Rechnung-INV-1.pdf');
  expect(printName(invoice, 'delivery-note')).toBe('Lieferschein-INV-1.pdf');
});
