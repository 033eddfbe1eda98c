import type { Decision } from '@/core/book/changes';
import type { CustomerRow, ItemRow } from '@/core/book/rows';
import type { PriceList } from '@/core/catalogue/priceList';
import type { DocumentStyle } from '@/core/documents/style';
import { accept, refuse } from '@/core/kernel/result';
import type { BankAccount } from '@/core/parties/bankAccount';

/** Records that may be deleted while nothing uses them, by their table. */
interface Endable {
  customers: CustomerRow;
  items: ItemRow;
  priceLists: PriceList;
  styles: DocumentStyle;
  bankAccounts: BankAccount;
}
export type EndableTable = keyof Endable;

/** Records that may be archived: kept, but not offered any more. */
export type ArchivableTable = 'customers' | 'items' | 'bankAccounts';

/**
 * Takes away a record that nothing uses.
 * @param usedBy name of one thing that uses it; empty when nothing does.
 */
export function deleteRecord<T extends EndableTable>(
  table: T,
  record: Endable[T] | undefined,
  usedBy: string,
): Decision<null> {
  if (record === undefined) return refuse({ code: 'not-found', path: '' });
  if (usedBy !== '') return refuse({ code: 'used', path: '', by: usedBy });
  return accept({
    value: null,
    changes: {
      remove: { [table]: [record.id] },
      audit: { subject: record.name, about: [record.id], before: record },
    },
  });
}

/** Archives a record, or offers it again; documents that name it are as they were. */
export function archiveRecord<T extends ArchivableTable>(
  table: T,
  record: Endable[T] | undefined,
  archived: boolean,
): Decision<null> {
  if (record === undefined) return refuse({ code: 'not-found', path: '' });
  return accept({
    value: null,
    changes: {
      put: { [table]: [{ ...record, archived }] },
      audit: { subject: record.name, about: [record.id], before: record, after: { ...record, archived } },
    },
  });
}
