import { cell } from '@/core/book/columns/columns';
import type { OpenAccountsInput } from '@/core/decisions/ledger/openAccounts';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { readCsv } from './csv';
import { debitLessCredit } from './entriesFile';

/** Heads of a file of opening balances: all rows say the same day, at whose end the accounts stood so. */
export const BALANCE_HEADS = ['date', 'account', 'debit', 'credit'] as const;

/** Opening balances read from a file, with the row of each in their order; heads are row 1. */
export interface BalancesRead {
  readonly rows: readonly number[];
  readonly input: OpenAccountsInput;
  /** Amounts that can't be read, an account twice, a second day; by row. */
  readonly wrong: readonly Refusal[];
}

/** Reads opening balances by account. Refused whole where it is no CSV of these heads. */
export function readBalances(text: string, home: Currency, today: IsoDate): Result<BalancesRead> {
  const read = readCsv(text, BALANCE_HEADS, ['debit', 'credit']);
  if (!read.ok) return read;
  const wrong: Refusal[] = [];
  const balances = new Map<string, { readonly row: number; readonly amount: Minor }>();
  const said = read.value[0] === undefined ? '' : cell(read.value[0], 'date');
  for (const row of read.value) {
    const [account, date] = [cell(row, 'account'), cell(row, 'date')];
    if (date !== said)
      wrong.push({ code: 'invalid', path: `row ${row.row}, date`, wanted: 'same-in-all-rows', found: date });
    const amount = debitLessCredit(row, home, wrong);
    if (balances.has(account)) wrong.push({ code: 'duplicate', path: `row ${row.row}, account`, found: account });
    else balances.set(account, { row: row.row, amount });
  }
  return accept({
    rows: [...balances.values()].map(({ row }) => row),
    input: {
      date: readTypedDate(said, today, today) ?? said,
      balances: [...balances].map(([account, { amount }]) => ({ account, amount })),
    },
    wrong,
  });
}
