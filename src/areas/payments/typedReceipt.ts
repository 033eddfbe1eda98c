import type { ReceiptInput } from '@/core/decisions/payments/recordReceipt';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, minor, minus, NOTHING, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { readTypedMoney, typedMoney } from '@/core/kernel/typedMoney';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { Debt, Proposal } from '@/core/settlement/proposal';

/** One way in which money came, as it is typed. */
export interface TypedPart {
  readonly id: string;
  readonly method: PaymentMethod;
  /** Code of the account; empty for that of the method. */
  readonly account: string;
  readonly amount: string;
  readonly charge: string;
  readonly home: string;
  readonly chequeNumber: string;
  readonly chequeDate: string;
}

/** What is typed beside one document. */
export interface TypedRow {
  readonly money: string;
  /** By withholding type. */
  readonly withheld: Readonly<Record<string, string>>;
  readonly discount: string;
  readonly difference: string;
}

/** The head of a receipt as it is typed. */
export interface TypedHead {
  readonly date: string;
  readonly number: string;
  readonly reference: string;
  readonly remarks: string;
  readonly perHome: string;
  /** Code of the account that small differences go to. */
  readonly differenceTo: string;
}

export const EMPTY_HEAD: TypedHead = {
  date: 'today',
  number: '',
  reference: '',
  remarks: '',
  perHome: '',
  differenceTo: '',
};
export const EMPTY_ROW: TypedRow = { money: '', withheld: {}, discount: '', difference: '' };

export function emptyPart(id: string): TypedPart {
  return {
    id,
    method: 'bank',
    account: '',
    amount: '',
    charge: '',
    home: '',
    chequeNumber: '',
    chequeDate: '',
  };
}

/** A proposal as it stands in the cells of a row; a difference that was typed stays. */
export function rowOf({ money, withheld, discount }: Proposal, currency: Currency, row = EMPTY_ROW): TypedRow {
  const shown = (amount: Minor) => (amount === NOTHING ? '' : showMoney(amount, currency));
  return {
    ...row,
    money: showMoney(money, currency),
    withheld: Object.fromEntries(withheld.map(({ typeId, amount }) => [typeId, shown(amount)])),
    discount: shown(discount),
  };
}

/** What is typed, read: what would be recorded, what can't be read, and what the amounts come to. */
export interface ReadReceipt {
  readonly input: ReceiptInput;
  readonly unread: readonly Refusal[];
  /** Money that came. */
  readonly money: Minor;
  /** Money that settles documents. */
  readonly settled: Minor;
  /** Kept on account; below zero where more is settled than came. */
  readonly left: Minor;
}

interface Reading {
  readonly customerId: string;
  readonly day: string;
  readonly currency: Currency;
  readonly home: Currency;
  readonly debts: readonly Debt[];
}

/** Reads the cells of one document; nothing where none of them is filled. */
function readRow({ document }: Debt, row: TypedRow, at: number, to: string, currency: Currency) {
  const unread: Refusal[] = [];
  const read = (text: string, path: string): Minor => {
    const amount = typedMoney(text, currency, `to[${at}].${path}`, NOTHING);
    if (amount.ok) return amount.value;
    unread.push(...amount.refusals);
    return NOTHING;
  };
  const withheld = Object.entries(row.withheld).flatMap(([typeId, text], i) => {
    const amount = read(text, `withheld[${i}].amount`);
    return amount === NOTHING ? [] : [{ typeId, amount }];
  });
  const difference = read(row.difference, 'difference');
  const one = {
    documentId: document.id,
    number: document.number,
    money: read(row.money, 'money'),
    withheld,
    discount: read(row.discount, 'discount'),
    ...(difference !== NOTHING && { difference: { amount: difference, account: to } }),
  };
  const empty = one.money === NOTHING && withheld.length === 0 && one.discount === NOTHING && difference === NOTHING;
  return { unread, one, empty: empty && unread.length === 0 };
}

/** Reads what is typed into a receipt. Where no amount is given for its sole part, what settles documents is what came. */
export function readReceipt(
  head: TypedHead,
  parts: readonly TypedPart[],
  rows: Readonly<Record<string, TypedRow>>,
  { customerId, day, currency, home, debts }: Reading,
): ReadReceipt {
  const unread: Refusal[] = [];
  const to: ReceiptInput['to'][number][] = [];
  for (const debt of debts) {
    const row = rows[debt.document.id];
    if (row === undefined) continue;
    const read = readRow(debt, row, to.length, head.differenceTo, currency);
    if (read.empty) continue;
    unread.push(...read.unread);
    to.push(read.one);
  }
  const settled = total(to.map((one) => one.money));
  const [only] = parts;
  const implied = parts.length === 1 && only?.amount.trim() === '';
  const optional = (text: string, path: string, of: Currency, field: 'charge' | 'home') => {
    if (text.trim() === '') return {};
    const amount = typedMoney(text, of, path);
    if (amount.ok) return { [field]: amount.value };
    unread.push(...amount.refusals);
    return {};
  };
  const read = parts.map(({ method, account, amount, charge, home: worth, chequeNumber, chequeDate }, i) => {
    const came = implied ? { ok: true as const, value: settled } : typedMoney(amount, currency, `parts[${i}].amount`);
    if (!came.ok) unread.push(...came.refusals);
    return {
      method,
      account,
      amount: came.ok ? came.value : NOTHING,
      ...optional(charge, `parts[${i}].charge`, currency, 'charge'),
      ...optional(worth, `parts[${i}].home`, home, 'home'),
      ...(method === 'cheque' && { chequeNumber, chequeDate }),
    };
  });
  const money = total(read.map(({ amount }) => amount));
  const { date: _, differenceTo: __, ...words } = head;
  // Tax that was kept back whole comes with no money.
  const sent = money === NOTHING && to.some(({ withheld = [] }) => withheld.length > 0) ? [] : read;
  return {
    input: { ...words, customerId, date: day, currency, parts: sent, to },
    unread,
    money,
    settled,
    left: minus(money, settled),
  };
}

/** What would be left open of a document by what is typed beside it; null where that can't be read. */
export function restOf({ document }: Debt, row: TypedRow, currency: Currency): Minor | null {
  let rest = document.open;
  for (const text of [row.money, ...Object.values(row.withheld), row.discount, row.difference]) {
    if (text.trim() === '') continue;
    const amount = readTypedMoney(text, currency);
    if (amount === null) return null;
    rest = minor(rest - amount);
  }
  return rest;
}
