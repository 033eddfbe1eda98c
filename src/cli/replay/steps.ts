import type { Moment } from '@/core/book/changes';
import { blankDraft, blankLine, type Draft, type DraftLine } from '@/core/documents/draft';
import type { Currency } from '@/core/kernel/currency';
import { addDays } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, minor, readMoney, total } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { allocateCredit, undoAllocation } from '@/store/payments/actions/allocate';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { refundCredit } from '@/store/payments/actions/refund';
import { type Action, perform } from '@/store/perform';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import type {
  AllocateStep,
  CreditStep,
  FileStep,
  IssueStep,
  JournalStep,
  ReceiveStep,
  RefundStep,
  Step,
  UndoStep,
} from './scenario';

/** What is known while the steps of a scenario are done. */
export interface Doing {
  readonly db: BookDb;
  readonly home: Currency;
  /** Ids in the book by the ids that the scenario gives. */
  readonly ids: Map<string, string>;
  readonly moment: Moment;
}

const gone = () => refuse({ code: 'not-found', path: '' });

const act = <I, V>({ db, moment }: Doing, action: Action<I, V>, input: I): Promise<Result<V>> =>
  perform(db, action, input, moment);

/** The id in the book that a step names; empty, so that it is not found, where it names none. */
const idOf = ({ ids }: Doing, name: string): string => ids.get(name) ?? '';

/** An amount in a currency; refused where it has more decimals than that. */
function moneyOf(amount: Decimal, currency: Currency): Result<Minor> {
  const read = readMoney(amount, currency);
  return read === null ? refuse({ code: 'invalid', path: 'amount', wanted: 'give-amount' }) : accept(read);
}

/** The currency of a document or a receipt; home where the book has neither. */
async function currencyOf({ db, home }: Doing, id: string): Promise<Currency> {
  const [document, receipt] = await Promise.all([db.documents.get(id), db.receipts.get(id)]);
  return document?.content.currency ?? receipt?.currency ?? home;
}

function lineOf(line: IssueStep['lines'][number], at: number, account: string): DraftLine {
  const { percent, amount } = line.discount ?? {};
  return {
    ...blankLine(`line-${at}`, account),
    description: `Line ${at + 1}`,
    quantity: line.quantity,
    price: line.price,
    discount: percent === undefined ? (amount ?? '') : `${percent}%`,
    taxCode: line.code,
    taxByHand: true,
  };
}

const DAYS = 30;

async function issueStep(doing: Doing, step: IssueStep): Promise<Result<unknown>> {
  const { moment, ids, home } = doing;
  const accounts = await doing.db.accounts.toArray();
  const income = accounts.find(({ type, role }) => type === 'income' && role === '')?.code ?? '';
  const draft: Draft = {
    ...blankDraft(moment.newId(), 'invoice', step.registration, step.date),
    customerId: step.customer,
    due: step.due ?? step.terms ?? addDays(step.date, DAYS),
    currency: step.currency === home ? '' : ((step.currency ?? '') as Draft['currency']),
    priceMode: step.priceMode ?? 'net',
    buyerReference: 'sample',
    lines: step.lines.map((line, at) => lineOf(line, at, income)),
  };
  const kept = await act(doing, keepDraft, draft);
  if (!kept.ok) return kept;
  const issued = await act(doing, issueInvoice, { draftId: draft.id });
  if (issued.ok) ids.set(step.id, issued.value.id);
  return issued;
}

async function creditStep(doing: Doing, { id, of, amount, date }: CreditStep): Promise<Result<unknown>> {
  const documentId = idOf(doing, of);
  const read = amount === undefined ? null : moneyOf(amount, await currencyOf(doing, documentId));
  if (read?.ok === false) return read;
  const request = read === null ? ({ kind: 'rest' } as const) : ({ kind: 'amount', amount: read.value } as const);
  const note = await act(doing, creditInvoice, { documentId, date, reason: 'Scenario', request });
  if (note.ok) doing.ids.set(id, note.value.id);
  return note;
}

async function receiveStep(doing: Doing, step: ReceiveStep): Promise<Result<unknown>> {
  const currency = (step.currency ?? doing.home) as Currency;
  const [parts, settles] = [
    step.parts.map(({ amount }) => moneyOf(amount, currency)),
    step.to.map(({ money }) => moneyOf(money, currency)),
  ];
  for (const read of [...parts, ...settles]) if (!read.ok) return read;
  const worth = (read: Result<Minor>) => (read.ok ? read.value : minor(0n));
  const documents = await doing.db.documents.bulkGet(step.to.map(({ document }) => idOf(doing, document)));
  const received = await act(doing, recordReceipt, {
    customerId: step.customer,
    date: step.date,
    method: step.parts[0]?.method ?? 'bank',
    reference: step.id,
    sum: total(parts.map(worth)),
    currency,
    allocations: step.to.map((_, i) => ({
      documentId: documents[i]?.id ?? '',
      number: documents[i]?.number ?? '',
      amount: worth(settles[i] as Result<Minor>),
    })),
    anyDay: true,
  });
  if (received.ok) doing.ids.set(step.id, received.value.id);
  return received;
}

async function allocateStep(doing: Doing, { credit, to, amount, date }: AllocateStep): Promise<Result<unknown>> {
  const creditId = idOf(doing, credit);
  const read = moneyOf(amount, await currencyOf(doing, creditId));
  return read.ok ? act(doing, allocateCredit, { creditId, debtId: idOf(doing, to), amount: read.value, date }) : read;
}

async function refundStep(doing: Doing, { id, of, amount, date }: RefundStep): Promise<Result<unknown>> {
  const creditId = idOf(doing, of);
  const read = moneyOf(amount, await currencyOf(doing, creditId));
  if (!read.ok) return read;
  const given = await act(doing, refundCredit, { creditId, amount: read.value, date, method: 'bank', reference: id });
  if (given.ok) doing.ids.set(id, given.value.id);
  return given;
}

async function journalStep(doing: Doing, { lines, date }: JournalStep): Promise<Result<unknown>> {
  const [chart, registrations] = await Promise.all([doing.db.accounts.toArray(), doing.db.registrations.toArray()]);
  const sides: { account: string; amount: Minor }[] = [];
  for (const { role, registration, amount } of lines) {
    const own = registrations.find(({ id }) => id === registration) ?? registrations[0];
    const known = chart.find((one) => one.role === role || (role === 'income' && one.type === 'income'));
    if (known === undefined || own === undefined) return gone();
    const read = moneyOf(amount, doing.home);
    if (!read.ok) return read;
    const account = role === 'output-tax' ? outputAccountOf(own, chart) : known.code;
    sides.push({ account, amount: read.value });
  }
  return act(doing, writeJournal, { date, text: 'Scenario', sides });
}

const undoStep = (doing: Doing, { credit, to, date }: UndoStep) =>
  act(doing, undoAllocation, { creditId: idOf(doing, credit), debtId: idOf(doing, to), date });

const fileStep = (doing: Doing, { registration, period, note = '' }: FileStep) =>
  act(doing, fileReturn, { registrationId: registration, start: period, note });

const DO: {
  readonly [What in Step['do']]: (doing: Doing, step: Extract<Step, { do: What }>) => Promise<Result<unknown>>;
} = {
  issue: issueStep,
  credit: creditStep,
  receive: receiveStep,
  allocate: allocateStep,
  undo: undoStep,
  refund: refundStep,
  journal: journalStep,
  file: fileStep,
};

/** Does one step by the action that the screens use. */
export function doStep(doing: Doing, step: Step): Promise<Result<unknown>> {
  return DO[step.do](doing, step as never);
}
