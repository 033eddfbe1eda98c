import type { FrozenWithholding } from '@/core/documents/content';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import { type Minor, minor, minus, NOTHING, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Withheld } from './withholding';

/** What a customer is expected to keep back of a document, by type, in the document's currency. */
export interface ExpectedWithholding {
  readonly type: FrozenWithholding;
  readonly amount: Minor;
}

type Expecting = Pick<IssuedDocument, 'content' | 'figures' | 'open' | 'credited'>;

/** What the rules at issue expect to be kept back when the document is paid, all of it. */
export function expectedOnPayment({
  content,
  figures,
}: Pick<Expecting, 'content' | 'figures'>): readonly ExpectedWithholding[] {
  return (content.withholding ?? []).flatMap((type) => {
    const amount = figures.withholding.find(({ id }) => id === type.id)?.amount ?? NOTHING;
    return type.when === 'on-payment' && amount !== NOTHING ? [{ type, amount }] : [];
  });
}

/**
 * What is expected to be kept back with a payment that settles `settling` of the document, money and tax together: R in
 * proportion to what is owed; the payment that settles all that is open takes all that was not kept back yet, less the
 * proportion of what credit notes took back.
 */
export function expectedWith(
  document: Expecting,
  settling: Minor,
  withheld: readonly Pick<Withheld, 'typeId' | 'amount' | 'voidOn'>[],
): readonly ExpectedWithholding[] {
  const owed = owedOf(document.content, document.figures);
  if (owed <= 0n || settling <= 0n) return [];
  return expectedOnPayment(document).flatMap(({ type, amount }) => {
    const before = total(withheld.flatMap((w) => (w.typeId === type.id && w.voidOn === '' ? [w.amount] : [])));
    const inProportion = (part: Minor) => minor(halfUp({ n: amount * part, d: owed }));
    const left = minus(minus(amount, inProportion(document.credited)), before);
    const step = inProportion(settling);
    const part = settling >= document.open || step > left ? left : step;
    return part > 0n ? [{ type, amount: part }] : [];
  });
}
