import Dexie from 'dexie';
import { addDays, type IsoDate, monthOf } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { total } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { periodIdOf, type Span, spanOf } from '@/core/returns/calendar';
import type { ProofMaterial, TouchingJournal } from '@/core/returns/proof';
import { undoingOf } from '@/core/returns/release';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Registration } from '@/core/tax/registration';
import { notesOf } from '../../payments/queries/notes';
import type { BookDb } from '../../schema';

/** Lines that manual journals wrote to a tax account up to a day, oldest first. */
export function manualTaxLines(db: BookDb, account: string, until: IsoDate): Promise<JournalLine[]> {
  return db.journalLines
    .where('[account+taxPeriodId+date]')
    .between([account, '', Dexie.minKey], [account, '', until], true, true)
    .toArray();
}

/**
 * Documents whose tax moved in a period by what was settled of them: on payment basis those that its tax entries name and
 * those of which an allocation was made or undone in it without leaving any entry; else those written off with relief.
 */
function releasesOf(
  db: BookDb,
  registration: Registration,
  { start, end }: Span,
  entered: readonly TaxEntry[],
): Promise<Released> {
  return Promise.all([
    db.allocations.where('date').between(start, end, true, true).toArray(),
    db.allocations.where('undoneOn').between(start, end, true, true).toArray(),
  ]).then(([made, undone]) => {
    const reliefEntered = new Set(entered.flatMap(({ kind, documentId }) => (kind === 'relief' ? [documentId] : [])));
    const dated = [
      ...made.map(({ id, debtId, creditId }) => ({ id, debtId, creditId })),
      ...undone.map(({ id, debtId, creditId }) => ({ id: undoingOf(id), debtId, creditId })),
    ];
    const relieved = new Set([...made, ...undone].flatMap(({ debtId, closing }) => (closing?.relief ? [debtId] : [])));
    const named = [...entered.map((e) => e.documentId), ...dated.flatMap(({ debtId, creditId }) => [debtId, creditId])];
    return db.documents.bulkGet([...new Set(named)]).then((found) => {
      const documents = found.flatMap((d) =>
        d?.content.registrationId === registration.id &&
        (d.content.basis === 'on-payment' || relieved.has(d.id) || reliefEntered.has(d.id))
          ? [d]
          : [],
      );
      const ids = documents.map((d) => d.id);
      return Promise.all([
        db.allocations.where('debtId').anyOf(ids).toArray(),
        db.allocations.where('creditId').anyOf(ids).toArray(),
        db.taxEntries.where('documentId').anyOf(ids).toArray(),
        notesOf(db, documents),
      ]).then(([asDebt, asCredit, all, notes]) => {
        const byId = new Map(notes.map((note) => [note.id, note]));
        const placed = new Set(all.map((entry) => entry.allocationId));
        const here = dated.flatMap(({ id }) => (placed.has(id) ? [] : [id]));
        const [ofDebt, ofCredit] = [grouped(asDebt, (one) => one.debtId), grouped(asCredit, (one) => one.creditId)];
        return {
          releases: documents.map((document) => ({
            document,
            notes: byId,
            registration,
            allocations: [...(ofDebt.get(document.id) ?? []), ...(ofCredit.get(document.id) ?? [])],
          })),
          payingIds: new Set([...entered.map((entry) => entry.allocationId), ...here]),
        };
      });
    });
  });
}

type Released = Pick<ProofMaterial, 'releases' | 'payingIds'>;

const NONE_RELEASED: Released = { releases: [], payingIds: new Set() };

/** Documents on payment basis issued in a period, with what they wrote as not yet due. */
function notYetDueOf(db: BookDb, registration: Registration, { start, end }: Span, account: string) {
  const kinds = (['invoice', 'credit-note'] as const).map((kind) =>
    db.documents.where('[kind+issueDate]').between([kind, start], [kind, end], true, true).toArray(),
  );
  return Promise.all(kinds).then((found) => {
    // Left out here and not by the database, which would hand over one document after the other.
    const documents = found
      .flat()
      .filter(({ content }) => content.basis === 'on-payment' && content.registrationId === registration.id);
    return Promise.all([
      db.taxEntries
        .where('documentId')
        .anyOf(documents.map(({ id }) => id))
        .toArray(),
      db.journalLines
        .where('entryId')
        .anyOf(documents.flatMap(({ entryId, cancelled }) => [entryId, cancelled?.entryId ?? '']))
        .toArray(),
    ]).then(([entries, lines]) => {
      const entriesOf = grouped(
        entries.filter(({ allocationId }) => allocationId === ''),
        (entry) => entry.documentId,
      );
      const linesOf = grouped(
        lines.filter((line) => line.account === account),
        (line) => line.entryId,
      );
      return documents.map((document) => ({
        document,
        entries: entriesOf.get(document.id) ?? [],
        lines: [document.entryId, document.cancelled?.entryId ?? ''].flatMap((id) => linesOf.get(id) ?? []),
      }));
    });
  });
}

/** Manual journals of a period on receivables or on accounts that hold money. */
function touchingJournals(db: BookDb, { start, end }: Span, chart: readonly Account[]): Promise<TouchingJournal[]> {
  const watched = new Set(
    chart.filter(({ role }) => ['receivables', 'bank', 'cash', 'card'].includes(role)).map(({ code }) => code),
  );
  return db.journal
    .where('[kind+date]')
    .between(['journal', start], ['journal', end], true, true)
    .primaryKeys()
    .then((ids) => db.journalLines.where('entryId').anyOf(ids).toArray())
    .then((lines) =>
      lines.flatMap(({ entryId, text, account, amount }) =>
        watched.has(account) ? [{ entryId, subject: text, account, amount }] : [],
      ),
    );
}

/** The output tax account by posting date: balances around the period, and the lines in it. */
function accountMaterial(db: BookDb, account: string, { start, end }: Span) {
  const sum = (from: unknown, to: unknown) =>
    db.accountMonths
      .where('[account+month]')
      .between([account, from], [account, to], true, true)
      .toArray()
      .then((months) => total(months.map(({ amount }) => amount)));
  return Promise.all([
    sum(Dexie.minKey, monthOf(addDays(start, -1))),
    sum(Dexie.minKey, monthOf(end)),
    db.journalLines
      .where('[account+date+id]')
      .between([account, start, Dexie.minKey], [account, end, Dexie.maxKey])
      .toArray(),
  ]);
}

/** Everything a proof of one period needs: the truth, and the kept balances that are held against it. */
export async function proofMaterial(db: BookDb, registration: Registration, start: IsoDate): Promise<ProofMaterial> {
  const periodId = periodIdOf(registration.id, start);
  const span = spanOf(registration.frequency, start);
  const chart = await db.accounts.toArray();
  const account = outputAccountOf(registration, chart);
  const onPayment = registration.basis === 'on-payment';
  const [
    documents,
    taxEntries,
    marked,
    manualLines,
    period,
    versions,
    balances,
    [opening, closing, dated],
    touching,
    notYetDue,
  ] = await Promise.all([
    db.documents.where('[periodId+number]').between([periodId, Dexie.minKey], [periodId, Dexie.maxKey]).toArray(),
    db.taxEntries
      .where('[periodId+code+percent+jurisdictionId+taxId+kind+documentNumber]')
      .between([periodId, Dexie.minKey], [periodId, Dexie.maxKey])
      .toArray(),
    db.journalLines.where('taxPeriodId').equals(periodId).toArray(),
    manualTaxLines(db, account, span.end),
    db.taxPeriods.get(periodId),
    db.reopenedFilings.where('periodId').equals(periodId).toArray(),
    db.taxRows.where('periodId').equals(periodId).toArray(),
    accountMaterial(db, account, span),
    touchingJournals(db, span, chart),
    onPayment ? notYetDueOf(db, registration, span, notYetDueAccountOf(registration, chart)) : [],
  ]);
  // Filed, and filed and opened again.
  const settling = new Set([
    period?.filed?.entryId,
    ...versions.flatMap(({ entryId, reopened }) => [entryId, reopened.entryId]),
  ]);
  const entered = taxEntries.filter((entry) => entry.allocationId !== '');
  const relieved = await db.allocations
    .where('date')
    .between(span.start, span.end, true, true)
    .filter(({ closing }) => closing?.relief === true)
    .count();
  const { releases, payingIds } =
    onPayment || entered.length > 0 || relieved > 0 ? await releasesOf(db, registration, span, entered) : NONE_RELEASED;
  const own = marked.filter((line) => line.account === account);
  return {
    releases,
    payingIds,
    documents,
    taxEntries,
    balances,
    ledgerLines: own.filter((line) => !settling.has(line.entryId)),
    manualLines,
    account: { span, periodId, opening, closing, dated, marked: own },
    notYetDue,
    touching,
  };
}
