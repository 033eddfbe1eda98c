import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { type Account, moneyAccountFor } from '@/core/ledger/account';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { ReceiptPart } from '@/core/settlement/receipt';

/** Money that came in one way, as it is typed; amounts in the currency of the receipt. */
export interface PartInput {
  readonly method: PaymentMethod;
  /** Account it came to; that of the method unless it is given. */
  readonly account?: string;
  readonly amount: Minor;
  /** Of it, what the bank or the card company kept back. */
  readonly charge?: Minor;
  /** What it was worth in home currency, as the bank says; by the rate unless it is given. */
  readonly home?: Minor;
  readonly chequeNumber?: string;
  /** ISO date on the cheque; the day of the receipt unless it is given. */
  readonly chequeDate?: string;
}

interface Reading {
  readonly date: IsoDate;
  readonly worth: (amount: Minor) => Minor;
  readonly chart: readonly Account[];
  /** Tax was withheld, so that no money needs to have come with it. */
  readonly alone: boolean;
}

function refusalsOf(part: PartInput, i: number, all: number, { date, chart }: Reading): readonly Refusal[] {
  const at = (field: string) => `parts[${i}].${field}`;
  const { amount, charge = NOTHING, home, account = '', chequeDate = '' } = part;
  const refusals: Refusal[] = [];
  if (amount <= 0n) refusals.push({ code: 'invalid', path: at('amount'), wanted: 'amount-above-zero' });
  if (charge < 0n || charge > amount) refusals.push({ code: 'invalid', path: at('charge'), wanted: 'charge-within' });
  if (home !== undefined && home <= 0n)
    refusals.push({ code: 'invalid', path: at('home'), wanted: 'amount-above-zero' });
  if (account !== '' && !chart.some(({ code }) => code === account))
    refusals.push({ code: 'unknown', path: at('account'), wanted: 'choose-account-of-chart', found: account });
  if (part.method !== 'cheque' || chequeDate === '') return refusals;
  if (!isIsoDate(chequeDate))
    refusals.push({ code: 'invalid', path: at('chequeDate'), wanted: 'give-a-day', found: chequeDate });
  else if (chequeDate > date && all > 1)
    refusals.push({ code: 'invalid', path: at('chequeDate'), wanted: 'post-dated-alone', found: chequeDate });
  return refusals;
}

/** The parts of a receipt and the day it counts from: that of a cheque dated later, which is then its sole part. */
export function readParts(
  inputs: readonly PartInput[],
  reading: Reading,
): Result<{ readonly parts: readonly ReceiptPart[]; readonly valueDate: IsoDate }> {
  const { date, worth, chart, alone } = reading;
  if (inputs.length === 0 && !alone) return refuse({ code: 'missing', path: 'parts', wanted: 'say-what-came' });
  const refusals = inputs.flatMap((part, i) => refusalsOf(part, i, inputs.length, reading));
  if (refusals.length > 0) return refuse(...refusals);
  const parts = inputs.map(({ method, account = '', amount, charge = NOTHING, home, ...cheque }): ReceiptPart => {
    const day = isIsoDate(cheque.chequeDate) ? cheque.chequeDate : date;
    return {
      method,
      account: account === '' ? moneyAccountFor(chart, method) : account,
      amount,
      charge,
      home: home ?? worth(amount),
      cheque: method === 'cheque' ? { number: cheque.chequeNumber?.trim() ?? '', date: day } : null,
    };
  });
  const days = parts.map(({ cheque }) => cheque?.date ?? date);
  return accept({ parts, valueDate: days.reduce((latest, day) => (day > latest ? day : latest), date) });
}
