import type { ForeignItem } from '@/core/currency/revaluation';
import type { Currency } from '@/core/kernel/currency';
import { negated } from '@/core/kernel/money';
import type { BookDb } from '../../schema';

/** What is open in other currencies, as it stands, of documents and receipts up to a day. */
export function foreignItems(db: BookDb, home: Currency, until: string): Promise<readonly ForeignItem[]> {
  return Promise.all([
    db.documents
      .where('[isOpen+kind+dueDate]')
      .between([1, ''], [1, '~'])
      .filter(({ content, issueDate }) => content.currency !== home && issueDate <= until)
      .toArray(),
    db.receipts
      .filter(({ isOpen, currency, valueDate }) => isOpen === 1 && currency !== home && valueDate <= until)
      .toArray(),
  ]).then(([documents, receipts]) => [
    ...documents.map(
      ({ id, number, customerName, content, open, openHome }): ForeignItem => ({
        ...{ id, kind: 'document', number, customerName },
        ...{ currency: content.currency, open, openHome },
      }),
    ),
    ...receipts.map(
      ({ id, number, customerName, currency, open, openHome }): ForeignItem => ({
        ...{ id, kind: 'receipt', number, customerName },
        ...{ currency, open: negated(open), openHome: negated(openHome) },
      }),
    ),
  ]);
}
