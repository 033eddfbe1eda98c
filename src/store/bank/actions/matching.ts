import type { BankLine, BankMatch } from '@/core/bank/bankLine';
import { openOf } from '@/core/bank/bankLine';
import type { BankRule } from '@/core/bank/bankRule';
import type { MatchTarget } from '@/core/bank/suggest';
import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import { type BookedSide, bookLine, fitsLine, matchLine, unmatchLine } from '@/core/decisions/bank/matchLine';
import type { SettlingInput } from '@/core/decisions/payments/settleAll';
import { worthOn } from '@/core/decisions/payments/worth';
import { laterOf } from '@/core/kernel/date';
import { minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import type { BankAccount } from '@/core/parties/bankAccount';
import { standing } from '@/core/settlement/allocation';
import { wholeProposal } from '@/core/settlement/proposal';
import { loadBook, ratesOn } from '../../load';
import { dishonourReceipt } from '../../payments/actions/dishonour';
import { recordReceipt } from '../../payments/actions/recordReceipt';
import { refundCredit, undoRefund } from '../../payments/actions/refund';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { payAuthority, undoAuthorityPayment } from '../../tax/actions/payTax';
import { cardTakings, unseenMovements } from '../queries/movements';
import { keepBankRule } from './accounts';

export interface AcceptInput {
  readonly lineId: string;
  readonly target: MatchTarget;
  /** The bookkeeper agreed to what is unusual of a receipt. */
  readonly agreed?: boolean;
}

interface At {
  readonly line: BankLine;
  readonly account: BankAccount;
  readonly home: string;
}

function loadLine(db: BookDb, lineId: string): Promise<At | undefined> {
  return db.bankLines
    .get(lineId)
    .then((line) =>
      line === undefined
        ? undefined
        : Promise.all([db.bankAccounts.get(line.bankAccountId), loadBook(db)]).then(([account, { business }]) =>
            account === undefined ? undefined : { line, account, home: business.homeCurrency },
          ),
    );
}

/** A line joined with what was made from it, as one action. */
function joined<T>(
  made: Decision<T>,
  action: string,
  line: BankLine,
  matchOf: (value: T) => BankMatch,
): Decision<BankLine> {
  if (!made.ok) return made;
  const matched = matchLine(line, [matchOf(made.value.value)]);
  if (!matched.ok) return matched;
  return accept({
    value: matched.value.value,
    changes: joinChanges({ changes: made.value.changes, action }, { changes: matched.value.changes }),
  });
}

type DocumentsTarget = Extract<MatchTarget, { readonly kind: 'documents' }>;

/** What a receipt settles by a line: the types of what is withheld as each document expects them. */
function settlingOf(db: BookDb, { paid }: DocumentsTarget, line: BankLine): Promise<readonly SettlingInput[] | null> {
  const ids = paid.map(({ documentId }) => documentId);
  return Promise.all([db.documents.bulkGet(ids), db.withheld.where('documentId').anyOf(ids).toArray()]).then(
    ([documents, withheld]) => {
      const all = paid.map((one, i): SettlingInput | null => {
        const document = documents[i];
        if (document === undefined) return null;
        const own = withheld.filter(({ documentId }) => documentId === document.id);
        const expected = wholeProposal({ document, withheld: own }, line.date).withheld;
        const asExpected = total(expected.map(({ amount }) => amount)) === one.withheld;
        if (one.withheld !== NOTHING && !asExpected) return null;
        return {
          documentId: document.id,
          number: document.number,
          money: one.money,
          ...(one.withheld !== NOTHING && { withheld: expected }),
          ...(one.discount !== NOTHING && { discount: one.discount }),
        };
      });
      const known = all.filter((one) => one !== null);
      return known.length === all.length ? known : null;
    },
  );
}

/** Records the receipt that a line is, and matches it. */
function receiveBy(
  db: BookDb,
  { line, account }: At,
  target: DocumentsTarget,
  agreed: boolean,
  moment: Moment,
): Promise<Decision<BankLine>> {
  const open = openOf(line);
  if (open <= 0n) return Promise.resolve(refuse({ code: 'over-matched', path: '', left: open }));
  const head = {
    customerId: target.customerId,
    date: line.date,
    reference: (line.reference || line.text.split('\n')[0]) ?? '',
    currency: account.currency,
    parts: [{ method: 'bank', account: account.account, amount: plus(open, target.charge), charge: target.charge }],
    agreed,
  } as const;
  return settlingOf(db, target, line).then((to) =>
    to === null
      ? refuse({ code: 'stale', path: '' })
      : recordReceipt.decide(db, { ...head, to }, moment).then((made) => {
          const entryId = made.ok ? (made.value.changes.add?.receipts?.[0]?.entryId ?? '') : '';
          return joined(made, recordReceipt.name, line, ({ id, number }) => ({
            kind: 'receipt',
            id,
            entryId,
            number,
            amount: open,
            made: true,
          }));
        }),
  );
}

/** Entries that the book has and no line has shown, matched with a line. */
async function matchMovements(
  db: BookDb,
  { line, account, home }: At,
  entryIds: readonly string[],
): Promise<Decision<BankLine>> {
  const entries = await db.journal.bulkGet([...entryIds]);
  const days = entries.flatMap((entry) => entry?.date ?? []).sort();
  const [from, until] = [days[0], days.at(-1)];
  if (from === undefined || until === undefined) return refuse({ code: 'stale', path: '' });
  const unseen = new Map((await unseenMovements(db, account, home, from, until)).map((one) => [one.entryId, one]));
  const found = entryIds.flatMap((id) => unseen.get(id) ?? []);
  if (found.length !== entryIds.length) return refuse({ code: 'stale', path: '' });
  const records = new Map(entries.flatMap((entry) => (entry === undefined ? [] : [[entry.id, entry] as const])));
  return matchLine(
    line,
    found.map(({ entryId, amount, number }): BankMatch => {
      const { kind = 'journal', sourceId = '' } = records.get(entryId) ?? {};
      const isReceipt = kind === 'receipt';
      return {
        kind: isReceipt ? 'receipt' : 'entry',
        id: isReceipt ? sourceId : entryId,
        entryId,
        number,
        amount,
        made: false,
      };
    }),
  );
}

/** Books a line, or a part of it, to accounts; of an account in another currency by the rate of its day. */
async function book(
  db: BookDb,
  { line, account, home }: At,
  sides: readonly BookedSide[],
  moment: Moment,
  covers?: readonly string[],
): Promise<Decision<BankLine>> {
  const [chart, registrations, rates] = await Promise.all([
    db.accounts.toArray(),
    db.registrations.toArray(),
    account.currency === home ? null : ratesOn(db, [account.currency], line.date),
  ]);
  const worth = worthOn(account.currency, home as BankAccount['currency'], '', rates?.get(account.currency) ?? null);
  if (!worth.ok) return worth;
  return bookLine(
    sides,
    { line, account, chart, registrations, worth: worth.value, ...(covers && { covers }) },
    moment,
  );
}

/** Books a payout of card payments: what was taken leaves the card account, and the fee goes to bank charges. */
function payOut(
  db: BookDb,
  at: At,
  { takings, fee }: Extract<MatchTarget, { readonly kind: 'payout' }>,
  moment: Moment,
): Promise<Decision<BankLine>> {
  return Promise.all([db.accounts.toArray(), cardTakings(db, at.account.currency, at.line.date)]).then(
    ([chart, open]) => {
      const known = new Set(open.map(({ entryId }) => entryId));
      if (takings.some(({ entryId }) => !known.has(entryId))) return refuse({ code: 'stale', path: '' });
      const gross = total(takings.map(({ amount }) => amount));
      const charge = { account: accountFor(chart, 'bank-charges'), amount: negated(fee), text: 'card fee' };
      const sides = [{ account: accountFor(chart, 'card'), amount: gross }, ...(fee === NOTHING ? [] : [charge])];
      const covers = takings.map(({ entryId }) => entryId);
      return book(db, at, sides, moment, covers);
    },
  );
}

async function refundBy(
  db: BookDb,
  { line, account }: At,
  creditId: string,
  moment: Moment,
): Promise<Decision<BankLine>> {
  const amount = negated(openOf(line));
  const made = await refundCredit.decide(
    db,
    {
      creditId,
      date: line.date,
      method: 'bank',
      account: account.account,
      reference: line.text.split('\n')[0] ?? '',
      amount,
    },
    moment,
  );
  return joined(made, refundCredit.name, line, ({ id, entryId, number }) => ({
    kind: 'refund',
    id,
    entryId,
    number,
    amount: negated(amount),
    made: true,
  }));
}

async function payBy(
  db: BookDb,
  { line, account }: At,
  registrationId: string,
  start: string,
  moment: Moment,
): Promise<Decision<BankLine>> {
  const open = openOf(line);
  const made = await payAuthority.decide(
    db,
    {
      registrationId,
      start,
      date: line.date,
      amount: minor(open < 0n ? -open : open),
      account: account.account,
      reference: line.reference,
    },
    moment,
  );
  return joined(made, payAuthority.name, line, ({ id, entryId, reference }) => ({
    kind: 'tax-payment',
    id,
    entryId,
    number: reference || line.name || 'tax payment',
    amount: open,
    made: true,
  }));
}

/** Takes a suggestion, or what its person chose instead: records what is not there yet, and matches the line with it. */
export const acceptMatch: Action<AcceptInput, BankLine> = {
  name: 'match bank line',
  async decide(db, { lineId, target, agreed = false }, moment) {
    const at = await loadLine(db, lineId);
    if (at === undefined) return refuse({ code: 'not-found', path: 'lineId' });
    if (at.line.isOpen === 0) return refuse({ code: 'matched', path: '' });
    switch (target.kind) {
      case 'movements':
        return matchMovements(
          db,
          at,
          target.movements.map(({ entryId }) => entryId),
        );
      case 'documents':
        return receiveBy(db, at, target, agreed, moment);
      case 'refund':
        return refundBy(db, at, target.creditId, moment);
      case 'tax':
        return payBy(db, at, target.registrationId, target.start, moment);
      case 'transfer': {
        const other = await db.bankAccounts.get(target.bankAccountId);
        if (other === undefined) return refuse({ code: 'not-found', path: 'bankAccountId' });
        return book(db, at, [{ account: other.account, amount: openOf(at.line) }], moment);
      }
      case 'payout':
        return payOut(db, at, target, moment);
      case 'account':
        return book(db, at, [{ account: target.account, amount: openOf(at.line) }], moment);
    }
  },
};

export interface SplitInput {
  readonly lineId: string;
  readonly sides: readonly BookedSide[];
  /** Lines like it are always booked to an account from now on. */
  readonly rule?: Omit<BankRule, 'id'>;
}

/** Books parts of a line to accounts, and remembers the rule with it; what is left of the line stays open. */
export const splitLine: Action<SplitInput, BankLine> = {
  name: 'book bank line',
  async decide(db, { lineId, sides, rule }, moment) {
    const at = await loadLine(db, lineId);
    if (at === undefined) return refuse({ code: 'not-found', path: 'lineId' });
    const fits = fitsLine(
      at.line,
      sides.map(({ amount }) => amount),
    );
    if (!fits.ok) return fits;
    const booked = await book(db, at, sides, moment);
    if (!booked.ok || rule === undefined) return booked;
    const kept = await keepBankRule.decide(db, { ...rule, id: moment.newId() }, moment);
    if (!kept.ok) return kept;
    return accept({
      value: booked.value.value,
      changes: joinChanges(
        { changes: booked.value.changes },
        { changes: kept.value.changes, action: keepBankRule.name },
      ),
    });
  },
};

/** Undoes the record that was made from a line, on its day or that of the last thing it settled. */
function undoneRecord(
  db: BookDb,
  { date }: BankLine,
  { kind, id }: BankMatch,
  moment: Moment,
): Promise<Decision<unknown>> {
  if (kind === 'refund') return undoRefund.decide(db, { id, date }, moment);
  if (kind === 'tax-payment') return undoAuthorityPayment.decide(db, { id, date }, moment);
  return db.allocations
    .where('creditId')
    .equals(id)
    .toArray()
    .then((allocations) => {
      // What it settled later can't be taken back before it was.
      const on = standing(allocations).reduce((last, one) => laterOf(last, one.date), date);
      const mistake = { receiptId: id, date: on, reason: 'Match undone', fee: NOTHING, mistake: true };
      return dishonourReceipt.decide(db, mistake, moment);
    });
}

/** Undoes the matches of a line in one step, with the receipt, refund, payment or booking that was made from it. */
export const undoMatch: Action<{ readonly lineId: string }, BankLine> = {
  name: 'undo match of bank line',
  async decide(db, { lineId }, moment) {
    const line = await db.bankLines.get(lineId);
    if (line === undefined) return refuse({ code: 'not-found', path: 'lineId' });
    // A line makes one record at most, as that takes all that is open of it; bookings are undone with the line.
    const made = line.matches.filter((match) => match.made && match.kind !== 'booking');
    const [record] = made;
    const undone = record === undefined ? null : await undoneRecord(db, line, record, moment);
    if (undone !== null && !undone.ok) return undone;
    const bookings = await Promise.all(
      line.matches
        .filter(({ kind }) => kind === 'booking')
        .map(({ entryId }) => db.journalLines.where('entryId').equals(entryId).toArray()),
    );
    const free = unmatchLine(line, bookings, moment);
    if (!free.ok || undone === null) return free;
    return accept({
      value: free.value.value,
      changes: joinChanges({ changes: undone.value.changes }, { changes: free.value.changes }),
    });
  },
};
