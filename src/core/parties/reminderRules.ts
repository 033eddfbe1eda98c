import * as yup from 'yup';
import { readTypedDecimal } from '@/core/kernel/decimal';
import { wanted } from '@/core/kernel/wanted';

/** One reminder after another: so many days after the due date, with a fee or none. */
export interface ReminderLevel {
  readonly days: number;
  /** In home currency, as typed; empty for none. */
  readonly fee: string;
}

/** How customers are reminded of what is overdue. */
export interface ReminderRules {
  /** In order; there are words for three. */
  readonly levels: readonly ReminderLevel[];
  /** Percent a year on what is overdue, as typed; empty for none. */
  readonly interest: string;
  /** What interest and fee rest on, in a few words; printed nowhere by itself. */
  readonly law: string;
}

export const FIRST_REMINDER_RULES: ReminderRules = {
  levels: [
    { days: 7, fee: '' },
    { days: 21, fee: '' },
    { days: 35, fee: '' },
  ],
  interest: '',
  law: '',
};

const amount = (what: 'give-amount' | 'give-percentage') =>
  yup
    .string()
    .defined()
    .test('amount', wanted(what), (v) => {
      const read = v === '' ? null : readTypedDecimal(v);
      return v === '' || (read !== null && !read.startsWith('-'));
    });

export const reminderRulesSchema = yup.object({
  levels: yup
    .array()
    .of(
      yup.object({
        days: yup
          .number()
          .typeError(wanted('give-count'))
          .integer(wanted('give-count'))
          .min(1, wanted('give-count'))
          .defined(),
        fee: amount('give-amount'),
      }),
    )
    .max(3, wanted('three-reminders'))
    .test('rising', wanted('reminders-rise'), (levels) =>
      (levels ?? []).every(({ days }, i, all) => i === 0 || days > (all[i - 1]?.days ?? 0)),
    )
    .defined(),
  interest: amount('give-percentage'),
  law: yup.string().max(200).defined(),
});
