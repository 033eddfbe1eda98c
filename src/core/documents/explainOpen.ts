import { minor, minus, NOTHING, negated } from '@/core/kernel/money';
import type { WorkingStep } from '@/core/tax/workings';
import { type IssuedDocument, owedHomeOf, owedOf } from './issued';

type Settled = Pick<
  IssuedDocument,
  'content' | 'figures' | 'open' | 'openHome' | 'received' | 'credited' | 'cancelled'
>;

/**
 * How what is open of a document came about, in its own currency (`open`) or in home currency
 * (`openHome`). Signed as in the customer's account: what we owe is below zero.
 */
export function explainOpen(document: Settled, key: 'open' | 'openHome'): readonly WorkingStep[] {
  const { content, figures, received, credited, cancelled } = document;
  const step = (words: string, amount: WorkingStep['amount'], tone: WorkingStep['tone'] = 'step'): WorkingStep => ({
    words,
    amount,
    tone,
  });
  const home = key === 'openHome';
  const owed = home ? owedHomeOf(content, figures) : owedOf(content, figures);
  const open = home ? document.openHome : document.open;
  const gone = minus(owed, open);
  const parts =
    cancelled !== null
      ? [step('cancelled', negated(owed))]
      : home
        ? [step('settled, at the rate of the document', negated(gone))]
        : [step('received', negated(received)), step('credited or set off', negated(credited))];
  const otherwise = home || cancelled !== null ? NOTHING : minor(gone - received - credited);
  return [
    step('owed when issued', owed),
    ...parts.filter((part) => part.amount !== 0n),
    ...(otherwise === 0n ? [] : [step('settled when it was issued', negated(otherwise))]),
    step('still open', open, 'sum'),
  ];
}
