import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { askedAbout } from '@/core/decisions/sales/run';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { preview } from '@/core/documents/preview';
import { withDaysFilled } from '@/core/documents/recurring';
import { type CustomerGroup, draftForCustomer, isInGroup, type Run, type RunRow } from '@/core/documents/run';
import type { Setting } from '@/core/documents/setting';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { type SendingWay, sendingOf } from '@/core/parties/customer';
import { wordRefusals } from '@/core/wording/refusals';
import { loadSetting } from '../../load';
import type { BookDb } from '../../schema';

/** Runs, newest date first. */
export function allRuns(db: BookDb): Promise<Run[]> {
  return db.runs.orderBy('date').reverse().toArray();
}

/** The customers of a run, by name. */
export async function rowsOfRun(db: BookDb, runId: string): Promise<RunRow[]> {
  const rows = await db.runRows.where('[runId+state]').between([runId, Dexie.minKey], [runId, Dexie.maxKey]).toArray();
  return rows.sort((a, b) => (a.customerName < b.customerName ? -1 : 1));
}

/** Documents that are asked for at once: of a run of thousands, so that the page can do something else in between. */
const PIECE = 50;

/** Documents that a run issued, in the order of its customers. */
export function documentsOfRun(db: BookDb, rows: readonly RunRow[]): Promise<IssuedDocument[]> {
  return db.documents
    .bulkGet(rows.flatMap(({ documentId }) => documentId || []))
    .then((found) => found.filter((one) => one !== undefined));
}

/** Numbers of what a run issued, by the id of the document: documents are read a few at a time, and let go again. */
export async function numbersOfRun(db: BookDb, rows: readonly RunRow[]): Promise<ReadonlyMap<string, string>> {
  const numbers = new Map<string, string>();
  for (let from = 0; from < rows.length; from += PIECE)
    for (const { id, number } of await documentsOfRun(db, rows.slice(from, from + PIECE))) numbers.set(id, number);
  return numbers;
}

/** Groups of customers, by name. */
export function allGroups(db: BookDb): Promise<CustomerGroup[]> {
  return db.customerGroups.orderBy('name').toArray();
}

/** Who belongs to a group now. */
export function membersOf(db: BookDb, group: CustomerGroup): Promise<CustomerRow[]> {
  if (group.rule !== null) return db.customers.filter((customer) => isInGroup(group, customer)).toArray();
  return db.customers
    .bulkGet([...group.customerIds])
    .then((found) => found.flatMap((one) => (one && isInGroup(group, one) ? [one] : [])));
}

/** What a run comes to for one customer, with what it is decided by; null where the run is gone. */
export function loadForCustomer(
  db: BookDb,
  { runId, customerId, quantity, price }: RunRow,
  id: string,
): Promise<ForCustomer | null> {
  return Promise.all([db.runs.get(runId), db.drafts.get(runId), db.customers.get(customerId)]).then(
    ([run, pattern, customer]) => {
      if (run === undefined || pattern === undefined || customer === undefined) return null;
      const dated = { ...pattern, customerId, issueDate: run.date, taxPoint: '', delivery: null };
      return Promise.all([
        loadSetting(db, dated, customer),
        run.recurringId === undefined ? undefined : db.recurring.get(run.recurringId),
      ]).then(([setting, recurring]) => {
        const said =
          recurring === undefined ? pattern : withDaysFilled(pattern, recurring, run.date, customer.language);
        const draft = draftForCustomer(run, said, { quantity, price }, customer, setting, id);
        return { draft, customer, setting, ownDay: run.recurringId !== undefined };
      });
    },
  );
}

/** What a run comes to for one customer. */
export interface ForCustomer {
  readonly draft: Draft;
  readonly customer: CustomerRow;
  readonly setting: Setting;
  /** It is dated so by a rhythm. */
  readonly ownDay: boolean;
}

/** What a customer of a run will get. */
export interface RunReview {
  readonly rowId: string;
  /** Terms and due date of its own. */
  readonly due: string;
  readonly way: SendingWay;
  /** Taxes that were found, in words. */
  readonly taxes: string;
  readonly total: Minor;
  readonly currency: Currency;
  /** What a person would be asked about; empty for nothing. */
  readonly finding: string;
}

/** Looks at some customers of a run as their documents would be, written on a day. */
export async function reviewRun(db: BookDb, rows: readonly RunRow[], today: IsoDate): Promise<readonly RunReview[]> {
  const series = await db.series.toArray();
  const found: RunReview[] = [];
  for (const row of rows) {
    const loaded = await loadForCustomer(db, row, row.id);
    if (loaded === null) continue;
    const { draft, customer, setting, ownDay } = loaded;
    const { taxes, figures, currency } = preview(draft, customer, setting);
    found.push({
      rowId: row.id,
      due: draft.due,
      way: sendingOf(customer).way,
      taxes: taxes.map(({ name }) => name).join(', '),
      total: figures.totals.payable,
      currency,
      finding: askedAbout({ draft, customer, setting, issuing: { series }, say: wordRefusals }, today, ownDay),
    });
  }
  return found;
}
