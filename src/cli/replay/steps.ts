import type { Moment } from '@/core/book/changes';
import type { ReceiptInput } from '@/core/decisions/payments/recordReceipt';
import type { Deferral } from '@/core/documents/deferral';
import { blankDraft, blankLine, type Draft, type DraftLine } from '@/core/documents/draft';
import type { Currency } from '@/core/kernel/currency';
import { addDays } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, minor, readMoney } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { revalueOpenItems } from '@/store/ledger/actions/revalue';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { allocateCredit, undoAllocation } from '@/store/payments/actions/allocate';
import { dishonourReceipt } from '@/store/payments/actions/dishonour';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { refundCredit, undoRefund } from '@/store/payments/actions/refund';
import { claimWithheld, enterCertificate } from '@/store/payments/actions/withholding';
import { undoWriteOff, writeOffDebt } from '@/store/payments/actions/writeOff';
import { type Action, perform } from '@/store/perform';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';
import { changeCustomer } from '@/store/setup/actions/setup';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { payAuthority } from '@/store/tax/actions/payTax';
import { reopenReturn } from '@/store/tax/actions/reopenReturn';
import type {
  AllocateStep,
  CertificateStep,
  ClaimStep,
  CreditStep,
  DishonourStep,
  FileStep,
  IssueStep,
  JournalStep,
  PayTaxStep,
  ReceiveStep,
  RefundStep,
  ReopenStep,
  Step,
  UndoStep,
  WriteOffStep,
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

/** When the revenue of a line belongs; half a statement is refused by the action. */
function deferralOf({
  from = '',
  to = '',
  months,
  first = '',
  parts,
}: NonNullable<IssueStep['lines'][number]['deferral']>): Deferral {
  if (parts !== undefined) return { kind: 'parts', parts };
  return months === undefined ? { kind: 'days', from, to } : { kind: 'months', months, first };
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
    ...(line.deferral && { deferral: deferralOf(line.deferral) }),
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
  const customer = await doing.db.customers.get(step.customer);
  if (step.withholding !== undefined && customer !== undefined) {
    const { keys: _, ...own } = customer;
    const changed = await act(doing, changeCustomer, { ...own, withholding: step.withholding });
    if (!changed.ok) return changed;
  }
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

/** Reads amounts of a step in a currency; `bad` is set to the first refusal. */
function reader(currency: Currency) {
  const bad: Result<Minor>[] = [];
  const read = (amount: Decimal): Minor => {
    const result = moneyOf(amount, currency);
    if (result.ok) return result.value;
    bad.push(result);
    return minor(0n);
  };
  return { read, bad };
}

async function receiveStep(doing: Doing, step: ReceiveStep): Promise<Result<unknown>> {
  const currency = (step.currency ?? doing.home) as Currency;
  const [own, home] = [reader(currency), reader(doing.home)];
  const chart = await doing.db.accounts.toArray();
  const documents = await doing.db.documents.bulkGet(step.to.map(({ document }) => idOf(doing, document)));
  const input: ReceiptInput = {
    customerId: step.customer,
    date: step.date,
    reference: step.id,
    currency,
    parts: step.parts.map(({ method, amount, charge, home: worth, chequeDate }) => ({
      method,
      amount: own.read(amount),
      ...(charge !== undefined && { charge: own.read(charge) }),
      ...(worth !== undefined && { home: home.read(worth) }),
      ...(chequeDate !== undefined && { chequeDate }),
    })),
    to: step.to.map(({ money, withheld = [], discount, difference }, i) => ({
      documentId: documents[i]?.id ?? '',
      number: documents[i]?.number ?? '',
      money: own.read(money),
      withheld: withheld.map(({ type, amount }) => ({ typeId: type, amount: own.read(amount) })),
      ...(discount !== undefined && { discount: own.read(discount) }),
      ...(difference !== undefined && {
        difference: { amount: own.read(difference.amount), account: accountFor(chart, difference.account) },
      }),
    })),
    agreed: true,
  };
  const [bad] = [...own.bad, ...home.bad];
  if (bad !== undefined) return bad;
  const received = await act(doing, recordReceipt, input);
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

async function undoStep(doing: Doing, { credit = '', to = '', id, date }: UndoStep): Promise<Result<unknown>> {
  if (id === undefined)
    return act(doing, undoAllocation, { creditId: idOf(doing, credit), debtId: idOf(doing, to), date });
  const own = idOf(doing, id);
  const isRefund = (await doing.db.refunds.get(own)) !== undefined;
  return isRefund ? act(doing, undoRefund, { id: own, date }) : act(doing, undoWriteOff, { id: own, date });
}

function dishonourStep(doing: Doing, { receipt, fee = '0' as Decimal, date }: DishonourStep): Promise<Result<unknown>> {
  const read = moneyOf(fee, doing.home);
  if (!read.ok) return Promise.resolve(read);
  return act(doing, dishonourReceipt, { receiptId: idOf(doing, receipt), date, reason: 'Scenario', fee: read.value });
}

async function writeOffStep(
  doing: Doing,
  { id, document, amount, relief, date }: WriteOffStep,
): Promise<Result<unknown>> {
  const documentId = idOf(doing, document);
  const read = moneyOf(amount, await currencyOf(doing, documentId));
  if (!read.ok) return read;
  const made = await act(doing, writeOffDebt, { documentId, date, amount: read.value, relief, reason: 'Scenario' });
  if (made.ok && id !== undefined) doing.ids.set(id, made.value.id);
  return made;
}

async function certificateStep(doing: Doing, step: CertificateStep): Promise<Result<unknown>> {
  const { customer, type, number, amount, of, date } = step;
  const read = moneyOf(amount, doing.home);
  if (!read.ok) return read;
  const ids = new Set(of.map((name) => idOf(doing, name)));
  const rows = await doing.db.withheld.where('customerId').equals(customer).toArray();
  const withheldIds = rows.flatMap(({ id, receiptId, documentId }) =>
    ids.has(receiptId === '' ? documentId : receiptId) ? [id] : [],
  );
  const input = { customerId: customer, typeId: type, number, date, amount: read.value, withheldIds };
  return act(doing, enterCertificate, input);
}

function claimStep(doing: Doing, { type, registration, amount, date }: ClaimStep): Promise<Result<unknown>> {
  const read = moneyOf(amount, doing.home);
  if (!read.ok) return Promise.resolve(read);
  const input = { typeId: type, registrationId: registration, date, amount: read.value, by: 'set-off' } as const;
  return act(doing, claimWithheld, input);
}

const fileStep = (doing: Doing, { registration, period, note = '' }: FileStep) =>
  act(doing, fileReturn, { registrationId: registration, start: period, note });

const reopenStep = (doing: Doing, { registration, period, reason }: ReopenStep) =>
  act(doing, reopenReturn, { registrationId: registration, start: period, reason });

function payTaxStep(doing: Doing, { registration, period, amount, date }: PayTaxStep): Promise<Result<unknown>> {
  const read = moneyOf(amount, doing.home);
  if (!read.ok) return Promise.resolve(read);
  return act(doing, payAuthority, { registrationId: registration, start: period, date, amount: read.value });
}

const DO: {
  readonly [What in Step['do']]: (doing: Doing, step: Extract<Step, { do: What }>) => Promise<Result<unknown>>;
} = {
  issue: issueStep,
  credit: creditStep,
  receive: receiveStep,
  allocate: allocateStep,
  undo: undoStep,
  dishonour: dishonourStep,
  writeOff: writeOffStep,
  certificate: certificateStep,
  claim: claimStep,
  refund: refundStep,
  journal: journalStep,
  revalue: (doing, { date }) => act(doing, revalueOpenItems, { date }),
  file: fileStep,
  reopen: reopenStep,
  payTax: payTaxStep,
};

/** Does one step by the action that the screens use. */
export function doStep(doing: Doing, step: Step): Promise<Result<unknown>> {
  return DO[step.do](doing, step as never);
}
