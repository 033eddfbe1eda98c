import 'fake-indexeddb/auto';
import { writeMoney } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { type BookCheck, bookHolds } from '@/core/returns/bookProof';
import { wordRefusal } from '@/core/wording/refusals';
import { loadBook } from '@/store/load';
import { proveBook } from '@/store/tax/queries/proveBook';
import { openBookFile } from './bookFile';

const say = (output: unknown) => process.stdout.write(`${JSON.stringify(output)}\n`);

/** A file that opens but does not fit itself is a book that does not hold; any other that is refused can't be read. */
function refused(refusals: readonly Refusal[]): 1 | 2 {
  const [first] = refusals;
  const words = first === undefined ? 'cannot be read' : wordRefusal(first);
  // What does not fit the sums of the file itself was cut or changed on its way.
  const isCut = first?.code !== 'damaged' || first.path === '' || /^(?:tables\/|manifest)/.test(first.path);
  if (isCut) {
    say({ error: { path: first?.path ?? '', message: words } });
    return 2;
  }
  const differences = refusals.map((one) => ({ subject: one.path, cause: wordRefusal(one), amount: null }));
  say({ holds: false, checks: [{ check: 'file', holds: false, expected: null, found: null, differences }] });
  return 1;
}

/**
 * Proves a book file whole and prints what came of each check. Returns the exit code: 0 when all hold, 1 when not, 2 for a
 * file that can't be read.
 */
export async function runProve(file: string): Promise<0 | 1 | 2> {
  const found = await openBookFile(file);
  if (found.kind === 'unreadable') {
    say({ error: { path: '', message: found.words } });
    return 2;
  }
  if (found.kind === 'refused') return refused(found.refusals);
  const { db } = found;
  const { business } = await loadBook(db);
  const { homeCurrency } = business;
  const money = (amount: Parameters<typeof writeMoney>[0]) => writeMoney(amount, homeCurrency);
  const shown = ({ check, holds, compared, differences }: BookCheck) => ({
    check,
    holds,
    expected: compared === null ? null : money(compared.expected),
    found: compared === null ? null : money(compared.found),
    differences: differences.map(({ subject, cause, amount }) => ({
      subject,
      cause,
      amount: amount === null ? null : money(amount),
    })),
  });
  const checks = await proveBook(db, () => undefined);
  const holds = bookHolds(checks);
  say({ holds, currency: homeCurrency, checks: checks.map(shown) });
  return holds ? 0 : 1;
}
