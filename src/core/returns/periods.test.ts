import { accepted, act, day, EUR, issued, lineOf, newBook, taxOf } from 'tests/book';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { demoRegistration } from '@/demo/setup';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { present } from '@/store/load';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { nextToFile, periodIdOf, placeInPeriod, spanName, spanOf, spansUntil } from './calendar';
import { type ProofMaterial, prove } from './proof';
import { addToBalances, codesWithoutBox, returnOf } from './return';
import type { TaxEntry } from './taxEntry';

const registration = demoRegistration(day('2026-01-01'));
const filedUntil = (until: string) => ({ ...registration, filedUntil: isoDate(until) });

describe('the calendar of periods', () => {
  test.each([
    ['monthly', '2026-02-14', '2026-02-01', '2026-02-28', 'Feb 2026'],
    ['two-monthly', '2026-02-28', '2026-01-01', '2026-02-28', 'Jan–Feb 2026'],
    ['two-monthly', '2026-03-01', '2026-03-01', '2026-04-30', 'Mar–Apr 2026'],
    ['two-monthly', '2026-12-31', '2026-11-01', '2026-12-31', 'Nov–Dec 2026'],
    ['quarterly', '2026-05-05', '2026-04-01', '2026-06-30', 'Apr–Jun 2026'],
    ['yearly', '2028-02-29', '2028-01-01', '2028-12-31', '2028'],
  ] as const)('%s: %s lies in %s to %s, %s', (frequency, on, start, end, name) => {
    const span = spanOf(frequency, day(on));
    expect(span).toEqual({ start, end });
    expect(spanName(span)).toBe(name);
  });
  test('lists all periods up to a day, both ends included', () => {
    const starts = (until: string) => spansUntil(registration, day(until)).map((span) => span.start);
    expect(starts('2026-05-01')).toEqual(['2026-01-01', '2026-03-01', '2026-05-01']);
    expect(starts('2026-04-30')).toEqual(['2026-01-01', '2026-03-01']);
    expect(starts('2025-12-31')).toEqual([]);
  });
  test('files in order, across the year', () => {
    expect(nextToFile(registration).start).toBe('2026-01-01');
    expect(nextToFile(filedUntil('2026-12-31')).start).toBe('2027-01-01');
  });
});

describe('where a document is reported', () => {
  test.each([
    ['in its own period', registration, '2026-02-28', '2026-01-01', false],
    ['in a later one while earlier ones are open', registration, '2026-09-01', '2026-09-01', false],
    ['in the next open one, late, on the last filed day', filedUntil('2026-02-28'), '2026-02-28', '2026-03-01', true],
    ['in its own on the day after', filedUntil('2026-02-28'), '2026-03-01', '2026-03-01', false],
    ['in the next open one when several are filed', filedUntil('2026-06-30'), '2026-01-05', '2026-07-01', true],
  ])('%s', (_, by, taxPoint, start, late) => {
    const placed = placeInPeriod(by, day(taxPoint));
    expect([placed?.span.start, placed?.late]).toEqual([start, late]);
  });
  test('nowhere before the first period', () => expect(placeInPeriod(registration, day('2025-12-31'))).toBeNull());
});

describe('the return', () => {
  const entry = (over: Partial<TaxEntry>): TaxEntry => ({
    id: 'd:S',
    periodId: 'p',
    registrationId: 'r',
    documentId: 'd',
    documentNumber: 'INV-1',
    customerName: 'C',
    code: 'S',
    codeName: 'Standard',
    category: 'S',
    percent: '23',
    jurisdictionId: 'IE',
    jurisdictionName: 'Ireland',
    taxId: 'IE-VAT',
    part: 0,
    partOfJurisdiction: 0,
    kind: 'due',
    allocationId: '',
    certificate: '',
    boxBase: '',
    boxTax: 'T1',
    filingCurrency: EUR,
    filingBase: minor(10000n),
    filingTax: minor(2300n),
    taxPoint: day('2026-01-05'),
    late: false,
    base: minor(10000n),
    tax: minor(2300n),
    ...over,
  });
  test('keeps a row for each code and rate: a rate that changed inside the period shows twice', () => {
    const balances = addToBalances(
      [],
      [
        entry({}),
        entry({ percent: '21', tax: minor(2100n) }),
        entry({ base: minor(-5000n), tax: minor(-1150n), late: true }),
      ],
    );
    const figures = returnOf(balances);
    expect(figures.rows.map((r) => [r.percent, r.base, r.tax, r.entries, r.lateEntries])).toEqual([
      ['21', 10000n, 2100n, 1, 0],
      ['23', 5000n, 1150n, 2, 1],
    ]);
    expect(figures).toMatchObject({ base: 15000n, tax: 3250n });
    expect(taxOf(balances)).toBe(3250n);
  });
  test('names codes whose figures stand in no box of the form, but for what is outside the scope of the tax', () => {
    const nowhere = { boxBase: '', boxTax: '' };
    const without = (...entries: TaxEntry[]) => codesWithoutBox(returnOf(addToBalances([], entries)));
    expect(
      without(
        entry({}),
        entry({ ...nowhere, code: 'R', codeName: 'Reduced' }),
        entry({ ...nowhere, code: 'O', codeName: 'Outside', category: 'O', tax: minor(0n) }),
      ),
    ).toEqual(['Reduced']);
    // A form without any box states figures by code alone.
    expect(without(entry(nowhere))).toEqual([]);
  });
  test('of nothing is nothing', () =>
    expect(returnOf([])).toEqual({ rows: [], base: 0n, tax: 0n, filingBase: 0n, filingTax: 0n, boxes: [] }));
});

describe('the proof', () => {
  /** Two invoices and a credit-sized one, in January and February, straight from the book. */
  async function material(): Promise<ProofMaterial> {
    const db = await newBook();
    await issued(db);
    await issued(db, { lines: [lineOf({ price: '50', taxCode: 'IE-R' })] });
    const by = present(await db.registrations.get('ie-vat'), 'registration');
    return proofMaterial(db, by, day('2026-01-01'));
  }
  const causes = (m: ProofMaterial) => prove(m).differences.map((d) => [d.cause, d.subject, d.amount]);

  test('holds when nothing was touched', async () => {
    expect(prove(await material())).toMatchObject({
      holds: true,
      documents: 2975n,
      taxEntries: 2975n,
      ledger: 2975n,
      documentCount: 2,
    });
  });

  test('names a document whose content was altered', async () => {
    const m = await material();
    const [first, ...rest] = m.documents;
    if (first === undefined) throw new Error('no document');
    const altered = {
      ...first,
      content: { ...first.content, lines: first.content.lines.map((l) => ({ ...l, unitPrice: '90.00' as never })) },
    };
    expect(causes({ ...m, documents: [altered, ...rest] })).toEqual([['document-altered', 'INV-2026-0001', 230n]]);
  });

  test('names an entry that differs, one that is missing, and one without a document', async () => {
    const m = await material();
    const [a, ...others] = m.taxEntries;
    if (a === undefined) throw new Error('no entry');
    expect(causes({ ...m, taxEntries: [{ ...a, tax: minor(a.tax + 5n) }, ...others] })).toEqual([
      ['entry-differs', a.documentNumber, 5n],
      ['posting-differs', a.documentNumber, -5n],
      ['balance-differs', 'The return', -5n],
    ]);
    expect(causes({ ...m, taxEntries: others }).map(([cause]) => cause)).toEqual([
      'document-without-entry',
      'posting-differs',
      'balance-differs',
    ]);
    const stray = { ...a, id: 'x', documentId: 'gone', documentNumber: 'INV-9' };
    expect(causes({ ...m, taxEntries: [...m.taxEntries, stray] })).toEqual([
      ['entry-without-document', 'INV-9', a.tax],
      ['balance-differs', 'The return', minor(-a.tax)],
    ]);
  });

  test('names a return that is not the sum of its entries', async () => {
    const m = await material();
    const [row, ...rows] = m.balances;
    if (row === undefined) throw new Error('no balance');
    const drifted = [{ ...row, tax: minor(row.tax + 9n) }, ...rows];
    expect(causes({ ...m, balances: drifted })).toEqual([['balance-differs', 'The return', 9n]]);
  });

  test('names codes that are swapped although the sum is the same', async () => {
    const m = await material();
    const swapped = m.taxEntries.map((e) => (e.code === 'IE-S' ? { ...e, code: 'IE-R' } : e));
    expect(causes({ ...m, taxEntries: swapped }).map(([cause]) => cause)).toEqual(['entry-differs']);
  });

  test('names a posting that is gone and one that nobody asked for', async () => {
    const m = await material();
    const [line, ...rest] = m.ledgerLines;
    if (line === undefined) throw new Error('no line');
    expect(causes({ ...m, ledgerLines: rest }).map(([cause, , amount]) => [cause, amount])).toEqual([
      ['posting-differs', line.amount],
    ]);
    const stray = { ...line, id: 'x:0', entryId: 'x', text: 'stray' };
    expect(causes({ ...m, ledgerLines: [...m.ledgerLines, stray] })).toEqual([
      ['posting-differs', 'stray', minor(-line.amount)],
    ]);
  });

  test('names each manual journal in the tax account, by its date', async () => {
    const db = await newBook();
    await issued(db);
    const sides = [
      { account: '7900', amount: minor(1840n) },
      { account: '2200', amount: minor(-1840n) },
    ];
    for (const on of ['2026-01-01', '2026-02-28', '2026-03-01'])
      await act(db, writeJournal, { date: on, text: `Own use ${on}`, sides }, on);
    const by = present(await db.registrations.get('ie-vat'), 'registration');
    const proof = prove(await proofMaterial(db, by, day('2026-01-01')));
    expect(proof.differences.map((d) => [d.cause, d.subject])).toEqual([
      ['manual-journal', 'Own use 2026-01-01'],
      ['manual-journal', 'Own use 2026-02-28'],
    ]);
    expect(proof.ledger - proof.taxEntries).toBe(3680n);
    expect(await db.taxPeriods.get(periodIdOf('ie-vat', day('2026-01-01')))).toMatchObject({ filed: null });
  });

  test('a sum of differences explains the whole gap', async () => {
    const m = await material();
    const [a, ...others] = m.taxEntries;
    const [line, ...lines] = m.ledgerLines;
    if (a === undefined || line === undefined) throw new Error('empty');
    const broken = {
      ...m,
      taxEntries: [{ ...a, tax: minor(a.tax + 7n) }, ...others],
      ledgerLines: [{ ...line, amount: minor(line.amount - 3n) }, ...lines],
    };
    const proof = prove(broken);
    const byCause = (cause: string) =>
      proof.differences.filter((d) => d.cause === cause).reduce((sum, d) => sum + d.amount, 0n);
    expect(byCause('entry-differs')).toBe(proof.taxEntries - proof.documents);
    expect(byCause('posting-differs')).toBe(proof.ledger - proof.taxEntries);
    expect(accepted({ ok: true, value: proof.holds })).toBe(false);
  });
});
