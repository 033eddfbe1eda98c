import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { type CustomerMove, EVENT_WORDS } from '@/core/settlement/account';
import type { Behind, Report, ReportCell, ReportColumn, ReportRow, ReportTable } from './report';
import type { ReportSpan } from './span';
import type { AccountSums } from './statements';

/** A move of a running balance: a debit above zero. */
interface Move {
  readonly key: string;
  readonly before: readonly ReportCell[];
  readonly amount: Minor;
  readonly behind?: Behind;
}

/** Cells of a debit, a credit and the balance after them. */
function sides(amount: Minor, balance: Minor, currency: Currency): readonly ReportCell[] {
  const cell = (value: Minor): ReportCell => (value > 0n ? { amount: value, currency } : '');
  return [cell(amount), cell(negated(amount)), { amount: balance, currency }];
}

/** Moves as rows, each with the balance after it. */
function running(moves: readonly Move[], opening: Minor, currency: Currency): readonly ReportRow[] {
  let balance = opening;
  return moves.map(({ key, before, amount, behind }) => {
    balance = plus(balance, amount);
    return { key, cells: [...before, ...sides(amount, balance, currency)], ...(behind && { behind }) };
  });
}

const debits = (moves: readonly Move[]): Minor => total(moves.flatMap(({ amount }) => (amount > 0n ? [amount] : [])));
const credits = (moves: readonly Move[]): Minor =>
  negated(total(moves.flatMap(({ amount }) => (amount < 0n ? [amount] : []))));

export interface GeneralLedgerMaterial extends ReportSpan {
  readonly home: Currency;
  /** Those to be shown, in the order of their codes. */
  readonly accounts: readonly Pick<Account, 'code' | 'name'>[];
  /** What each stood at on the day before the first. */
  readonly opening: AccountSums;
  /** Their lines between the days, by date. */
  readonly lines: readonly JournalLine[];
}

const HEADS: readonly ReportColumn[] = [
  { head: 'Date', kind: 'date' },
  { head: 'Entry', kind: 'words' },
  { head: 'Debit', kind: 'amount' },
  { head: 'Credit', kind: 'amount' },
  { head: 'Balance', kind: 'amount' },
];

/** Each account with what it brought forward, every line with the balance after it, and what it carries forward. */
export function generalLedger({ from, until, home, accounts, opening, lines }: GeneralLedgerMaterial): Report {
  const own = grouped(lines, ({ account }) => account);
  const tables = accounts.flatMap(({ code, name }): readonly ReportTable[] => {
    const begun = opening.get(code) ?? NOTHING;
    const moves = (own.get(code) ?? []).map(({ id, entryId, date, text, amount }): Move => {
      return { key: id, before: [date, text], amount, behind: { kind: 'entry', id: entryId } };
    });
    if (moves.length === 0 && begun === NOTHING) return [];
    const money = (amount: Minor): ReportCell => ({ amount, currency: home });
    return [
      {
        caption: `${code} ${name}`,
        columns: HEADS,
        rows: [
          { key: 'opening', cells: [from, 'Brought forward', '', '', money(begun)] },
          ...running(moves, begun, home),
        ],
        sums: [
          '',
          'Carried forward',
          money(debits(moves)),
          money(credits(moves)),
          money(plus(begun, total(moves.map(({ amount }) => amount)))),
        ],
        nothing: '',
      },
    ];
  });
  return {
    title: 'General ledger',
    from,
    until,
    currency: home,
    tables:
      tables.length > 0
        ? tables
        : [{ caption: 'Accounts', columns: HEADS, rows: [], sums: null, nothing: 'Nothing is posted until that day.' }],
    notes: [],
  };
}

/** Something that moved a customer's account, as the ledger says it. */
export interface LedgerMove {
  readonly customerId: string;
  readonly currency: Currency;
  readonly date: IsoDate;
  readonly words: string;
  readonly amount: Minor;
  readonly behind?: Behind;
}

/** A move of an account as the ledger says it. */
export function ledgerMove({ customerId, currency, date, event, number, id, kind, amount }: CustomerMove): LedgerMove {
  const words = `${EVENT_WORDS[event]} ${number}`.trim();
  return { customerId, currency, date, words, amount, ...(id !== '' && { behind: { kind, id } }) };
}

/** A customer's account in one currency. */
export interface CustomerAccountMoves {
  readonly customerId: string;
  readonly name: string;
  readonly currency: Currency;
  /** What it stood at on the day before the first. */
  readonly opening: Minor;
  /** Between the days, in their order. */
  readonly moves: readonly LedgerMove[];
}

export interface CustomerLedgerMaterial extends ReportSpan {
  readonly home: Currency;
  readonly accounts: readonly CustomerAccountMoves[];
}

/** What moved the accounts of customers, one after the other, in their own currency, each move with the balance after it. */
export function customerLedger({ from, until, home, accounts }: CustomerLedgerMaterial): Report {
  const inOrder = accounts.toSorted((a, b) => (a.name + a.currency < b.name + b.currency ? -1 : 1));
  const rows = inOrder.flatMap(({ customerId, name, currency, opening, moves }): readonly ReportRow[] => {
    const all = moves.map(({ date, words, amount, behind }, i): Move => {
      const key = `${customerId}|${currency}|${i}`;
      return { key, before: [name, date, words], amount, ...(behind && { behind }) };
    });
    const brought: ReportRow = {
      key: `${customerId}|${currency}`,
      cells: [name, from, 'Brought forward', '', '', { amount: opening, currency }],
      behind: { kind: 'customer', id: customerId },
    };
    return [brought, ...running(all, opening, currency)];
  });
  return {
    title: 'Customer ledger',
    from,
    until,
    currency: home,
    tables: [
      {
        caption: 'Accounts of customers',
        columns: [
          { head: 'Customer', kind: 'words' },
          { head: 'Date', kind: 'date' },
          { head: 'Event', kind: 'words' },
          { head: 'Debit', kind: 'amount' },
          { head: 'Credit', kind: 'amount' },
          { head: 'Balance', kind: 'amount' },
        ],
        rows,
        sums: null,
        nothing: 'No customer owed anything between these days.',
      },
    ],
    notes: [],
  };
}
