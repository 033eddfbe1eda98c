import { exponentOf } from '@/core/kernel/currency';
import { daysBetween } from '@/core/kernel/date';
import { tenTo } from '@/core/kernel/decimal';
import { total } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import { needsReason } from '@/core/tax/taxCode';
import { bookFigures } from '../bookFigures';
import type { Content } from '../content';

/** What rules may ask of a document. Texts hold when they are not empty, figures when they are not 0. */
export interface Facts {
  readonly number: string;
  readonly 'seller.name': string;
  readonly 'seller.address': string;
  readonly 'seller.taxNumber': string;
  readonly 'seller.legalId': string;
  readonly 'seller.iban': string;
  readonly 'buyer.name': string;
  readonly 'buyer.address': string;
  readonly 'buyer.taxNumber': string;
  /** Names of codes that charge nothing and must say why, but do not. */
  readonly unexplained: string;
  /** Names of codes that say in words why they charge nothing. */
  readonly explained: string;
  /** Names of codes under which the customer accounts for the tax, by reverse charge or acquisition. */
  readonly customerAccounts: string;
  /** Names of codes for goods that leave the country. */
  readonly leaves: string;
  readonly undescribed: number;
  readonly withoutQuantity: number;
  readonly foreign: number;
  readonly homeTax: number;
  readonly taxed: number;
  /** Days from the tax point to the issue date; below 0 when the tax point comes later. */
  readonly daysToTaxPoint: number;
  /** How far the two are apart, in words. */
  readonly apart: string;
  /** Days from the tax point to the issue date; 0 when it is issued before. */
  readonly daysLate: number;
  readonly correction: number;
  readonly reason: string;
  readonly paidAtOnce: number;
  readonly delivery: string;
  readonly abroad: number;
  /** Total with tax in home currency, whole units cut. */
  readonly grossHome: number;
}

export type FactName = keyof Facts;

const flag = (holds: boolean): number => (holds ? 1 : 0);

/** The facts of a document. */
export function factsOf(content: Content, figures: CalcResult): Facts {
  const { seller, buyer, taxes, lines } = content;
  const named = (holds: (category: (typeof taxes)[number]) => boolean) =>
    taxes
      .filter(holds)
      .map((tax) => tax.name)
      .join(', ');
  const days = daysBetween(content.taxPoint, content.issueDate);
  const home = bookFigures(content, figures);
  const taxed = total(figures.groups.map((group) => group.taxAmount));
  return {
    number: content.number,
    'seller.name': seller.name.trim(),
    'seller.address': seller.address.city.trim(),
    'seller.taxNumber': seller.taxNumber.trim(),
    'seller.legalId': seller.legalId.trim(),
    'seller.iban': seller.iban.trim() || (seller.local?.number ?? ''),
    'buyer.name': buyer.name.trim(),
    'buyer.address': buyer.address.city.trim(),
    'buyer.taxNumber': buyer.taxNumber.trim(),
    unexplained: named((tax) => needsReason(tax.category) && tax.legend === ''),
    explained: named((tax) => needsReason(tax.category) && tax.legend !== ''),
    customerAccounts: named(({ category }) => category === 'AE' || category === 'K'),
    leaves: named(({ category }) => category === 'G' || category === 'K'),
    undescribed: lines.filter((line) => line.description.trim() === '').length,
    withoutQuantity: lines.filter((line) => /^-?0(?:\.0+)?$/.test(line.quantity)).length,
    foreign: flag(content.home !== undefined),
    homeTax: flag(figures.home !== undefined),
    taxed: flag(taxed !== 0n),
    daysToTaxPoint: days,
    apart: `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`,
    daysLate: Math.max(0, days),
    correction: flag(content.corrects !== undefined),
    reason: content.reason ?? '',
    paidAtOnce: flag(content.paidBy !== undefined),
    delivery: content.delivery?.city ?? '',
    abroad: flag(buyer.address.country !== seller.address.country),
    grossHome: Number(home.gross / tenTo(exponentOf(home.currency))),
  };
}
