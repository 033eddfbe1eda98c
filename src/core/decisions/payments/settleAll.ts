import type { Moment } from '@/core/book/changes';
import type { RowChanges } from '@/core/book/changesInOrder';
import { creditContent } from '@/core/documents/creditContent';
import { discounted } from '@/core/documents/discountNote';
import { nextNumber, type Series } from '@/core/documents/series';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, plus, total } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import { type Credit, leftOfCredit } from '@/core/settlement/allocation';
import { type CreditMaterial, notesOn, writeCredit } from '../sales/credit';
import { materialIn, type Position, positionAfter } from './position';
import { bringTogether, changesOfSettled, closeDebt, type Settled } from './settle';
import { reopened } from './writeOff';

/** How a receipt settles one document; amounts in its currency. */
export interface SettlingInput {
  readonly documentId: string;
  /** For words only. */
  readonly number: string;
  readonly money: Minor;
  /** Tax kept back with it, by type. */
  readonly withheld?: readonly { readonly typeId: string; readonly amount: Minor }[];
  /** Taken for paying early. */
  readonly discount?: Minor;
  /** A small rest that is closed to an account. */
  readonly difference?: { readonly amount: Minor; readonly account: string };
}

/** What settling looks at. */
export interface SettleAllMaterial {
  /** The documents that are settled, as they are now, with all that was made of them. */
  readonly position: Position;
  /** What a credit note on each document looks at, by its id, where a discount is taken. */
  readonly credits: ReadonlyMap<string, Omit<CreditMaterial, 'invoice' | 'allocations' | 'transmissions'>>;
}

interface Running {
  readonly position: Position;
  readonly credit: Credit;
  /** Series as notes took their numbers, by id. */
  readonly series: ReadonlyMap<string, Series>;
  readonly changes: readonly RowChanges[];
}

interface Days {
  /** Of the allocations. */
  readonly date: IsoDate;
  /** Of credit notes for discounts. */
  readonly credited: IsoDate;
}

const ran = (now: Running, made: readonly Settled[]): Running => ({
  ...now,
  position: positionAfter(now.position, ...made),
  credit: made.at(-1)?.credit ?? now.credit,
  changes: made.length === 0 ? now.changes : [...now.changes, changesOfSettled(made)],
});

/** Settles one document: money and what was withheld first, then the discount, then a small difference. */
function settleOne(
  start: Running,
  input: SettlingInput,
  path: string,
  { date, credited }: Days,
  material: SettleAllMaterial,
  moment: Moment,
): Result<Running> {
  const { documentId, money, withheld = [], discount = NOTHING, difference } = input;
  let now = start;
  const debt = () => now.position.debts.get(documentId);
  const allocated = plus(money, total(withheld.map(({ amount }) => amount)));
  const creditId = leftOfCredit(now.credit).id;
  for (const [i, { amount }] of withheld.entries())
    if (amount <= 0n)
      return refuse({ code: 'invalid', path: `${path}.withheld[${i}].amount`, wanted: 'amount-above-zero' });
  if (money < 0n || discount < 0n)
    return refuse({ code: 'invalid', path: `${path}.money`, wanted: 'amount-above-zero' });
  let withId = '';
  if (allocated !== NOTHING || (discount === NOTHING && difference === undefined)) {
    const own = debt();
    const again =
      own === undefined ? accept(null) : reopened(own, allocated, date, materialIn(now.position, documentId), moment);
    if (!again.ok) return again;
    now = ran(now, again.value?.settled ?? []);
    const one = bringTogether(
      now.credit,
      debt(),
      allocated,
      { date, path: `${path}.money` },
      materialIn(now.position, documentId, creditId),
      moment,
    );
    if (!one.ok) return one;
    withId = one.value.allocation.id;
    now = ran(now, [one.value]);
  }
  if (discount !== NOTHING) {
    const one = creditDiscount(now, documentId, discount, `${path}.discount`, credited, material, moment);
    if (!one.ok) return one;
    now = one.value;
  }
  if (difference !== undefined && difference.amount !== NOTHING) {
    const order = {
      kind: 'difference',
      number: leftOfCredit(now.credit).number,
      account: difference.account,
      withId,
      relief: false,
      reason: '',
    } as const;
    const where = { date, path: `${path}.difference` };
    const one = closeDebt(debt(), difference.amount, order, where, materialIn(now.position, documentId), moment);
    if (!one.ok) return one;
    now = ran(now, [one.value]);
  }
  return accept(now);
}

/** Takes a discount by a credit note of its own number, whose net goes to settlement discounts. */
function creditDiscount(
  now: Running,
  documentId: string,
  amount: Minor,
  path: string,
  date: IsoDate,
  { credits }: SettleAllMaterial,
  moment: Moment,
): Result<Running> {
  const invoice = now.position.debts.get(documentId);
  const own = credits.get(documentId);
  if (invoice === undefined || own === undefined)
    return refuse({ code: 'not-found', path, what: 'invoice-of-customer' });
  if (amount > invoice.open) return refuse({ code: 'over-allocated', path, number: invoice.number });
  const series = now.series.get(own.series.id) ?? own.series;
  const family = [
    ...own.family.filter(({ id }) => id !== documentId && !now.position.notes.has(id)),
    ...now.position.notes.values(),
    invoice,
  ];
  const head = { number: nextNumber(series, date), date, reason: `Discount for paying ${invoice.number} early` };
  const content = creditContent(invoice, notesOn(invoice, family), { kind: 'amount', amount }, head);
  if (!content.ok) return refuse(...content.refusals.map((one) => ({ ...one, path })));
  const to = accountFor(now.position.chart, 'settlement-discounts');
  const { ofDebt: allocations } = materialIn(now.position, documentId);
  const written = writeCredit(
    { ...own, invoice, family, series, allocations },
    discounted(content.value, to),
    date,
    moment,
  );
  if (!written.ok) return refuse(...written.refusals.map((one) => ({ ...one, path })));
  const { settled, changes, note, series: next } = written.value;
  const position = settled === null ? now.position : positionAfter(now.position, settled);
  return accept({
    ...now,
    position: {
      ...position,
      debts: new Map([...position.debts, [documentId, written.value.invoice]]),
      notes: new Map([...position.notes, [note.id, note]]),
    },
    series: new Map([...now.series, [next.id, next]]),
    changes: [...now.changes, changes],
  });
}

/** Settles documents with a credit one after the other. Paths of refusals are `to[i]…`. */
export function settleAll(
  credit: Credit,
  to: readonly SettlingInput[],
  days: Days,
  material: SettleAllMaterial,
  moment: Moment,
): Result<{ readonly credit: Credit; readonly changes: readonly RowChanges[] }> {
  let now: Running = { position: material.position, credit, series: new Map(), changes: [] };
  const seen = new Set<string>();
  for (const [i, input] of to.entries()) {
    const path = `to[${i}]`;
    if (seen.has(input.documentId)) return refuse({ code: 'duplicate', path: `${path}.money`, found: input.number });
    seen.add(input.documentId);
    const one = settleOne(now, input, path, days, material, moment);
    if (!one.ok) return one;
    now = one.value;
  }
  return accept({ credit: now.credit, changes: now.changes });
}
