import { writeMoney } from '@/core/kernel/money';
import type { Business } from '@/core/parties/business';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { Content } from './content';
import { owedOf } from './issued';

/**
 * The address at which an invoice is paid by card: the page of the business, with number, amount (currency units) and
 * currency. Empty where there is no page, where nothing is owed, or where it is collected or paid at once.
 */
export function payLinkOf(content: Content, figures: CalcResult, { cards }: Pick<Business, 'cards'>): string {
  const { kind, number, currency, debit, paidBy } = content;
  const page = cards?.page.trim() ?? '';
  const owed = owedOf(content, figures);
  if (page === '' || kind !== 'invoice' || debit !== undefined || paidBy !== undefined || owed <= 0n) return '';
  const query = [
    ['number', number],
    ['amount', writeMoney(owed, currency)],
    ['currency', currency],
  ].map(([name, value]) => `${name}=${encodeURIComponent(value ?? '')}`);
  return `${page}${page.includes('?') ? '&' : '?'}${query.join('&')}`;
}
