import type { Decision, Moment } from '@/core/book/changes';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate, laterOf } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf, type JournalLine } from '@/core/ledger/entry';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { taxPaymentSides } from '@/core/ledger/posting/taxPayment';
import { spanName } from '@/core/returns/calendar';
import type { TaxPeriod } from '@/core/returns/return';
import { type OwedReturn, payableNow, type TaxPayment } from '@/core/returns/taxPayment';
import type { Registration } from '@/core/tax/registration';

export interface PayTaxInput {
  readonly registrationId: string;
  /** First day of the period. */
  readonly start: string;
  /** ISO date. */
  readonly date: string;
  /** What of the return is settled, in home currency, above zero also where the authority pays it back. */
  readonly amount: Minor;
  readonly penalty?: Minor;
  readonly interest?: Minor;
  /** Accounts of the charges; bank charges unless it is given. */
  readonly chargesAccount?: string;
  /** Code of the account that the money leaves or reaches; the bank unless it is given. */
  readonly account?: string;
  /** What left or reached the account without the charges, where that is another sum, as by another rate of exchange. */
  readonly money?: Minor;
  readonly reference?: string;
}

export interface PayTaxMaterial {
  readonly registration: Registration;
  readonly period: TaxPeriod;
  /** The return that is paid. */
  readonly owed: OwedReturn;
  /** Every filed return of the registration, that one among them. */
  readonly all: readonly OwedReturn[];
  /** Withheld tax set against them, in home currency. */
  readonly setOff: Minor;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
}

function refusalsOf(input: PayTaxInput, { period, owed, all, setOff, chart, homeCurrency }: PayTaxMaterial): Refusal[] {
  const { date, amount, money = amount, penalty = NOTHING, interest = NOTHING, account, chargesAccount } = input;
  const refusals: Refusal[] = [];
  if (!isIsoDate(date)) refusals.push({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  for (const [path, code] of [
    ['account', account],
    ['chargesAccount', chargesAccount],
  ] as const)
    if (code !== undefined && !chart.some((one) => one.code === code))
      refusals.push({ code: 'unknown', path, wanted: 'choose-account', found: code });
  if (amount <= 0n) refusals.push({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  else if (money <= 0n) refusals.push({ code: 'invalid', path: 'money', wanted: 'amount-above-zero' });
  if (penalty < 0n || interest < 0n)
    refusals.push({ code: 'invalid', path: penalty < 0n ? 'penalty' : 'interest', wanted: 'give-amount' });
  const now = payableNow(owed, all, setOff);
  const left = now < 0n ? negated(now) : now;
  if (amount > left)
    refusals.push({ code: 'over-paid', path: 'amount', left, currency: homeCurrency, period: spanName(period) });
  return refusals;
}

/**
 * Pays the authority for a filed return, in whole or part, with what it charges; or takes back what it owes where the return
 * came out below zero. Refused for an open period and beyond what is left.
 */
export function payTax(material: PayTaxMaterial, input: PayTaxInput, moment: Moment): Decision<TaxPayment> {
  const { registration, period, owed, chart } = material;
  if (period.filed === null) return refuse({ code: 'not-filed', path: 'period', period: spanName(period) });
  const refusals = refusalsOf(input, material);
  const { date, penalty = NOTHING, interest = NOTHING, reference = '' } = input;
  if (refusals.length > 0 || !isIsoDate(date)) return refuse(...refusals);
  const back = owed.payable < 0n;
  const turned = (amount: Minor) => (back ? negated(amount) : amount);
  const chargesAccount = input.chargesAccount ?? accountFor(chart, 'bank-charges');
  const charges = (
    [
      ['penalty', penalty],
      ['interest', interest],
    ] as const
  ).flatMap(([kind, amount]) => (amount === NOTHING ? [] : [{ kind, account: chargesAccount, amount }]));
  const id = moment.newId();
  const entryId = moment.newId();
  const paid: TaxPayment = {
    id,
    registrationId: registration.id,
    periodId: period.id,
    date,
    amount: turned(input.amount),
    charges,
    account: input.account ?? accountFor(chart, 'bank'),
    money: plus(turned(input.money ?? input.amount), total(charges.map(({ amount }) => amount))),
    reference: reference.trim(),
    entryId,
    undone: null,
  };
  const text = `${back ? 'Refund of' : 'Payment of'} return ${spanName(period)}, ${registration.name}`;
  const payable = registration.accounts.payable || accountFor(chart, 'tax-payable');
  const posted = entryOf(
    { id: entryId, date, kind: 'tax-payment', text, sourceId: period.id, at: moment.now },
    taxPaymentSides(paid, payable, chart),
  );
  return accept({
    value: paid,
    changes: {
      add: { taxPayments: [paid], journal: [posted.entry], journalLines: posted.lines },
      audit: {
        subject: `${registration.name} ${spanName(period)}`,
        about: [period.id, paid.id],
        after: { amount: paid.amount, money: paid.money },
      },
    },
  });
}

/** Takes a payment back, as it was entered wrongly: its entry is mirrored on the day it was undone, never before its own. */
export function undoTaxPayment(
  payment: TaxPayment,
  lines: readonly JournalLine[],
  date: string,
  moment: Moment,
): Decision<null> {
  if (payment.undone !== null) return refuse({ code: 'not-found', path: 'id' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const on = laterOf(date, payment.date);
  const text = 'Payment to the authority undone';
  const entryId = moment.newId();
  const posted = entryOf(
    { id: entryId, date: on, kind: 'tax-payment', text, sourceId: payment.periodId, at: moment.now },
    reversalSides(lines, text),
  );
  return accept({
    value: null,
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines },
      put: { taxPayments: [{ ...payment, undone: { on, entryId } }] },
      audit: { subject: text, about: [payment.periodId, payment.id], before: payment },
    },
  });
}
