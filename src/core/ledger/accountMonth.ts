import type { IsoMonth } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';

/** What an account moved by in a month: debits less credits. Kept up with every entry. */
export interface AccountMonth {
  readonly account: string;
  readonly month: IsoMonth;
  readonly amount: Minor;
}
