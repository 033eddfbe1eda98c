import type { BookContent } from '@/core/book/tables';
import { monthOf } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { total } from '@/core/kernel/money';
import { addToBalances } from '@/core/returns/return';
import { onReceivables } from '@/core/settlement/receipt';
import { vocabularyOf } from './vocabulary';

/** Everything that is kept up beside the truth, worked out from it: rows by table. */
export function derivedRows({
  documents,
  receipts,
  journalLines,
  taxEntries,
}: Pick<BookContent, 'documents' | 'receipts' | 'journalLines' | 'taxEntries'>): Readonly<
  Record<string, readonly object[]>
> {
  const months = grouped(journalLines, ({ account, date }) => `${account}|${monthOf(date)}`);
  const customers = grouped([...documents, ...receipts.map(onReceivables)], ({ customerId }) => customerId);
  return {
    accountMonths: [...months.values()].flatMap((lines) =>
      lines
        .slice(0, 1)
        .map(({ account, date }) => ({ account, month: monthOf(date), amount: total(lines.map((l) => l.amount)) })),
    ),
    customerBalances: [...customers].map(([customerId, own]) => ({
      customerId,
      open: total(own.map(({ openHome }) => openHome)),
    })),
    taxRows: [...grouped(taxEntries, ({ periodId }) => periodId).values()].flatMap((entries) => [
      ...addToBalances([], entries),
    ]),
    vocabulary: vocabularyOf(documents),
  };
}
