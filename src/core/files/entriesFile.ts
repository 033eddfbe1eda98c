import { type CsvRow, cell } from '@/core/book/columns/columns';
import type { JournalInput } from '@/core/decisions/ledger/journal';
import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { minor, NOTHING } from '@/core/kernel/money';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import type { Account } from '@/core/ledger/account';
import { readCsv } from './csv';

/** Heads of a file of journals: lines of one entry say the same in `entry`. */
export const ENTRY_HEADS = ['entry', 'date', 'text', 'account', 'debit', 'credit'] as const;

/** A journal read from a file, with the rows of its sides; heads are row 1. */
export interface EntryRead {
  readonly rows: readonly number[];
  readonly input: JournalInput;
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
  const amountOf = (row: CsvRow, head: 'debit' | 'credit') => {
    const typed = cell(row, head);
    const amount = typed === '' ? NOTHING : readTypedMoney(typed, home);
    if (amount === null)
      wrong.push({
        code: 'invalid',
        path: `row ${row.row}, ${head}`,
        wanted: { what: 'money-such-as', sample: moneySample(home) },
        found: typed,
      });
    return amount ?? NOTHING;
  };
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
          amount: minor(amountOf(row, 'debit') - amountOf(row, 'credit')),
        })),
      },
    };
  });
  return accept({ entries, wrong });
}

/** A refusal of a journal, at the row of the file that it is about. */
export function atRow({ rows }: EntryRead, refusal: Refusal): Refusal {
  const side = /^sides\[(\d+)\]\.?(.*)$/.exec(refusal.path);
  const row = side === null ? rows[0] : rows[Number(side[1])];
  const column = side === null ? refusal.path : (side[2] ?? '');
  return { ...refusal, path: [`row ${row}`, column === 'sides' ? '' : column].filter(Boolean).join(', ') };
}

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
