import type { Decision, Moment } from '@/core/book/changes';
import { changesInOrder } from '@/core/book/changesInOrder';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import { entryOf, type JournalLine } from '@/core/ledger/entry';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { standing } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import { type Position, takeBackAll, withItsDifferences } from './position';
import { changesOfSettled } from './settle';

export interface DishonourInput {
  readonly receiptId: string;
  /** ISO date. */
  readonly date: string;
  readonly reason: string;
  /** What the bank asks for it, in home currency. */
  readonly fee: Minor;
  /** It never came: it was recorded by mistake. */
  readonly mistake?: boolean;
}

export interface DishonourMaterial {
  readonly receipt: Receipt | undefined;
  /** The receipt, what it settled, and all that was made of both. */
  readonly position: Position;
  /** What was withheld with it. */
  readonly withheld: readonly Withheld[];
  /** Lines of its entry. */
  readonly lines: readonly JournalLine[];
}

/** What was done with it since that has to be taken back first. */
function usedSince({ receipt, position, withheld }: DishonourMaterial): 'refunded' | 'certified' | 'claimed' | null {
  const own = [...position.allocations.values()].filter(({ creditId }) => creditId === receipt?.id);
  if (standing(own).some(({ debtKind }) => debtKind === 'refund')) return 'refunded';
  if (withheld.some(({ claimed }) => claimed !== NOTHING)) return 'claimed';
  return withheld.some(({ certified }) => certified !== NOTHING) ? 'certified' : null;
}

/**
 * A cheque or direct debit came back unpaid: what the receipt settled is open again as of the day, with the differences
 * closed with it; its entry is mirrored, what was withheld with it too, and the bank's fee is paid. Credit notes for
 * discounts stay.
 */
export function dishonour(input: DishonourInput, material: DishonourMaterial, moment: Moment): Decision<Receipt> {
  const { receipt, position, withheld, lines } = material;
  const { date, fee, reason, mistake = false } = input;
  if (receipt === undefined) return refuse({ code: 'not-found', path: 'receiptId' });
  if (receipt.dishonoured !== null) return refuse({ code: 'dishonoured', path: 'receiptId', number: receipt.number });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (date < receipt.valueDate)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-receipt', found: date });
  if (fee < 0n) return refuse({ code: 'invalid', path: 'fee', wanted: 'give-amount' });
  const used = usedSince(material);
  if (used !== null) return refuse({ code: 'used-since', path: 'receiptId', by: used });
  const own = standing([...position.allocations.values()].filter(({ creditId }) => creditId === receipt.id));
  const late = own.find((one) => date < one.date);
  if (late !== undefined)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-allocation', found: date });
  const undone = takeBackAll(
    position,
    own.flatMap((one) => withItsDifferences(position, one)),
    date,
    moment,
  );
  if (!undone.ok) return undone;
  const text = mistake ? `${receipt.number} was cancelled` : `${receipt.number} was returned unpaid`;
  const head = { date, kind: 'dishonour', sourceId: receipt.id, at: moment.now } as const;
  const { chart } = position;
  const posted = [
    entryOf({ ...head, id: moment.newId(), text }, reversalSides(lines, text)),
    ...(fee === NOTHING
      ? []
      : [
          entryOf({ ...head, id: moment.newId(), text: `${receipt.number} bank fee` }, [
            { account: accountFor(chart, 'bank-charges'), amount: fee },
            { account: accountFor(chart, 'bank'), amount: negated(fee) },
          ]),
        ]),
  ];
  const after: Receipt = {
    ...receipt,
    open: NOTHING,
    openHome: NOTHING,
    isOpen: 0,
    dishonoured: {
      on: date,
      at: moment.now,
      reason: reason.trim(),
      fee,
      ...(mistake && { mistake }),
      entryIds: posted.map(({ entry }) => entry.id),
    },
  };
  return accept({
    value: after,
    changes: {
      ...changesInOrder([
        changesOfSettled(undone.value.settled),
        { add: { journal: posted.map(({ entry }) => entry), journalLines: posted.flatMap((one) => one.lines) } },
        { put: { receipts: [after] } },
        ...(withheld.length === 0
          ? []
          : [{ put: { withheld: withheld.map((one): Withheld => ({ ...one, voidOn: date, isOpen: 0 })) } }]),
      ]),
      audit: {
        subject: receipt.number,
        about: [receipt.id, receipt.customerId, ...new Set(own.map(({ debtId }) => debtId))],
        before: { amount: receipt.amount },
        after: { dishonoured: date, ...(fee !== NOTHING && { fee }), reason: reason.trim() },
      },
    },
  });
}
