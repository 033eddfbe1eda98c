import { act, day, documentOf, draftOf, issued, lineOf, momentOn, newBook, refusalCodes, wholeBook } from 'tests/book';
import { columnsOf } from '@/core/book/tables';
import type { ExchangeRate } from '@/core/currency/exchangeRate';
import { readCsv, writeCsv } from '@/core/files/csv';
import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { differences } from '@/core/kernel/differences';
import { readTextFile } from '@/core/kernel/textFile';
import { isBalanced } from '@/core/ledger/entry';
import { prove } from '@/core/returns/proof';
import { byJurisdiction } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';
import { tableFaults } from '@/core/tax/tableFaults';
import type { Tax, TaxRate } from '@/core/tax/tax';
import type { TaxCode } from '@/core/tax/taxCode';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { DEMO_CERTIFICATES, DEMO_CUSTOMERS, washingtonRegistration } from '@/demo/setup';
import { loadSetup, present } from './load';
import { perform } from './perform';
import { creditInvoice } from './sales/actions/creditInvoice';
import { keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import { sendQuoteDraft } from './sales/actions/quotes';
import { keepRecurring, repeatDraft } from './sales/actions/recurring';
import { findCustomers } from './sales/queries/documents';
import { historyOf } from './sales/queries/family';
import type { BookDb } from './schema';
import { importCsv } from './setup/actions/importTable';
import { changeCustomer, changeItem } from './setup/actions/setup';
import {
  addStarterPack,
  dropPlace,
  keepCertificate,
  keepDecisionTable,
  keepExchangeRate,
  keepJurisdiction,
  keepNumberCheck,
  keepRegistration,
  keepTax,
  keepTaxCode,
  keepWithholdingType,
} from './setup/actions/taxSetup';
import { lapsingCertificates } from './setup/queries/certificates';
import { placesByName } from './setup/queries/places';
import { changeTaxRate } from './tax/actions/changeRate';
import { fileReturn } from './tax/actions/fileReturn';
import { periodReturn, returnsToFile, ribbon } from './tax/queries/periods';
import { proofMaterial } from './tax/queries/proofMaterial';
import { effectsOf, laterEffectsOf } from './tax/queries/rateChange';

const JANUARY = '2026-01-15';
const WASHINGTON = washingtonRegistration(day('2026-01-01'));

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

async function withWashington(over: Partial<Registration> = {}): Promise<void> {
  await act(db, addStarterPack, { id: 'US-WA' }, JANUARY);
  await act(db, keepRegistration, { value: { ...WASHINGTON, ...over }, isNew: true }, JANUARY);
  const rate = {
    id: 'USD|2026-01-01',
    currency: currency('USD'),
    date: day('2026-01-01'),
    perHome: decimal('1.1'),
    source: '',
  };
  await act(db, keepExchangeRate, { value: rate, isNew: true }, JANUARY);
}

const toWashington = (customerId: string, taxCode: string, over: object = {}) => ({
  customerId,
  registrationId: 'us-wa',
  lines: [lineOf({ price: '129.99', supply: 'goods', taxCode })],
  ...over,
});

const vat = async (): Promise<Tax> => present(await db.taxes.get('IE-VAT'), 'the tax');
const rise = (from: string, percent: string): TaxRate => ({
  taxClass: 'standard',
  from: day(from),
  until: '',
  percent: decimal(percent),
  perUnit: '',
  source: 'Budget',
});

describe('a sale under a second registration', () => {
  test('is posted to its own accounts and reported by jurisdiction, in the currency of the return', async () => {
    await withWashington();
    const document = await issued(db, toWashington('orcas', '@WA-SANJUAN/standard'));
    expect(document.figures.totals).toMatchObject({ net: 12999n, taxAmount: 1079n, gross: 14078n });
    const registration = present(await db.registrations.get('us-wa'), 'the registration');
    const { figures } = await periodReturn(db, registration, day('2026-01-01'));
    expect(byJurisdiction(figures.rows).map((row) => [row.jurisdictionName, row.base, row.tax, row.filingTax])).toEqual(
      [
        ['San Juan County', 12999n, 234n, 257n],
        ['Washington', 12999n, 845n, 930n],
      ],
    );
    // The base stands once, although two authorities tax it; 10.79 EUR are 11.87 USD.
    expect([figures.base, figures.tax, figures.filingTax]).toEqual([12999n, 1079n, 1187n]);
    const lines = await db.journalLines.where('entryId').equals(document.entryId).toArray();
    expect(isBalanced(lines)).toBe(true);
    expect(lines.map((line) => line.account)).toContain(registration.accounts.output);
    expect(registration.accounts.output).not.toBe('2200');
    expect(prove(await proofMaterial(db, registration, day('2026-01-01'))).holds).toBe(true);
    const ireland = present(await db.registrations.get('ie-vat'), 'the registration');
    expect((await periodReturn(db, ireland, day('2026-01-01'))).figures.rows).toEqual([]);
  });
  test('to a customer with a certificate is charged nothing and reported as exempt with its number', async () => {
    await withWashington();
    await act(db, keepCertificate, { value: DEMO_CERTIFICATES[0] as never, isNew: true }, JANUARY);
    const document = await issued(db, toWashington('salish', '@WA-SEATTLE/standard'));
    expect(document.figures.totals.taxAmount).toBe(0n);
    const entries = await db.taxEntries.where('documentId').equals(document.id).toArray();
    expect(new Set(entries.map((e) => `${e.kind} ${e.certificate} ${e.base}`))).toEqual(
      new Set(['exempt WA-R-000-SAMPLE 12999']),
    );
  });
  test('without an exchange rate for its return is refused, and says what to do', async () => {
    await withWashington({ from: '', keptFrom: day('2025-12-01') });
    const draft = await act(
      db,
      keepDraft,
      draftOf(toWashington('orcas', '@WA-SANJUAN/standard', { issueDate: '2025-12-31' })),
      JANUARY,
    );
    const result = await perform(db, issueInvoice, { draftId: draft.id }, momentOn(JANUARY));
    expect(result.ok ? '' : wordRefusals(result.refusals)).toContain('no exchange rate of USD is known');
  });
  test('on a line of the other registration is refused at the line', async () => {
    await withWashington();
    const draft = await act(
      db,
      keepDraft,
      draftOf({ ...toWashington('orcas', '@WA-SANJUAN/standard'), registrationId: 'ie-vat' }),
      JANUARY,
    );
    const result = await perform(db, issueInvoice, { draftId: draft.id }, momentOn(JANUARY));
    expect(result.ok ? '' : result.refusals.map((r) => r.path)).toEqual(['lines[0].taxCode']);
  });
  test('before the registration begins is refused', async () => {
    await withWashington({ from: day('2026-03-01') });
    const draft = await act(db, keepDraft, draftOf(toWashington('orcas', '@WA-SANJUAN/standard', {})), JANUARY);
    expect(refusalCodes(await perform(db, issueInvoice, { draftId: draft.id }, momentOn(JANUARY)))).toContain(
      'invalid',
    );
  });
  test('has a return of its own that is filed by itself', async () => {
    await withWashington();
    await issued(db, toWashington('orcas', '@WA-SANJUAN/standard'));
    await issued(db);
    const all = await db.registrations.toArray();
    expect((await returnsToFile(db, all, day('2026-02-10'))).map((r) => r.registration.id)).toEqual(['us-wa']);
    await act(db, fileReturn, { registrationId: 'us-wa', start: '2026-01-01', note: '' }, '2026-02-10');
    expect((await db.registrations.toArray()).map((r) => [r.id, r.filedUntil])).toEqual([
      ['ie-vat', ''],
      ['us-wa', '2026-01-31'],
    ]);
  });
});

describe('a registration', () => {
  test('can’t share an output account with another', async () => {
    await act(db, addStarterPack, { id: 'US-WA' }, JANUARY);
    const value = { ...WASHINGTON, accounts: { output: '2200', notYetDue: '', payable: '' } };
    const result = await perform(db, keepRegistration, { value, isNew: true }, momentOn(JANUARY));
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['accounts.output']);
  });
  test('needs a territory that is there', async () => {
    expect(
      refusalCodes(await perform(db, keepRegistration, { value: WASHINGTON, isNew: true }, momentOn(JANUARY))),
    ).toEqual(['unknown']);
  });
});

describe('rates that documents rest on', () => {
  const keep = async (rates: (all: readonly TaxRate[]) => readonly TaxRate[]) => {
    const tax = await vat();
    return perform(db, keepTax, { value: { ...tax, rates: rates(tax.rates) }, isNew: false }, momentOn(JANUARY));
  };
  test('are neither changed nor taken out', async () => {
    await issued(db);
    expect(refusalCodes(await keep((all) => all.filter((r) => r.taxClass !== 'standard')))).toEqual([
      'begun',
      'begun',
      'begun',
    ]);
    expect(refusalCodes(await keep((all) => all.map((r) => ({ ...r, percent: decimal('1') }))))).toContain('begun');
  });
  test('can be ended, and later ones can be added and taken out again', async () => {
    await issued(db);
    expect(refusalCodes(await keep((all) => [...all, rise('2026-02-01', '25')]))).toEqual([]);
    expect(refusalCodes(await keep((all) => all.filter((r) => r.from !== '2026-02-01')))).toEqual([]);
    expect(
      refusalCodes(
        await keep((all) => all.map((r) => (r.from === '2021-03-01' ? { ...r, until: day('2026-06-30') } : r))),
      ),
    ).toEqual([]);
  });
});

describe('what if a rate changes', () => {
  const drafts = async () => {
    const early = await act(db, keepDraft, draftOf({ issueDate: '2026-01-20' }), JANUARY);
    const late = await act(db, keepDraft, draftOf({ issueDate: '2026-02-10' }), JANUARY);
    const other = await act(db, keepDraft, draftOf({ issueDate: '2026-02-20' }), JANUARY);
    return { early, late, other };
  };
  test('only drafts with a tax point on or after the day are touched', async () => {
    const { late, other } = await drafts();
    const effects = await effectsOf(db, await vat(), rise('2026-02-01', '25'));
    expect(effects.map((e) => [e.draftId, e.before, e.after])).toEqual([
      [late.id, 12300n, 12500n],
      [other.id, 12300n, 12500n],
    ]);
  });
  test('open quotes and recurring documents are listed, too: they take it by themselves', async () => {
    const quote = await act(db, keepDraft, draftOf({ id: 'q', kind: 'quote', due: '1m' }), JANUARY);
    await act(db, sendQuoteDraft, { draftId: quote.id }, JANUARY);
    const pattern = await act(db, keepDraft, draftOf({ id: 'r', issueDate: '2026-01-31' }), JANUARY);
    const recurring = await act(db, repeatDraft, { draftId: pattern.id, name: 'Hire' }, JANUARY);
    await act(db, keepRecurring, { ...recurring, paused: false }, JANUARY);
    const rate = rise('2026-02-01', '25');
    expect((await laterEffectsOf(db, await vat(), rate)).map((e) => [e.of, e.name, e.taxPoint, e.after])).toEqual([
      ['quote', 'QUO-2026-0001', '2026-02-01', 12500n],
      ['recurring', 'Hire', '2026-02-28', 12500n],
    ]);
    // What a recurring document says is no draft that would have to take it.
    expect(await effectsOf(db, await vat(), rise('2026-01-20', '25'))).toEqual([]);
  });
  test('chosen drafts take it; others keep their rate and are not issued before it is taken', async () => {
    const { late, other } = await drafts();
    const input = { taxId: 'IE-VAT', rate: rise('2026-02-01', '25'), draftIds: [late.id] };
    expect(await act(db, changeTaxRate, input, JANUARY)).toEqual({ taken: 1, kept: 1 });
    const { id } = await act(db, issueInvoice, { draftId: late.id }, '2026-02-10');
    expect((await documentOf(db, id)).figures.totals.taxAmount).toBe(2500n);
    const refused = await perform(db, issueInvoice, { draftId: other.id }, momentOn('2026-02-20'));
    expect(refusalCodes(refused)).toEqual(['rate-changed']);
    const stored = present(await db.drafts.get(other.id), 'the draft');
    await act(db, keepDraft, { ...stored, held: null }, '2026-02-20');
    const after = await act(db, issueInvoice, { draftId: other.id }, '2026-02-20');
    expect((await documentOf(db, after.id)).figures.totals.taxAmount).toBe(2500n);
  });
});

describe('withholding', () => {
  const customer = { ...DEMO_CUSTOMERS[0], withholding: ['WH'] } as (typeof DEMO_CUSTOMERS)[number];
  const type = (over: object) => ({
    id: 'WH',
    name: 'Withheld',
    base: 'net' as const,
    rates: [{ from: day('2020-01-01'), percent: decimal('5') }],
    currency: 'EUR' as never,
    thresholdDocument: decimal('0'),
    thresholdYear: decimal('0'),
    when: 'on-payment' as const,
    certificate: true,
    source: '',
    ...over,
  });
  const sell = async (over: object) => {
    await act(db, keepWithholdingType, { value: type(over), isNew: true }, JANUARY);
    await act(db, changeCustomer, customer, JANUARY);
    return issued(db);
  };
  test.each([
    ['of the net', {}, 500n],
    ['of the total', { base: 'gross' }, 615n],
    ['of the tax', { base: 'tax' }, 115n],
    ['not below the threshold of a document', { thresholdDocument: decimal('100.01') }, 0n],
    ['from the threshold of a document on', { thresholdDocument: decimal('100') }, 500n],
    ['not before the year reaches its threshold', { thresholdYear: decimal('100.01') }, 0n],
  ])('%s', async (_, over, withheld) => {
    const { figures } = await sell(over);
    expect([figures.totals.withheld, figures.totals.expectedCash]).toEqual([withheld, 12300n - withheld]);
  });
  test('counts the customer’s documents of the year', async () => {
    const first = await sell({ thresholdYear: decimal('150') });
    const second = await issued(db);
    const nextYear = await issued(db, { issueDate: '2027-01-05' });
    expect([first, second, nextYear].map((d) => d.figures.totals.withheld)).toEqual([0n, 500n, 0n]);
  });
  test('counts a year by tax point, whatever the day of issue', async () => {
    const december = await sell({ thresholdYear: decimal('150') });
    // Issued in January 2027 for a supply of December 2026: it belongs to 2026 and reaches its threshold.
    const late = await issued(db, { issueDate: '2027-01-05', taxPoint: '2026-12-20' });
    const january = await issued(db, { issueDate: '2027-01-06' });
    const second = await issued(db, { issueDate: '2027-01-07' });
    expect([december, late, january, second].map((d) => d.figures.totals.withheld)).toEqual([0n, 500n, 0n, 500n]);
  });
  test('holds thresholds in their own currency against documents, by the rate of the tax point', async () => {
    const kes = (perHome: string): ExchangeRate => ({
      id: 'KES|2026-01-01',
      currency: currency('KES'),
      date: day('2026-01-01'),
      perHome: decimal(perHome),
      source: '',
    });
    await act(
      db,
      keepWithholdingType,
      {
        value: type({ currency: 'KES', thresholdDocument: decimal('24000') }),
        isNew: true,
      },
      JANUARY,
    );
    await act(db, changeCustomer, customer, JANUARY);
    const draft = await act(db, keepDraft, draftOf(), JANUARY);
    const unknown = await perform(db, issueInvoice, { draftId: draft.id }, momentOn(JANUARY));
    expect(unknown.ok ? [] : unknown.refusals.map((r) => [r.code, r.path])).toEqual([['missing', 'taxPoint']]);
    // 24,000 KES at 150 for one euro are 160.00: 100.00 lies below, 160.00 reaches it.
    await act(db, keepExchangeRate, { value: kes('150'), isNew: true }, JANUARY);
    expect((await issued(db)).figures.totals.withheld).toBe(0n);
    expect((await issued(db, { lines: [lineOf({ price: '160' })] })).figures.totals.withheld).toBe(800n);
    // A document in KES is held against it as it is.
    const own = (price: string) => issued(db, { currency: 'KES', lines: [lineOf({ price })] });
    expect((await own('23999.99')).figures.totals.withheld).toBe(0n);
    expect((await own('24000')).figures.totals.withheld).toBe(120_000n);
    // So is the threshold of the year, by the same rate: 679.99 with this one; 60,000 KES are 400.00, 150,000 are
    // 1,000.00.
    const yearly = (thresholdYear: string) =>
      act(
        db,
        keepWithholdingType,
        { value: type({ currency: 'KES', thresholdYear: decimal(thresholdYear) }), isNew: false },
        JANUARY,
      );
    await yearly('150000');
    expect((await issued(db)).figures.totals.withheld).toBe(0n);
    await yearly('60000');
    expect((await issued(db)).figures.totals.withheld).toBe(500n);
  });
  test('on issue is owed less at once, and stands as a claim', async () => {
    const document = await sell({ when: 'on-issue' });
    expect(document.open).toBe(11800n);
    const lines = await db.journalLines.where('entryId').equals(document.entryId).toArray();
    expect(lines.find((line) => line.account === '1300')?.amount).toBe(500n);
    expect(isBalanced(lines)).toBe(true);
  });
});

test('by jurisdiction a base is counted once, where a territory has two taxes too', async () => {
  const tax = { ...present(await db.taxes.get('IE-VAT'), 'the tax'), id: 'IE-LEVY', name: 'Levy' };
  await act(db, keepTax, { value: tax, isNew: true }, JANUARY);
  const code = present(await db.taxCodes.get('IE-S'), 'the code');
  const levy = { taxId: 'IE-LEVY', taxClass: 'standard', family: '', compound: false };
  await act(db, keepTaxCode, { value: { ...code, components: [...code.components, levy] }, isNew: false }, JANUARY);
  await issued(db);
  const registration = present(await db.registrations.get('ie-vat'), 'the registration');
  const { figures } = await periodReturn(db, registration, day('2026-01-01'));
  expect(byJurisdiction(figures.rows)).toMatchObject([{ base: 10_000n, tax: 4_600n }]);
});

describe('a registration that ends', () => {
  const ending = async (until: string) => {
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    await act(db, keepRegistration, { value: { ...registration, until: day(until) }, isNew: false }, JANUARY);
    return present(await db.registrations.get('ie-vat'), 'the registration');
  };
  test('has no periods behind its end, and what is credited after it stands in its last', async () => {
    const invoice = await issued(db);
    const registration = await ending('2026-02-10');
    expect((await ribbon(db, registration, day('2026-08-01'), 9)).map((cell) => cell.span.start)).toEqual([
      '2026-01-01',
    ]);
    const credit = { documentId: invoice.id, date: '2026-05-05', reason: 'Returned' };
    const note = await act(db, creditInvoice, credit, '2026-05-05');
    expect((await documentOf(db, note.id)).periodId).toBe('ie-vat|2026-01-01');
  });
  test('files what is credited once its last period is filed, late, in one behind it', async () => {
    const invoice = await issued(db);
    await ending('2026-02-10');
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-02');
    const filed = present(await db.registrations.get('ie-vat'), 'the registration');
    expect(await returnsToFile(db, [filed], day('2026-08-01'))).toEqual([]);
    await act(db, creditInvoice, { documentId: invoice.id, date: '2026-03-05', reason: 'Returned' }, '2026-03-05');
    const [due] = await returnsToFile(db, [filed], day('2026-08-01'));
    expect([due?.span.start, due?.figures.tax]).toEqual(['2026-03-01', -2300n]);
  });
});

describe('the decision table', () => {
  test('that another tab changed is not overwritten', async () => {
    const rows = present(await db.decisionTables.get('table'), 'the table').rows;
    await act(db, keepDecisionTable, { rows: [...rows].reverse(), before: rows }, JANUARY);
    expect(refusalCodes(await perform(db, keepDecisionTable, { rows, before: rows }, momentOn(JANUARY)))).toEqual([
      'stale',
    ]);
  });
});

describe('other records', () => {
  test('a jurisdiction can’t lie in itself', async () => {
    await act(db, addStarterPack, { id: 'US-WA' }, JANUARY);
    const state = present(await db.jurisdictions.get('US-WA'), 'the state');
    const result = await perform(
      db,
      keepJurisdiction,
      { value: { ...state, parentId: 'US-WA-KING' }, isNew: false },
      momentOn(JANUARY),
    );
    expect(refusalCodes(result)).toEqual(['circle']);
  });
  test('a place is found by its beginning, and can be taken out', async () => {
    await act(db, addStarterPack, { id: 'US-WA' }, JANUARY);
    expect((await placesByName(db, 'sea', 9)).map((p) => p.id)).toEqual(['WA-SEATTLE']);
    await act(db, dropPlace, { id: 'WA-SEATTLE' }, JANUARY);
    expect(await placesByName(db, 'sea', 9)).toEqual([]);
    expect(refusalCodes(await perform(db, dropPlace, { id: 'WA-SEATTLE' }, momentOn(JANUARY)))).toEqual(['not-found']);
  });
  test('what the registry said is kept with its day', async () => {
    const check = { result: 'invalid' as const, on: day(JANUARY), reference: 'R' };
    await act(db, keepNumberCheck, { customerId: 'nordlicht', number: 'DE812345673', check }, JANUARY);
    expect((await db.customers.get('nordlicht'))?.taxNumbers[0]?.check).toEqual(check);
    const gone = { customerId: 'nordlicht', number: 'DE1', check };
    expect(refusalCodes(await perform(db, keepNumberCheck, gone, momentOn(JANUARY)))).toEqual(['not-found']);
  });
  test('certificates are pointed out before and after they lapse', async () => {
    await act(db, addStarterPack, { id: 'US-WA' }, JANUARY);
    const certificate = (id: string, until: string) => ({ ...DEMO_CERTIFICATES[0], id, until: day(until) }) as never;
    for (const [id, until] of [
      ['soon', '2026-03-31'],
      ['later', '2026-12-31'],
      ['gone', '2026-02-20'],
      ['long gone', '2025-01-02'],
    ] as const)
      await act(db, keepCertificate, { value: certificate(id, until), isNew: true }, JANUARY);
    const found = await lapsingCertificates(db, day('2026-03-01'), 9);
    expect(found.map((f) => [f.certificate.id, f.customer])).toEqual([
      ['gone', 'Salish Tide University (sample)'],
      ['soon', 'Salish Tide University (sample)'],
    ]);
  });
});

const DOLLAR: ExchangeRate = {
  id: 'USD|2026-01-01',
  currency: currency('USD'),
  date: day('2026-01-01'),
  perHome: decimal('1.0850'),
  source: 'test',
};

describe('a pack beside taxes of the book', () => {
  const mine: Tax = {
    id: 'CA-MINE',
    jurisdictionId: 'CA',
    name: 'My tax',
    rates: [
      { taxClass: 'standard', from: day('2000-01-01'), until: '', percent: decimal('13'), perUnit: '', source: '' },
    ],
  };
  const MINE_CODE: TaxCode = {
    id: 'MINE',
    name: 'Mine {rate}',
    category: 'S',
    components: [{ taxId: 'CA-MINE', taxClass: 'standard', family: '', compound: false }],
    legends: [],
    exemptionCode: '',
    boxBase: '',
    boxTax: '',
  };
  const together = async () =>
    tableFaults(await loadSetup(db, null), { country: 'CA', region: 'AB', postalCode: '', city: '' }).together;
  beforeEach(async () => {
    await db.jurisdictions.add({ id: 'CA', name: 'Canada', kind: 'country', code: 'CA', parentId: '' });
    await db.taxes.add(mine);
    await db.taxCodes.add(MINE_CODE);
  });

  test('that would both charge one supply is refused until it is said which does', async () => {
    const before = await wholeBook(db);
    expect(refusalCodes(await perform(db, addStarterPack, { id: 'CA' }, momentOn(JANUARY)))).toEqual(['overlap']);
    expect(await wholeBook(db)).toEqual(before);
  });
  test('leaves its own out where the book’s is kept', async () => {
    await act(db, addStarterPack, { id: 'CA', keep: 'ours' }, JANUARY);
    expect([await db.taxes.get('CA-GST'), await db.taxes.get('CA-MINE')]).toEqual([undefined, mine]);
    expect(await db.taxes.get('CA-BC-PST')).toBeDefined();
    expect(await together()).toEqual([]);
  });
  test('takes the place of the book’s, with its codes and rows', async () => {
    await act(db, addStarterPack, { id: 'CA', keep: 'theirs' }, JANUARY);
    expect([await db.taxes.get('CA-MINE'), await db.taxCodes.get('MINE')]).toEqual([undefined, undefined]);
    expect(await db.taxes.get('CA-GST')).toBeDefined();
    expect(await together()).toEqual([]);
  });
  test('can’t take the place of one that documents rest on', async () => {
    await db.taxEntries.add({
      ...present((await db.taxEntries.toArray())[0] ?? (await anEntry()), 'an entry'),
      id: 'x',
      taxId: 'CA-MINE',
    });
    const result = await perform(db, addStarterPack, { id: 'CA', keep: 'theirs' }, momentOn(JANUARY));
    expect(refusalCodes(result)).toEqual(['in-use']);
  });
  const anEntry = async () => {
    await issued(db);
    return (await db.taxEntries.toArray())[0];
  };
});

describe('CSV files', () => {
  const take = (table: 'jurisdictions' | 'taxes' | 'places' | 'certificates', text: string) =>
    perform(db, importCsv, { table, text }, momentOn(JANUARY));
  test.each(['jurisdictions', 'taxes', 'places'] as const)('%s that go out come in as they were', async (table) => {
    for (const id of ['US-WA', 'CA']) await act(db, addStarterPack, { id }, JANUARY);
    const shape = columnsOf(table);
    const rows = (await db.table(table).toArray()).flatMap((record) => shape.write(record as never));
    const before = await wholeBook(db);
    const result = await take(table, writeCsv(shape.heads, rows));
    expect(result).toEqual({ ok: true, value: { added: 0, changed: 0 } });
    expect((await wholeBook(db))[table]).toEqual(before[table]);
    await db.table(table).clear();
    if (table === 'jurisdictions') {
      expect((await take(table, writeCsv(shape.heads, rows))).ok).toBe(true);
      expect((await wholeBook(db))[table]).toEqual(before[table]);
    }
  });
  test.each<[string, 'jurisdictions' | 'taxes' | 'places' | 'certificates', string, string]>([
    ['a head is missing', 'jurisdictions', 'code,name\nX,Y', 'row 1'],
    ['a quotation mark is open', 'jurisdictions', 'code,name,kind,iso,lies in\n"X,Y', 'row 2'],
    ['a row is too long', 'jurisdictions', 'code,name,kind,iso,lies in\nX,Y,country,IE,,Z', 'row 2'],
    ['a kind is none', 'jurisdictions', 'code,name,kind,iso,lies in\nX,Y,planet,IE,', 'row 2, kind'],
    ['a parent is not there', 'jurisdictions', 'code,name,kind,iso,lies in\nX,Y,county,,NOWHERE', 'row 2, lies in'],
    [
      'a percentage is words',
      'taxes',
      'tax,jurisdiction,name,class,from,until,percent,per unit,source\nIE-NEW,IE,New,standard,2026-01-01,,lots,,',
      'row 2, percent',
    ],
    [
      'a jurisdiction is not there',
      'places',
      'place,name,rounding,stack,country,region,postal from,postal to,city\nP,P,together,NOWHERE,IE,,,,',
      'row 2, stack',
    ],
    [
      'a customer is not there',
      'certificates',
      'id,customer,jurisdiction,number,reason,from,until\n1,nobody,IE,N,R,2026-01-01,',
      'row 2, customer',
    ],
  ])('%s: nothing is taken in and the row is named', async (_, table, text, path) => {
    const before = await wholeBook(db);
    const result = await take(table, text);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toContain(path);
    expect(await wholeBook(db)).toEqual(before);
  });
  test('rates are added to those of the book; one that documents rest on is refused with its row', async () => {
    const head = 'tax,jurisdiction,name,class,from,until,percent,per unit,source\n';
    expect(await take('taxes', `${head}IE-VAT,IE,VAT,standard,2027-01-01,,24,,Budget\n`)).toMatchObject({ ok: true });
    expect((await vat()).rates.at(-1)).toMatchObject({ taxClass: 'standard', from: '2027-01-01', percent: '24' });
    await issued(db);
    const result = await take('taxes', `${head}IE-VAT,IE,VAT,standard,2021-03-01,,22,,Budget\n`);
    expect(refusalCodes(result)).toEqual(['begun']);
  });
  test('a certificate names its customer by id, tax number or name, where only one has it', async () => {
    const head = 'id,customer,jurisdiction,number,reason,from,until\n';
    const [first] = DEMO_CUSTOMERS;
    if (first === undefined) throw new Error('no customer');
    const row = (id: string, customer: string) => `${id},${customer},IE,N,R,2026-01-01,\n`;
    const numbered = DEMO_CUSTOMERS.find(({ taxNumbers }) => taxNumbers.length > 0);
    const number = numbered?.taxNumbers[0]?.number ?? '';
    const text = head + row('c1', first.name.toUpperCase()) + row('c2', number) + row('c3', 'clewbay');
    expect(await take('certificates', text)).toMatchObject({ ok: true, value: { added: 3 } });
    const kept = await db.certificates.bulkGet(['c1', 'c2', 'c3']);
    expect(kept.map((one) => one?.customerId)).toEqual([first.id, numbered?.id, 'clewbay']);
    await act(db, changeCustomer, { ...first, id: 'twin' }, JANUARY);
    expect(refusalCodes(await take('certificates', head + row('c4', first.name)))).toEqual(['unknown']);
  });
  test('an item of a class that no rate has is refused; columns that a file lacks say nothing', async () => {
    const { heads, optional = [], write } = columnsOf('items');
    await act(db, changeItem, { ...present(await db.items.get('gauge'), 'the item'), itemCode: '901530' }, JANUARY);
    const item = present(await db.items.get('gauge'), 'the item');
    const importItems = (text: string) => perform(db, importCsv, { table: 'items', text }, momentOn(JANUARY));
    const strange = await importItems(writeCsv(heads, [...write({ ...item, taxClass: 'strange' })]));
    expect(strange.ok ? [] : strange.refusals.map(({ path }) => path)).toEqual(['row 2, class']);
    const old = heads.filter((head) => !optional.includes(head));
    const cells = write({ ...item, name: 'Gauge' }).map((row) => row.slice(0, old.length));
    expect(await importItems(writeCsv(old, cells))).toMatchObject({ ok: true, value: { changed: 1 } });
    expect(await db.items.get('gauge')).toMatchObject({ name: 'Gauge', itemCode: '901530' });
  });
  test.each([
    ['UTF-8', new TextEncoder().encode('Müller')],
    ['UTF-16', new Uint8Array([0xff, 0xfe, ...[...'Müller'].flatMap((sign) => [sign.charCodeAt(0), 0])])],
    ['UTF-16', new Uint8Array([0xfe, 0xff, ...[...'Müller'].flatMap((sign) => [0, sign.charCodeAt(0)])])],
    ['Windows-1252 (Latin-1)', new Uint8Array([...'Müller'].map((sign) => sign.charCodeAt(0)))],
  ])('a file in %s is read as it was meant', (encoding, bytes) => {
    expect(readTextFile(bytes)).toEqual({ text: 'Müller', encoding });
  });
  test('cells that a spreadsheet would run are made harmless, and come back as they were', () => {
    const nasty = [
      '=1+1',
      '+1+1',
      '-1-1',
      '@SUM(A1)',
      '\tx',
      'plain',
      "'=quoted",
      'x;=1+1',
      '\uFF1D1+1',
      'a\n-2+3',
      'with "marks", commas\nand lines',
    ];
    const text = writeCsv(
      ['a'],
      nasty.map((cell) => [cell]),
    );
    expect(text).not.toMatch(/(^|\n|;)"?[=+\-@\t\uFF1D]/);
    const read = readCsv(text, ['a']);
    expect(read.ok && read.value.map((row) => row.cells.a)).toEqual(
      nasty.map((cell) => (cell === '\tx' ? '\tx' : cell)),
    );
  });
  test('numbers stay numbers, those below zero too', () => {
    expect(writeCsv(['a', 'b'], [['-123.00', '+4,5']])).toBe('a,b\r\n-123.00,"+4,5"\r\n');
  });
  test('an item with an account outside the chart is refused with its row, at the item, and at issue', async () => {
    const item = present(await db.items.get('gauge'), 'the item');
    const { heads, write } = columnsOf('items');
    const rows = [...write({ ...item, account: '4999' })];
    const text = writeCsv(heads, rows);
    const result = await perform(db, importCsv, { table: 'items', text }, momentOn(JANUARY));
    expect(result.ok ? [] : result.refusals.map((r) => [r.code, r.path, wordRefusal(r)])).toEqual([
      ['unknown', 'row 2, account', 'Choose an account of the chart, such as 4000.'],
    ]);
    expect(refusalCodes(await perform(db, changeItem, { ...item, account: '4999' }, momentOn(JANUARY)))).toEqual([
      'unknown',
    ]);
    const draft = await act(db, keepDraft, draftOf({ lines: [lineOf({ account: '4999' })] }), JANUARY);
    const issuing = await perform(db, issueInvoice, { draftId: draft.id }, momentOn(JANUARY));
    expect(issuing.ok ? [] : issuing.refusals.map((r) => [r.code, r.path])).toEqual([['unknown', 'lines[0].account']]);
  });
  test.each(['customers', 'items', 'exchangeRates'] as const)('%s that go out come in as they were', async (table) => {
    await act(db, keepExchangeRate, { value: DOLLAR, isNew: true }, JANUARY);
    const shape = columnsOf(table);
    const before = (await wholeBook(db))[table];
    const rows = (await db.table(table).toArray()).flatMap((record) => shape.write(record as never));
    const input = { table, text: writeCsv(shape.heads, rows) };
    expect(await perform(db, importCsv, input, momentOn(JANUARY))).toEqual({
      ok: true,
      value: { added: 0, changed: 0 },
    });
    expect((await wholeBook(db))[table]).toEqual(before);
  });
  test('a customer and an item are made from few cells, and are found at once', async () => {
    const customers = columnsOf('customers').heads.join(',');
    const row = ',Skellig Boats,,Pier 1,V23,Portmagee,,ie,,,IE8100567H,,';
    await act(db, importCsv, { table: 'customers', text: `${customers}\n${row}` }, JANUARY);
    const made = await db.customers.get('skellig-boats');
    expect(made).toMatchObject({ name: 'Skellig Boats', terms: '30d', kind: 'business', address: { country: 'IE' } });
    expect((await findCustomers(db, 'ortmag', 5)).map((c) => c.id)).toEqual(['skellig-boats']);
    const items = columnsOf('items').heads.join(',');
    await act(db, importCsv, { table: 'items', text: `${items}\n,Anchor,,,75,,4000,,` }, JANUARY);
    expect(await db.items.get('anchor')).toMatchObject({ price: '75', unit: 'C62', priceMode: 'net', supply: 'goods' });
  });
  test('a row without an id speaks of no record that is there; its name may not be known already', async () => {
    const heads = columnsOf('customers').heads.join(',');
    const before = await db.customers.get('ballyvaughan');
    const row = (name: string, id = '') => `${id},${name},business,S,,C,,IE,,,,,`;
    const text = `${heads}\n${row('Ballyvaughan')}\n${row('Bally & Vaughan')}`;
    expect(await act(db, importCsv, { table: 'customers', text }, JANUARY)).toEqual({ added: 2, changed: 0 });
    expect(await db.customers.get('ballyvaughan')).toEqual(before);
    expect(await db.customers.get('ballyvaughan-2')).toMatchObject({ name: 'Ballyvaughan' });
    const again = await perform(db, importCsv, { table: 'customers', text }, momentOn(JANUARY));
    expect(again.ok ? [] : again.refusals.map((r) => r.path)).toEqual(['row 2, id', 'row 3, id']);
    const named = `${heads}\n${row('Ballyvaughan', 'ballyvaughan-2')}\n${row('Twin')}\n${row('Twin')}`;
    const twins = await perform(db, importCsv, { table: 'customers', text: named }, momentOn(JANUARY));
    expect(twins.ok ? [] : twins.refusals.map((r) => r.path)).toEqual(['row 4, id']);
  });
  test.each<[string, 'customers' | 'places' | 'exchangeRates', string, string]>([
    ['an id', 'customers', 'x,X,business,S,,C,,IE,,,,,\nx,Y,business,S,,C,,IE,,,,,', 'row 3, id'],
    ['a day', 'exchangeRates', 'USD,2026-01-02,1.1,\nusd,2026-01-02,1.2,', 'row 3, currency'],
    ['a name of a place', 'places', 'P,P,together,IE,IE,,,,\nP,Q,together,IE,IE,,1,2,', 'row 3, name'],
  ])('%s that a file gives twice is named', async (_, table, rows, path) => {
    const text = `${columnsOf(table).heads.join(',')}\n${rows}`;
    const result = await perform(db, importCsv, { table, text }, momentOn(JANUARY));
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual([path]);
  });
  test('what an import changes stands on the audit trail, before and after', async () => {
    const item = present(await db.items.get('gauge'), 'the item');
    const { heads, write } = columnsOf('items');
    const text = writeCsv(heads, [...write({ ...item, price: decimal('99') })]);
    await act(db, importCsv, { table: 'items', text }, JANUARY);
    const last = (await historyOf(db, 'gauge')).at(-1);
    expect(differences(last?.before, last?.after)).toEqual([{ path: 'gauge.price', before: item.price, after: '99' }]);
  });
  test.each<[string, 'customers' | 'items' | 'exchangeRates', string, string]>([
    ['a country is none', 'customers', ',X,business,S,,C,,XX,,,,,', 'row 2, country'],
    ['terms are words', 'customers', ',X,business,S,,C,,IE,,,,soon,', 'row 2, terms'],
    ['a price is words', 'items', ',X,,,cheap,,4000,,', 'row 2, price'],
    ['a rate is zero', 'exchangeRates', 'USD,2026-01-01,0,', 'row 2, rate'],
    ['a day is none', 'exchangeRates', 'USD,2026-02-30,1.08,', 'row 2, day'],
  ])('%s: the row is named', async (_, table, row, path) => {
    const text = `${columnsOf(table).heads.join(',')}\n${row}`;
    const result = await perform(db, importCsv, { table, text }, momentOn(JANUARY));
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toContain(path);
  });
});
