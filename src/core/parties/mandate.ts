import * as yup from 'yup';
import { optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { isIban } from './iban';

/** A customer's leave to collect from an account of theirs. Both empty: there is none. */
export interface Mandate {
  /** Unique reference of the mandate, as the customer signed it. */
  readonly reference: string;
  /** The account that is collected from. */
  readonly iban: string;
}

export const NO_MANDATE: Mandate = { reference: '', iban: '' };

export const mandateSchema = yup
  .object({
    reference: optionalText(35),
    iban: optionalText(42).test('iban', wanted('iban-of-mandate'), (v) => v.trim() === '' || isIban(v)),
  })
  .test('both', wanted('both-reference-and-account'), function both(v) {
    if ((v.reference.trim() === '') === (v.iban.trim() === '')) return true;
    return this.createError({ path: `${this.path}.${v.iban.trim() === '' ? 'iban' : 'reference'}` });
  });
