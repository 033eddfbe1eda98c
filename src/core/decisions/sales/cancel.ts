import type { Decision, Moment } from '@/core/book/changes';
import { mayHaveArrived, type OnItsWay } from '@/core/delivery/queue';
import { type DeferralPlan, withTaken } from '@/core/documents/deferralPlan';
import { type IssuedDocument, restated } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { isoDate, laterOf } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { accept, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, type JournalEntry, type JournalLine } from '@/core/ledger/entry';
import { takenEntries } from '@/core/ledger/posting/deferral';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { startOfPeriod } from '@/core/returns/calendar';
import { reversedEntries, type TaxEntry } from '@/core/returns/taxEntry';
import type { Withheld } from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import { quoteBehind } from './credit';

export interface CancelMaterial {
  readonly document: IssuedDocument;
  readonly family: readonly IssuedDocument[];
  readonly registration: Registration;
  readonly entry: JournalEntry;
  readonly lines: readonly JournalLine[];
  readonly taxEntries: readonly TaxEntry[];
  /** Its e-invoices and the messages that it is sent by. */
  readonly onTheirWay: readonly OnItsWay[];
  /** What was kept back of it at issue. */
  readonly withheld: readonly Withheld[];
  /** Its revenue that is deferred, and the chart its entries go by. */
  readonly plans: readonly DeferralPlan[];
  readonly chart: readonly Account[];
}

/** Why a document can't be cancelled; null when it can. */
export function cancelFault(
  document: IssuedDocument,
  registration: Pick<Registration, 'filedUntil'>,
  entryDate: string,
  onTheirWay: readonly OnItsWay[],
): Refusal | null {
  const { kind, cancelled, sentOn, received, writtenOff, creditNotes, content } = document;
  if (!KINDS[kind].cancellable) return { code: 'wrong-kind', path: '', number: document.number, takes: 'cancellable' };
  if (cancelled !== null) return { code: 'settled', path: '', by: 'cancelled' };
  if (writtenOff !== 0n) return { code: 'settled', path: '', by: 'written-off' };
  // A credit note stands even where it was made free for another invoice.
  if (received !== 0n || creditNotes.length > 0)
    return { code: 'settled', path: '', by: received === 0n ? 'credited' : 'paid' };
  if (sentOn !== '') return { code: 'sent', path: '', on: sentOn };
  if (onTheirWay.some(mayHaveArrived)) return { code: 'on-its-way', path: '' };
  const { filedUntil } = registration;
  // What reports it counts, not only the day it is posted: a late one stands in the period after its own.
  const reported = startOfPeriod(document.periodId) ?? content.taxPoint;
  const closed = filedUntil !== '' && (entryDate <= filedUntil || reported <= filedUntil);
  return closed ? { code: 'closed-document', path: '', day: laterOf(reported, isoDate(entryDate)) } : null;
}

/**
 * Cancels a document that has not gone out: its entry and tax entries are taken back in the same
 * period; number, content and reason stay.
 */
export function cancel(material: CancelMaterial, reason: string, moment: Moment): Decision<null> {
  const { document, family, registration, entry, lines, taxEntries, onTheirWay, withheld, plans, chart } = material;
  const fault = cancelFault(document, registration, entry.date, onTheirWay);
  if (fault !== null) return refuse(fault);
  const used = withheld.find(({ certified, claimed }) => certified !== NOTHING || claimed !== NOTHING);
  if (used !== undefined)
    return refuse({ code: 'used-since', path: '', by: used.claimed === NOTHING ? 'certified' : 'claimed' });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-cancelled' });
  const text = `${document.number} cancelled`;
  const entryId = moment.newId();
  const posted = entryOf(
    { id: entryId, date: entry.date, kind: 'cancellation', text, sourceId: document.id, at: moment.now },
    reversalSides(lines, text),
  );
  const cancelled: IssuedDocument = restated({
    ...document,
    open: NOTHING,
    openHome: NOTHING,
    isOpen: 0,
    cancelled: { on: moment.today, reason: reason.trim(), entryId },
  });
  const taken = plans.flatMap((plan) => plan.entries.map((own) => ({ plan, entry: own, amount: own.amount })));
  const source = { chart, sourceId: document.id, text, at: moment.now };
  const earned = takenEntries(taken, source, moment.newId);
  // What payments released was taken back with them, in periods of their own.
  const reversed = reversedEntries(taxEntries.filter(({ allocationId }) => allocationId === ''));
  return accept({
    value: null,
    changes: {
      add: {
        journal: [posted.entry, ...earned.map((one) => one.entry)],
        journalLines: [...posted.lines, ...earned.flatMap((one) => one.lines)],
        ...(reversed.length > 0 && { taxEntries: reversed }),
      },
      put: {
        ...(withheld.length > 0 && {
          withheld: withheld.map((one): Withheld => ({ ...one, voidOn: moment.today, isOpen: 0 })),
        }),
        ...(plans.length > 0 && { deferrals: withTaken(plans, taken) }),
        documents: [cancelled, ...quoteBehind(cancelled, [...family.filter((d) => d.id !== cancelled.id), cancelled])],
      },
      audit: {
        subject: document.number,
        about: [document.id, document.customerId],
        before: { open: document.open },
        after: { reason: reason.trim() },
      },
    },
  });
}
