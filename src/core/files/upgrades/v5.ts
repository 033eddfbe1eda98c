import { grouped } from '@/core/kernel/grouped';

/* Version 5 to version 6; frozen, see `v1.ts`. */

interface OldReceipt {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly date: string;
  readonly currency: string;
  readonly allocations: readonly { readonly documentId: string; readonly amount: bigint }[];
  readonly settles: readonly string[];
  readonly entryId: string;
  readonly releaseEntryIds?: readonly string[];
  readonly recordedAt: string;
}

interface OldDocument {
  readonly id: string;
  readonly kind: string;
  readonly number: string;
  readonly customerId: string;
  readonly issueDate: string;
  readonly issuedAt: string;
  readonly entryId: string;
  readonly content: {
    readonly currency: string;
    readonly home?: object;
    readonly corrects?: { readonly documentId: string };
  };
  readonly open: bigint;
  readonly received: bigint;
  readonly credited: bigint;
}

/** Tables of version 5, as far as they are read here; all others stay as they are. */
export interface BookContentV5 {
  readonly accounts: readonly { readonly code: string; readonly role: string }[];
  readonly series: readonly object[];
  readonly documents: readonly OldDocument[];
  readonly receipts: readonly OldReceipt[];
  readonly journalLines: readonly { readonly entryId: string; readonly account: string; readonly amount: bigint }[];
  readonly taxEntries: readonly { readonly receiptId: string; readonly documentId: string }[];
}

/** What of `counted` goes with a part of `whole`, rounded half up; all of it with the last part. */
function inStep(part: bigint, whole: bigint, counted: bigint): bigint {
  if (whole === 0n) return 0n;
  if (part === whole) return counted;
  const sign = whole < 0n ? -1n : 1n;
  const [n, d] = [sign * counted * part, sign * whole];
  const half = (2n * (n < 0n ? -n : n) + d) / (2n * d);
  return n < 0n ? -half : half;
}

const REFUNDS = {
  id: 'refund',
  kind: 'refund',
  registrationId: '',
  prefix: 'REF',
  digits: 4,
  yearly: true,
  start: 1,
  next: {},
  count: 0,
  lastSeal: '',
  lastDate: '',
};

interface Move {
  readonly at: string;
  readonly number: string;
  readonly amount: bigint;
  readonly from: { readonly receipt: OldReceipt } | { readonly note: OldDocument };
}

/** What settled each document, in the order it was written. */
function movesOf({ documents, receipts }: BookContentV5): ReadonlyMap<string, readonly Move[]> {
  const moves = [
    ...receipts.flatMap((receipt) =>
      receipt.allocations.map(({ documentId, amount }) => ({
        debtId: documentId,
        move: { at: receipt.recordedAt, number: receipt.number, amount, from: { receipt } } as Move,
      })),
    ),
    ...documents.flatMap((note) =>
      note.content.corrects === undefined || note.credited === 0n
        ? []
        : [
            {
              debtId: note.content.corrects.documentId,
              move: { at: note.issuedAt, number: note.number, amount: -note.credited, from: { note } } as Move,
            },
          ],
    ),
  ];
  const keyOf = ({ move }: (typeof moves)[number]) => `${move.at}|${move.number}`;
  return new Map(
    [...grouped(moves, ({ debtId }) => debtId)].map(([debtId, own]) => [
      debtId,
      [...own].sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1)).map(({ move }) => move),
    ]),
  );
}

/**
 * A book of version 5 in the shape of version 6: allocations are rows of their own, receipts may hold money on account, tax
 * that fell due says by which allocation. Gives the tables that are written anew.
 */
export function upgradeV5(old: BookContentV5): Readonly<Record<string, readonly object[]>> {
  const receivables = old.accounts.find(({ role }) => role === 'receivables')?.code;
  const foreign = new Set(
    old.documents.flatMap(({ entryId, content }) => (content.home === undefined ? [] : [entryId])),
  );
  const postedHome = new Map<string, bigint>();
  for (const { entryId, account, amount } of old.journalLines)
    if (account === receivables && foreign.has(entryId))
      postedHome.set(entryId, (postedHome.get(entryId) ?? 0n) + amount);
  const moves = movesOf(old);
  const allocations = old.documents.flatMap((debt) => {
    let open = debt.open + debt.received + debt.credited;
    // Its own credit notes post their rounding beside what they take back; what stood there first is what was owed.
    let openHome = debt.content.home === undefined ? open : (postedHome.get(debt.entryId) ?? open);
    return (moves.get(debt.id) ?? []).map(({ amount, from }, turn) => {
      const debtHome = inStep(amount, open, openHome);
      open -= amount;
      openHome -= debtHome;
      const credit = 'receipt' in from ? from.receipt : from.note;
      return {
        id: `${credit.id}:${debt.id}`,
        customerId: debt.customerId,
        creditKind: 'receipt' in from ? 'receipt' : 'credit-note',
        creditId: credit.id,
        creditNumber: credit.number,
        debtKind: 'document',
        debtId: debt.id,
        debtNumber: debt.number,
        date: 'receipt' in from ? from.receipt.date : from.note.issueDate,
        currency: debt.content.currency,
        amount,
        debtHome,
        // A receipt stood on receivables at what it settled; the difference was posted with it.
        creditHome: 'receipt' in from ? debtHome : creditHomeOf(from.note, amount, postedHome),
        takesBack: 'note' in from,
        entryIds: 'receipt' in from ? [from.receipt.entryId, ...(from.receipt.releaseEntryIds ?? [])] : [],
        at: 'receipt' in from ? from.receipt.recordedAt : from.note.issuedAt,
        turn,
        creditTurn: 'receipt' in from ? from.receipt.allocations.findIndex((a) => a.documentId === debt.id) : 0,
        undoneOn: '',
        undone: null,
      };
    });
  });
  return {
    allocations,
    refunds: [],
    series: [...old.series, REFUNDS],
    receipts: old.receipts.map(({ allocations: _, settles: __, releaseEntryIds: ___, ...receipt }) => ({
      ...receipt,
      open: 0n,
      openHome: 0n,
      isOpen: 0,
    })),
    taxEntries: old.taxEntries.map(({ receiptId, ...entry }) => ({
      ...entry,
      allocationId: receiptId === '' ? '' : `${receiptId}:${entry.documentId}`,
    })),
  };
}

/** What a credit note stood at on receivables for what was set off; the difference is in its own entry too. */
function creditHomeOf(note: OldDocument, amount: bigint, postedHome: ReadonlyMap<string, bigint>): bigint {
  if (note.content.home === undefined) return amount;
  const open = -(note.open + note.received + note.credited);
  return inStep(amount, open, -(postedHome.get(note.entryId) ?? -open));
}
