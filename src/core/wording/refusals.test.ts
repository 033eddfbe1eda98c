import { act, day, draftOf, issued, momentOn, newBook } from 'tests/book';
import { minor } from '@/core/kernel/money';
import type { Refusal, RefusalCode } from '@/core/kernel/result';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { type Action, perform } from '@/store/perform';
import { cancelDocument } from '@/store/sales/actions/afterIssue';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { wordRefusal, wordRefusals } from './refusals';

const codes: Record<RefusalCode, Partial<Refusal>> = {
  invalid: { expected: 'Give a day.', found: 'soon' },
  missing: { expected: 'Give a day.' },
  unknown: { expected: 'Choose an account.' },
  'not-found': {},
  duplicate: { found: 'IE-S' },
  stale: {},
  'already-issued': {},
  'already-credited': { found: 'CN-1' },
  'already-filed': {},
  'not-ended': { expected: '28 Feb 2026', found: 'Jan–Feb 2026' },
  'earlier-open': { expected: 'Jan–Feb 2026' },
  'closed-period': { expected: 'a later day', found: '2026-02-01' },
  'before-registration': { expected: 'a later day', found: '2025-12-31' },
  'check-failed': { expected: 'Our tax number must stand on the invoice.' },
  'over-allocated': { found: 'INV-1' },
  'over-credited': { expected: '12.50' },
  overrun: { expected: 'QUO-2026-0001', found: 'Tide gauge' },
  settled: { found: 'paid' },
  sent: { found: '23 Nov 2026' },
  'on-its-way': {},
  'sent-before': { found: '20 Nov 2026' },
  replaced: { found: 'QUO-2026-0001' },
  billed: {},
  unbalanced: {},
  unexplained: { expected: 'Say why.' },
  'in-use': { expected: '2026-01-01' },
  'rate-changed': { expected: '24 %', found: 'Standard 23, 23 %' },
  unusual: { expected: 'It lies 400 days ahead.', found: '2027-12-31' },
  'before-book': { expected: 'a day from 1 Jan 2026 on', found: '2019-12-31' },
  'number-order': { expected: '2026-11-20', found: '2025-11-26' },
  begun: { expected: '23 %', found: '2021-03-01' },
  circle: {},
  'book-exists': {},
  'no-book': {},
  damaged: { path: 'tables/items.jsonl', expected: 'a readable row' },
  foreign: {},
  'too-new': { expected: '1', found: '9' },
  overlap: { expected: 'IN CGST', found: 'IN VAT' },
  'too-large': {},
  'storage-full': {},
  'storage-failed': { found: 'AbortError' },
  'newer-book': {},
  fault: { found: 'entry does not balance' },
};

describe('every refusal', () => {
  test.each(Object.entries(codes))('%s is a whole sentence without gaps', (code, over) => {
    const words = wordRefusal({ code: code as RefusalCode, path: '', ...over });
    expect(words).toMatch(/^[A-Z“\d].*[.)]$/);
    expect(words).not.toMatch(/undefined|null|\[object/);
    expect(words).not.toContain('!');
  });
  test('says what was found beside what was expected', () => {
    expect(wordRefusal({ code: 'invalid', path: 'date', expected: 'Give a day.', found: 'soon' })).toBe(
      'Give a day. (“soon” is not that)',
    );
  });
  test('writes days for people', () => {
    expect(
      wordRefusal({ code: 'closed-period', path: 'date', expected: 'a day after 28 Feb 2026', found: '2026-02-01' }),
    ).toBe('1 Feb 2026 lies in a filed period. Choose a day after 28 Feb 2026.');
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
