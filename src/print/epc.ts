import { create } from 'qrcode';
import type { Content } from '@/core/documents/content';
import { writeMoney } from '@/core/kernel/money';
import { compactIban } from '@/core/parties/iban';
import type { CalcResult } from '@/core/tax/calcTypes';

/** Largest amount of a credit transfer in the code: 999 999 999.99 EUR. */
const LARGEST_AMOUNT = 99_999_999_999n;

/**
 * The text of a payment code that banking apps read: EPC069-12, version 002. Null where it can't say
 * it: other currencies than the euro, no account, nothing to pay.
 */
export function paymentCode(content: Content, figures: CalcResult): string | null {
  const { seller, currency, number } = content;
  const { expectedCash } = figures.totals;
  const iban = compactIban(seller.iban);
  if (currency !== 'EUR' || iban === '' || expectedCash <= 0n || expectedCash > LARGEST_AMOUNT) return null;
  const name = seller.name.slice(0, 70);
  const amount = `EUR${writeMoney(expectedCash, currency)}`;
  return ['BCD', '002', '1', 'SCT', seller.bic, name, iban, amount, '', '', number.slice(0, 140)].join('\n');
}

/** The squares of a code, row by row; error correction M, as the guideline asks. */
export function codeSquares(text: string): { readonly size: number; readonly dark: (x: number, y: number) => boolean } {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  return { size: modules.size, dark: (x, y) => modules.get(y, x) === 1 };
}
