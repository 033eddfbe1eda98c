import { act, day, draftOf, issued, momentOn, newBook } from 'tests/book';
import { itemSchema } from '@/core/catalogue/item';
import type { Currency } from '@/core/kernel/currency';
import { minor } from '@/core/kernel/money';
import type { Refusal, RefusalCode, RefusalFacts } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { Wanted } from '@/core/kernel/wanted';
import { DEMO_ITEMS } from '@/demo/setup';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { type Action, perform } from '@/store/perform';
import { cancelDocument } from '@/store/sales/actions/afterIssue';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { wordRefusal, wordRefusals } from './refusals';
import { wordWanted } from './wanted';

/** One refusal of each code; those that say different things by their facts have more. */
const EXAMPLES: { readonly [Code in RefusalCode]: readonly RefusalFacts[Code][] } = {
  invalid: [{ wanted: 'give-issue-date', found: 'soon' }, { wanted: { what: 'shorter-text', most: 200 } }],
  missing: [{ wanted: 'choose-customer' }],
  unknown: [{ wanted: 'choose-account', found: '4999' }],
  undecided: [{ why: 'No row of the decision table catches this: choose the tax yourself.' }],
  malformed: [{ must: 'must be a JSON file' }, { must: 'must be more than zero', found: '-1' }],
  'not-found': [{}, { what: 'registration' }, { what: 'invoice-of-customer' }],
  duplicate: [{ found: 'IE-S' }],
  stale: [{}],
  'already-issued': [{}],
  'already-credited': [{ by: ['CN-1', 'CN-2'] }],
  'already-filed': [{}],
  'not-ended': [{ period: 'Jan–Feb 2026', until: day('2026-02-28') }],
  'not-filed': [{ period: 'Jan–Feb 2026' }],
  'locked-day': [{ day: day('2026-04-30'), until: day('2026-12-31') }],
  'locked-by-year': [{ until: day('2026-12-31') }],
  'period-filed': [{ until: day('2026-04-30') }],
  'later-filed': [{ until: day('2026-04-30') }],
  'over-paid': [
    { left: minor(0n), currency: 'EUR' as Currency, period: 'Jan–Feb 2026' },
    { left: minor(100n), currency: 'EUR' as Currency, period: 'Jan–Feb 2026' },
  ],
  'earlier-open': [{ period: 'Jan–Feb 2026' }],
  'closed-period': [{ day: day('2026-02-01'), filedUntil: day('2026-02-28') }],
  'closed-document': [{ day: day('2026-02-01') }],
  'before-registration': [{ day: day('2025-12-31'), from: day('2026-01-01') }],
  'not-in-force': [{ registration: 'Ireland · VAT', day: day('2025-12-31') }],
  'check-failed': [{ finding: 'Our tax number must stand on the invoice.' }],
  'over-allocated': [{ number: 'INV-1' }],
  dishonoured: [{ number: 'REC-1' }],
  'nothing-new': [{}],
  matched: [{}],
  'not-matched': [{}],
  'over-matched': [{ left: minor(5000n) }],
  'over-taken': [{ number: 'INV-2026-0001', left: minor(100n), currency: 'EUR' as Currency }],
  'used-since': (['refunded', 'certified', 'claimed'] as const).map((by) => ({ by })),
  'over-claimed': (['withheld', 'certified', 'payable'] as const).map((of) => ({
    left: minor(1250n),
    currency: 'EUR' as Currency,
    of,
  })),
  'no-relief': (['not-yet-due', 'registration'] as const).map((why) => ({ why })),
  'over-credited': [{}, { left: minor(1250n), currency: 'EUR' as Currency }],
  overrun: [{ quote: 'QUO-2026-0001', lines: ['Tide gauge'] }],
  'wrong-kind': (['invoice', 'quote', 'posted', 'cancellable'] as const).map((takes) => ({ number: 'CN-1', takes })),
  settled: [{ by: 'cancelled' }, { by: 'paid' }],
  sent: [{ on: day('2026-11-23') }],
  'sent-before': [{ on: day('2026-11-20') }],
  'on-its-way': [{}],
  unsendable: [
    ...(['kind', 'cancelled', 'waits', 'failed', 'rejected', 'put-aside'] as const),
    { addressless: 'Harbour board' },
    { sent: day('2026-11-20') },
    { unsound: 'The sum of lines must be the total', rule: 'BR-CO-10' },
  ].map((why) => ({ number: 'INV-1', why })),
  replaced: [{ by: 'QUO-2026-0001' }],
  billed: [{}],
  unbalanced: [{}],
  unexplained: [{}],
  'in-use': [{ keep: 'EUR' }],
  used: [{ by: 'INV-2026-0001' }],
  'rate-changed': [{ tax: 'Standard 23', held: '23 %', now: '24 %' }],
  unusual: [{ ahead: 1 }, { back: 400 }, { before: 'INV-1', issued: day('2026-11-20') }].map((why) => ({
    day: day('2027-12-31'),
    why,
  })),
  'before-book': [{ day: day('2019-12-31'), began: day('2026-01-01') }],
  'number-order': [{ day: day('2025-11-26'), last: day('2026-11-20') }],
  begun: [{ from: day('2021-03-01'), rate: '23 %' }],
  circle: [{}],
  'book-exists': [{}],
  'no-book': [{}],
  damaged: [{ expected: 'a readable row' }, { expected: '3 rows', found: '2' }],
  foreign: [{}],
  'too-new': [{ version: 9, reads: 1 }],
  overlap: [{ ours: 'IN VAT', theirs: 'IN CGST' }],
  'too-large': [{ wanted: 'table-of-20-mb' }],
  unreadable: [{ file: 'The file' }],
  unread: [{ why: 'A part of the program did not start. Try again.' }],
  'storage-full': [{}],
  'storage-failed': [{ found: 'AbortError' }],
  'newer-book': [{}],
  stopped: [{}],
  fault: [{ found: 'entry does not balance' }],
};

const SENTENCE = /^[A-Z“\d].*[.)]$/;

describe('every refusal', () => {
  const all = Object.entries(EXAMPLES).flatMap(([code, facts]) =>
    facts.map((fact) => ({ code, path: '', ...fact }) as Refusal),
  );
  test.each(all)('$code is a whole sentence without gaps', (refusal) => {
    const words = wordRefusal(refusal);
    expect(words).toMatch(SENTENCE);
    expect(words).not.toMatch(/undefined|null|\[object|\b20\d\d-\d\d-\d\d\b/);
    expect(words).not.toContain('!');
  });
  test('says what was found beside what is wanted', () => {
    expect(wordRefusal({ code: 'invalid', path: 'date', wanted: 'give-issue-date', found: 'soon' })).toBe(
      'Enter the issue date. (“soon” is not that)',
    );
  });
  test('writes days for people', () => {
    const refusal = {
      code: 'closed-period',
      path: 'date',
      day: day('2026-02-01'),
      filedUntil: day('2026-02-28'),
    } as const;
    expect(wordRefusal(refusal)).toBe('1 Feb 2026 lies in a filed period. Choose a day after 28 Feb 2026.');
  });
  test('damage names its place and says that nothing was changed', () => {
    expect(wordRefusal({ code: 'damaged', path: 'tables/items.jsonl, row 3', expected: 'a readable row' })).toBe(
      'The file is damaged at tables/items.jsonl, row 3: a readable row was expected. Nothing was changed. Use another copy.',
    );
  });
  test('the same sentence is not said twice', () => {
    expect(
      wordRefusals([
        { code: 'unbalanced', path: 'a' },
        { code: 'unbalanced', path: 'b' },
      ]),
    ).toBe('Debits and credits must be equal.');
  });
});

describe('what is wanted', () => {
  const RATE = { what: 'exchange-rate', currency: 'USD' as Currency } as const;
  test.each([
    ['document', true, /^The document is in USD, .*tax point.*, or type it here\.$/],
    ['receipt', true, /^The money is in USD, .*that day.*, or type it here\.$/],
    [{ filing: 'Washington' }, false, /^Washington is filed in USD, .*Exchange rates\.$/],
    [{ threshold: 'Royalties' }, false, /^The threshold of Royalties is in USD, .*Exchange rates\.$/],
  ] as const)('a rate says what it is needed for: %j', (need, typed, words) => {
    expect(wordWanted({ ...RATE, need, typed })).toMatch(words);
  });
  test.each([
    { what: 'id-of-the-one-meant', by: { row: 2 } },
    { what: 'id-of-the-one-meant', by: { id: 'harbour' } },
    { what: 'heads', heads: ['id', 'name'], missing: ['name'] },
    { what: 'message-of', number: 'INV-1', size: 12 * 2 ** 20, most: 9 * 2 ** 20 },
    { what: 'sum-that-is-settled', received: minor(100n), settled: minor(90n), currency: 'EUR' as Currency },
  ] as const satisfies readonly Wanted[])('$what is a whole sentence', (what) => {
    expect(wordWanted(what)).toMatch(SENTENCE);
    expect(wordWanted(what)).not.toMatch(/undefined|null|\[object/);
  });
  test('a schema that is not kept asks for what it wants by name', () => {
    const result = validated(itemSchema, { ...DEMO_ITEMS[0], name: '', price: 'twelve' });
    expect(result.ok ? [] : result.refusals.map(wordRefusal).sort()).toEqual([
      'Enter a name.',
      'Enter a price such as 12.50, with at most ten decimals. (“twelve” is not that)',
    ]);
  });
});

describe('refusals that actions give', () => {
  const DAY = '2026-01-15';
  const RAW = /undefined|\b20\d\d-\d\d-\d\d\b/;

  async function wordsOf<I, V>(db: BookDb, action: Action<I, V>, input: I, today = DAY): Promise<string> {
    const result = await perform(db, action, input, momentOn(today));
    if (result.ok) throw new Error(`${action.name} was not refused`);
    return wordRefusals(result.refusals);
  }

  test('name days and states for people', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    await act(db, cancelDocument, { documentId: invoice.id, reason: 'Twice' }, DAY);
    const later = await act(db, keepDraft, draftOf({ issueDate: '2026-03-02', taxPoint: '2025-12-20' }), '2026-03-02');
    await act(db, fileReturn, { registrationId: 'ie-vat', start: day('2026-01-01'), note: '' }, '2026-03-02');
    const back = await act(
      db,
      keepDraft,
      draftOf({ issueDate: '2026-03-02', accountingDate: '2026-02-02' }),
      '2026-03-02',
    );
    const sides = [
      { account: '2200', amount: minor(100n), text: '' },
      { account: '7900', amount: minor(-100n), text: '' },
    ];
    const said = [
      await wordsOf(db, creditInvoice, { documentId: invoice.id, date: DAY, reason: 'Back' }),
      await wordsOf(db, issueInvoice, { draftId: later.id }, '2026-03-02'),
      await wordsOf(db, issueInvoice, { draftId: back.id }, '2026-03-02'),
      await wordsOf(db, writeJournal, { date: '2026-02-02', text: 'Late', sides } as never, '2026-03-02'),
    ];
    expect(said.filter((words) => RAW.test(words))).toEqual([]);
    expect(said[0]).toBe('It is cancelled already.');
    expect(said[2]).toContain('Choose a day after 28 Feb 2026.');
    expect(said[3]).toContain('Choose a day after 28 Feb 2026.');
  });
});
