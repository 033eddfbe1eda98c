import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Dexie from 'dexie';
import { strFromU8, unzipSync } from 'fflate';
import { momentOn, wholeBook } from 'tests/book';
import { BOOK_TABLES, descriptorOf } from '@/core/book/tables';
import { restated } from '@/core/documents/issued';
import { lookOf } from '@/core/documents/look';
import { unpackArchive } from '@/core/files/archive';
import { readCanonical, writeCanonical } from '@/core/kernel/canonical';
import { isoDate } from '@/core/kernel/date';
import { total } from '@/core/kernel/money';
import { prove } from '@/core/returns/proof';
import { taxEntriesOf } from '@/core/returns/taxEntry';
import { present } from '@/store/load';
import { BookDb } from '@/store/schema';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { archiveBook } from './archive';
import { openArchive } from './openArchive';
import { undoAllocation } from './payments/actions/allocate';
import { perform } from './perform';

/* A book file written by version 1: 23 documents, one return filed, drafts in both price modes. */
const fixture = (version: number) =>
  new Uint8Array(readFileSync(join(process.cwd(), `tests/fixtures/book-version-${version}.able`)));
const bytes = fixture(1);
const AT = '2026-11-23T12:00:00.000Z';

async function opened(name: string, file = bytes): Promise<BookDb> {
  const db = new BookDb(name);
  const result = await openArchive(db, file);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return db;
}

/** A stored book of version 1, as the browser would hold it. */
async function storedV1(name: string): Promise<void> {
  const old = new Dexie(name);
  old.version(1).stores({
    book: 'id',
    registrations: 'id',
    taxCodes: 'id',
    customers: 'id, name, *keys',
    items: 'id, name, *keys',
    accounts: 'code',
    series: 'id',
    drafts: 'id, savedAt, *keys',
    documents: 'id, [issueDate+number], [periodId+number], [customerId+isOpen], number, *keys',
    receipts: 'id, [date+number], customerId, *keys',
    journal: 'id, [date+id], sourceId',
    journalLines: 'id, entryId, [account+date+id], [account+taxPeriodId+date], taxPeriodId',
    taxEntries: 'id, [periodId+code+percent+documentNumber], documentId',
    taxPeriods: 'id, [registrationId+start]',
    audit: 'id, at',
    accountMonths: '[account+month], month',
    taxBalances: '[periodId+code+percent], periodId',
    customerBalances: 'customerId',
  });
  await fill(old, bytes);
}

/** Puts the rows of a file into a database as they are, and closes it. */
async function fill(old: Dexie, file: Uint8Array): Promise<void> {
  for (const [path, member] of Object.entries(unzipSync(file))) {
    const table = /^tables\/(.*)\.jsonl$/.exec(path)?.[1];
    const text = strFromU8(member);
    if (table !== undefined && text !== '') await old.table(table).bulkAdd(text.split('\n').map(readCanonical));
  }
  old.close();
}

const SINCE_V3 = ['styles', 'savedViews', 'attachments'];
const SINCE_V4 = ['transmissions'];
const SINCE_V5 = ['looks'];
const SINCE_V6 = ['allocations', 'refunds'];
const SINCE_V7 = ['withheld', 'withholdingCertificates', 'withholdingClaims'];
const SINCE_V9 = ['bankAccounts', 'bankStatements', 'bankLines', 'bankRules', 'reconciliations'];
const SINCE_V10 = ['returnBoxes', 'yearClosings'];
const SINCE_V11 = ['journalTemplates'];
const SINCE_V8 = ['reopenedFilings', 'taxPayments', 'revaluations', 'deferrals'];

/** A stored book of version 2 to 10; only the keys matter, as the old program's indexes are not read. */
async function storedAs(version: 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 | 10, name: string): Promise<void> {
  const old = new Dexie(name);
  const later = [
    ...(version < 3 ? SINCE_V3 : []),
    ...(version < 4 ? SINCE_V4 : []),
    ...(version < 5 ? SINCE_V5 : []),
    ...(version < 6 ? SINCE_V6 : []),
    ...(version < 7 ? SINCE_V7 : []),
    ...(version < 8 ? SINCE_V8 : []),
    ...(version < 9 ? SINCE_V9 : []),
    ...(version < 10 ? SINCE_V10 : []),
    ...SINCE_V11,
  ];
  const keyed = BOOK_TABLES.filter((table) => !later.includes(table));
  old.version(version).stores({
    ...Object.fromEntries(keyed.map((table) => [table, descriptorOf(table).key])),
    accountMonths: '[account+month], month',
    taxRows: '[periodId+code+percent+jurisdictionId+taxId+kind], periodId',
    customerBalances: 'customerId',
    ...(version >= 3 && { vocabulary: 'word' }),
  });
  await fill(old, fixture(version));
}

/** What no upgrade may touch, of each document: its content, its figures, its seal. */
const sealed = (d: { content: unknown; figures: unknown; seal: unknown }): string =>
  writeCanonical({ content: d.content, figures: d.figures, seal: d.seal });

const sealedOf = async (db: BookDb) => (await db.documents.toArray()).map(sealed).sort();

function sealedIn(file: Uint8Array): string[] {
  const rows = strFromU8(present(unzipSync(file)['tables/documents.jsonl'], 'documents')).split('\n');
  return rows.map((row) => sealed(readCanonical(row) as Parameters<typeof sealed>[0])).sort();
}

describe('a book of version 1', () => {
  test('opens from its file with rates moved to a tax and classes to the decision table', async () => {
    const db = await opened('upgrade-file');
    const tax = present(await db.taxes.get('IE-TAX'), 'the tax');
    expect(tax.rates.filter((r) => r.taxClass === 'standard').map((r) => [r.from, r.percent])).toEqual([
      ['2012-01-01', '23'],
      ['2020-09-01', '21'],
      ['2021-03-01', '23'],
    ]);
    expect((await db.taxCodes.get('S23'))?.components).toEqual([
      { taxId: 'IE-TAX', taxClass: 'standard', family: '', compound: false },
    ]);
    expect((await db.taxCodes.get('RC'))?.components).toEqual([]);
    const rows = present(await db.decisionTables.get('table'), 'the table').rows;
    expect(rows.map((row) => [row.taxClass, row.result])).toEqual(
      expect.arrayContaining([
        [['standard'], { kind: 'code', code: 'S23' }],
        [['repair'], { kind: 'code', code: 'R135' }],
      ]),
    );
    const nordlicht = await db.customers.get('nordlicht');
    expect([nordlicht?.kind, nordlicht?.taxNumbers, nordlicht?.taxCode]).toEqual([
      'business',
      [{ country: 'DE', number: 'DE812345673', check: null }],
      'RC',
    ]);
  });

  test('keeps its documents to the byte, and its periods are proven as before', async () => {
    const db = await opened('upgrade-proof');
    expect(await sealedOf(db)).toEqual(sealedIn(bytes));
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const causes = async (start: string) =>
      prove(await proofMaterial(db, registration, isoDate(start))).differences.map((d) => d.cause);
    expect(await causes('2026-07-01')).toEqual([]);
    expect(await causes('2026-09-01')).toEqual(['manual-journal']);
    // Nothing has cleared it since.
    expect(await causes('2026-11-01')).toEqual(['manual-journal']);
  });

  test('goes out again as a file of version 11 that opens as the very same book', async () => {
    const db = await opened('upgrade-again');
    const again = await archiveBook(db, AT);
    const read = unpackArchive(again);
    expect(read.ok && read.value.manifest.version).toBe(11);
    const other = new BookDb('upgrade-other');
    await openArchive(other, again);
    expect(await archiveBook(other, AT)).toEqual(again);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedV1('upgrade-stored');
    const stored = await wholeBook(new BookDb('upgrade-stored'));
    const fromFile = await wholeBook(await opened('upgrade-compared'));
    for (const table of ['registrations', 'taxes', 'taxCodes', 'customers', 'items', 'drafts', 'taxEntries', 'taxRows'])
      expect([table, stored[table]?.map(writeCanonical).sort()]).toEqual([
        table,
        fromFile[table]?.map(writeCanonical).sort(),
      ]);
  });
});

describe('a book of version 2', () => {
  test('keeps what was sealed, and gains families, series that count, and the accounts that are new', async () => {
    const db = await opened('upgrade-2', fixture(2));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(2)));
    const note = present(await db.documents.where('[kind+issueDate]').above(['credit-note']).first(), 'a credit note');
    const family = await db.documents.where('familyId').equals(note.familyId).toArray();
    expect(family.map((d) => d.kind).sort()).toEqual(['credit-note', 'invoice']);
    const series = present(await db.series.get('invoice'), 'the series');
    const issued = (await db.documents.toArray()).filter((d) => d.seriesId === 'invoice');
    expect(series.count).toBe(issued.length);
    expect((await db.accounts.toArray()).filter((a) => ['exchange', 'opening'].includes(a.role))).toHaveLength(2);
    const receipt = present(await db.receipts.toCollection().first(), 'a receipt');
    const made = await db.allocations.where('creditId').equals(receipt.id).toArray();
    expect(total(made.map(({ amount }) => amount))).toBe(receipt.amount);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(2, 'upgrade-stored-2');
    const stored = await wholeBook(new BookDb('upgrade-stored-2'));
    const fromFile = await wholeBook(await opened('upgrade-compared-2', fixture(2)));
    for (const table of ['accounts', 'series', 'customers', 'drafts', 'documents', 'receipts', 'vocabulary'])
      expect([table, stored[table]?.map(writeCanonical).sort()]).toEqual([
        table,
        fromFile[table]?.map(writeCanonical).sort(),
      ]);
  });
});

describe('a book of version 3', () => {
  test('keeps what was sealed; its files stay at home until somebody lets them go', async () => {
    const db = await opened('upgrade-3', fixture(3));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(3)));
    expect((await db.attachments.toArray()).map(({ name, goesOut }) => [name, goesOut])).toEqual([
      ['sheet.csv', false],
    ]);
    expect(await db.transmissions.count()).toBe(0);
    expect((await db.customers.toArray()).every(({ mandate }) => mandate.reference === '')).toBe(true);
    expect((await db.book.get('book'))?.business.creditorId).toBe('');
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(3, 'upgrade-stored-3');
    const stored = await archiveBook(new BookDb('upgrade-stored-3'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-3', fixture(3)), AT));
  });
});

describe('a book of version 4', () => {
  const money = (db: BookDb, role: string) => db.accounts.filter((account) => account.role === role).toArray();

  test('keeps what was sealed, gains accounts for cash and cards, and its thresholds say their currency', async () => {
    const db = await opened('upgrade-4', fixture(4));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(4)));
    expect([...(await money(db, 'cash')), ...(await money(db, 'card'))].map((a) => a.code)).toEqual(['1010', '1020']);
    expect((await db.withholdingTypes.toArray()).map((type) => type.currency)).toEqual(['EUR']);
  });

  test('keeps the look of what was issued, and its first style as the default', async () => {
    const db = await opened('upgrade-4-look', fixture(4));
    expect((await db.book.get('book'))?.business.styleId).toBe('first');
    const [look] = await db.looks.toArray();
    expect(look).toEqual(lookOf(present(await db.styles.get('first'), 'the style')));
    expect(new Set((await db.documents.toArray()).map((d) => d.lookId))).toEqual(new Set([look?.id]));
  });

  test('says what is due next and what is part-paid as documents of today do', async () => {
    const db = await opened('upgrade-4-states', fixture(4));
    const documents = await db.documents.toArray();
    expect(documents.map((d) => [d.number, d.state, d.dueDate])).toEqual(
      documents.map((d) => [d.number, restated(d).state, restated(d).dueDate]),
    );
    expect(documents.find((d) => d.content.instalments !== undefined)?.dueDate).toBe('2026-02-03');
  });

  test('counts the base of a jurisdiction once, as entries of today do', async () => {
    const db = await opened('upgrade-4-entries', fixture(4));
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const entries = await db.taxEntries.toArray();
    for (const { id, content, figures } of await db.documents.toArray()) {
      const fresh = taxEntriesOf(id, content, figures, registration, '', false);
      for (const { id: entryId, partOfJurisdiction } of fresh)
        expect(entries.find((e) => e.id === entryId)?.partOfJurisdiction).toBe(partOfJurisdiction);
    }
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(4, 'upgrade-stored-4');
    const stored = new BookDb('upgrade-stored-4');
    const fromFile = await opened('upgrade-compared-4', fixture(4));
    expect(await archiveBook(stored, AT)).toEqual(await archiveBook(fromFile, AT));
    const rows = async (db: BookDb) => (await db.taxRows.toArray()).map(writeCanonical).sort();
    expect(await rows(stored)).toEqual(await rows(fromFile));
  });
});

describe('a book of version 5', () => {
  test('gains its allocations, each with what went of both in home currency', async () => {
    const db = await opened('upgrade-5', fixture(5));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(5)));
    const made = await db.allocations.toArray();
    const of = (number: string) =>
      made
        .filter(({ debtNumber }) => debtNumber === number)
        .sort((a, b) => a.turn - b.turn)
        .map(({ creditNumber, amount, debtHome, creditHome, takesBack }) => [
          creditNumber,
          amount,
          debtHome,
          creditHome,
          takesBack,
        ]);
    expect(of('INV-2026-0001')).toEqual([
      ['REC-2026-0001', 5000n, 5000n, 5000n, false],
      ['CN-2026-0001', 2000n, 2000n, 2000n, true],
      ['REC-2026-0002', 1000n, 1000n, 1000n, false],
    ]);
    // 123.00 NOK stood at 10.77; in step with each part: 33.33 is 2.92, 11.11 is 0.97, 22.22 is 1.95, which leaves 4.93.
    expect(of('INV-2026-0002')).toEqual([
      ['REC-2026-0003', 3333n, 292n, 292n, false],
      ['CN-2026-0002', 1111n, 97n, 97n, true],
      ['REC-2026-0004', 2222n, 195n, 195n, false],
    ]);
    expect((await db.documents.where('number').equals('INV-2026-0002').first())?.openHome).toBe(493n);
    expect((await db.receipts.toArray()).map(({ open, openHome, isOpen }) => [open, openHome, isOpen])).toEqual(
      Array.from({ length: 6 }, () => [0n, 0n, 0]),
    );
  });

  test('proves the tax that its receipts released, and takes it back when one of them is undone', async () => {
    const db = await opened('upgrade-5-proof', fixture(5));
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const start = isoDate('2026-01-01');
    expect(prove(await proofMaterial(db, registration, start))).toMatchObject({ holds: true });
    const one = present(
      (await db.allocations.toArray()).find(({ creditNumber }) => creditNumber === 'REC-2026-0006'),
      'the allocation',
    );
    let made = 0;
    const moment = { ...momentOn('2026-01-28'), newId: () => `late-${++made}` };
    const undone = { creditId: one.creditId, debtId: one.debtId, date: '2026-01-28' };
    expect(await perform(db, undoAllocation, undone, moment)).toMatchObject({ ok: true });
    expect(prove(await proofMaterial(db, registration, start))).toMatchObject({ holds: true });
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(5, 'upgrade-stored-5');
    const stored = await archiveBook(new BookDb('upgrade-stored-5'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-5', fixture(5)), AT));
  });
});

describe('a book of version 6', () => {
  test('gains parts of receipts, what was withheld at issue, and accounts for what is new', async () => {
    const db = await opened('upgrade-6', fixture(6));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(6)));
    const receipts = await db.receipts.toArray();
    expect(receipts.map(({ parts, valueDate, date }) => [parts, valueDate === date])).toEqual([
      [
        [
          {
            method: 'cheque',
            account: '1000',
            amount: 15000n,
            charge: 0n,
            home: 15000n,
            cheque: { number: '', date: '2026-01-12' },
          },
        ],
        true,
      ],
      // 10.00 USD at 1 ÷ 1.0850 are 9.22.
      [[{ method: 'cash', account: '1010', amount: 1000n, charge: 0n, home: 922n, cheque: null }], true],
    ]);
    // 5 % of 100.00 and 3 % of 123.00 at issue; a credit note of 30.00 takes 30 ÷ 123 of each back, 1.22 and 0.90.
    const withheld = await db.withheld.toArray();
    expect(withheld.map(({ typeId, documentNumber, home }) => [documentNumber, typeId, home]).sort()).toEqual([
      ['CN-2026-0001', 'W3', -90n],
      ['CN-2026-0001', 'W5', -122n],
      ['INV-2026-0002', 'W3', 369n],
      ['INV-2026-0002', 'W5', 500n],
      ['INV-2026-0003', 'W3', expect.any(BigInt)],
      ['INV-2026-0003', 'W5', expect.any(BigInt)],
    ]);
    const codeOf = async (role: string) => (await db.accounts.filter((a) => a.role === role).first())?.code;
    expect(
      await Promise.all(['withholding-refunds', 'settlement-discounts', 'bank-charges', 'bad-debts'].map(codeOf)),
    ).toEqual(['1310', '4910', '7930', '7940']);
    expect((await db.documents.toArray()).every(({ writtenOff }) => writtenOff === 0n)).toBe(true);
    expect((await db.registrations.toArray()).every(({ badDebtRelief }) => badDebtRelief)).toBe(true);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(6, 'upgrade-stored-6');
    const stored = await archiveBook(new BookDb('upgrade-stored-6'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-6', fixture(6)), AT));
  });
});

describe('a book of version 7', () => {
  test('keeps what was sealed, gains accounts for what is deferred and not realised, and its periods are proven', async () => {
    const db = await opened('upgrade-7', fixture(7));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(7)));
    const accounts = await db.accounts.toArray();
    const codeOf = (role: string) => accounts.find((account) => account.role === role)?.code;
    // 2300 is a loan of the book's own.
    expect([codeOf('deferred-income'), codeOf('exchange-unrealised')]).toEqual(['2301', '7925']);
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    expect(prove(await proofMaterial(db, registration, isoDate('2026-01-01'))).holds).toBe(true);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(7, 'upgrade-stored-7');
    const stored = await archiveBook(new BookDb('upgrade-stored-7'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-7', fixture(7)), AT));
  });
});

describe('a book of version 8', () => {
  test('keeps what was sealed, and its account to pay into becomes a bank account', async () => {
    const db = await opened('upgrade-8', fixture(8));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(8)));
    const none = { kind: '', code: '', number: '' };
    expect(await db.bankAccounts.toArray()).toEqual([
      {
        id: 'bank',
        name: 'Bank',
        currency: 'EUR',
        account: '1000',
        iban: 'IE31CPTB99000012345678',
        bic: '',
        local: none,
      },
    ]);
    expect(Object.keys(present(await db.book.get('book'), 'the book').business)).not.toContain('iban');
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(8, 'upgrade-stored-8');
    const stored = await archiveBook(new BookDb('upgrade-stored-8'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-8', fixture(8)), AT));
  });
});

describe('a book of version 9', () => {
  test('keeps all it had, and has nothing typed into its returns', async () => {
    const db = await opened('upgrade-9', fixture(9));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(9)));
    expect(await db.returnBoxes.count()).toBe(0);
    expect(await db.mails.count()).toBe(1);
    expect((await db.recurringMade.toArray()).map(({ state }) => state)).toEqual(['issued', 'issued']);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(9, 'upgrade-stored-9');
    const stored = await archiveBook(new BookDb('upgrade-stored-9'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-9', fixture(9)), AT));
  });
});

describe('a book of version 10', () => {
  test('keeps all it had, and no journal is a template', async () => {
    const db = await opened('upgrade-10', fixture(10));
    expect(await sealedOf(db)).toEqual(sealedIn(fixture(10)));
    expect(await db.journalTemplates.count()).toBe(0);
    expect((await db.taxPeriods.toArray()).filter(({ filed }) => filed !== null)).toHaveLength(1);
  });

  test('stored in a browser comes up to the same book as its file does', async () => {
    await storedAs(10, 'upgrade-stored-10');
    const stored = await archiveBook(new BookDb('upgrade-stored-10'), AT);
    expect(stored).toEqual(await archiveBook(await opened('upgrade-compared-10', fixture(10)), AT));
  });
});
