import { ANSWERS, answerWords, standingAnswer } from '@/core/delivery/answer';
import type { Transmission } from '@/core/delivery/transmission';
import { dayOf, writeDay } from '@/core/kernel/date';
import type { MarkKind } from '@/ui/Mark';

interface TransmissionMark {
  readonly kind: MarkKind;
  readonly word: string;
}

/** Mark and word for where an e-invoice stands with its receiver. */
export function transmissionMark(transmission: Transmission): TransmissionMark {
  const { phase, receipt, answers, tries } = transmission;
  if (receipt === null) {
    if (phase === 'asks') return { kind: 'wrong', word: 'could not be sent' };
    if (phase === 'closed') return { kind: 'cancelled', word: 'removed from the queue' };
    return { kind: 'closing', word: tries.length === 0 ? 'waits to be sent' : 'is tried again' };
  }
  const standing = standingAnswer(answers);
  if (standing === null) return { kind: 'issued', word: 'sent, not answered' };
  const { words, asks } = ANSWERS[standing.code];
  if (standing.code === 'RE') return { kind: phase === 'asks' ? 'wrong' : 'cancelled', word: words };
  if (asks) return { kind: phase === 'asks' ? 'warning' : 'note', word: words };
  return { kind: standing.code === 'AP' || standing.code === 'PD' ? 'good' : 'issued', word: words };
}

/** Why an e-invoice needs somebody, in one sentence. */
export function transmissionNeed({ receipt, answers, tries }: Transmission): string {
  if (receipt === null) return tries.at(-1)?.words ?? '';
  const standing = standingAnswer(answers);
  return standing === null ? `no answer since ${writeDay(dayOf(receipt.at))}` : answerWords(standing);
}
