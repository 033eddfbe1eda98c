import type { Registration } from '@/core/tax/registration';
import { type Account, accountFor } from '../account';

/** Where a registration's tax is posted. */
export interface TaxPosting {
  readonly outputAccount: string;
  /** Marks the tax lines with the period that reports them. */
  readonly taxPeriodId: string;
}

/** The account that holds tax of unpaid documents on payment basis. */
export function notYetDueAccountOf(registration: Pick<Registration, 'accounts'>, chart: readonly Account[]): string {
  return registration.accounts.notYetDue || accountFor(chart, 'tax-not-yet-due');
}

/** The output tax account of a registration. */
export function outputAccountOf(registration: Pick<Registration, 'accounts'>, chart: readonly Account[]): string {
  return registration.accounts.output || accountFor(chart, 'output-tax');
}
