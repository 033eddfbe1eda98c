import type { Decision, Moment } from '@/core/book/changes';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { filingSides, typedBoxSides } from '@/core/ledger/posting/filing';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { nextToFile, periodIdOf, spanName } from '@/core/returns/calendar';
import { type FormFault, fillIn, formFaults, type ReturnForm, weightInDue } from '@/core/returns/form';
import { formOf } from '@/core/returns/forms';
import type { Proof } from '@/core/returns/proof';
import {
  returnOf,
  statedReturn,
  type TaxBalance,
  type TaxPeriod,
  type TaxReturn,
  wholeUnits,
} from '@/core/returns/return';
import type { StatedForm, TypedBox } from '@/core/returns/statedForm';
import type { Registration } from '@/core/tax/registration';

export interface FileMaterial {
  readonly registration: Registration;
  readonly balances: readonly TaxBalance[];
  readonly proof: Proof;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
  /** What was typed into boxes of its form. */
  readonly typed: readonly TypedBox[];
}

/** The form of a registration filled in, and what it does not state as it should; null where no form comes with the program. */
export function filledForm(
  registration: Registration,
  figures: TaxReturn,
  typed: readonly TypedBox[],
): { readonly form: ReturnForm; readonly stated: StatedForm; readonly faults: readonly FormFault[] } | null {
  const form = formOf(registration);
  if (form === null) return null;
  const { filingCurrency, rounding } = registration;
  return {
    form,
    stated: fillIn(form, figures.rows, typed, filingCurrency, rounding.wholeUnits),
    faults: formFaults(form, figures.rows),
  };
}

type Filled = NonNullable<ReturnType<typeof filledForm>>;

/** What of a typed amount the authority is owed, above zero, or owes. */
const dueOf = (form: ReturnForm, { box, amount }: TypedBox): Minor => minor(amount * BigInt(weightInDue(form, box)));

/** What of the sales goes to tax payable: what the form says is due without what was typed, so that its rounding is posted too. */
function payableOfSales(material: FileMaterial, figures: TaxReturn, filled: Filled | null): Minor {
  const { registration, homeCurrency, typed } = material;
  const { filingCurrency, rounding } = registration;
  // Whole units of another currency can't be told from the ledger, which is kept in the home currency.
  if (filingCurrency !== homeCurrency) return figures.tax;
  if (filled === null || filled.faults.length > 0)
    return rounding.wholeUnits ? wholeUnits(figures.tax, filingCurrency) : figures.tax;
  return minus(filled.stated.due, total(typed.map((one) => dueOf(filled.form, one))));
}

/**
 * Files the return of the period that begins on `start`: keeps its figures, moves the tax to tax
 * payable and locks the period. Periods are filed in order, after they have ended, and with a note
 * when the proof names differences.
 */
export function file(material: FileMaterial, start: IsoDate, note: string, moment: Moment): Decision<TaxPeriod> {
  const { registration, balances, proof, chart, typed } = material;
  const span = nextToFile(registration);
  if (registration.filedUntil !== '' && start <= registration.filedUntil)
    return refuse({ code: 'already-filed', path: 'period' });
  if (start !== span.start) return refuse({ code: 'earlier-open', path: 'period', period: spanName(span) });
  if (span.end >= moment.today)
    return refuse({ code: 'not-ended', path: 'period', period: spanName(span), until: span.end });
  const exact = returnOf(balances);
  const filled = filledForm(registration, exact, typed);
  if ((!proof.holds || (filled?.faults.length ?? 0) > 0) && note.trim() === '')
    return refuse({ code: 'unexplained', path: 'note' });

  const id = periodIdOf(registration.id, start);
  const { filingCurrency, rounding } = registration;
  const figures = statedReturn(exact, rounding.wholeUnits, filingCurrency);
  const payable = payableOfSales(material, figures, filled);
  const accounts = {
    output: outputAccountOf(registration, chart),
    payable: registration.accounts.payable || accountFor(chart, 'tax-payable'),
  };
  const entryId = moment.newId();
  const typedSides =
    filled === null
      ? []
      : typed.flatMap((one) => typedBoxSides(one.account, dueOf(filled.form, one), accounts.payable, id));
  const posted = entryOf(
    {
      id: entryId,
      date: span.end,
      kind: 'filing',
      text: `Return ${spanName(span)}, ${registration.name}`,
      sourceId: id,
      at: moment.now,
    },
    [...filingSides(figures.tax, payable, accounts, chart, id), ...typedSides],
  );
  const period: TaxPeriod = {
    id,
    registrationId: registration.id,
    ...span,
    filed: {
      at: moment.now,
      operator: moment.operator,
      entryId,
      figures,
      note: note.trim(),
      ...(filled !== null && { form: filled.stated }),
      ...(typed.length > 0 && { typed }),
    },
  };
  return accept({
    value: period,
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines },
      put: { taxPeriods: [period], registrations: [{ ...registration, filedUntil: span.end }] },
      audit: { subject: `${registration.name} ${spanName(span)}`, after: { tax: figures.tax, note: note.trim() } },
    },
  });
}
