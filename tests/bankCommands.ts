import { isoDate } from '@/core/kernel/date';
import { type Minor, minor, total } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { acceptMatch, undoMatch } from '@/store/bank/actions/matching';
import { importStatements } from '@/store/bank/actions/statements';
import { suggestFor } from '@/store/bank/queries/suggestions';
import { perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { momentOn, refusalCodes } from './book';
import { type Command, picked, type Running } from './running';
import { statementLine, statementOf } from './statements';

/* What is done with bank lines, for random sequences of everything. */

/** What the bank holds by all lines that it has shown: each statement of these sequences goes on from it. */
async function shownBy(db: BookDb): Promise<Minor> {
  return total((await db.bankLines.toArray()).map(({ amount }) => amount));
}

/** The bank shows a line, and its first suggestion is accepted; null where nothing is suggested. */
export async function acceptNewLine(
  db: BookDb,
  today: string,
  amount: Minor,
  text: string,
): Promise<Result<unknown> | null> {
  const before = await db.bankLines.count();
  const line = statementLine({ date: isoDate(today), amount, text, bankReference: `line ${before}` });
  const input = {
    bankAccountId: 'bank',
    fileName: 'bank',
    format: 'OFX',
    statements: [statementOf([line], { opening: await shownBy(db) })],
  } as const;
  expect((await perform(db, importStatements, input, momentOn(today))).ok).toBe(true);
  const made = (await db.bankLines.toArray()).find(({ bankReference }) => bankReference === line.bankReference);
  const [found] = await suggestFor(db, [made?.id ?? ''], 30);
  const [first] = found?.suggestions ?? [];
  if (first === undefined || made === undefined) return null;
  return perform(db, acceptMatch, { lineId: made.id, target: first.target, agreed: true }, momentOn(today));
}

/** A line of the bank pays a part of an open invoice, all of it or more, and its first suggestion is accepted. */
export class BankLineCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const open = (await db.documents.toArray()).filter(
      ({ kind, open: left, content }) => kind === 'invoice' && left > 0n && content.currency === 'EUR',
    );
    const invoice = picked(open, this.pick);
    if (invoice === undefined) return;
    const amount = minor((invoice.open * BigInt(this.percent)) / 100n);
    if (amount === 0n) return;
    const result = await acceptNewLine(db, today, amount, invoice.number);
    if (result === null) return;
    // A deduction that is expected may be more than is left of what was withheld before.
    if (!result.ok) expect(['stale', 'over-allocated']).toContain(refusalCodes(result)[0]);
  }
  toString = () => `bankLine(${this.pick}, ${this.percent} %)`;
}

/** Undoes what a bank line was matched with. */
export class UndoMatchCommand implements Command {
  constructor(private readonly pick: number) {}
  check = () => true;
  async run(_: unknown, { db, today }: Running) {
    const matched = (await db.bankLines.toArray()).filter(({ matches }) => matches.length > 0);
    const line = picked(matched, this.pick);
    if (line === undefined) return;
    const result = await perform(db, undoMatch, { lineId: line.id }, momentOn(today));
    // Its receipt came back unpaid, or was used since.
    if (!result.ok) expect(['dishonoured', 'used-since']).toContain(refusalCodes(result)[0]);
  }
  toString = () => `undoMatch(${this.pick})`;
}
