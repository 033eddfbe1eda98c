import { signed } from '@/core/documents/content';
import type { IndexColumnName } from '@/core/documents/documentFilter';
import type { IssuedDocument } from '@/core/documents/issued';
import { stateWord } from '@/core/documents/stateWord';
import type { IsoDate } from '@/core/kernel/date';
import { writeMoney } from '@/core/kernel/money';
import { writeCsv } from './csv';

/** What each column of the index says of a document, as plain text for other programs. */
const CELLS: Readonly<Record<IndexColumnName, (document: IssuedDocument, today: IsoDate) => string>> = {
  customer: (d) => d.customerName,
  issued: (d) => d.issueDate,
  due: (d) => d.dueDate,
  state: stateWord,
  open: (d) => writeMoney(d.open, d.content.currency),
  reference: (d) => [d.content.buyerReference, d.content.orderNumber].filter(Boolean).join(' / '),
  tags: (d) => d.tags.join(', '),
  period: (d) => d.periodId.split('|')[1] ?? '',
};

/**
 * Documents as CSV: kind and number, the columns that are shown, then net, tax, total and currency as
 * decimals. Credit notes count down; states are those of a day.
 */
export function documentsCsv(
  documents: readonly IssuedDocument[],
  columns: readonly IndexColumnName[],
  today: IsoDate,
): string {
  const heads = ['kind', 'number', ...columns, 'net', 'tax', 'total', 'currency'];
  const rows = documents.map((document) => {
    const { content, figures } = document;
    const { net, taxAmount, payable } = figures.totals;
    const amounts = [net, taxAmount, payable].map((amount) => writeMoney(signed(content, amount), content.currency));
    return [
      document.kind,
      document.number,
      ...columns.map((column) => CELLS[column](document, today)),
      ...amounts,
      content.currency,
    ];
  });
  return writeCsv(heads, rows);
}
