import type { Decision, Moment } from '@/core/book/changes';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { filingSides } from '@/core/ledger/posting/filing';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { nextToFile, periodIdOf, spanName } from '@/core/returns/calendar';
import type { Proof } from '@/core/returns/proof';
import { returnOf, statedReturn, type TaxBalance, type TaxPeriod, wholeUnits } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';

export interface FileMaterial {
  readonly registration: Registration;
  readonly balances: readonly TaxBalance[];
  readonly proof: Proof;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
}

/**
 * Files the return of the period that begins on `start`: keeps its figures, moves the tax to tax
 * payable and locks the period. Periods are filed in order, after they have ended, and with a note
 * when the proof names differences.
 */
export function file(material: FileMaterial, start: IsoDate, note: string, moment: Moment): Decision<TaxPeriod> {
  const { registration, balances, proof, chart } = material;
  const span = nextToFile(registration);
  if (registration.filedUntil !== '' && start <= registration.filedUntil)
    return refuse({ code: 'already-filed', path: 'period' });
  if (start !== span.start) return refuse({ code: 'earlier-open', path: 'period', period: spanName(span) });
  if (span.end >= moment.today)
    return refuse({ code: 'not-ended', path: 'period', period: spanName(span), until: span.end });
  if (!proof.holds && note.trim() === '') return refuse({ code: 'unexplained', path: 'note' });

  const id = periodIdOf(registration.id, start);
  const { filingCurrency, rounding } = registration;
  const figures = statedReturn(returnOf(balances), rounding.wholeUnits, filingCurrency);
  // Whole units of another currency can't be told from the ledger, which is kept in the home currency.
  const inWhole = rounding.wholeUnits && filingCurrency === material.homeCurrency;
  const payable = inWhole ? wholeUnits(figures.tax, filingCurrency) : figures.tax;
  const accounts = {
    output: outputAccountOf(registration, chart),
    payable: registration.accounts.payable || accountFor(chart, 'tax-payable'),
  };
  const entryId = moment.newId();
  const posted = entryOf(
    {
      id: entryId,
      date: span.end,
      kind: 'filing',
      text: `Return ${spanName(span)}, ${registration.name}`,
      sourceId: id,
      at: moment.now,
    },
    filingSides(figures.tax, payable, accounts, chart, id),
  );
  const period: TaxPeriod = {
    id,
    registrationId: registration.id,
    ...span,
    filed: { at: moment.now, operator: moment.operator, entryId, figures, note: note.trim() },
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
