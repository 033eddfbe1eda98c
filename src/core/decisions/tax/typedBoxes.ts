import type { Decision } from '@/core/book/changes';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account, AccountRole } from '@/core/ledger/account';
import { periodIdOf, spanName, spanOf } from '@/core/returns/calendar';
import { type ReturnForm, weightInDue } from '@/core/returns/form';
import { formOf } from '@/core/returns/forms';
import type { ReturnBoxes, TaxPeriod } from '@/core/returns/return';
import type { TypedBox } from '@/core/returns/statedForm';
import type { Registration } from '@/core/tax/registration';

export interface TypedBoxesMaterial {
  readonly registration: Registration;
  readonly period: TaxPeriod | undefined;
  readonly before: ReturnBoxes | undefined;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
}

/** Accounts whose balance says something of its own that an amount from another book would spoil. */
const KEPT_APART: ReadonlySet<AccountRole> = new Set(['output-tax', 'tax-payable', 'tax-not-yet-due', 'receivables']);

function faultsOf(
  form: ReturnForm,
  { box, amount, words, account }: TypedBox,
  at: number,
  { registration, chart, homeCurrency }: TypedBoxesMaterial,
): readonly Refusal[] {
  const path = `typed[${at}]`;
  const own = form.boxes.find(({ id }) => id === box);
  const faults: Refusal[] = [];
  if (own?.typed !== true) faults.push({ code: 'invalid', path: `${path}.box`, wanted: 'choose-box', found: box });
  if (amount === NOTHING) faults.push({ code: 'missing', path: `${path}.amount`, wanted: 'give-amount' });
  if (words.trim() === '') faults.push({ code: 'missing', path: `${path}.words`, wanted: 'say-where-from' });
  if (account === '') return faults;
  const known = chart.find(({ code }) => code === account);
  if (known === undefined || KEPT_APART.has(known.role))
    faults.push({ code: 'unknown', path: `${path}.account`, wanted: 'choose-account', found: account });
  else if (registration.filingCurrency !== homeCurrency || weightInDue(form, box) === 0)
    faults.push({ code: 'invalid', path: `${path}.account`, wanted: 'no-account-here' });
  return faults;
}

/**
 * Keeps what was typed into the boxes of a return that is not filed: amounts of other books, and adjustments, each with a
 * word on where it comes from. Those with an account are posted as the return is filed, others stand on the form alone.
 */
export function keepTypedBoxes(
  material: TypedBoxesMaterial,
  start: string,
  typed: readonly TypedBox[],
): Decision<ReturnBoxes> {
  const { registration, period, before } = material;
  const form = formOf(registration);
  if (form === null || !isIsoDate(start)) return refuse({ code: 'not-found', path: 'period' });
  if (period?.filed) return refuse({ code: 'already-filed', path: 'period' });
  const faults = typed.flatMap((one, at) => faultsOf(form, one, at, material));
  if (faults.length > 0) return refuse(...faults);
  const span = spanOf(registration.frequency, start);
  const value: ReturnBoxes = {
    id: periodIdOf(registration.id, span.start),
    registrationId: registration.id,
    typed: typed.map((one) => ({ ...one, words: one.words.trim() })),
  };
  return accept({
    value,
    changes: {
      put: { returnBoxes: [value] },
      audit: {
        subject: `${registration.name} ${spanName(span)}`,
        about: [value.id],
        before: before?.typed ?? [],
        after: value.typed,
      },
    },
  });
}
