import * as yup from 'yup';
import { neededText } from '@/core/kernel/validate';

/** What lines of one text are: charges, interest, a regular payment. */
export interface BankRule {
  readonly id: string;
  /** Part of the text or the name, in any letters. */
  readonly contains: string;
  readonly direction: 'in' | 'out';
  /** Code of the account that they are booked to. */
  readonly account: string;
}

export const bankRuleSchema = yup.object({
  id: neededText('give-id'),
  contains: neededText('give-part-of-text', 80),
  direction: yup.string().oneOf(['in', 'out']).defined(),
  account: neededText('choose-account'),
});
