import { BookOpenText, CircleDot, FileText, type LucideIcon, PencilRuler, Percent, WalletMinimal } from 'lucide-react';
import { routes } from './routes';

export interface Area {
  readonly path: string;
  readonly name: string;
  readonly icon: LucideIcon;
  /** Pressed with Alt. */
  readonly key: string;
}

/** The six areas in the order of the work. */
export const AREAS: readonly Area[] = [
  { path: routes.today, name: 'Today', icon: CircleDot, key: '1' },
  { path: routes.sales, name: 'Sales', icon: FileText, key: '2' },
  { path: routes.receipts, name: 'Receipts', icon: WalletMinimal, key: '3' },
  { path: routes.tax, name: 'Tax', icon: Percent, key: '4' },
  { path: routes.ledger, name: 'Ledger', icon: BookOpenText, key: '5' },
  { path: routes.setup, name: 'Setup', icon: PencilRuler, key: '6' },
];
