import fc from 'fast-check';
import { act, documentOf, draftOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { Draft } from '@/core/documents/draft';
import { checkEInvoice } from '@/core/einvoice/check';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { valueIn, viewOf } from '@/core/einvoice/view';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { total } from '@/core/kernel/money';
import { printed } from '@/print/words';
import { loadSetting, present } from '@/store/load';
import { perform } from '@/store/perform';
import { correctInvoice, creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { remake } from '@/store/sales/actions/quotes';
import { advancesOf } from '@/store/sales/queries/advances';
import type { BookDb } from '@/store/schema';
import { keepTax } from '@/store/setup/actions/taxSetup';
import { takingOff } from './advances';
import { decideTaxes } from './lineTax';

const DAY = '2026-01-20';
let ids = 0;
const newId = () => `taken-${++ids}`;

const TWO_TAXES = [
  lineOf({ id: 'a', price: '400.00' }),
  lineOf({ id: 'b', price: '100.00', taxCode: 'IE-Z', taxByHand: true }),
];

/** An advance of 400.00 at 23 % and 100.00 at nothing. */
const advance = (db: BookDb) => issued(db, { advance: true, lines: TWO_TAXES });

async function final(db: BookDb, over: Partial<Draft> = {}, factor = 3): Promise<Draft> {
  const [left] = await advancesOf(db, draftOf().customerId);
  const lines = TWO_TAXES.map((line) => ({ ...line, price: String(Number(line.price) * factor) }));
  return draftOf({
    id: newId(),
    lines: [...lines, ...(left === undefined ? [] : takingOff(left, 'Advance', newId))],
    ...over,
  });
}

async function tryIssue(db: BookDb, draft: Draft) {
  const kept = await act(db, keepDraft, { ...draft, issueDate: DAY }, DAY);
  return perform(db, issueInvoice, { draftId: kept.id }, momentOn(DAY));
}

const leftOf = async (db: BookDb) =>
  (await advancesOf(db, draftOf().customerId)).map(({ parts }) => parts.map(({ tax, left }) => [tax, left]));

describe('an advance invoice', () => {
  test('is taxed when issued, titled as such, and 386 in its e-invoice', async () => {
    const db = await newBook();
    const document = await advance(db);
    expect([document.content.advance, document.figures.totals.taxAmount]).toEqual([true, 9200n]);
    expect(valueIn(viewOf(einvoiceOf(document.content, document.figures)), 'BT-3')).toBe('386');
    expect(printed(document.content, document.figures, { language: 'de' }).title).toBe('Anzahlungsrechnung');
    expect(await leftOf(db)).toEqual([
      [
        ['IE-S', 40_000n],
        ['IE-Z', 10_000n],
      ],
    ]);
  });

  test('is taken off by its taxes: net, tax and return of the final invoice count only the rest', async () => {
    const db = await newBook();
    const first = await advance(db);
    const result = await tryIssue(db, await final(db));
    expect(result.ok).toBe(true);
    const last = (await db.documents.toArray()).find(({ id }) => id !== first.id);
    // 1,200 less 400 at 23 %, 300 less 100 at nothing.
    expect(last?.figures.groups.map(({ tax, net, taxAmount }) => [tax, net, taxAmount])).toEqual([
      ['IE-S', 80_000n, 18_400n],
      ['IE-Z', 20_000n, 0n],
    ]);
    expect(total([first, last].map((d) => d?.figures.totals.taxAmount ?? (0n as never)))).toBe(27_600n);
    const model = last && einvoiceOf(last.content, last.figures);
    expect(JSON.stringify(model)).toContain(first.number);
    expect(await leftOf(db)).toEqual([[]]);
    await expectSoundBook(db);
  });

  test('can’t be taken off beyond what is left, nor twice', async () => {
    const db = await newBook();
    await advance(db);
    const draft = await final(db);
    const more = draft.lines.map((line) =>
      line.takesOff && line.taxCode === 'IE-S' ? { ...line, price: '400.01' } : line,
    );
    expect(refusalCodes(await tryIssue(db, { ...draft, lines: more }))).toEqual(['over-taken']);
    const again = { ...(await final(db)), id: newId() };
    expect((await tryIssue(db, { ...draft, id: newId() })).ok).toBe(true);
    expect(refusalCodes(await tryIssue(db, again))).toEqual(['over-taken']);
  });

  test('is free again when what took it off is credited whole, and less of it where it was credited itself', async () => {
    const db = await newBook();
    const first = await advance(db);
    const result = await tryIssue(db, await final(db));
    const documentId = result.ok ? result.value.id : '';
    const credit = (id: string, take: object) =>
      act(db, creditInvoice, { documentId: id, date: DAY, reason: 'Not delivered', take } as never, DAY);
    await credit(documentId, { kind: 'rest' });
    expect(await leftOf(db)).toEqual([
      [
        ['IE-S', 40_000n],
        ['IE-Z', 10_000n],
      ],
    ]);
    // The refund of an advance is a credit note like any other.
    await credit(first.id, { kind: 'rest' });
    expect(await leftOf(db)).toEqual([[]]);
    await expectSoundBook(db);
  });

  test('is free again in part where a credit note gives back the line that took it off', async () => {
    const db = await newBook();
    await advance(db);
    const result = await tryIssue(db, await final(db));
    const last = result.ok ? await documentOf(db, result.value.id) : undefined;
    const line = last?.content.lines.find(({ takesOff, tax }) => takesOff !== undefined && tax === 'IE-S');
    const goods = last?.content.lines.find(({ id }) => id === 'a');
    expect([line?.quantity, goods?.quantity]).toEqual(['-1', '1']);
    // Of 1,200 goods less 400 of the advance both go back: 800 less is owed, and the 400 are there again.
    const quantities = new Map([
      ['a', decimal('1')],
      [line?.id ?? '', decimal('-1')],
    ]);
    const request = { kind: 'lines' as const, quantities };
    await act(db, creditInvoice, { documentId: last?.id ?? '', date: DAY, reason: 'Not delivered', request }, DAY);
    expect(await leftOf(db)).toEqual([[['IE-S', 40_000n]]]);
    await expectSoundBook(db);
  });

  test('whose rate changed since goes off by the rate it was charged at', async () => {
    const db = await newBook();
    await advance(db);
    const tax = present(
      (await db.taxes.toArray()).find(({ jurisdictionId }) => jurisdictionId === 'IE'),
      'the tax',
    );
    const [standard] = tax.rates.filter(({ taxClass }) => taxClass === 'standard' || taxClass === '');
    if (standard === undefined) throw new Error('no standard rate');
    const rates = [...tax.rates, { ...standard, from: isoDate('2026-01-18'), percent: decimal('21') }];
    await act(db, keepTax, { value: { ...tax, rates }, isNew: false }, DAY);
    const draft = await final(db, { issueDate: DAY });
    const customer = present(await db.customers.get(draft.customerId), 'the customer');
    const decided = decideTaxes(draft, customer, await loadSetting(db, draft, customer));
    expect(decided.lines.map(({ taxCode }) => taxCode)).toEqual(['IE-S', 'IE-Z', 'IE-S~=2026-01-15', 'IE-Z']);
    const result = await tryIssue(db, decided);
    const last = result.ok ? await documentOf(db, result.value.id) : undefined;
    // 1,200 at 21 % are 252.00; 400 at 23 % are 92.00 less.
    expect(last?.figures.groups.map(({ tax: key, net, taxAmount }) => [key, net, taxAmount])).toEqual([
      ['IE-S', 120_000n, 25_200n],
      ['IE-Z', 20_000n, 0n],
      ['IE-S~=2026-01-15', -40_000n, -9_200n],
    ]);
    expect(await leftOf(db)).toEqual([[]]);
    const model = last && einvoiceOf(last.content, last.figures);
    expect(model && checkEInvoice(model, 'en16931').filter(({ severity }) => severity === 'error')).toEqual([]);
    await expectSoundBook(db);
  });

  test('stays with a correction of what took it off, and not with a copy', async () => {
    const db = await newBook();
    await advance(db);
    const result = await tryIssue(db, await final(db));
    const documentId = result.ok ? result.value.id : '';
    const copy = await act(db, remake, { documentId, as: 'copy', issueDate: DAY }, DAY);
    const correction = await act(db, correctInvoice, { documentId, date: DAY, reason: 'Wrong price' }, DAY);
    const takes = async (id: string) => (await db.drafts.get(id))?.lines.filter(({ takesOff }) => takesOff).length;
    expect([await takes(copy.draftId), await takes(correction.draftId)]).toEqual([0, 2]);
    expect((await perform(db, issueInvoice, { draftId: correction.draftId }, momentOn(DAY))).ok).toBe(true);
    expect(await leftOf(db)).toEqual([[]]);
  });

  test('of any sums: what advance and final invoice charge together is what one invoice would', async () => {
    const db = await newBook();
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 99_999 }), fc.integer({ min: 1, max: 20 }), async (cents, parts) => {
        const price = (n: number) => (n / 100).toFixed(2);
        const customer = draftOf().customerId;
        const one = await issued(db, { advance: true, lines: [lineOf({ id: newId(), price: price(cents) })] });
        const left = (await advancesOf(db, customer)).find(({ documentId }) => documentId === one.id);
        const lines = [
          lineOf({ id: newId(), price: price(cents * parts) }),
          ...(left === undefined ? [] : takingOff(left, 'Advance', newId)),
        ];
        const last = await issued(db, { lines });
        expect(last.figures.totals.net + one.figures.totals.net).toBe(BigInt(cents * parts));
        expect((await advancesOf(db, customer)).find(({ documentId }) => documentId === one.id)?.parts).toEqual([]);
      }),
      { numRuns: 10 },
    );
  });
});
