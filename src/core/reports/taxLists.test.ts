import { act, EUR, issued, lineOf, newBook } from 'tests/book';
import { made, rowsOf, shown, YEAR } from 'tests/reports';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Withheld } from '@/core/settlement/withholding';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { exemptSales, outputTaxReport, recapitulativeList } from './taxLists';
import { withholdingReport } from './withheld';

/** An entry of a return that says a customer was exempt, with what a test says of it. */
const exempt = (number: string, over: Partial<TaxEntry> = {}): TaxEntry =>
  ({
    id: `${number}:${over.code ?? 'WA'}:${over.jurisdictionId ?? 'state'}`,
    documentId: number,
    documentNumber: number,
    customerName: 'Salish Research',
    taxPoint: isoDate('2026-05-10'),
    kind: 'exempt',
    code: 'WA',
    jurisdictionId: 'state',
    partOfJurisdiction: 0,
    certificate: 'R-1',
    base: minor(100_00n),
    ...over,
  }) as TaxEntry;

const certificate = (number: string, until: string): Certificate => ({
  id: number,
  customerId: 'salish',
  jurisdictionId: 'state',
  number,
  reason: 'research institution',
  from: isoDate('2025-01-01'),
  until: until === '' ? '' : isoDate(until),
  file: null,
});

describe('exempt sales', () => {
  const listed = (entries: readonly TaxEntry[], certificates: readonly Certificate[]) =>
    exemptSales({ ...YEAR, home: EUR, entries, certificates });

  test('name the certificate, its reason and how long it is valid', () => {
    const report = listed([exempt('INV-1')], [certificate('R-1', '2026-12-31')]);
    expect(rowsOf(report)).toEqual([
      ['INV-1', '2026-05-10', 'Salish Research', 'R-1', 'research institution', '2026-12-31', 100_00n],
    ]);
    expect(report.notes).toEqual([]);
  });

  test('count the base of a document once, though state and county both say it was exempt', () => {
    const report = listed(
      [exempt('INV-1'), exempt('INV-1', { jurisdictionId: 'county' }), exempt('INV-2', { base: minor(-40_00n) })],
      [certificate('R-1', '')],
    );
    expect(rowsOf(report).map((cells) => [cells[0], cells.at(-1)])).toEqual([
      ['INV-1', 100_00n],
      ['INV-2', -40_00n],
    ]);
    // 100.00 less the credit of 40.00.
    expect(report.tables[0]?.sums?.map(shown).at(-1)).toBe(60_00n);
  });

  test('of two codes on one document stand in two rows', () => {
    const report = listed([exempt('INV-1'), exempt('INV-1', { code: 'WA-S', base: minor(7_00n) })], []);
    expect(rowsOf(report).map((cells) => cells.at(-1))).toEqual([100_00n, 7_00n]);
  });

  test('leave out what is not exempt, and the parts of a tax after the first of its jurisdiction', () => {
    expect(rowsOf(listed([exempt('INV-1', { kind: 'due' }), exempt('INV-2', { partOfJurisdiction: 1 })], []))).toEqual(
      [],
    );
  });

  test.each<[string, string, readonly Certificate[], readonly string[]]>([
    ['no certificate', '', [], ['No valid certificate is on file for INV-1.']],
    ['one that nobody has on file', 'R-9', [certificate('R-1', '')], ['No valid certificate is on file for INV-1.']],
    ['one that had lapsed', 'R-1', [certificate('R-1', '2026-05-09')], ['No valid certificate is on file for INV-1.']],
    ['one on its last day', 'R-1', [certificate('R-1', '2026-05-10')], []],
    ['one that does not lapse', 'R-1', [certificate('R-1', '')], []],
  ])('by %s', (_, number, certificates, notes) => {
    const report = listed([exempt('INV-1', { certificate: number })], certificates);
    expect([rowsOf(report)[0]?.[3], report.notes]).toEqual([number || 'none', notes]);
  });
});

describe('the recapitulative list', () => {
  const toGermany = (price: string) => ({
    customerId: 'nordlicht',
    lines: [lineOf({ supply: 'goods' as const, taxCode: 'IE-IC', price, taxClass: 'standard', taxByHand: true })],
  });

  test('has a credit note in the time of its own tax point', async () => {
    const db = await newBook();
    const invoice = await issued(db, { ...toGermany('1000'), issueDate: '2026-01-15' }, '2026-01-15');
    await act(
      db,
      creditInvoice,
      { documentId: invoice.id, date: isoDate('2026-03-02'), reason: 'Returned' },
      '2026-03-02',
    );
    const goodsOf = async (from: string, until: string) =>
      rowsOf(await made(db, 'recapitulative-list', { from: isoDate(from), until: isoDate(until) })).map(
        (cells) => cells[2],
      );
    expect(await goodsOf('2026-01-01', '2026-01-31')).toEqual([1000_00n]);
    expect(await goodsOf('2026-02-01', '2026-02-28')).toEqual([]);
    expect(await goodsOf('2026-03-01', '2026-03-31')).toEqual([-1000_00n]);
  });

  test('sums the supplies to one number, and leaves out what stays at home', async () => {
    const db = await newBook();
    await issued(db, toGermany('100'));
    await issued(db, toGermany('20.50'));
    await issued(db, { lines: [lineOf({ price: '999' })] });
    const report = await made(db, 'recapitulative-list');
    expect(rowsOf(report).map((cells) => cells.slice(2))).toEqual([[120_50n, 0n, 0n]]);
    expect(report.tables[0]?.sums?.map(shown).slice(2)).toEqual([120_50n, 0n, 0n]);
  });

  test('names a customer without a number, as a document from another book may have none', async () => {
    const db = await newBook();
    const document = await issued(db, toGermany('100'));
    const { content } = document;
    const without = { ...document, content: { ...content, buyer: { ...content.buyer, taxNumber: '' } } };
    const report = recapitulativeList({ ...YEAR, home: EUR, documents: [without], customers: new Map() });
    expect(rowsOf(report).map((cells) => [cells[0], cells[2]])).toEqual([['no number', 100_00n]]);
    expect(report.notes).toEqual([`No tax number is known of ${document.customerName}.`]);
  });
});

describe('output tax', () => {
  const row = (codeName: string, base: bigint, tax: bigint) => ({
    codeName,
    percent: '23',
    base: minor(base),
    tax: minor(tax),
  });
  const period = (name: string, registration: string, ...rows: ReturnType<typeof row>[]) => ({
    name,
    registration,
    rows,
  });

  test('stands by period, registration and code, and sums up', () => {
    const report = outputTaxReport({
      ...YEAR,
      home: EUR,
      periods: [
        period('Jan–Feb 2026', 'Ireland', row('Standard', 1000_00n, 230_00n), row('Reduced', 200_00n, 27_00n)),
        period('Mar–Apr 2026', 'Ireland', row('Standard', -100_00n, -23_00n)),
      ],
    });
    expect(rowsOf(report)).toEqual([
      ['Jan–Feb 2026', 'Ireland', 'Standard', '23 %', 1000_00n, 230_00n],
      ['Jan–Feb 2026', 'Ireland', 'Reduced', '23 %', 200_00n, 27_00n],
      ['Mar–Apr 2026', 'Ireland', 'Standard', '23 %', -100_00n, -23_00n],
    ]);
    // 1,000 + 200 − 100; 230 + 27 − 23.
    expect(report.tables[0]?.sums?.map(shown).slice(-2)).toEqual([1100_00n, 234_00n]);
  });

  test('is drawn by period, a bar for each registration, and nothing where one had none', () => {
    const { chart } = outputTaxReport({
      ...YEAR,
      home: EUR,
      periods: [
        period('Q1', 'Ireland', row('Standard', 100_00n, 23_00n), row('Reduced', 10_00n, 1_35n)),
        period('Q1', 'Germany', row('Voll', 100_00n, 19_00n)),
        period('Q2', 'Germany', row('Voll', 50_00n, 9_50n)),
      ],
    });
    expect(chart).toMatchObject({
      names: ['Q1', 'Q2'],
      series: [
        { name: 'Ireland', amounts: [24_35n, 0n] },
        { name: 'Germany', amounts: [19_00n, 9_50n] },
      ],
    });
  });

  test('of one period is not drawn', () => {
    const periods = [period('Q1', 'Ireland', row('Standard', 100_00n, 23_00n))];
    expect(outputTaxReport({ ...YEAR, home: EUR, periods }).chart).toBeUndefined();
  });
});

describe('tax withheld', () => {
  const withheld = (id: string, over: Partial<Withheld>): Withheld => ({
    id,
    customerId: 'clewbay',
    customerName: 'Clew Bay',
    typeId: 'rct',
    typeName: 'Contract tax',
    needsCertificate: true,
    documentId: `d${id}`,
    documentNumber: `INV-${id}`,
    receiptId: `r${id}`,
    receiptNumber: `R-${id}`,
    date: isoDate('2026-02-01'),
    currency: EUR,
    amount: minor(20_00n),
    home: minor(20_00n),
    certified: minor(0n),
    claimed: minor(0n),
    isOpen: 1,
    voidOn: '',
    ...over,
  });
  const report = (...all: readonly Withheld[]) => withholdingReport({ ...YEAR, home: EUR, withheld: all });

  test('says what is certified, claimed, and left to claim', () => {
    const made = report(
      withheld('1', { certified: minor(20_00n), claimed: minor(12_50n) }),
      withheld('2', { home: minor(5_00n), needsCertificate: false }),
    );
    expect(rowsOf(made).map((cells) => cells.slice(-4))).toEqual([
      [20_00n, 20_00n, 12_50n, 7_50n],
      [5_00n, '', '', 5_00n],
    ]);
    // 20.00 + 5.00; 20.00; 12.50; 7.50 + 5.00.
    expect(made.tables[0]?.sums?.map(shown).slice(-4)).toEqual([25_00n, 20_00n, 12_50n, 12_50n]);
    expect(made.notes).toEqual([]);
  });

  test('names each receipt once whose certificate is missing, or covers less; a document where there was no receipt', () => {
    const made = report(
      withheld('1', { certified: minor(19_99n) }),
      withheld('2', { receiptNumber: 'R-1' }),
      withheld('3', { receiptId: '', receiptNumber: '' }),
      withheld('4', { needsCertificate: false }),
    );
    expect(made.notes).toEqual(['Certificates are missing for R-1, INV-3.']);
  });

  test('of nobody says so', () => {
    expect(report().tables[0]).toMatchObject({ rows: [], nothing: 'No tax was withheld between these days.' });
  });
});
