import type { JournalEntry } from '@/core/ledger/entry';
import { routes } from '../shell/routes';

/** Where what is behind an entry can be seen; null for a manual journal, which is its own source. */
export function sourcePath(entry: Pick<JournalEntry, 'kind' | 'sourceId'>): string | null {
  switch (entry.kind) {
    case 'invoice':
    case 'credit-note':
    case 'takings':
    case 'opening':
    case 'cancellation':
    case 'allocation':
    case 'write-off':
    case 'deferral':
      return routes.document(entry.sourceId);
    case 'receipt':
    case 'dishonour':
      return routes.receipt(entry.sourceId);
    case 'refund':
      return routes.record('customers', entry.sourceId);
    case 'filing':
    case 'claim':
    case 'reopening':
    case 'tax-payment':
      return routes.tax;
    case 'revaluation':
      return routes.revaluation;
    case 'closing':
      return routes.years;
    case 'bank-opening':
      return routes.record('bank-accounts', entry.sourceId);
    case 'bank':
      return routes.bankLine(entry.sourceId);
    case 'account-opening':
      return routes.openingBalances;
    case 'journal':
      return null;
  }
}
