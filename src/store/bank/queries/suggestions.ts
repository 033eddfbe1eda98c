import type { BankLine } from '@/core/bank/bankLine';
import { openOf } from '@/core/bank/bankLine';
import { MatchIndex } from '@/core/bank/matchIndex';
import { type Suggestion, suggest } from '@/core/bank/suggest';
import { addDays } from '@/core/kernel/date';
import type { BookDb } from '../../schema';
import { matchMaterial } from './matchMaterial';

export interface SuggestedLine {
  readonly lineId: string;
  readonly suggestions: readonly Suggestion[];
}

/**
 * What lines of one account may be, each by itself; of a line that is matched in part, what is left of it. `days` is how far
 * movements of the book may lie from a line.
 */
export async function suggestFor(
  db: BookDb,
  lineIds: readonly string[],
  days: number,
): Promise<readonly SuggestedLine[]> {
  const lines = (await db.bankLines.bulkGet([...lineIds])).flatMap((line): readonly BankLine[] =>
    line === undefined ? [] : [line],
  );
  const [first] = lines;
  const account = first === undefined ? undefined : await db.bankAccounts.get(first.bankAccountId);
  if (first === undefined || account === undefined) return [];
  const dates = lines.map(({ date }) => date).sort();
  const from = addDays(dates[0] ?? first.date, -days);
  const until = addDays(dates.at(-1) ?? first.date, days);
  const index = new MatchIndex(await matchMaterial(db, account, { from, until }));
  return lines.map((line) => ({
    lineId: line.id,
    suggestions: suggest({ ...line, amount: openOf(line) }, index, { days }),
  }));
}
