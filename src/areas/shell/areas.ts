import { BookOpenText, CircleDot, FileText, type LucideIcon, PencilRuler, Percent, WalletMinimal } from 'lucide-react';

export interface Area {
  readonly path: string;
  readonly name: string;
  readonly icon: LucideIcon;
  /** Pressed with Alt. */
  readonly key: string;
}

/** The six areas in the order of the work. */
export const AREAS: readonly Area[] = [
  { path: '/today', name: 'Today', icon: CircleDot, key: '1' },
  { path: '/sales', name: 'Sales', icon: FileText, key: '2' },
  { path: '/receipts', name: 'Receipts', icon: WalletMinimal, key: '3' },
  { path: '/tax', name: 'Tax', icon: Percent, key: '4' },
  { path: '/ledger', name: 'Ledger', icon: BookOpenText, key: '5' },
  { path: '/setup', name: 'Setup', icon: PencilRuler, key: '6' },
];
