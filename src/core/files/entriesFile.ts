import { type CsvRow, cell } from '@/core/book/columns/columns';
import type { JournalInput } from '@/core/decisions/ledger/journal';
import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, NOTHING } from '@/core/kernel/money';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { typedMoney } from '@/core/kernel/typedMoney';
import type { Account } from '@/core/ledger/account';
import { readCsv } from './csv';

/** Heads of a file of journals: lines of one entry say the same in `entry`. */
export const ENTRY_HEADS = ['entry', 'date', 'text', 'account', 'debit', 'credit'] as const;

/** A journal read from a file, with the rows of its sides; heads are row 1. */
export interface EntryRead {
  readonly rows: readonly number[];
  readonly input: JournalInput;
}

/** Debit less credit of a row, in minor units; what can't be read counts as nothing and is named in `wrong`. */
export function debitLessCredit(row: CsvRow, home: Currency, wrong: Refusal[]): Minor {
  const amountOf = (head: 'debit' | 'credit'): Minor => {
    const amount = typedMoney(cell(row, head), home, `row ${row.row}, ${head}`, NOTHING);
    if (amount.ok) return amount.value;
    wrong.push(...amount.refusals);
    return NOTHING;
  };
  return minus(amountOf('debit'), amountOf('credit'));
}

/**
 * Reads manual journals. Refused whole where it is no CSV of these heads; amounts that can't be read are named in `wrong`, by
 * row.
 */
export function readEntries(
  text: string,
  home: Currency,
): Result<{ readonly entries: readonly EntryRead[]; readonly wrong: readonly Refusal[] }> {
  const read = readCsv(text, ENTRY_HEADS, ['debit', 'credit']);
  if (!read.ok) return read;
  const wrong: Refusal[] = [];
  const entries = [...grouped(read.value, (row) => cell(row, 'entry')).values()].map((rows): EntryRead => {
    const [first] = rows;
    const said = (head: 'date' | 'text') => (first === undefined ? '' : cell(first, head));
    return {
      rows: rows.map(({ row }) => row),
      input: {
        date: said('date'),
        text: said('text'),
        sides: rows.map((row) => ({
          account: cell(row, 'account'),
          amount: debitLessCredit(row, home, wrong),
        })),
      },
    };
  });
  return accept({ entries, wrong });
}

/** A refusal of what was read from rows of a file, at the row that it is about: `sides[2].account` is said of the third. */
export function atRow(rows: readonly number[], refusal: Refusal): Refusal {
  const part = /^\w+\[(\d+)\]\.?(.*)$/.exec(refusal.path);
  const row = part === null ? rows[0] : rows[Number(part[1])];
  const column = part === null ? refusal.path : (part[2] ?? '');
  return { ...refusal, path: [`row ${row}`, OF_ALL_ROWS.has(column) ? '' : column].filter(Boolean).join(', ') };
}

/** What a refusal says of all rows together. */
const OF_ALL_ROWS: ReadonlySet<string> = new Set(['sides', 'balances']);

/** Heads of a file of accounts. */
export const ACCOUNT_HEADS = ['code', 'name', 'type'] as const;

/** Accounts of a chart read from a file, each with its row. */
export function readAccounts(text: string): Result<readonly { readonly row: number; readonly account: Account }[]> {
  const read = readCsv(text, ACCOUNT_HEADS);
  if (!read.ok) return read;
  return accept(
    read.value.map((row) => ({
      row: row.row,
      account: {
        code: cell(row, 'code'),
        name: cell(row, 'name'),
        type: cell(row, 'type') as Account['type'],
        role: '',
      },
    })),
  );
}
