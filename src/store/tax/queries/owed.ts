import { type Minor, NOTHING, negated, total } from '@/core/kernel/money';
import { type Account, accountFor } from '@/core/ledger/account';
import type { TaxPeriod } from '@/core/returns/return';
import type { OwedReturn, TaxPayment } from '@/core/returns/taxPayment';
import type { WithholdingClaim } from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../../schema';

/** A return with its period and what was paid of it. */
export interface OwedPeriod extends OwedReturn {
  readonly period: TaxPeriod;
  readonly payments: readonly TaxPayment[];
}

/** What the authority of a registration is owed, return by return. */
export interface Owed {
  /** Filed returns, oldest first. */
  readonly returns: readonly OwedPeriod[];
  /** Returns that were paid and then opened again: nothing is payable of them until they are filed again. */
  readonly openedAgain: readonly OwedPeriod[];
  /** Claims of withheld tax. */
  readonly claims: readonly WithholdingClaim[];
  /** Withheld tax that was set against them. */
  readonly setOff: Minor;
}

/** Filed returns of a registration with what their filings posted and what was paid of them. */
export function owedReturns(db: BookDb, registration: Registration, chart: readonly Account[]): Promise<Owed> {
  const account = registration.accounts.payable || accountFor(chart, 'tax-payable');
  return Promise.all([
    db.taxPeriods.where('[registrationId+start]').between([registration.id, ''], [registration.id, '~']).toArray(),
    db.taxPayments.where('registrationId').equals(registration.id).toArray(),
    db.withholdingClaims.where('registrationId').equals(registration.id).toArray(),
  ]).then(([periods, payments, claims]) => {
    const filed = periods.flatMap((period) =>
      period.filed === null ? [] : [{ period, entryId: period.filed.entryId }],
    );
    const paidOf = (id: string) => payments.filter(({ periodId }) => periodId === id);
    return db.journalLines
      .where('entryId')
      .anyOf(filed.map(({ entryId }) => entryId))
      .toArray()
      .then((lines) => {
        const own = lines.filter((line) => line.account === account);
        return {
          returns: filed.map(({ period, entryId }) => ({
            period,
            periodId: period.id,
            payable: negated(total(own.filter((line) => line.entryId === entryId).map(({ amount }) => amount))),
            payments: paidOf(period.id),
          })),
          openedAgain: periods
            .filter(({ id, filed }) => filed === null && paidOf(id).length > 0)
            .map((period) => ({ period, periodId: period.id, payable: NOTHING, payments: paidOf(period.id) })),
          claims,
          setOff: total(claims.filter(({ by }) => by === 'set-off').map(({ amount }) => amount)),
        };
      });
  });
}
