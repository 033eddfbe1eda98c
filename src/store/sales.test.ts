import {
  act,
  attachmentOf,
  day,
  documentOf,
  draftOf,
  issued,
  lineOf,
  momentOn,
  newBook,
  refusalCodes,
} from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { NO_FILTER } from '@/core/documents/documentFilter';
import { sealCode } from '@/core/documents/seal';
import { PLAIN_STYLE } from '@/core/documents/style';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { blankCustomer } from '@/core/parties/customer';
import { prove } from '@/core/returns/proof';
import { methodsOf } from '@/core/settlement/receipt';
import { codesUnder } from '@/core/tax/taxSetup';
import { sendEInvoices } from './delivery/actions/sending';
import { loadRecords, present } from './load';
import { recordReceipt } from './payments/actions/recordReceipt';
import { perform } from './perform';
import { annotateDocument, attachFile, cancelDocument, detachFile, sendElsewhere } from './sales/actions/afterIssue';
import { correctInvoice, creditInvoice } from './sales/actions/creditInvoice';
import { deleteDraft, keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import { beginStage, keepAnswer, remake, sendQuoteDraft } from './sales/actions/quotes';
import { enterOpening, enterTakings } from './sales/actions/takings';
import { keepSeries, keepView } from './sales/actions/views';
import { documentFile, historyOf } from './sales/queries/family';
import { findDocuments, searchDocuments } from './sales/queries/findDocuments';
import { checkPaper, checkSeals } from './sales/queries/seals';
import { stylesFor } from './sales/queries/styles';
import type { BookDb } from './schema';
import { mergeDouble } from './setup/actions/customers';
import { importRates } from './setup/actions/rates';
import { changeCustomer } from './setup/actions/setup';
import { keepExchangeRate, keepStyle } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { periodReturn } from './tax/queries/periods';
import { proofMaterial } from './tax/queries/proofMaterial';

const DAY = '2026-01-15';

async function proofOf(db: BookDb, start = '2026-01-01') {
  return prove(await proofMaterial(db, present(await db.registrations.get('ie-vat'), 'registration'), day(start)));
}

async function fileOf(db: BookDb, id: string) {
  const file = await documentFile(db, id);
  if (file === null) throw new Error('no such document');
  return file;
}

async function balanceOf(db: BookDb, account: string): Promise<bigint> {
  const lines = await db.journalLines.filter((line) => line.account === account).toArray();
  return lines.reduce((sum, line) => sum + line.amount, 0n);
}

async function sentQuote(db: BookDb, over: Parameters<typeof draftOf>[0] = {}) {
  const draft = await act(db, keepDraft, draftOf({ kind: 'quote', due: '1m', ...over }), DAY);
  return documentOf(db, (await act(db, sendQuoteDraft, { draftId: draft.id }, DAY)).id);
}

describe('a quote', () => {
  test('posts nothing, stands in no period, and is found like any document', async () => {
    const db = await newBook();
    const quote = await sentQuote(db, { subject: 'Gauges for the pier' });
    expect(quote).toMatchObject({ number: 'QUO-2026-0001', state: 'sent', open: 0n, entryId: '', periodId: '' });
    expect(await db.journal.count()).toBe(0);
    expect((await searchDocuments(db, 'pier', 5, day(DAY))).map((d) => d.number)).toEqual(['QUO-2026-0001']);
    expect((await proofOf(db)).holds).toBe(true);
  });

  test('is changed by a new version under its number; the old stays, and only the new one goes on', async () => {
    const db = await newBook();
    const first = await sentQuote(db);
    const { draftId } = await act(db, remake, { documentId: first.id, as: 'version', issueDate: DAY }, DAY);
    const draft = present(await db.drafts.get(draftId), 'the draft');
    await act(db, keepDraft, { ...draft, lines: [lineOf({ price: '250' })] }, DAY);
    const second = await documentOf(db, (await act(db, sendQuoteDraft, { draftId }, DAY)).id);
    expect([second.number, second.content.version, second.position]).toEqual(['QUO-2026-0001', 2, 2]);
    expect(await documentOf(db, first.id)).toMatchObject({ state: 'replaced', content: first.content });
    const stale = await perform(
      db,
      keepAnswer,
      { documentId: first.id, answer: { kind: 'accepted', on: day(DAY), words: 'Aoife' } },
      momentOn(DAY),
    );
    expect(refusalCodes(stale)).toEqual(['replaced']);
    expect((await checkSeals(db, () => undefined)).every((chain) => chain.broken === null && !chain.cut)).toBe(true);
  });

  test('is accepted by somebody on a day, billed in stages, and one family with what came of it', async () => {
    const db = await newBook();
    const quote = await sentQuote(db, { lines: [lineOf({ quantity: '4', price: '100' })] });
    const answer = { kind: 'accepted', on: day(DAY), words: '' } as const;
    expect(refusalCodes(await perform(db, keepAnswer, { documentId: quote.id, answer }, momentOn(DAY)))).toEqual([
      'missing',
    ]);
    await act(db, keepAnswer, { documentId: quote.id, answer: { ...answer, words: 'Harbour engineer' } }, DAY);
    for (const request of [{ kind: 'percent', percent: decimal('25') } as const, { kind: 'rest' } as const]) {
      const { draftId } = await act(db, beginStage, { documentId: quote.id, request, issueDate: DAY }, DAY);
      await act(db, issueInvoice, { draftId }, DAY);
    }
    expect(await documentOf(db, quote.id)).toMatchObject({ state: 'invoiced', quote: { billed: 40000n } });
    const nothing = await perform(
      db,
      beginStage,
      { documentId: quote.id, request: { kind: 'rest' }, issueDate: DAY },
      momentOn(DAY),
    );
    expect(refusalCodes(nothing)).toEqual(['missing']);
    const file = await fileOf(db, quote.id);
    expect(file.family.map((d) => [d.kind, d.content.stage?.words])).toEqual([
      ['quote', undefined],
      ['invoice', '25 %'],
      ['invoice', 'rest'],
    ]);
    expect(file.events.map((event) => event.action)).toContain('answer quote');
  });

  test('for a prospect needs no address, and the first invoice makes a customer of it', async () => {
    const db = await newBook();
    const prospect = { ...blankCustomer('prospect', 'Maybe Marine', 'IE'), prospect: true };
    await act(db, changeCustomer, prospect, DAY);
    const quote = await sentQuote(db, { customerId: 'prospect' });
    const { draftId } = await act(
      db,
      beginStage,
      { documentId: quote.id, request: { kind: 'rest' }, issueDate: DAY },
      DAY,
    );
    const early = await perform(db, issueInvoice, { draftId }, momentOn(DAY));
    expect(refusalCodes(early)).toContain('check-failed');
    const address = { street: 'Quay 1', city: 'Kinvara', region: '', postalCode: '', country: 'IE' };
    await act(db, changeCustomer, { ...prospect, address }, DAY);
    await act(db, issueInvoice, { draftId }, DAY);
    expect((await db.customers.get('prospect'))?.prospect).toBe(false);
  });
});

describe('life after issue', () => {
  test('a document prints in the style it was issued in, whatever becomes of the style and the default', async () => {
    const db = await newBook();
    const plain = await issued(db);
    await act(db, keepStyle, { value: { ...PLAIN_STYLE, id: 'harbour', name: 'Harbour' }, isNew: true }, DAY);
    const book = present(await db.book.get('book'), 'the book');
    await db.book.put({ ...book, business: { ...book.business, styleId: 'harbour' } });
    const styled = await issued(db, { issueDate: '2026-01-16' });
    await act(db, keepStyle, { value: { ...PLAIN_STYLE, id: 'harbour', name: 'Changed since' }, isNew: false }, DAY);
    const [one, two] = await stylesFor(db, [plain, styled]);
    expect([one?.name, two?.name]).toEqual([PLAIN_STYLE.name, 'Harbour']);
    // What is not issued yet prints as the style is today.
    const [draft] = await stylesFor(db, [{ styleId: '', customerId: 'ballyvaughan' }]);
    expect(draft?.name).toBe('Changed since');
  });

  test('cancelling takes entry and tax back in the same period, keeps the number, and the proof holds', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const empty = await perform(db, cancelDocument, { documentId: invoice.id, reason: ' ' }, momentOn(DAY));
    expect(refusalCodes(empty)).toEqual(['missing']);
    await act(db, cancelDocument, { documentId: invoice.id, reason: 'Typed twice' }, DAY);
    expect(await documentOf(db, invoice.id)).toMatchObject({ state: 'cancelled', open: 0n, number: 'INV-2026-0001' });
    expect([await balanceOf(db, '1100'), await balanceOf(db, '2200')]).toEqual([0n, 0n]);
    expect(await proofOf(db)).toMatchObject({ holds: true, documents: 0n, ledger: 0n });
    expect((await issued(db)).number).toBe('INV-2026-0002');
  });

  test.each<[string, (db: BookDb, id: string) => Promise<unknown>, string]>([
    ['sent', (db, documentId) => act(db, sendElsewhere, { documentId, on: DAY, how: 'post' }, DAY), 'sent'],
    [
      'credited in part',
      (db, documentId) =>
        act(
          db,
          creditInvoice,
          { documentId, date: DAY, reason: 'x', request: { kind: 'amount', amount: minor(100n) } },
          DAY,
        ),
      'settled',
    ],
    ['cancelled already', (db, documentId) => act(db, cancelDocument, { documentId, reason: 'x' }, DAY), 'settled'],
  ])('what is %s is not cancelled', async (_, first, code) => {
    const db = await newBook();
    const invoice = await issued(db);
    await first(db, invoice.id);
    const again = await perform(db, cancelDocument, { documentId: invoice.id, reason: 'again' }, momentOn(DAY));
    expect(refusalCodes(again)).toEqual([code]);
  });

  test('what a filed return reports is not cancelled, whatever day it is posted', async () => {
    const db = await newBook();
    const file = (start: string, on: string) => act(db, fileReturn, { registrationId: 'ie-vat', start, note: '' }, on);
    const cancelling = (documentId: string, on: string) =>
      perform(db, cancelDocument, { documentId, reason: 'Typed twice' }, momentOn(on));
    const ahead = await issued(db, { accountingDate: '2026-03-10' });
    await file('2026-01-01', '2026-03-02');
    expect(refusalCodes(await cancelling(ahead.id, '2026-03-02'))).toEqual(['closed-document']);
    const late = await issued(db, { issueDate: '2026-03-05', taxPoint: '2026-02-10', accountingDate: '2026-06-01' });
    expect([late.late, late.periodId]).toEqual([true, 'ie-vat|2026-03-01']);
    await file('2026-03-01', '2026-05-02');
    const filed = await periodReturn(
      db,
      present(await db.registrations.get('ie-vat'), 'registration'),
      day('2026-03-01'),
    );
    expect(refusalCodes(await cancelling(late.id, '2026-05-03'))).toEqual(['closed-document']);
    expect(filed.figures.tax).toBe(2300n);
  });

  test('correcting credits the invoice and puts what it said into a draft of its family', async () => {
    const db = await newBook();
    const due = '30% 0d + 70% 45d, 2% 10d';
    const overrides = [{ tax: 'IE-S', family: 'IE-VAT', amount: '23.05', reason: 'as agreed' }];
    const said = { subject: 'Pier gauge', note: 'Call first', remarks: 'asked twice', due, overrides };
    const invoice = await issued(db, said);
    await act(db, attachFile, attachmentOf({ id: 'f', ownerId: invoice.id, name: 'order.pdf' }), DAY);
    const { note, draftId } = await act(
      db,
      correctInvoice,
      { documentId: invoice.id, date: '2026-01-20', reason: 'Wrong price' },
      '2026-01-20',
    );
    expect(note).toBe('CN-2026-0001');
    const draft = present(await db.drafts.get(draftId), 'the draft');
    expect(draft).toMatchObject({
      subject: 'Pier gauge',
      note: 'Call first',
      remarks: 'asked twice',
      due,
      overrides,
      taxPoint: DAY,
      familyId: invoice.familyId,
    });
    const files = await db.attachments.where('ownerId').equals(draftId).toArray();
    expect(files.map(({ id, name }) => [id === 'f', name])).toEqual([[false, 'order.pdf']]);
    expect(draft.lines.map((line) => [line.description, line.price])).toEqual([['Calibration', '100.00']]);
    await act(db, issueInvoice, { draftId }, '2026-01-20');
    expect((await proofOf(db)).holds).toBe(true);
  });

  test('remarks, tags and files stand beside the sealed document and leave the seal alone', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const beside = { remarks: 'pays late', tags: ['Mayo', 'hire'], styleId: '' };
    await act(db, annotateDocument, { documentId: invoice.id, beside }, DAY);
    const file = attachmentOf({ id: 'f', ownerId: invoice.id, name: 'order.pdf' });
    await act(db, attachFile, file, DAY);
    const found = await fileOf(db, invoice.id);
    expect([found.document.tags, found.attachments.map((a) => a.name)]).toEqual([['Mayo', 'hire'], ['order.pdf']]);
    expect((await searchDocuments(db, 'mayo', 5, day(DAY))).map((d) => d.id)).toEqual([invoice.id]);
    expect(await checkPaper(db, invoice.number, sealCode(invoice.seal))).toMatchObject({ found: 'unaltered' });
    await act(db, detachFile, { id: 'f' }, DAY);
    expect(await db.attachments.count()).toBe(0);
    expect((await historyOf(db, invoice.id)).map((event) => event.action)).toContain('annotate document');
    const large = await perform(db, attachFile, { ...file, size: 11 * 2 ** 20 }, momentOn(DAY));
    expect(refusalCodes(large)).toEqual(['invalid']);
  });
});

test('files kept with a draft go with it, and stay with the document that it becomes', async () => {
  const db = await newBook();
  const file = attachmentOf({ id: 'f', ownerId: 'd', name: 'a.txt' });
  await act(db, keepDraft, draftOf({ id: 'd' }), DAY);
  await act(db, attachFile, file, DAY);
  await act(db, deleteDraft, { draftId: 'd' }, DAY);
  expect(await db.attachments.count()).toBe(0);
  await act(db, keepDraft, draftOf({ id: 'e' }), DAY);
  await act(db, attachFile, { ...file, ownerId: 'e' }, DAY);
  const { id } = await act(db, issueInvoice, { draftId: 'e' }, DAY);
  expect((await fileOf(db, id)).attachments.map((one) => one.name)).toEqual(['a.txt']);
});

describe('counter and opening', () => {
  test('a cash sale is an invoice and its receipt in one step', async () => {
    const db = await newBook();
    const sale = await issued(db, {
      kind: 'cash-sale',
      customerId: 'counter',
      priceMode: 'gross',
      paidBy: 'card',
      due: '0d',
    });
    expect(sale).toMatchObject({ state: 'paid', open: 0n, content: { paidBy: 'card' } });
    const receipt = present(await db.receipts.toCollection().first(), 'the receipt');
    const settles = (await db.allocations.where('creditId').equals(receipt.id).toArray()).map((one) => one.debtId);
    expect([methodsOf(receipt), receipt.amount, receipt.open, settles]).toEqual(['card', 10000n, 0n, [sale.id]]);
    // A card pays into the account of card payments.
    expect([await balanceOf(db, '1020'), await balanceOf(db, '1100')]).toEqual([10000n, 0n]);
  });

  test('takings post a day’s till by code, with tax entries and no customer', async () => {
    const db = await newBook();
    const row = (taxCode: string, amount: string) => ({ taxCode, amount, account: '4000' });
    const input = {
      registrationId: 'ie-vat',
      date: DAY,
      paidBy: 'cash',
      note: '',
      rows: [row('IE-S', '123.00'), row('IE-Z', '7.5'), row('IE-R', '')],
    } as const;
    const { id } = await act(db, enterTakings, input, DAY);
    const takings = await documentOf(db, id);
    expect(takings.figures.totals).toMatchObject({ net: 10750n, taxAmount: 2300n, gross: 13050n });
    expect([await balanceOf(db, '1000'), await balanceOf(db, '1010')]).toEqual([0n, 13050n]);
    expect(await proofOf(db)).toMatchObject({ holds: true, documents: 2300n });
    const wrong = await perform(
      db,
      enterTakings,
      { ...input, date: '2026-02-01', rows: [row('IE-S', 'x')] },
      momentOn(DAY),
    );
    expect(refusalCodes(wrong)).toEqual(['invalid', 'invalid']);
  });

  test('takings take no code of another territory', async () => {
    const db = await newBook();
    const [tax, code] = [await db.taxes.toCollection().first(), await db.taxCodes.get('IE-S')];
    const there = { ...present(tax, 'a tax'), id: 'wa-tax', jurisdictionId: 'US-WA' };
    await db.taxes.add(there);
    const components = [{ taxId: 'wa-tax', taxClass: 'standard', family: '', compound: false }];
    await db.taxCodes.add({ ...present(code, 'a code'), id: 'WA-S', components });
    const { codes, taxes, rows } = await loadRecords(db);
    const ids = (jurisdictionId: string) => codesUnder({ jurisdictionId }, { codes, taxes, rows }).map(({ id }) => id);
    expect([ids('IE').includes('IE-S'), ids('IE').includes('WA-S')]).toEqual([true, false]);
    expect([ids('US-WA').includes('IE-S'), ids('US-WA').includes('WA-S')]).toEqual([false, true]);
    const input = {
      registrationId: 'ie-vat',
      date: DAY,
      paidBy: 'cash',
      note: '',
      rows: [{ taxCode: 'WA-S', amount: '10', account: '4000' }],
    } as const;
    expect(refusalCodes(await perform(db, enterTakings, input, momentOn(DAY)))).toContain('invalid');
    expect(await db.documents.count()).toBe(0);
  });

  test('an open item of the old books is owed and settled like an invoice, and touches no tax', async () => {
    const db = await newBook();
    const input = { customerId: 'clewbay', date: '2025-11-30', due: '2025-12-30', number: 'A-991', amount: '120.00' };
    const { id, number } = await act(db, enterOpening, input, DAY);
    expect((await db.customerBalances.get('clewbay'))?.open).toBe(12000n);
    expect([await balanceOf(db, '3900'), await db.taxEntries.count()]).toEqual([-12000n, 0]);
    const allocations = [{ documentId: id, number, amount: minor(12000n) }];
    await act(
      db,
      recordReceipt,
      onePart({ customerId: 'clewbay', date: DAY, method: 'bank', reference: '', allocations }),
      DAY,
    );
    expect((await documentOf(db, id)).state).toBe('paid');
    const wrong = await perform(db, enterOpening, { ...input, amount: '-1', number: '' }, momentOn(DAY));
    expect(refusalCodes(wrong)).toEqual(['invalid', 'missing']);
  });
});

describe('a document in foreign currency', () => {
  const rate = (perHome: string, date: string) => ({
    value: { id: 'new', currency: 'USD' as never, date: day(date), perHome: decimal(perHome), source: 'bank' },
    isNew: false,
  });

  test('counts in the books by the rate of its tax point; a later payment posts the difference of exchange', async () => {
    const db = await newBook();
    await act(db, keepExchangeRate, rate('1.25', '2026-01-10'), DAY);
    await act(db, keepExchangeRate, rate('1.20', '2026-02-01'), DAY);
    const invoice = await issued(db, { currency: 'USD', lines: [lineOf({ price: '1000' })] });
    // 1,230.00 USD at 1.25 is 984.00 EUR, its tax 184.00.
    expect(invoice.content.home).toMatchObject({ perHome: '1.25', rate: '0.8', source: 'bank' });
    expect([invoice.open, invoice.openHome]).toEqual([123000n, 98400n]);
    expect(await balanceOf(db, '2200')).toBe(-18400n);
    expect((await proofOf(db)).holds).toBe(true);
    const pay = (amount: bigint) => ({
      customerId: invoice.customerId,
      date: '2026-02-02',
      method: 'bank' as const,
      reference: '',
      allocations: [{ documentId: invoice.id, number: invoice.number, amount: minor(amount) }],
    });
    await act(db, recordReceipt, onePart(pay(60000n)), '2026-02-02');
    await act(db, recordReceipt, onePart(pay(63000n)), '2026-02-02');
    // 600 and 630 USD at 1.20 are 500.00 and 525.00 EUR: 41.00 more than was owed.
    expect([await balanceOf(db, '1000'), await balanceOf(db, '1100'), await balanceOf(db, '7920')]).toEqual([
      102500n,
      0n,
      -4100n,
    ]);
  });

  test('is not issued while no rate is known, but for one that is typed', async () => {
    const db = await newBook();
    const draft = await act(db, keepDraft, draftOf({ currency: 'NOK' }), DAY);
    const refused = await perform(db, issueInvoice, { draftId: draft.id }, momentOn(DAY));
    expect(refused.ok ? [] : refused.refusals.map((r) => r.path)).toEqual(['perHome']);
    await act(db, keepDraft, { ...draft, perHome: '11.64' }, DAY);
    const { id } = await act(db, issueInvoice, { draftId: draft.id }, DAY);
    expect((await documentOf(db, id)).content.home).toMatchObject({ perHome: '11.64', source: '' });
  });

  test('one receipt settles one currency', async () => {
    const db = await newBook();
    await act(db, keepExchangeRate, rate('1.25', '2026-01-10'), DAY);
    const documents = [await issued(db), await issued(db, { currency: 'USD' })];
    const allocations = documents.map(({ id, number, open }) => ({ documentId: id, number, amount: open }));
    const input = { customerId: 'ballyvaughan', date: DAY, method: 'bank', reference: '', allocations } as const;
    expect(refusalCodes(await perform(db, recordReceipt, onePart(input), momentOn(DAY)))).toEqual(['invalid']);
  });

  test('rates come in from a file of daily rates, and again without harm', async () => {
    const db = await newBook();
    const text = `<Envelope><Cube><Cube time="2026-01-14"><Cube currency="USD" rate="1.0850"/></Cube></Cube></Envelope>`;
    expect(await act(db, importRates, { text, source: 'bank' }, DAY)).toEqual({ added: 1, changed: 0 });
    expect(await act(db, importRates, { text, source: 'bank' }, DAY)).toEqual({ added: 0, changed: 0 });
    const evil = await perform(db, importRates, { text: `<!DOCTYPE x>${text}`, source: '' }, momentOn(DAY));
    expect(refusalCodes(evil)).toEqual(['invalid']);
  });
});

describe('customers', () => {
  test('a double is merged: documents, balance and drafts move, issued names stay', async () => {
    const db = await newBook();
    const [double, board] = [await db.customers.get('clewbay'), await db.customers.get('ballyvaughan')];
    const { endpoint } = present(board, 'the board');
    await act(db, changeCustomer, { ...present(double, 'the double'), endpoint }, DAY);
    const invoice = await issued(db, { customerId: 'clewbay' });
    await act(db, keepDraft, draftOf({ customerId: 'clewbay' }), DAY);
    const child = { ...blankCustomer('child', 'Clew Bay Shop', 'IE'), prospect: true, parentId: 'clewbay' };
    await act(db, changeCustomer, child, DAY);
    await act(db, attachFile, attachmentOf({ ownerId: 'clewbay', name: 'terms.pdf' }), DAY);
    await act(db, sendEInvoices, { documentIds: [invoice.id] }, DAY);
    const view = { id: 'theirs', name: 'Theirs', filter: { ...NO_FILTER, customerId: 'clewbay' } };
    await db.savedViews.add({ ...view, query: '', columns: [] } as never);
    await act(db, mergeDouble, { keepId: 'inishmaan', doubleId: 'clewbay' }, DAY);
    expect((await db.attachments.toArray()).map((file) => file.ownerId)).toEqual(['inishmaan']);
    expect((await db.transmissions.toArray()).map((one) => one.customerId)).toEqual(['inishmaan']);
    expect((await db.savedViews.get('theirs'))?.filter.customerId).toBe('inishmaan');
    expect(await documentOf(db, invoice.id)).toMatchObject({
      customerId: 'inishmaan',
      customerName: invoice.customerName,
    });
    expect((await db.customerBalances.get('inishmaan'))?.open).toBe(invoice.open);
    expect((await db.customerBalances.get('clewbay'))?.open).toBe(0n);
    expect((await db.drafts.toArray()).map((d) => d.customerId)).toEqual(['inishmaan']);
    expect((await db.customers.get('child'))?.parentId).toBe('inishmaan');
    expect(await db.customers.get('clewbay')).toMatchObject({ mergedInto: 'inishmaan', keys: [] });
    const again = await perform(db, mergeDouble, { keepId: 'inishmaan', doubleId: 'clewbay' }, momentOn(DAY));
    expect(refusalCodes(again)).toEqual(['invalid']);
    expect((await checkSeals(db, () => undefined)).every((chain) => chain.broken === null)).toBe(true);
  });
});

describe('finding', () => {
  let db: BookDb;
  beforeAll(async () => {
    db = await newBook();
    await issued(db, {
      customerId: 'clewbay',
      lines: [lineOf({ description: 'Mooring chain', price: '1500' })],
      tags: ['moorings'],
    });
    await issued(db, { lines: [lineOf({ price: '10' })], due: '0d' });
    await sentQuote(db, { customerId: 'clewbay' });
  });
  const numbers = async (query: string, filter: object = {}) =>
    (await findDocuments(db, query, 10, { ...NO_FILTER, ...filter }, day('2026-03-01'))).documents.map((d) => d.number);

  test.each([
    ['ooring', ['INV-2026-0001']],
    ['1,845.00', ['INV-2026-0001']],
    ['845.0', ['INV-2026-0001']],
    ['bhb', ['QUO-2026-0001', 'INV-2026-0002', 'INV-2026-0001']],
    ['clew quo', ['QUO-2026-0001']],
    ['nothing like it', []],
  ])('%p finds %p', async (query, found) => expect(await numbers(query)).toEqual(found));
  test.each<[string, object, string[]]>([
    ['a kind', { kinds: ['quote'] }, ['QUO-2026-0001']],
    ['what is overdue', { state: 'overdue' }, ['INV-2026-0002', 'INV-2026-0001']],
    ['lapsed quotes', { state: 'lapsed' }, ['QUO-2026-0001']],
    ['a customer', { customerId: 'clewbay' }, ['QUO-2026-0001', 'INV-2026-0001']],
    ['amounts', { least: '100', most: '1845' }, ['QUO-2026-0001', 'INV-2026-0001']],
    ['a tag', { tag: 'moorings' }, ['INV-2026-0001']],
    ['days', { until: '2026-01-14' }, []],
  ])('%s narrow the list', async (_, filter, found) => expect(await numbers('', filter)).toEqual(found));
  test('a filter and a search hold together', async () =>
    expect(await numbers('clew', { kinds: ['invoice'] })).toEqual(['INV-2026-0001']));
  test('a view is kept by its name, and not without one', async () => {
    const view = {
      id: 'v',
      name: 'Overdue',
      query: '',
      filter: { ...NO_FILTER, state: 'overdue' as const },
      columns: [],
    };
    await act(db, keepView, view, DAY);
    expect(await db.savedViews.count()).toBe(1);
    expect(refusalCodes(await perform(db, keepView, { ...view, name: '' }, momentOn(DAY)))).toEqual(['missing']);
  });
});

describe('numbers and seals', () => {
  test('a registration may have a series of its own; what has numbered keeps its start', async () => {
    const db = await newBook();
    const own = {
      id: 'invoice|ie-vat',
      kind: 'invoice',
      registrationId: 'ie-vat',
      prefix: 'IR',
      digits: 3,
      yearly: false,
      start: 50,
    } as const;
    await act(db, keepSeries, own, DAY);
    expect((await issued(db)).number).toBe('IR-050');
    expect((await issued(db)).number).toBe('IR-051');
    const moved = await perform(db, keepSeries, { ...own, start: 1 }, momentOn(DAY));
    expect(refusalCodes(moved)).toEqual(['in-use']);
    const taken = await perform(db, keepSeries, { ...own, id: 'x', registrationId: '', prefix: 'rec' }, momentOn(DAY));
    expect(refusalCodes(taken)).toEqual(['duplicate']);
  });

  test('a changed past is named, and so is a document missing at the end', async () => {
    const db = await newBook();
    const [first] = [await issued(db), await issued(db), await issued(db)];
    const chain = async () => (await checkSeals(db, () => undefined)).find((check) => check.kind === 'invoice');
    expect(await chain()).toMatchObject({ documents: 3, broken: null, cut: false });
    const code = sealCode(first.seal);
    await db.documents.update(first.id, { content: { ...first.content, note: 'forged' } });
    expect(await chain()).toMatchObject({ broken: { number: first.number } });
    expect(await checkPaper(db, first.number, code.toLowerCase().replaceAll('-', ' '))).toMatchObject({
      found: 'altered',
    });
    await db.documents.put(first);
    await db.documents.where('number').equals('INV-2026-0003').delete();
    expect(await chain()).toMatchObject({ broken: null, cut: true });
    expect(await checkPaper(db, 'INV-2026-0003', code)).toEqual({ found: 'unknown' });
  });
});
