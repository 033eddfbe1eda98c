import { act, issued, momentOn, newBook, refusalCodes } from 'tests/book';
import type { AccessPoint, Message } from '@/core/delivery/accessPoint';
import { later } from '@/core/delivery/queue';
import type { Transmission } from '@/core/delivery/transmission';
import { gs1 } from '@/core/kernel/checkDigits';
import type { Refusal } from '@/core/kernel/result';
import { wordRefusal } from '@/core/wording/refusals';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { simulatedAccessPoint } from '@/standins/accessPoint';
import { putTransmissionAside, sendEInvoices, trySendingAgain } from '@/store/delivery/actions/sending';
import { askingTransmissions, transmissionsIn, transmissionsOf } from '@/store/delivery/queries/sent';
import { present } from '@/store/load';
import { perform } from '@/store/perform';
import { cancelDocument } from '@/store/sales/actions/afterIssue';
import { correctInvoice, creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { historyOf } from '@/store/sales/queries/family';
import type { BookDb } from '@/store/schema';
import { changeCustomer } from '@/store/setup/actions/setup';
import { eInvoiceJob } from './eInvoiceRound';

const DAY = '2026-01-15';
const START = `${DAY}T12:00:00.000Z`;

/** The simulated access point, with a note of every message that was sent. */
function watched(over: Partial<AccessPoint> = {}): AccessPoint & { readonly sent: Message[] } {
  const sent: Message[] = [];
  const simulated = simulatedAccessPoint();
  return {
    ...simulated,
    sent,
    send: (message) => {
      sent.push(message);
      return simulated.send(message);
    },
    ...over,
  };
}

/** A GLN that ends in the digits of a script, one of the others being what its check needs. */
function glnEnding(script: string): string {
  const all = Array.from({ length: 10 }, (_, digit) => `5391234500${digit}${script}`);
  return present(all.find(gs1), 'a GLN');
}

/** A book whose harbour board is reached at an id that ends in the digits of a script, and an invoice to it. */
async function bookWith(script: string, draft: Parameters<typeof issued>[1] = {}) {
  const db = await newBook();
  const board = present(
    DEMO_CUSTOMERS.find(({ id }) => id === 'ballyvaughan'),
    'the board',
  );
  await act(db, changeCustomer, { ...board, endpoint: { scheme: '0088', id: glnEnding(script) } }, DAY);
  const invoice = await issued(db, draft, DAY);
  return { db, invoice };
}

const said = (fault: Refusal | null | undefined): string => (fault ? wordRefusal(fault) : '');

async function queue(db: BookDb, documentId: string): Promise<Transmission> {
  const [answer] = await act(db, sendEInvoices, { documentIds: [documentId] }, DAY);
  if (answer?.fault !== null) throw new Error(said(answer?.fault));
  return present((await transmissionsOf(db, documentId))[0], 'the transmission');
}

/** Rounds until nothing is due at an instant some seconds after noon. */
async function rounds(db: BookDb, accessPoint: AccessPoint, seconds: number): Promise<void> {
  const now = later(START, seconds);
  const moment = () => ({ ...momentOn(now.slice(0, 10)), now });
  const job = eInvoiceJob(accessPoint);
  for (let round = await job.round(db, moment); round.ok && round.value > 0; ) round = await job.round(db, moment);
}

const state = async (db: BookDb, documentId: string) => {
  const [one] = await transmissionsOf(db, documentId);
  const { phase, answers, tries } = present(one, 'the transmission');
  return { phase, codes: answers.map(({ code }) => code), outcomes: tries.map(({ outcome }) => outcome) };
};

test('an e-invoice goes out once, is answered, and every step stands on the timeline of its document', async () => {
  const { db, invoice } = await bookWith('01');
  const accessPoint = watched();
  const { id, file } = await queue(db, invoice.id);
  expect(file).toContain(`<cbc:ID>${invoice.number}</cbc:ID>`);
  expect(await state(db, invoice.id)).toEqual({ phase: 'queued', codes: [], outcomes: [] });
  await rounds(db, accessPoint, 0);
  expect(await state(db, invoice.id)).toEqual({ phase: 'unanswered', codes: [], outcomes: ['taken'] });
  expect((await db.documents.get(invoice.id))?.sentOn).toBe(DAY);
  await rounds(db, accessPoint, 5);
  expect(await state(db, invoice.id)).toEqual({ phase: 'answered', codes: ['AB', 'AP'], outcomes: ['taken'] });
  expect(accessPoint.sent.map((message) => [message.id, message.file])).toEqual([[id, file]]);
  const events = (await historyOf(db, invoice.id)).map(({ action }) => action);
  expect(events.slice(-3)).toEqual(['queue e-invoices', 'try e-invoice', 'hear of e-invoice']);
  const again = await act(db, sendEInvoices, { documentIds: [invoice.id] }, DAY);
  expect(said(again[0]?.fault)).toContain('was sent on');
  expect(await db.transmissions.count()).toBe(1);
});

test('two tabs that go round at once bring one message, and a receipt lost on its way is had by the same id', async () => {
  const { db, invoice } = await bookWith('94');
  const accessPoint = watched();
  const { id } = await queue(db, invoice.id);
  await Promise.all([rounds(db, accessPoint, 0), rounds(db, accessPoint, 0)]);
  await rounds(db, accessPoint, 60);
  expect(new Set(accessPoint.sent.map((message) => message.id))).toEqual(new Set([id]));
  const [one] = await transmissionsOf(db, invoice.id);
  expect(one?.receipt?.again).toBe(true);
  await rounds(db, accessPoint, 200);
  // Each answer came twice and stands once.
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'answered', codes: ['AB', 'AP'] });
});

test('a receiver that is down is tried again, ever later, and at last left to a person, who may try again', async () => {
  const { db, invoice } = await bookWith('99');
  const accessPoint = watched();
  const { id } = await queue(db, invoice.id);
  for (const seconds of [0, 4, 5, 34, 35, 335, 3935, 25_535, 90_000]) await rounds(db, accessPoint, seconds);
  expect(await state(db, invoice.id)).toEqual({ phase: 'asks', codes: [], outcomes: Array(6).fill('unreachable') });
  expect((await askingTransmissions(db, START, 10)).map((one) => one.id)).toEqual([id]);
  const cancelled = await perform(db, cancelDocument, { documentId: invoice.id, reason: 'x' }, momentOn(DAY));
  expect(refusalCodes(cancelled)).toEqual(['on-its-way']);
  await act(db, trySendingAgain, { id }, '2026-01-17');
  await rounds(db, watched({ lookUp: async () => ({ kind: 'takes' }), send: async () => taken }), 2 * 86_400);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'unanswered' });
});
const taken = { kind: 'taken', reference: 'R-1', again: false } as const;

test.each([
  ['96', 'takes no messages'],
  ['97', 'Nobody is registered'],
])('what %s will not take is not tried again, and the invoice may be cancelled', async (script, words) => {
  const { db, invoice } = await bookWith(script);
  const accessPoint = watched();
  await queue(db, invoice.id);
  await rounds(db, accessPoint, 0);
  await rounds(db, accessPoint, 90_000);
  const [one] = await transmissionsOf(db, invoice.id);
  expect([one?.phase, one?.tries.length]).toEqual(['asks', 1]);
  expect(one?.tries[0]?.words).toContain(words);
  const [refused] = await act(db, sendEInvoices, { documentIds: [invoice.id] }, DAY);
  expect(said(refused?.fault)).toContain('correct why');
  await act(db, cancelDocument, { documentId: invoice.id, reason: 'Wrong customer' }, DAY);
  const later = await perform(db, trySendingAgain, { id: one?.id ?? '' }, momentOn(DAY));
  expect(refusalCodes(later)).toEqual(['unsendable']);
});

test('a rejected invoice asks for something until it is corrected; the new one is accepted', async () => {
  const { db, invoice } = await bookWith('91', { orderNumber: '4711' });
  const accessPoint = watched();
  await queue(db, invoice.id);
  await rounds(db, accessPoint, 0);
  await rounds(db, accessPoint, 5);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'asks', codes: ['AB', 'RE'] });
  const [refused] = await act(db, sendEInvoices, { documentIds: [invoice.id] }, DAY);
  expect(said(refused?.fault)).toContain('correct it');
  const input = { documentId: invoice.id, date: DAY, reason: 'Wrong order number' };
  const { draftId, note } = await act(db, correctInvoice, input, DAY);
  const [rejected] = await transmissionsOf(db, invoice.id);
  expect([rejected?.phase, rejected?.handled?.words]).toEqual(['closed', `credited by ${note}`]);
  expect(await askingTransmissions(db, START, 10)).toEqual([]);
  const draft = present(await db.drafts.get(draftId), 'the draft');
  await act(db, keepDraft, { ...draft, orderNumber: 'PO-4711' }, DAY);
  const { id } = await act(db, issueInvoice, { draftId }, DAY);
  const corrected = await queue(db, id);
  expect(corrected.id).not.toBe(rejected?.id);
  await rounds(db, accessPoint, 10);
  await rounds(db, accessPoint, 20);
  expect(await state(db, id)).toMatchObject({ phase: 'answered', codes: ['AB', 'AP'] });
});

test('silence is named after three days; answers that come late and out of order find their place', async () => {
  const { db, invoice } = await bookWith('93');
  const accessPoint = watched();
  await queue(db, invoice.id);
  await rounds(db, accessPoint, 0);
  const days = (n: number) => n * 86_400;
  for (const n of [1, 2]) await rounds(db, accessPoint, days(n));
  expect(await askingTransmissions(db, later(START, days(2)), 10)).toEqual([]);
  expect(await askingTransmissions(db, later(START, days(3) + 60), 10)).toHaveLength(1);
  for (const n of [4, 5, 6]) await rounds(db, accessPoint, days(n));
  // The acknowledgement came after the acceptance, and changes nothing.
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'answered', codes: ['AP', 'AB'] });
});

test('what was put aside is heard again when a new answer changes where it stands', async () => {
  const { db, invoice } = await bookWith('92');
  const accessPoint = watched();
  const { id } = await queue(db, invoice.id);
  await rounds(db, accessPoint, 0);
  await rounds(db, accessPoint, 5);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'asks', codes: ['AB', 'UQ'] });
  expect(refusalCodes(await perform(db, putTransmissionAside, { id, words: ' ' }, momentOn(DAY)))).toEqual(['missing']);
  await act(db, putTransmissionAside, { id, words: 'Answered by telephone' }, DAY);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'answered' });
  for (const day of [1, 2, 3]) await rounds(db, accessPoint, day * 86_400);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'asks', codes: ['AB', 'UQ', 'CA'] });
});

test('what is removed from the queue never goes; a receipt that comes all the same is kept', async () => {
  const { db, invoice } = await bookWith('01');
  const accessPoint = watched();
  const { id } = await queue(db, invoice.id);
  const meanwhile = watched({
    send: async () => {
      await act(db, putTransmissionAside, { id, words: 'Not yet' }, DAY);
      return taken;
    },
  });
  await rounds(db, meanwhile, 0);
  expect(await state(db, invoice.id)).toMatchObject({ phase: 'unanswered' });
  const second = await issued(db, {}, DAY);
  const waiting = await queue(db, second.id);
  await act(db, putTransmissionAside, { id: waiting.id, words: 'Not yet' }, DAY);
  await rounds(db, accessPoint, 90_000);
  expect(accessPoint.sent).toEqual([]);
  // Taken out before anything went, it may be sent anew or cancelled.
  await act(db, cancelDocument, { documentId: second.id, reason: 'Doubled' }, DAY);
});

test('a batch names what cannot be sent and queues the rest; a credit note goes too', async () => {
  const { db, invoice } = await bookWith('98');
  const other = await issued(db, { customerId: 'clewbay' }, DAY);
  const note = await act(db, creditInvoice, { documentId: invoice.id, date: DAY, reason: 'Returned' }, DAY);
  const documentIds = [invoice.id, other.id, note.id, 'nothing'];
  const answers = await act(db, sendEInvoices, { documentIds }, DAY);
  expect(answers.map(({ number, fault }) => [number, said(fault)])).toEqual([
    [invoice.number, ''],
    [other.number, expect.stringContaining('no e-invoice address')],
    [note.number, ''],
  ]);
  expect(await transmissionsIn(db, 'queued', 10)).toHaveLength(2);
  const accessPoint = watched();
  await rounds(db, accessPoint, 0);
  await rounds(db, accessPoint, 5);
  for (const day of [1, 2]) await rounds(db, accessPoint, day * 86_400);
  expect(await state(db, note.id)).toMatchObject({ phase: 'closed', codes: ['AB', 'AP', 'PD'] });
  expect(accessPoint.sent.some(({ file }) => file.includes('<CreditNote'))).toBe(true);
});

test('what is larger than an access point takes is told before it is sent', async () => {
  const { db, invoice } = await bookWith('01');
  const size = 7 * 2 ** 20;
  await db.attachments.add({
    id: 'plan',
    ownerId: invoice.id,
    name: 'plan.pdf',
    type: 'application/pdf',
    size,
    data: 'A'.repeat(Math.ceil(size / 3) * 4),
    addedAt: START,
    goesOut: true,
  });
  const [answer] = await act(db, sendEInvoices, { documentIds: [invoice.id] }, DAY);
  expect(said(answer?.fault)).toContain('takes 10 MB with the files inside it, and access points accept 9 MB');
  expect(await db.transmissions.count()).toBe(0);
});
