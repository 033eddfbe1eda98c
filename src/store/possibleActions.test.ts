import { act, day, documentOf, draftOf, issued, momentOn, newBook, wholeBook } from 'tests/book';
import { possibleActions } from '@/core/decisions/sales/possibleActions';
import { minor } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { sendEInvoices } from './delivery/actions/sending';
import { present } from './load';
import { perform } from './perform';
import { cancelDocument, sendElsewhere } from './sales/actions/afterIssue';
import { correctInvoice, creditInvoice } from './sales/actions/creditInvoice';
import { keepDraft } from './sales/actions/drafts';
import { keepAnswer, remake, sendQuoteDraft } from './sales/actions/quotes';
import { enterOpening, enterTakings } from './sales/actions/takings';
import { documentFile } from './sales/queries/family';
import type { BookDb } from './schema';

const DAY = '2026-01-15';

/** What the book says may be done with a document: the main thing, what may be done, what may not and the code of why. */
async function possible(db: BookDb, id: string) {
  const { document, family, transmissions, mails, lines } = present(
    (await documentFile(db, id)) ?? undefined,
    'the document',
  );
  const registration = await db.registrations.get(document.content.registrationId);
  const { actions, main } = possibleActions({
    document,
    family,
    transmissions,
    mails,
    registration,
    postedOn: lines[0]?.date ?? '',
  });
  const all = [...actions];
  return {
    main,
    can: all.flatMap(([action, fault]) => (fault === null ? [action] : [])),
    not: Object.fromEntries(all.flatMap(([action, fault]) => (fault === null ? [] : [[action, fault.code]]))),
  };
}

async function quoted(db: BookDb): Promise<string> {
  const draft = await act(db, keepDraft, draftOf({ kind: 'quote', due: '30d' }), DAY);
  return (await act(db, sendQuoteDraft, { draftId: draft.id }, DAY)).id;
}

const CASES: readonly (readonly [
  what: string,
  make: (db: BookDb) => Promise<string>,
  main: string | null,
  can: readonly string[],
  not: Readonly<Record<string, string>>,
])[] = [
  [
    'an invoice',
    async (db) => (await issued(db)).id,
    'send',
    [
      'credit',
      'correct',
      'cancel',
      'copy',
      'see-e-invoice',
      'send',
      'mail',
      'mark-sent',
      'receive',
      'dispute',
      'promise',
      'write-off',
    ],
    {},
  ],
  [
    'an invoice on its way',
    async (db) => {
      const { id } = await issued(db);
      await act(db, sendEInvoices, { documentIds: [id] }, DAY);
      return id;
    },
    'receive',
    ['credit', 'correct', 'copy', 'see-e-invoice', 'mail', 'mark-sent', 'receive', 'dispute', 'promise', 'write-off'],
    { cancel: 'on-its-way', send: 'unsendable' },
  ],
  [
    'an invoice without an e-invoice address that went out by post',
    async (db) => {
      const { id } = await issued(db, { customerId: 'clewbay' });
      await act(db, sendElsewhere, { documentId: id, on: DAY, how: 'post' }, DAY);
      return id;
    },
    'receive',
    ['credit', 'correct', 'copy', 'see-e-invoice', 'mail', 'receive', 'dispute', 'promise', 'write-off'],
    { cancel: 'sent', send: 'unsendable', 'mark-sent': 'sent-before' },
  ],
  [
    'a cancelled invoice',
    async (db) => {
      const { id } = await issued(db);
      await act(db, cancelDocument, { documentId: id, reason: 'Twice' }, DAY);
      return id;
    },
    null,
    ['copy', 'see-e-invoice', 'mark-sent'],
    { credit: 'settled', correct: 'settled', cancel: 'settled', send: 'unsendable', mail: 'settled' },
  ],
  [
    'an invoice that is credited whole',
    async (db) => {
      const { id } = await issued(db, { customerId: 'clewbay' });
      await act(db, creditInvoice, { documentId: id, date: DAY, reason: 'Back' }, DAY);
      return id;
    },
    null,
    ['copy', 'see-e-invoice', 'mail', 'mark-sent'],
    { credit: 'already-credited', correct: 'already-credited', cancel: 'settled', send: 'unsendable' },
  ],
  [
    'an invoice that is credited in part',
    async (db) => {
      const { id } = await issued(db, { customerId: 'clewbay' });
      const request = { kind: 'amount', amount: minor(2300n) } as const;
      await act(db, creditInvoice, { documentId: id, date: DAY, reason: 'Late', request }, DAY);
      return id;
    },
    'receive',
    ['credit', 'correct', 'copy', 'see-e-invoice', 'mail', 'mark-sent', 'receive', 'dispute', 'promise', 'write-off'],
    { cancel: 'settled', send: 'unsendable' },
  ],
  [
    'a credit note',
    async (db) => {
      const { id } = await issued(db, { customerId: 'clewbay' });
      return (await act(db, creditInvoice, { documentId: id, date: DAY, reason: 'Back' }, DAY)).id;
    },
    null,
    ['see-e-invoice', 'mail', 'mark-sent'],
    { send: 'unsendable' },
  ],
  [
    'a quote that was sent',
    quoted,
    'accept',
    ['accept', 'decline', 'bill', 'write-version', 'copy', 'mail'],
    { 'mark-sent': 'sent-before' },
  ],
  [
    'a quote that was declined',
    async (db) => {
      const id = await quoted(db);
      const answer = { kind: 'declined', words: 'Too dear', on: DAY } as const;
      await act(db, keepAnswer, { documentId: id, answer } as never, DAY);
      return id;
    },
    null,
    ['accept', 'decline', 'bill', 'write-version', 'copy', 'mail'],
    { 'mark-sent': 'sent-before' },
  ],
  [
    'a quote that a newer version replaced',
    async (db) => {
      const id = await quoted(db);
      const { draftId } = await act(db, remake, { documentId: id, as: 'version', issueDate: DAY } as never, DAY);
      await act(db, sendQuoteDraft, { draftId }, DAY);
      return id;
    },
    null,
    ['copy', 'mail'],
    {
      accept: 'replaced',
      decline: 'replaced',
      bill: 'replaced',
      'write-version': 'replaced',
      'mark-sent': 'sent-before',
    },
  ],
  [
    'takings',
    async (db) => {
      const rows = [{ taxCode: 'IE-S', amount: '12.30', account: '4000' }];
      const input = { registrationId: 'ie-vat', date: DAY, paidBy: 'cash', note: '', rows } as const;
      return (await act(db, enterTakings, input, DAY)).id;
    },
    null,
    ['cancel'],
    {},
  ],
  [
    'an opening item',
    async (db) => {
      const input = { customerId: 'clewbay', date: '2025-11-30', due: '2025-12-30', number: 'A-1', amount: '120.00' };
      return (await act(db, enterOpening, input, DAY)).id;
    },
    'receive',
    ['receive', 'dispute', 'promise', 'write-off'],
    {},
  ],
];

test.each(CASES)('%s', async (_, make, main, can, not) => {
  const db = await newBook();
  const id = await make(db);
  expect(await possible(db, id)).toEqual({ main, can, not });
  expect((await documentOf(db, id)).id).toBe(id);
});

/** The action itself, asked for on the document, as the screen would. */
const ASKED: Readonly<Record<string, (db: BookDb, documentId: string) => Promise<Result<unknown>>>> = {
  credit: (db, documentId) => perform(db, creditInvoice, { documentId, date: DAY, reason: 'Back' }, momentOn(DAY)),
  correct: (db, documentId) => perform(db, correctInvoice, { documentId, date: DAY, reason: 'Wrong' }, momentOn(DAY)),
  cancel: (db, documentId) => perform(db, cancelDocument, { documentId, reason: 'Twice' }, momentOn(DAY)),
  accept: (db, documentId) =>
    perform(
      db,
      keepAnswer,
      { documentId, answer: { kind: 'accepted', words: 'Skipper', on: day(DAY) } },
      momentOn(DAY),
    ),
  decline: (db, documentId) =>
    perform(db, keepAnswer, { documentId, answer: { kind: 'declined', words: 'Dear', on: day(DAY) } }, momentOn(DAY)),
  'write-version': (db, documentId) =>
    perform(db, remake, { documentId, as: 'version', issueDate: DAY }, momentOn(DAY)),
  copy: (db, documentId) => perform(db, remake, { documentId, as: 'copy', issueDate: DAY }, momentOn(DAY)),
};

describe('what is offered is what the action does', () => {
  const pairs = CASES.flatMap(([what, make, , can, not]) =>
    Object.keys(ASKED).flatMap((action) =>
      can.includes(action) || action in not ? [[what, action, make, not[action] ?? ''] as const] : [],
    ),
  );
  test.each(pairs)('%s: %s', async (_, action, make, code) => {
    const db = await newBook();
    const id = await make(db);
    const before = await wholeBook(db);
    const result = await ASKED[action]?.(db, id);
    expect(result?.ok === true ? '' : result?.refusals[0]?.code).toBe(code);
    // A refusal leaves the book as it was; what was done stands in it.
    if (code === '') expect(await wholeBook(db)).not.toEqual(before);
    else expect(await wholeBook(db)).toEqual(before);
  });
});
