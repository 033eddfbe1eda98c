import { act, attachmentOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { addIn, all, baseInvoice, set, setIn } from 'tests/einvoice';
import { preview } from '@/core/documents/preview';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { type EInvoice, group } from '@/core/einvoice/model';
import { readEInvoiceText, writeEInvoice } from '@/core/einvoice/syntax';
import { viewOf } from '@/core/einvoice/view';
import { isoDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { buildDemo } from '@/demo/buildDemo';
import { draftFromFile } from './delivery/actions/receivedFiles';
import { sendEInvoices } from './delivery/actions/sending';
import { loadSetting, present } from './load';
import { perform } from './perform';
import { attachFile, letFileOut } from './sales/actions/afterIssue';
import { creditInvoice } from './sales/actions/creditInvoice';
import { BookDb } from './schema';

const DAY = '2026-01-15';

/** What is in a file that was written and read again. */
function received(invoice: EInvoice) {
  const read = readEInvoiceText(writeEInvoice(invoice, 'ubl'));
  if (!read.ok) throw new Error(wordRefusals(read.refusals));
  return viewOf(read.value.invoice);
}

async function draftOf(db: BookDb, invoice: EInvoice, day = DAY) {
  const input = { invoice: received(invoice), name: 'in.xml', registrationId: 'ie-vat' };
  const { draftId } = await act(db, draftFromFile, input, day);
  const draft = present(await db.drafts.get(draftId), 'the draft');
  const customer = (await db.customers.get(draft.customerId)) ?? null;
  return { draft, shown: preview(draft, customer, await loadSetting(db, draft, customer)) };
}

test('every invoice of the sample comes back from its own file as a draft of the same customer and total', async () => {
  const db = new BookDb('received-demo');
  await buildDemo(db, isoDate('2026-11-23'));
  const invoices = (await db.documents.toArray()).filter(({ kind }) => kind === 'invoice');
  expect(invoices.length).toBeGreaterThan(20);
  for (const { content, figures, customerId, number } of invoices) {
    const { draft, shown } = await draftOf(db, einvoiceOf(content, figures), '2026-11-23');
    const told = draft.remarks.split('Look at this: ')[1] ?? '';
    const apart = shown.figures.totals.gross - figures.totals.gross;
    expect([number, draft.customerId, draft.lines.length]).toEqual([number, customerId, content.lines.length]);
    // Net prices of ten decimals may leave a cent where the document had prices with tax; then the remarks say so.
    expect([number, apart >= -1n && apart <= 1n, apart !== 0n]).toEqual([number, true, told.includes('it comes to')]);
  }
});

describe('a draft from a file', () => {
  test('takes quantity, unit, price by base quantity, discounts, charges, references and note', async () => {
    const db = await newBook();
    const invoice = all(
      set({ 'BT-13': 'PO-9', 'BT-106': '90.00', 'BT-107': '5.00', 'BT-108': '15.00' }),
      setIn(['BG-25'], { 'BT-146': '500', 'BT-149': '10', 'BT-131': '90.00', 'BT-130': 'HUR', 'BT-154': 'radar' }),
      addIn(['BG-25'], group('BG-27', { 'BT-136': '10.00', 'BT-139': 'Bulk' })),
      addIn([], group('BG-20', { 'BT-92': '5.00', 'BT-95': 'S', 'BT-96': '23', 'BT-97': 'Loyalty' })),
      addIn([], group('BG-21', { 'BT-99': '15.00', 'BT-102': 'S', 'BT-103': '23', 'BT-104': 'Crate' })),
      addIn([], group('BG-1', { 'BT-22': 'Leave at the gate' })),
    )(baseInvoice());
    const { draft, shown } = await draftOf(db, invoice);
    expect(draft).toMatchObject({
      ...{ kind: 'invoice', issueDate: DAY, priceMode: 'net', customerId: 'nordlicht' },
      ...{ buyerReference: 'R-7', orderNumber: 'PO-9', note: 'Leave at the gate' },
      lines: [
        { description: 'Tide gauge\nradar', quantity: '2', unit: 'HUR', price: '50', discount: '10', taxByHand: true },
      ],
      adjustments: [
        { kind: 'allowance', text: 'Loyalty', amount: '5', taxCode: 'IE-S' },
        { kind: 'charge', text: 'Crate', amount: '15', taxCode: 'IE-S' },
      ],
    });
    // 2 × 500 ÷ 10 − 10 − 5 + 15 = 100, with 23 % of it.
    expect(shown.figures.totals.gross).toBe(12300n);
    expect(draft.remarks).toBe('From in.xml: INV-1 of Corran Point Instruments Ltd (sample).');
  });

  test('names what it can not take over: an unknown buyer and a rate that nothing here has', async () => {
    const db = await newBook();
    const { content, figures } = await issued(db, { lines: [lineOf({ taxCode: 'IE-S' })] }, DAY);
    const invoice = einvoiceOf(content, figures);
    const strange = all(
      setIn(['BG-25'], { 'BT-152': '7.7' }),
      setIn(['BG-7'], { 'BT-44': 'Nobody', 'BT-48': '', 'BT-49': { value: 'x', scheme: '0088' } }),
    )(invoice);
    const { draft } = await draftOf(db, strange);
    expect(draft.customerId).toBe('');
    expect(draft.remarks).toContain('Nobody is not among the customers');
    expect(draft.remarks).toContain('line 1 carries S 7.7 %, which no tax code here does');
  });

  test('is refused for a credit note', async () => {
    const db = await newBook();
    const { id } = await issued(db, {}, DAY);
    const note = await act(db, creditInvoice, { documentId: id, date: DAY, reason: 'Returned' }, DAY);
    const { content, figures } = present(await db.documents.get(note.id), 'the note');
    const input = { invoice: received(einvoiceOf(content, figures)), name: 'in.xml', registrationId: 'ie-vat' };
    expect(refusalCodes(await perform(db, draftFromFile, input, momentOn(DAY)))).toEqual(['invalid']);
    expect(await db.drafts.count()).toBe(0);
  });
});

test('a file marked to go out stands in the e-invoice that is sent; one of another kind can not be marked', async () => {
  const db = await newBook();
  const { id } = await issued(db, {}, DAY);
  await act(db, attachFile, attachmentOf({ id: 'a', ownerId: id, name: 'order.pdf' }), DAY);
  await act(db, attachFile, attachmentOf({ id: 'b', ownerId: id, name: 'own.pdf' }), DAY);
  await act(db, attachFile, attachmentOf({ id: 'c', ownerId: id, name: 'film.mp4', type: 'video/mp4' }), DAY);
  await act(db, letFileOut, { id: 'a', goesOut: true }, DAY);
  expect(refusalCodes(await perform(db, letFileOut, { id: 'c', goesOut: true }, momentOn(DAY)))).toEqual(['invalid']);
  await act(db, sendEInvoices, { documentIds: [id] }, DAY);
  const file = (await db.transmissions.toArray())[0]?.file ?? '';
  expect(file).toContain('filename="order.pdf"');
  expect(file).not.toContain('own.pdf');
});
