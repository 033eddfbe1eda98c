import fc from 'fast-check';
import { discountOf, draftOf, lineOf, settingOf } from 'tests/book';
import { soundInvoiceOf } from 'tests/einvoice';
import { type Content, figuresOf } from '@/core/documents/content';
import { blankAdjustment, type Draft, type DraftLine } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { PLAIN_STYLE } from '@/core/documents/style';
import { isoDate } from '@/core/kernel/date';
import type { Customer } from '@/core/parties/customer';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { printed } from '@/print/words';
import { checkEInvoice } from './check';
import { einvoiceOf } from './fromDocument';
import { type EInvoice, groupsOf, textOf } from './model';
import { writeEInvoice } from './syntax';
import type { GroupId, TermId } from './terms';

const setting = settingOf();
const MANDATE = { reference: 'M-17', iban: 'IE31 CPTB 9900 0012 3456 78' };

function contentOf(over: Partial<Draft> = {}, who = 'ballyvaughan', has: Partial<Customer> = {}): Content {
  const customer = DEMO_CUSTOMERS.find((c) => c.id === who);
  if (customer === undefined) throw new Error(`no ${who}`);
  const of = { ...customer, ...has };
  const result = freezeDraft(draftOf({ customerId: who, ...over }), 'INV-2026-0001', of, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

const modelOf = (content: Content): EInvoice => einvoiceOf(content, figuresOf(content));
const rulesBroken = (invoice: EInvoice) => checkEInvoice(invoice, 'peppol').map(({ rule }) => rule);

/** Values of some terms, '' where missing. */
const values = (from: EInvoice, ...ids: readonly TermId[]) => ids.map((id) => textOf(from, id));
/** The same of every group of an id. */
const eachOf = (from: EInvoice, id: GroupId, ...ids: readonly TermId[]) =>
  groupsOf(from, id).map((one) => values(one, ...ids));
const only = (from: EInvoice, id: GroupId): EInvoice => {
  const [first] = groupsOf(from, id);
  if (first === undefined) throw new Error(`no ${id}`);
  return first;
};

const creditNote = (): Content => ({
  ...contentOf(),
  kind: 'credit-note',
  number: 'CN-2026-0001',
  corrects: { documentId: 'x', number: 'INV-2026-0001', issueDate: isoDate('2026-01-15') },
  reason: 'Returned',
});

describe('the model of a document', () => {
  test('holds prices, discounts and breakdown by category and rate', () => {
    const invoice = modelOf(
      contentOf({
        lines: [
          lineOf({ price: '940.00' }),
          lineOf({ quantity: '1.5', price: '160', discount: '10%' }),
          lineOf({ quantity: '4', price: '1.50', taxCode: 'IE-Z' }),
        ],
      }),
    );
    expect(eachOf(invoice, 'BG-25', 'BT-129', 'BT-146', 'BT-131')).toEqual([
      ['1', '940.00', '940.00'],
      ['1.5', '160', '216.00'],
      ['4', '1.50', '6.00'],
    ]);
    expect(groupsOf(invoice, 'BG-25').map((line) => eachOf(line, 'BG-27', 'BT-136'))).toEqual([[], [['24.00']], []]);
    expect(eachOf(invoice, 'BG-23', 'BT-118', 'BT-119', 'BT-116', 'BT-117')).toEqual([
      ['S', '23', '1156.00', '265.88'],
      ['Z', '0', '6.00', '0.00'],
    ]);
    expect(values(invoice, 'BT-106', 'BT-110', 'BT-112', 'BT-115')).toEqual([
      '1162.00',
      '265.88',
      '1427.88',
      '1427.88',
    ]);
  });
  test('turns prices that hold the tax into net ones: 40.00 with 9 % inside is 36.70', () => {
    const nine = modelOf(contentOf({ priceMode: 'gross', lines: [lineOf({ price: '40', taxCode: 'IE-R2' })] }));
    expect(eachOf(nine, 'BG-25', 'BT-146', 'BT-131')).toEqual([['36.7', '36.70']]);
    expect(groupsOf(only(nine, 'BG-25'), 'BG-27')).toEqual([]);
  });
  test('a negative price turns the quantity, a negative discount becomes a charge', () => {
    const lines = [lineOf(), lineOf({ price: '-12.50', quantity: '2' }), lineOf({ price: '10', discount: '-5' })];
    const invoice = modelOf(contentOf({ lines }));
    expect(eachOf(invoice, 'BG-25', 'BT-129', 'BT-146', 'BT-131')[1]).toEqual(['-2', '12.50', '-25.00']);
    expect(eachOf(groupsOf(invoice, 'BG-25')[2] as EInvoice, 'BG-28', 'BT-141', 'BT-144')).toEqual([
      ['5.00', 'Surcharge'],
    ]);
    expect(rulesBroken(invoice)).toEqual([]);
  });
  test('carries why no tax is charged, and nothing of the kind where it is', () => {
    const reverse = modelOf(contentOf({ lines: [lineOf({ taxCode: 'IE-RC' }), lineOf()] }, 'nordlicht'));
    expect(eachOf(reverse, 'BG-23', 'BT-118', 'BT-121', 'BT-120')).toEqual([
      ['AE', 'VATEX-EU-AE', 'Steuerschuldnerschaft des Leistungsempfängers.'],
      ['S', '', ''],
    ]);
  });
  test('of an intra-community supply says when and to which country it went', () => {
    const inside = modelOf(contentOf({ lines: [lineOf({ taxCode: 'IE-IC' })] }, 'nordlicht'));
    expect([values(inside, 'BT-72'), eachOf(inside, 'BG-15', 'BT-80')]).toEqual([['2026-01-15'], [['DE']]]);
    expect(rulesBroken(inside)).toEqual([]);
  });
  test('has terms of payment, period, contact, subject and days of lines where the document has', () => {
    const invoice = modelOf(
      contentOf({
        due: '50% 0d + 50% 30d, 2% 10d',
        supplyFrom: '2026-01-01',
        contact: 'Róisín',
        subject: 'Pier 3',
        note: 'With thanks',
        lines: [{ ...lineOf(), supplied: '2026-01-10' }],
      }),
    );
    expect(values(invoice, 'BT-20')).toEqual([
      '50 % due 2026-01-15; 50 % due 2026-02-14; 2 % off if paid by 2026-01-25',
    ]);
    expect(eachOf(invoice, 'BG-14', 'BT-73', 'BT-74')).toEqual([['2026-01-01', '2026-01-15']]);
    expect(eachOf(invoice, 'BG-1', 'BT-22')).toEqual([['Pier 3\nWith thanks']]);
    expect(textOf(only(invoice, 'BG-7'), 'BT-56')).toBe('Róisín');
    expect(eachOf(only(invoice, 'BG-25'), 'BG-26', 'BT-134', 'BT-135')).toEqual([['2026-01-10', '2026-01-10']]);
    expect(rulesBroken(invoice)).toEqual([]);
  });
  test('of a cash sale by card says how it was paid, and that nothing is due', () => {
    const sale = modelOf(contentOf({ kind: 'cash-sale', paidBy: 'card', due: '0d' }));
    expect(values(sale, 'BT-112', 'BT-113', 'BT-115')).toEqual(['100.00', '100.00', '0.00']);
    expect(eachOf(sale, 'BG-16', 'BT-81')).toEqual([['48']]);
    expect(rulesBroken(sale)).toEqual([]);
  });
  test('of a customer with a mandate is collected from its account, and never asked to be paid', () => {
    const debit = contentOf({}, 'ballyvaughan', { mandate: MANDATE });
    const invoice = soundInvoiceOf(debit);
    expect(values(invoice, 'BT-89', 'BT-90')).toEqual(['M-17', setting.business.creditorId]);
    expect(eachOf(invoice, 'BG-16', 'BT-81', 'BT-91')).toEqual([['59', 'IE31CPTB99000012345678']]);
    expect(groupsOf(only(invoice, 'BG-16'), 'BG-17')).toEqual([]);
    const words = printed(debit, figuresOf(debit)).payment.map(([head, what]) => `${head}: ${what}`);
    expect(words.slice(0, 2)).toEqual(['Collected: on 14 Feb 2026 from IE31 CPTB 9900 0012 3456 78', 'Mandate: M-17']);
    expect(printed(debit, figuresOf(debit), { style: { ...PLAIN_STYLE, payment: 'slip' } }).slip).toBeNull();
    const sale = contentOf({ kind: 'cash-sale', paidBy: 'card', due: '0d' }, 'ballyvaughan', { mandate: MANDATE });
    expect(values(soundInvoiceOf(sale), 'BT-89')).toEqual(['']);
    const crowns = contentOf({ currency: 'USD', perHome: '1.25' }, 'ballyvaughan', { mandate: MANDATE });
    expect(eachOf(soundInvoiceOf(crowns), 'BG-16', 'BT-81')).toEqual([['49']]);
  });
  test('of a credit note names the invoice and has terms in place of a due date', () => {
    const note = modelOf(creditNote());
    expect(values(note, 'BT-3', 'BT-9', 'BT-20')).toEqual(['381', '', 'Set off against INV-2026-0001']);
    expect(eachOf(note, 'BG-3', 'BT-25', 'BT-26')).toEqual([['INV-2026-0001', '2026-01-15']]);
    expect(writeEInvoice(note, 'ubl')).toContain('<cbc:CreditedQuantity unitCode="C62">1</cbc:CreditedQuantity>');
    expect(rulesBroken(note)).toEqual([]);
  });
  test('takes files of the media types that the standard has', () => {
    const content = contentOf();
    const files = [
      { name: 'report.pdf', type: 'application/pdf', data: 'eA==' },
      { name: 'page.html', type: 'text/html', data: 'eA==' },
    ];
    const invoice = einvoiceOf(content, figuresOf(content), files);
    expect(eachOf(invoice, 'BG-24', 'BT-122', 'BT-125')).toEqual([['report.pdf', 'eA==']]);
    expect(rulesBroken(invoice)).toEqual([]);
  });
});

describe('allowances, charges and foreign currency', () => {
  const discounted = (priceMode: 'net' | 'gross', currency = '') => {
    const own = { taxCode: 'IE-S', taxByHand: true, amount: '20', text: 'Freight' };
    return modelOf(
      contentOf({
        priceMode,
        currency,
        perHome: currency === '' ? '' : '1.25',
        lines: [lineOf({ price: '100', taxByHand: true }), lineOf({ price: '50', taxCode: 'IE-R', taxByHand: true })],
        adjustments: [discountOf('10%'), { ...blankAdjustment('f', 'charge', '4900'), ...own }],
      }),
    );
  };
  test('stand by category and rate, and the sums hold with them', () => {
    const invoice = discounted('net');
    expect(eachOf(invoice, 'BG-20', 'BT-92', 'BT-97', 'BT-96')).toEqual([
      ['10.00', 'Discount', '23'],
      ['5.00', 'Discount', '13.5'],
    ]);
    expect(eachOf(invoice, 'BG-21', 'BT-99', 'BT-104', 'BT-103')).toEqual([['20.00', 'Freight', '23']]);
    expect(values(invoice, 'BT-106', 'BT-107', 'BT-108', 'BT-109')).toEqual(['150.00', '15.00', '20.00', '155.00']);
    for (const mode of ['net', 'gross'] as const) expect(rulesBroken(discounted(mode))).toEqual([]);
  });
  test('a document in foreign currency says its tax at home too (BT-6, BT-111)', () => {
    // 110.00 at 23 % and 45.00 at 13.5 %: 25.30 and 6.08 USD, at 1.25 20.24 and 4.86 EUR.
    const invoice = discounted('net', 'USD');
    expect(values(invoice, 'BT-5', 'BT-6', 'BT-110', 'BT-111')).toEqual(['USD', 'EUR', '31.38', '25.10']);
    expect(writeEInvoice(invoice, 'ubl')).toContain('<cbc:TaxAmount currencyID="EUR">25.10</cbc:TaxAmount>');
    expect(values(discounted('net'), 'BT-6', 'BT-111')).toEqual(['', '']);
  });
});

describe('any document that can be written', () => {
  const figure = (max: number, decimals: number) =>
    fc.integer({ min: 1, max }).map((n) => (n / 10 ** decimals).toFixed(decimals));
  const lines = fc.array(
    fc.record({
      quantity: figure(99999, 2),
      price: figure(999999, 3),
      discount: fc.constantFrom('', '', '5%', '33.3%', '-2'),
    }),
    { minLength: 1, maxLength: 12 },
  );
  /** Codes that may stand beside each other, and the customer they are for. */
  const codes = fc.constantFrom<readonly [string, readonly string[]]>(
    ['ballyvaughan', ['IE-S', 'IE-R', 'IE-Z', 'IE-R2']],
    ['nordlicht', ['IE-IC']],
    ['nordlicht', ['IE-RC', 'IE-S', 'IE-IC']],
    ['nordlicht', ['IE-EX', 'IE-Z']],
  );
  const documents = fc.record({
    lines,
    codes,
    priceMode: fc.constantFrom('net' as const, 'gross' as const),
    currency: fc.constantFrom('', '', 'USD', 'JPY'),
    discount: fc.constantFrom('', '', '7.5%', '3'),
    kind: fc.constantFrom('invoice' as const, 'invoice' as const, 'cash-sale' as const, 'credit' as const),
    due: fc.constantFrom('30d', '30% 0d + 70% 30d'),
  });

  test('gives files that keep every rule in both syntaxes, and read back to the same model and figures', () => {
    fc.assert(
      fc.property(documents, (of) => {
        const [who, taxes] = of.codes;
        const typed: Partial<DraftLine>[] = of.lines.map((line, i) => ({
          ...line,
          taxCode: taxes[i % taxes.length] ?? '',
          taxByHand: true,
        }));
        const kind = of.kind === 'credit' ? 'invoice' : of.kind;
        const content = contentOf(
          {
            kind,
            due: kind === 'invoice' ? of.due : '0d',
            ...(kind === 'cash-sale' && { paidBy: 'card' as const }),
            priceMode: of.priceMode,
            currency: of.currency,
            perHome: of.currency === '' ? '' : '1.25',
            buyerReference: 'R-1',
            lines: typed.map((line, i) => lineOf({ ...line, id: `l${i}` })),
            adjustments: of.discount === '' ? [] : [discountOf(of.discount)],
          },
          who,
        );
        const whole: Content =
          of.kind === 'credit'
            ? {
                ...content,
                kind: 'credit-note',
                corrects: { documentId: 'x', number: 'INV-1', issueDate: content.issueDate },
              }
            : content;
        soundInvoiceOf(whole);
      }),
      { numRuns: 80 },
    );
  });
});
