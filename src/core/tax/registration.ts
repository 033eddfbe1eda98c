import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { countryCode, dateText, neededText, optionalText } from '@/core/kernel/validate';
import type { PlainWanted } from '@/core/kernel/wanted';
import { wanted } from '@/core/kernel/wanted';
import { taxNumberFault } from './taxNumber';

/** How often a return is due. */
export type Frequency = 'monthly' | 'two-monthly' | 'quarterly' | 'yearly';

export const FREQUENCIES: readonly Frequency[] = ['monthly', 'two-monthly', 'quarterly', 'yearly'];

/** How figures of documents under a registration are rounded. */
export interface RegistrationRounding {
  readonly mode: 'half-up' | 'half-even';
  readonly level: 'document' | 'line';
  /** The return is given in whole units of its currency. */
  readonly wholeUnits: boolean;
  /** Smallest coin for documents at the counter, in currency units such as `0.05`; empty for none. */
  readonly cashStep: string;
}

/** Our registration with one authority. */
export interface Registration {
  readonly id: string;
  /** Short name for ribbons and lists: `Ireland · VAT`. */
  readonly name: string;
  readonly authority: string;
  /** ISO 3166-1 alpha-2 of the authority. */
  readonly country: string;
  /** The territory we are registered in. */
  readonly jurisdictionId: string;
  /** Further jurisdictions whose own taxes we are registered to charge; reported with this registration. */
  readonly alsoIn?: readonly string[];
  /**
   * Sales of goods and digital services to consumers in other member states stay below the yearly threshold of the union
   * (10,000 EUR net, Directive 2006/112/EC art. 59c) and are taxed at home.
   */
  readonly unionSalesAtHome?: boolean;
  /** Our number with the authority, as it prints. */
  readonly number: string;
  /** Day the registration begins; empty for as long as the book knows. */
  readonly from: IsoDate | '';
  /** Last day of the registration; empty while it lasts. */
  readonly until: IsoDate | '';
  readonly frequency: Frequency;
  /** When output tax falls due. */
  readonly basis: 'on-issue' | 'on-payment';
  /** Output tax of debts that are written off is taken back in a return. */
  readonly badDebtRelief: boolean;
  /** Currency the return is given in. */
  readonly filingCurrency: Currency;
  readonly rounding: RegistrationRounding;
  /** Codes of accounts; an output account serves one registration only. */
  readonly accounts: { readonly output: string; readonly notYetDue: string; readonly payable: string };
  /** First day of the first tax period kept in this book. */
  readonly keptFrom: IsoDate;
  /** Last day that is covered by a filed return; empty while nothing is filed. */
  readonly filedUntil: IsoDate | '';
}

const dayOrNothing = (what: PlainWanted) =>
  yup
    .string()
    .defined()
    .test('day', wanted(what), (v) => v === '' || isIsoDate(v));

/** Path of a field, also where the registration is part of a larger form. */
const within = (path: string | undefined, field: string) => (path ? `${path}.${field}` : field);

export const registrationSchema = yup
  .object({
    id: neededText('give-id'),
    name: neededText('give-short-name', 60),
    authority: neededText('give-authority'),
    country: countryCode(),
    jurisdictionId: neededText('give-territory'),
    alsoIn: yup.array().of(yup.string().defined()),
    unionSalesAtHome: yup.boolean(),
    number: neededText('give-registration-number', 30),
    from: dayOrNothing('first-day-or-nothing'),
    until: dayOrNothing('last-day-or-nothing'),
    frequency: yup.string().oneOf(FREQUENCIES, wanted('choose-frequency')).defined(),
    basis: yup.string().oneOf(['on-issue', 'on-payment'], wanted('choose-basis')).defined(),
    badDebtRelief: yup.boolean().defined(),
    filingCurrency: yup.string().oneOf(CURRENCIES, wanted('choose-currency')).defined(),
    rounding: yup.object({
      mode: yup.string().oneOf(['half-up', 'half-even']).defined(),
      level: yup.string().oneOf(['document', 'line']).defined(),
      wholeUnits: yup.boolean().defined(),
      cashStep: optionalText(8).matches(/^(0\.\d*[1-9]\d*|[1-9]\d*)?$/, {
        message: wanted('give-smallest-coin'),
      }),
    }),
    accounts: yup.object({ output: optionalText(12), notYetDue: optionalText(12), payable: optionalText(12) }),
    keptFrom: dateText('give-first-period'),
    filedUntil: yup.string().defined(),
  })
  .test('number', 'number', function number(r) {
    const fault = taxNumberFault(r.country, r.number);
    return fault === null || this.createError({ path: within(this.path, 'number'), message: fault });
  })
  .test('order', wanted('end-not-before-begin'), function order(r) {
    return (
      r.from === '' || r.until === '' || r.from <= r.until || this.createError({ path: within(this.path, 'until') })
    );
  });

/** True while the registration is in force. */
export function isActive(registration: Pick<Registration, 'from' | 'until'>, day: IsoDate): boolean {
  return (
    (registration.from === '' || registration.from <= day) && (registration.until === '' || day <= registration.until)
  );
}
