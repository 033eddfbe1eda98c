import { type IsoDate, writeDate } from '@/core/kernel/date';
import { NOTHING, total } from '@/core/kernel/money';
import { discountDoubt } from '@/core/settlement/discount';
import { expectedWith } from '@/core/settlement/expected';
import type { Debt } from '@/core/settlement/proposal';
import type { Registration } from '@/core/tax/registration';
import type { ReadReceipt } from './typedReceipt';

const DOUBTS = {
  late: 'the discount was offered until an earlier date',
  'too-high': 'the discount is more than was offered',
  'not-offered': 'no discount was offered',
} as const;

type Settling = ReadReceipt['input']['to'][number];

/** What should be looked at before one document is settled so. */
function checksOf(one: Settling, debt: Debt, on: IsoDate, filed: string): readonly string[] {
  const { content } = debt.document;
  const withheld = one.withheld ?? [];
  const kept = total(withheld.map(({ amount }) => amount));
  // What closes a document whole, discount and difference too, is expected to keep back all that is left.
  const settling = total([one.money, kept, one.discount ?? NOTHING, one.difference?.amount ?? NOTHING]);
  const expected = total(expectedWith(debt.document, settling, debt.withheld).map((e) => e.amount));
  const doubt = discountDoubt(debt.document, one.discount ?? NOTHING, on);
  const certified = (content.withholding ?? []).filter(({ certificate }) => certificate).map(({ id }) => id);
  const late = content.basis === 'on-payment' && filed !== '' && on <= filed;
  return [
    ...(doubt === null ? [] : [DOUBTS[doubt]]),
    ...(kept > expected ? ['more is withheld than expected'] : []),
    ...(withheld.some(({ typeId }) => certified.includes(typeId))
      ? ['ask for the certificate of what is withheld']
      : []),
    ...(late ? ['its period is filed; the tax that becomes due goes into the next one'] : []),
  ];
}

/** What should be looked at before a receipt is recorded, in words. */
export function receiptChecks(
  { input }: ReadReceipt,
  debts: readonly Debt[],
  today: IsoDate,
  valueDate: IsoDate,
  registrations: readonly Pick<Registration, 'id' | 'filedUntil'>[],
): readonly string[] {
  const postDated =
    valueDate > today ? [`Post-dated: it counts from ${writeDate(valueDate)}, with its entries and its tax.`] : [];
  const ofDocuments = input.to.flatMap((one) => {
    const debt = debts.find(({ document }) => document.id === one.documentId);
    if (debt === undefined) return [];
    const { registrationId } = debt.document.content;
    const filed = registrations.find(({ id }) => id === registrationId)?.filedUntil ?? '';
    return checksOf(one, debt, valueDate, filed).map((words) => `${one.number}: ${words}.`);
  });
  return [...postDated, ...ofDocuments];
}
