import { negated } from '@/core/kernel/money';
import type { JournalLine, Side } from '../entry';

/** The entry that takes another one back: the same sides, mirrored. */
export function reversalSides(lines: readonly JournalLine[], text: string): readonly Side[] {
  return lines.map(({ account, amount, taxPeriodId, taxCode, inDocument }) => ({
    account,
    amount: negated(amount),
    text,
    taxPeriodId,
    taxCode,
    ...(inDocument && { inDocument: { ...inDocument, amount: negated(inDocument.amount) } }),
  }));
}
