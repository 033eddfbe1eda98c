import { type BankLine, type BankMatch, matchedWith, openOf } from '@/core/bank/bankLine';
import type { Decision, Moment } from '@/core/book/changes';
import { laterOf } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, type JournalLine } from '@/core/ledger/entry';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { Registration } from '@/core/tax/registration';

/** Whether amounts may be matched with a line: the same way round as it, and not beyond what is open of it. */
export function fitsLine(line: BankLine, amounts: readonly Minor[]): Result<null> {
  const open = openOf(line);
  const sum = total(amounts);
  if (open === NOTHING) return refuse({ code: 'matched', path: '' });
  const beyond = open > 0n ? sum > open || sum <= 0n : sum < open || sum >= 0n;
  return beyond ? refuse({ code: 'over-matched', path: '', left: open }) : accept(null);
}

/** Matches a line with what is there or was just made. */
export function matchLine(line: BankLine | undefined, matches: readonly BankMatch[]): Decision<BankLine> {
  if (line === undefined) return refuse({ code: 'not-found', path: 'lineId' });
  const fits = fitsLine(
    line,
    matches.map(({ amount }) => amount),
  );
  if (!fits.ok) return fits;
  const after = matchedWith(line, [...line.matches, ...matches]);
  return accept({
    value: after,
    changes: {
      put: { bankLines: [after] },
      audit: {
        subject: matches.map(({ number }) => number).join(', '),
        about: [line.id, line.bankAccountId, ...matches.map(({ id }) => id)],
        after: { date: line.date, amount: line.amount, open: openOf(after) },
      },
    },
  });
}

/** What a part of a line is booked to. */
export interface BookedSide {
  /** Code of an account of the chart. */
  readonly account: string;
  /** Of the line, in home currency, with its sign. */
  readonly amount: Minor;
  readonly text?: string;
}

export interface BookLineMaterial {
  readonly line: BankLine | undefined;
  readonly account: BankAccount | undefined;
  readonly chart: readonly Account[];
  readonly registrations: readonly Registration[];
  /** What the amounts of the line are worth in home currency. */
  readonly worth: (amount: Minor) => Minor;
  /** Entries of card payments that it brings, where it is a payout. */
  readonly covers?: readonly string[];
}

/**
 * Books a line, or a part of it, to accounts: charges, interest, a transfer. Customers' money goes by receipts, tax by
 * documents and payments to the authority, so their accounts are not booked to from here.
 */
export function bookLine(sides: readonly BookedSide[], material: BookLineMaterial, moment: Moment): Decision<BankLine> {
  const { line, account, chart, registrations, worth, covers } = material;
  if (line === undefined || account === undefined) return refuse({ code: 'not-found', path: 'lineId' });
  const kept = new Set([
    ...chart.filter(({ role }) => role === 'receivables' || role === 'tax-payable').map(({ code }) => code),
    ...registrations.flatMap((one) => [outputAccountOf(one, chart), one.accounts.payable, one.accounts.notYetDue]),
  ]);
  for (const [i, side] of sides.entries()) {
    const path = `sides[${i}].account`;
    if (!chart.some(({ code }) => code === side.account))
      return refuse({ code: 'unknown', path, wanted: 'choose-account', found: side.account });
    if (kept.has(side.account) || side.account === account.account)
      return refuse({ code: 'invalid', path, wanted: 'account-of-its-own-records', found: side.account });
    if (side.amount === NOTHING) return refuse({ code: 'missing', path: `sides[${i}].amount`, wanted: 'give-amount' });
  }
  const amount = total(sides.map((side) => side.amount));
  const fits = fitsLine(line, [amount]);
  if (!fits.ok) return fits;
  const id = moment.newId();
  const said = line.text.split('\n')[0] || line.name || account.name;
  const posted = entryOf({ id, date: line.date, kind: 'bank', text: said, sourceId: line.id, at: moment.now }, [
    { account: account.account, amount: worth(amount) },
    ...inShares(sides, amount, worth),
  ]);
  const own = { kind: 'booking', id, entryId: id, number: said, amount, made: true } as const;
  const match: BankMatch = covers === undefined ? own : { ...own, covers };
  const matched = matchLine(line, [match]);
  if (!matched.ok) return matched;
  const { value, changes } = matched.value;
  return accept({
    value,
    changes: { ...changes, add: { journal: [posted.entry], journalLines: posted.lines } },
  });
}

/** The other sides in home currency; the last one takes what rounding leaves. */
function inShares(sides: readonly BookedSide[], amount: Minor, worth: BookLineMaterial['worth']) {
  let left = worth(amount);
  return sides.map(({ account, amount: part, text }, i) => {
    const home = i === sides.length - 1 ? left : worth(part);
    left = minus(left, home);
    return { account, amount: negated(home), ...(text && { text }) };
  });
}

/** Undoes bookings that were made from a line, on its day or the first day that a lock leaves; its matches go. */
export function unmatchLine(
  line: BankLine | undefined,
  bookings: readonly (readonly JournalLine[])[],
  moment: Moment,
): Decision<BankLine> {
  if (line === undefined) return refuse({ code: 'not-found', path: 'lineId' });
  if (line.matches.length === 0) return refuse({ code: 'not-matched', path: 'lineId' });
  const posted = bookings.map((lines) =>
    entryOf(
      {
        id: moment.newId(),
        date: laterOf(line.date, lines[0]?.date ?? line.date),
        kind: 'bank',
        text: `Undone: ${lines[0]?.text ?? ''}`.trim(),
        sourceId: line.id,
        at: moment.now,
      },
      reversalSides(lines, 'Undone'),
    ),
  );
  const after = matchedWith(line, []);
  return accept({
    value: after,
    changes: {
      ...(posted.length > 0 && {
        add: { journal: posted.map(({ entry }) => entry), journalLines: posted.flatMap(({ lines }) => lines) },
      }),
      put: { bankLines: [after] },
      audit: {
        subject: line.matches.map(({ number }) => number).join(', '),
        about: [line.id, line.bankAccountId, ...line.matches.map(({ id }) => id)],
        before: { matches: line.matches.map(({ number, amount }) => ({ number, amount })) },
        after: { open: minor(openOf(after)) },
      },
    },
  });
}
