import type { BookContent, BookTable } from '@/core/book/tables';
import type { IssuedDocument } from '@/core/documents/issued';
import { monthOf } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { JournalLine } from '@/core/ledger/entry';
import { addToBalances, type TaxBalance } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import { onReceivables, type Receipt } from '@/core/settlement/receipt';
import { addWordCounts, vocabularyOf } from './vocabulary';

/** What is kept up beside the truth, on its way through a book. */
export interface Derivation {
  /** Takes the next rows of a table; those that nothing is derived from are passed over. */
  readonly take: (table: BookTable, rows: readonly unknown[]) => void;
  /** Derived rows by table. */
  readonly rows: () => Readonly<Record<string, readonly object[]>>;
}

/** Works out everything that is kept up beside the truth from its rows, which come in any order and are not kept. */
export function derivation(): Derivation {
  const months = new Map<string, { account: string; month: string; amount: Minor }>();
  const customers = new Map<string, Minor>();
  const taxRows = new Map<string, readonly TaxBalance[]>();
  const words = new Map<string, number>();
  const owed = ({ customerId, openHome }: { readonly customerId: string; readonly openHome: Minor }) =>
    customers.set(customerId, plus(customers.get(customerId) ?? NOTHING, openHome));
  const takers: Partial<Record<BookTable, (rows: readonly never[]) => void>> = {
    documents: (rows: readonly IssuedDocument[]) => {
      for (const row of rows) owed(row);
      addWordCounts(words, rows);
    },
    receipts: (rows: readonly Receipt[]) => {
      for (const row of rows) owed(onReceivables(row));
    },
    journalLines: (rows: readonly JournalLine[]) => {
      for (const { account, date, amount } of rows) {
        const month = monthOf(date);
        const sum = months.get(`${account}|${month}`);
        if (sum === undefined) months.set(`${account}|${month}`, { account, month, amount });
        else sum.amount = plus(sum.amount, amount);
      }
    },
    taxEntries: (rows: readonly TaxEntry[]) => {
      for (const [periodId, entries] of grouped(rows, (entry) => entry.periodId))
        taxRows.set(periodId, addToBalances(taxRows.get(periodId) ?? [], entries));
    },
  };
  return {
    take: (table, rows) => takers[table]?.(rows as readonly never[]),
    rows: () => ({
      accountMonths: [...months.values()],
      customerBalances: [...customers].map(([customerId, open]) => ({ customerId, open })),
      taxRows: [...taxRows.values()].flat(),
      vocabulary: vocabularyOf(words),
    }),
  };
}

/** The same from a book that is at hand. */
export function derivedRows(
  content: Pick<BookContent, 'documents' | 'receipts' | 'journalLines' | 'taxEntries'>,
): Readonly<Record<string, readonly object[]>> {
  const { take, rows } = derivation();
  for (const [table, own] of Object.entries(content)) take(table as BookTable, own);
  return rows();
}
