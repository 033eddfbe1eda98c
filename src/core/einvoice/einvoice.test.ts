import fc from 'fast-check';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { discountOf, draftOf, lineOf, settingOf } from 'tests/book';
import { type Content, figuresOf } from '@/core/documents/content';
import { blankAdjustment, type Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { isoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { einvoiceOf } from './fromDocument';
import type { EInvoice } from './model';
import { RULES, ruleFindings } from './rules';
import { writeUbl } from './writeUbl';

const setting = settingOf();

function contentOf(over: Partial<Draft> = {}, who = 'ballyvaughan'): Content {
  const customer = DEMO_CUSTOMERS.find((c) => c.id === who) ?? null;
  const result = freezeDraft(draftOf({ customerId: who, ...over }), 'INV-2026-0001', customer, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

const modelOf = (content: Content): EInvoice => einvoiceOf(content, figuresOf(content));
const rulesBroken = (invoice: EInvoice) => ruleFindings(invoice).map((finding) => finding.rule);

/** A strict reader: no value guessing, every element a list. */
function parse(xml: string) {
  expect(XMLValidator.validate(xml)).toBe(true);
  return new XMLParser({
    ignoreAttributes: false,
    parseTagValue: false,
    parseAttributeValue: false,
    isArray: (name) => /InvoiceLine|CreditNoteLine|TaxSubtotal/.test(name),
  }).parse(xml);
}
const text = (node: unknown): string =>
  typeof node === 'object' && node !== null ? (node as { '#text': string })['#text'] : String(node);

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
    expect(invoice.lines.map((l) => [l.quantity, l.price, l.allowance, l.net])).toEqual([
      ['1', '940.00', null, '940.00'],
      ['1.5', '160', '24.00', '216.00'],
      ['4', '1.50', null, '6.00'],
    ]);
    expect(invoice.breakdown.map((b) => [b.category, b.percent, b.base, b.tax])).toEqual([
      ['S', '23', '1156.00', '265.88'],
      ['Z', '0', '6.00', '0.00'],
    ]);
    expect(invoice.totals).toMatchObject({ lineNet: '1162.00', tax: '265.88', withTax: '1427.88', payable: '1427.88' });
  });
  test('turns prices that hold the tax into net ones: 40.00 with 9 % inside is 36.70', () => {
    const nine = contentOf({ priceMode: 'gross', lines: [lineOf({ price: '40', taxCode: 'IE-R2' })] });
    expect(modelOf(nine).lines[0]).toMatchObject({ price: '36.7', net: '36.70', allowance: null });
  });
  test('a negative price turns the quantity', () => {
    const content = contentOf({ lines: [lineOf(), lineOf({ price: '-12.50', quantity: '2' })] });
    expect(modelOf(content).lines[1]).toMatchObject({ quantity: '-2', price: '12.50', net: '-25.00' });
  });
  test('carries why no tax is charged, and nothing of the kind where it is', () => {
    const reverse = modelOf(contentOf({ lines: [lineOf({ taxCode: 'IE-RC' }), lineOf()] }, 'nordlicht'));
    expect(reverse.breakdown).toEqual([
      expect.objectContaining({
        category: 'AE',
        exemptionCode: 'VATEX-EU-AE',
        exemptionReason: 'Steuerschuldnerschaft des Leistungsempfängers.',
      }),
      expect.objectContaining({ category: 'S', exemptionCode: '', exemptionReason: '' }),
    ]);
  });
});

describe('the rules', () => {
  const whole = modelOf(contentOf());
  test('find nothing on a whole invoice', () => expect(rulesBroken(whole)).toEqual([]));

  const totals = (over: Partial<Record<keyof EInvoice['totals'], string>>) =>
    ({ ...whole, totals: { ...whole.totals, ...over } }) as EInvoice;
  const seller = { ...whole.seller, taxNumber: '' };
  const buyer = { ...whole.buyer, taxNumber: '' };
  const line = whole.lines[0] as EInvoice['lines'][number];
  const inCategory = (category: 'AE' | 'K') => ({ ...whole, lines: [{ ...line, category }] }) as EInvoice;
  test.each<[string, EInvoice]>([
    ['BR-CO-10', totals({ lineNet: '100.01', withoutTax: '100.01' })],
    ['BR-CO-11', totals({ allowances: '5.00' })],
    ['BR-CO-12', totals({ charges: '5.00' })],
    ['BR-CO-13', totals({ withoutTax: '99.00' })],
    ['BR-CO-14', totals({ tax: '22.99' })],
    ['BR-CO-15', totals({ withTax: '124.00' })],
    ['BR-CO-16', totals({ payable: '100.00' })],
    ['BR-CO-17', { ...whole, breakdown: whole.breakdown.map((b) => ({ ...b, tax: '24.00' as Decimal })) }],
    ['BR-16', { ...whole, lines: [] }],
    ['BR-61', { ...whole, payment: null }],
    ['BR-AE-02', { ...inCategory('AE'), buyer }],
    ['BR-AE-02', { ...inCategory('AE'), seller }],
    ['BR-IC-02', { ...inCategory('K'), buyer }],
    ['BR-DEC-23', { ...whole, lines: [{ ...line, net: '100.001' as Decimal }] }],
    ['PEPPOL-EN16931-R003', { ...whole, buyerReference: '' }],
    ['PEPPOL-EN16931-R010', { ...whole, buyer: { ...whole.buyer, endpoint: null } }],
    ['PEPPOL-EN16931-R020', { ...whole, seller: { ...whole.seller, endpoint: null } }],
    ['PEPPOL-EN16931-R120', { ...whole, lines: [{ ...line, price: '99.99' as Decimal }] }],
  ])('%s is found', (rule, invoice) => expect(rulesBroken(invoice)).toContain(rule));

  test('every rule has a failing example here', () => {
    const shown = [
      'BR-CO-10',
      'BR-CO-11',
      'BR-CO-12',
      'BR-CO-13',
      'BR-CO-14',
      'BR-CO-15',
      'BR-CO-16',
      'BR-CO-17',
      'BR-16',
      'BR-61',
      'BR-AE-02',
      'BR-IC-02',
      'BR-DEC-23',
      'PEPPOL-EN16931-R003',
      'PEPPOL-EN16931-R010',
      'PEPPOL-EN16931-R020',
      'PEPPOL-EN16931-R120',
    ];
    expect(RULES.map((rule) => rule.id).sort()).toEqual(shown.sort());
  });
  test('the sum is shown where the arithmetic is off', () => {
    expect(ruleFindings(totals({ withTax: '124.00', payable: '124.00' }))[0]?.message).toBe(
      'The total with tax is 124.00, but net plus tax gives 123.00.',
    );
  });
});

describe('the UBL file', () => {
  test('of an invoice is well-formed and says what the document says', () => {
    const content = contentOf({
      orderNumber: 'PO-7',
      note: 'With thanks',
      lines: [lineOf({ description: 'Tide gauge\nserial 2211-08' })],
    });
    const { Invoice } = parse(writeUbl(modelOf(content)));
    expect(Invoice['cbc:ID']).toBe('INV-2026-0001');
    expect(Invoice['cbc:InvoiceTypeCode']).toBe('380');
    expect(Invoice['cbc:DueDate']).toBe('2026-02-14');
    expect(Invoice['cac:OrderReference']['cbc:ID']).toBe('PO-7');
    expect(Invoice['cac:AccountingSupplierParty']['cac:Party']['cbc:EndpointID']).toEqual({
      '#text': 'IE7654321G',
      '@_schemeID': '9935',
    });
    expect(Invoice['cac:PaymentMeans']['cac:PayeeFinancialAccount']['cbc:ID']).toBe('IE31CPTB99000012345678');
    const [line] = Invoice['cac:InvoiceLine'];
    expect([
      text(line['cbc:LineExtensionAmount']),
      line['cac:Item']['cbc:Name'],
      line['cac:Item']['cbc:Description'],
    ]).toEqual(['100.00', 'Tide gauge', 'serial 2211-08']);
    expect(text(Invoice['cac:LegalMonetaryTotal']['cbc:PayableAmount'])).toBe('123.00');
  });
  test('of a credit note names the invoice and has terms in place of a due date', () => {
    const content: Content = {
      ...contentOf(),
      kind: 'credit-note',
      number: 'CN-2026-0001',
      corrects: { documentId: 'x', number: 'INV-2026-0001', issueDate: isoDate('2026-01-15') },
      reason: 'Returned',
    };
    const { CreditNote } = parse(writeUbl(modelOf(content)));
    expect(CreditNote['cbc:CreditNoteTypeCode']).toBe('381');
    expect(CreditNote['cac:BillingReference']['cac:InvoiceDocumentReference']['cbc:ID']).toBe('INV-2026-0001');
    expect(CreditNote['cac:PaymentTerms']['cbc:Note']).toBe('Set off against INV-2026-0001');
    expect(text(CreditNote['cac:CreditNoteLine'][0]['cbc:CreditedQuantity'])).toBe('1');
    expect(CreditNote['cbc:DueDate']).toBeUndefined();
  });
  test('escapes what XML would read as its own, and drops what it has no place for', () => {
    const xml = writeUbl(
      modelOf(contentOf({ note: 'a < b & "c" \u0000\u0008\ud800 ]]>', lines: [lineOf({ description: '<script>' })] })),
    );
    const { Invoice } = parse(xml);
    expect(Invoice['cbc:Note']).toBe('a < b & "c"  ]]>');
    expect(Invoice['cac:InvoiceLine'][0]['cac:Item']['cbc:Name']).toBe('<script>');
  });
  test('has no empty element', () => {
    expect(writeUbl(modelOf(contentOf({ buyerReference: '' }, 'counter')))).not.toMatch(
      /<(\w+:\w+)[^>]*\/>|<(\w+:\w+)[^>]*><\/\2>/,
    );
  });
});

describe('any document that can be written', () => {
  const figure = (max: number, decimals: number) =>
    fc.integer({ min: 1, max }).map((n) => (n / 10 ** decimals).toFixed(decimals));
  const lines = fc.array(
    fc.record({
      quantity: figure(99999, 2),
      price: figure(999999, 3),
      discount: fc.constantFrom('', '', '5%', '33.3%'),
      taxCode: fc.constantFrom('IE-S', 'IE-R', 'IE-Z'),
    }),
    { minLength: 1, maxLength: 15 },
  );
  test('gives a file in which all sums hold, in both price modes and read back to the same figures', () => {
    fc.assert(
      fc.property(lines, fc.constantFrom('net' as const, 'gross' as const), (typed, priceMode) => {
        const content = contentOf({ priceMode, lines: typed.map((line) => lineOf(line)) });
        const invoice = modelOf(content);
        expect(rulesBroken(invoice)).toEqual([]);
        const { Invoice } = parse(writeUbl(invoice));
        const cents = (node: unknown) => BigInt(text(node).replace('.', ''));
        const { totals } = figuresOf(content);
        expect(cents(Invoice['cac:LegalMonetaryTotal']['cbc:TaxInclusiveAmount'])).toBe(totals.gross);
        expect(cents(Invoice['cac:TaxTotal']['cbc:TaxAmount'])).toBe(totals.taxAmount);
        const nets = Invoice['cac:InvoiceLine'].map((line: Record<string, unknown>) =>
          cents(line['cbc:LineExtensionAmount']),
        );
        expect(nets.reduce((a: bigint, b: bigint) => a + b, 0n)).toBe(totals.net);
      }),
      { numRuns: 60 },
    );
  });
});

describe('allowances, charges and foreign currency', () => {
  const discounted = (priceMode: 'net' | 'gross', currency = '') => {
    const own = { taxCode: 'IE-S', taxByHand: true, amount: '20', text: 'Freight' };
    const draft = draftOf({
      priceMode,
      currency,
      perHome: currency === '' ? '' : '1.25',
      lines: [lineOf({ price: '100', taxByHand: true }), lineOf({ price: '50', taxCode: 'IE-R', taxByHand: true })],
      adjustments: [discountOf('10%'), { ...blankAdjustment('f', 'charge', '4900'), ...own }],
    });
    const result = freezeDraft(draft, 'INV-1', DEMO_CUSTOMERS[0] ?? null, setting);
    if (!result.ok) throw new Error(JSON.stringify(result.refusals));
    return modelOf(result.value);
  };

  test('stand by category and rate, and the sums hold with them', () => {
    const invoice = discounted('net');
    expect(invoice.adjustments.map((a) => [a.charge, a.amount, a.reason, a.percent])).toEqual([
      [false, '10.00', 'Discount', '23'],
      [true, '20.00', 'Freight', '23'],
      [false, '5.00', 'Discount', '13.5'],
    ]);
    expect(invoice.totals).toMatchObject({
      lineNet: '150.00',
      allowances: '15.00',
      charges: '20.00',
      withoutTax: '155.00',
    });
    for (const mode of ['net', 'gross'] as const) expect(rulesBroken(discounted(mode))).toEqual([]);
  });
  test('a sum of allowances that its parts do not give is found', () => {
    const invoice = discounted('net');
    const wrong = { ...invoice, adjustments: invoice.adjustments.slice(1) };
    expect(rulesBroken(wrong)).toContain('BR-CO-11');
    expect(rulesBroken({ ...invoice, adjustments: invoice.adjustments.filter((a) => !a.charge) })).toContain(
      'BR-CO-12',
    );
  });
  test('are written between payment and tax, each with its tax category', () => {
    const { Invoice: root } = parse(writeUbl(discounted('net')));
    const order = Object.keys(root);
    expect(order.indexOf('cac:AllowanceCharge')).toBeGreaterThan(order.indexOf('cac:PaymentMeans'));
    expect(order.indexOf('cac:AllowanceCharge')).toBeLessThan(order.indexOf('cac:TaxTotal'));
    const written = root['cac:AllowanceCharge'] as Record<string, unknown>[];
    expect(written.map((a) => [a['cbc:ChargeIndicator'], text(a['cbc:Amount'])])).toEqual([
      ['false', '10.00'],
      ['true', '20.00'],
      ['false', '5.00'],
    ]);
  });
  test('a document in foreign currency says its tax at home too (BT-6, BT-111)', () => {
    const invoice = discounted('net', 'USD');
    // 110.00 at 23 % and 45.00 at 13.5 %: 25.30 and 6.08 USD, at 1.25 20.24 and 4.86 EUR.
    expect(invoice.taxInHome).toEqual({ currency: 'EUR', tax: '25.10' });
    const { Invoice: root } = parse(writeUbl(invoice));
    expect([root['cbc:DocumentCurrencyCode'], root['cbc:TaxCurrencyCode']]).toEqual(['USD', 'EUR']);
    const totals = root['cac:TaxTotal'] as Record<string, { '@_currencyID': string }>[];
    expect(totals.map((t) => t['cbc:TaxAmount']?.['@_currencyID'])).toEqual(['USD', 'EUR']);
    expect(discounted('net').taxInHome).toBeNull();
  });
});
