import Dexie from 'dexie';
import type { Phase } from '@/core/delivery/transmission';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { periodIdOf, type Span, spanOf } from '@/core/returns/calendar';
import { type ClosingCheck, closingChecks, restsOnEvidence } from '@/core/returns/closing';
import type { Registration } from '@/core/tax/registration';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';
import { entriesBehindAll } from './periods';

const WAITS: Readonly<Partial<Record<Phase, string>>> = {
  queued: 'its e-invoice waits to be sent',
  unanswered: 'its e-invoice is not answered',
  asks: 'its e-invoice asks for something',
};

/** Drafts of a registration whose tax point lies in a period; what runs and recurring documents say is none. */
async function draftsIn(db: BookDb, { id }: Registration, { start, end }: Span) {
  const drafts = await db.drafts
    .filter(({ kind, registrationId, recurringId, runId, taxPoint, issueDate }) => {
      const day = taxPoint || issueDate;
      const isOwn = registrationId === id && recurringId === undefined && runId === undefined;
      return isOwn && kind !== 'quote' && isIsoDate(day) && start <= day && day <= end;
    })
    .toArray();
  const customers = await db.customers.bulkGet(drafts.map(({ customerId }) => customerId));
  return drafts.map((draft, i) => ({ draft, customer: customers[i]?.name ?? '' }));
}

async function unansweredOf(db: BookDb, documentIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const found = await db.transmissions.where('documentId').anyOf(documentIds).toArray();
  return new Map(
    found.flatMap(({ documentId, phase }) => {
      const waits = WAITS[phase];
      return waits === undefined ? [] : [[documentId, waits] as const];
    }),
  );
}

/** What should be looked at before the period of a registration that begins on a day is filed. */
export async function closingOf(
  db: BookDb,
  registration: Registration,
  start: IsoDate,
): Promise<readonly ClosingCheck[]> {
  const span = spanOf(registration.frequency, start);
  const periodId = periodIdOf(registration.id, start);
  const [{ business }, documents, rows, certificates, withheld, receipts, drafts] = await Promise.all([
    loadBook(db),
    db.documents.where('[periodId+number]').between([periodId, Dexie.minKey], [periodId, Dexie.maxKey]).toArray(),
    db.taxRows.where('periodId').equals(periodId).toArray(),
    db.certificates.toArray(),
    db.withheld.where('[isOpen+date]').between([1, span.start], [1, span.end], true, true).toArray(),
    registration.basis === 'on-payment' ? db.receipts.filter(({ isOpen }) => isOpen === 1).toArray() : [],
    draftsIn(db, registration, span),
  ]);
  const ids = documents.map(({ id }) => id);
  const untaxed = documents.filter(({ content }) => restsOnEvidence(content));
  const [customers, unanswered, files, entries] = await Promise.all([
    db.customers.bulkGet([...new Set(untaxed.map(({ customerId }) => customerId))]),
    unansweredOf(db, ids),
    db.attachments
      .where('ownerId')
      .anyOf(untaxed.map(({ id }) => id))
      .toArray(),
    entriesBehindAll(
      db,
      rows.filter(({ kind, lateEntries }) => kind === 'exempt' || lateEntries > 0),
    ),
  ]);
  return closingChecks({
    ...span,
    registration,
    home: business.homeCurrency,
    drafts,
    documents,
    entries,
    customers: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
    certificates,
    withheld: withheld.filter(({ voidOn }) => voidOn === ''),
    unanswered,
    onAccount: receipts.filter(({ valueDate }) => valueDate <= span.end),
    withFiles: new Set(files.map(({ ownerId }) => ownerId)),
  });
}
