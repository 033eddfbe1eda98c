import * as yup from 'yup';
import type { IsoDate } from '@/core/kernel/date';
import { countryCode, dateText, neededText } from '@/core/kernel/validate';

/** How often a return is due. */
export type Frequency = 'monthly' | 'two-monthly' | 'quarterly' | 'yearly';

export const FREQUENCIES: readonly Frequency[] = ['monthly', 'two-monthly', 'quarterly', 'yearly'];

/** Our registration with one authority. */
export interface Registration {
  readonly id: string;
  /** Short name for ribbons and lists: `Ireland · VAT`. */
  readonly name: string;
  readonly authority: string;
  /** ISO 3166-1 alpha-2 of the authority. */
  readonly country: string;
  /** Our number with the authority, as it prints. */
  readonly number: string;
  readonly frequency: Frequency;
  /** When output tax falls due. */
  readonly basis: 'on-issue';
  /** First day of the first tax period kept in this book. */
  readonly keptFrom: IsoDate;
  /** Last day that is covered by a filed return; empty while nothing is filed. */
  readonly filedUntil: IsoDate | '';
}

export const registrationSchema = yup.object({
  id: neededText('an id'),
  name: neededText('a short name, such as Ireland · VAT', 60),
  authority: neededText('the name of the authority'),
  country: countryCode(),
  number: neededText('the registration number', 30),
  frequency: yup.string().oneOf(FREQUENCIES, 'Choose how often a return is due.').defined(),
  basis: yup.string().oneOf(['on-issue']).defined(),
  keptFrom: dateText('Give the first day of the first tax period to keep here.'),
  filedUntil: yup.string().defined(),
});
