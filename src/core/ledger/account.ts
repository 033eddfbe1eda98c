import type { PaymentMethod } from '@/core/parties/paymentMethod';

/** What an account is for the statements. */
export type AccountType = 'asset' | 'liability' | 'income' | 'expense' | 'equity';

/** Accounts that actions post to by themselves are found by role, not by code. */
export type AccountRole =
  | ''
  | 'receivables'
  | 'bank'
  | 'cash'
  | 'card'
  | 'output-tax'
  | 'tax-not-yet-due'
  | 'tax-payable'
  | 'withholding-claims'
  | 'withholding-refunds'
  | 'rounding'
  | 'discounts'
  | 'settlement-discounts'
  | 'charges'
  | 'exchange'
  | 'exchange-unrealised'
  | 'deferred-income'
  | 'bank-charges'
  | 'bad-debts'
  | 'opening'
  | 'retained';

export interface Account {
  readonly code: string;
  readonly name: string;
  readonly type: AccountType;
  readonly role: AccountRole;
  /** It is kept with what was posted to it, and offered for nothing new. */
  readonly ended?: boolean;
}

/** Whether an account is offered for what is new. */
export function isOffered({ ended }: Account): boolean {
  return ended !== true;
}

/** The chart a new book begins with. */
export const FIRST_CHART: readonly Account[] = [
  { code: '1000', name: 'Bank', type: 'asset', role: 'bank' },
  { code: '1010', name: 'Cash', type: 'asset', role: 'cash' },
  { code: '1020', name: 'Card payments', type: 'asset', role: 'card' },
  { code: '1100', name: 'Receivables', type: 'asset', role: 'receivables' },
  { code: '1300', name: 'Tax withheld by customers', type: 'asset', role: 'withholding-claims' },
  { code: '1310', name: 'Tax withheld, asked back', type: 'asset', role: 'withholding-refunds' },
  { code: '2200', name: 'Output tax', type: 'liability', role: 'output-tax' },
  { code: '2210', name: 'Tax payable', type: 'liability', role: 'tax-payable' },
  { code: '2220', name: 'Deferred output tax', type: 'liability', role: 'tax-not-yet-due' },
  { code: '2300', name: 'Deferred income', type: 'liability', role: 'deferred-income' },
  { code: '3000', name: 'Owner’s capital', type: 'equity', role: '' },
  { code: '3800', name: 'Retained earnings', type: 'equity', role: 'retained' },
  { code: '3900', name: 'Opening balances', type: 'equity', role: 'opening' },
  { code: '4000', name: 'Sales of goods', type: 'income', role: '' },
  { code: '4100', name: 'Sales of services', type: 'income', role: '' },
  { code: '4200', name: 'Hire income', type: 'income', role: '' },
  { code: '4300', name: 'Repairs', type: 'income', role: '' },
  { code: '4400', name: 'Freight and packaging charged', type: 'income', role: 'charges' },
  { code: '4900', name: 'Discounts allowed', type: 'income', role: 'discounts' },
  { code: '4910', name: 'Settlement discounts', type: 'income', role: 'settlement-discounts' },
  { code: '7900', name: 'Sundry expenses', type: 'expense', role: '' },
  { code: '7910', name: 'Rounding differences', type: 'expense', role: 'rounding' },
  { code: '7920', name: 'Exchange differences', type: 'expense', role: 'exchange' },
  { code: '7925', name: 'Exchange differences, unrealised', type: 'expense', role: 'exchange-unrealised' },
  { code: '7930', name: 'Bank charges', type: 'expense', role: 'bank-charges' },
  { code: '7940', name: 'Bad debts', type: 'expense', role: 'bad-debts' },
];

/** @throws RangeError when the chart lacks the role; the supplied chart holds each once and keeps them. */
export function accountFor(chart: readonly Account[], role: Exclude<AccountRole, ''>): string {
  const account = chart.find((a) => a.role === role);
  if (account === undefined) throw new RangeError(`no account has the role ${role}`);
  return account.code;
}

/** Where money of a method goes unless it is said; a cheque goes to the bank. */
export function moneyAccountFor(chart: readonly Account[], method: PaymentMethod): string {
  return accountFor(chart, method === 'cash' || method === 'card' ? method : 'bank');
}

/** The next code that the chart has free, in steps from one on: 2240 when 2230 is taken, in steps of ten. */
export function freeCode(chart: readonly Account[], from: number, step: number): string {
  const taken = new Set(chart.map((account) => account.code));
  let code = from;
  while (taken.has(String(code))) code += step;
  return String(code);
}
