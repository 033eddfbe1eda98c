import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { askedAbout } from '@/core/decisions/sales/run';
import type { IssuedDocument } from '@/core/documents/issued';
import { preview } from '@/core/documents/preview';
import { type CustomerGroup, draftForCustomer, isInGroup, type Run, type RunRow } from '@/core/documents/run';
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

/** Numbers of what a run issued, by the id of the document. */
export async function numbersOfRun(db: BookDb, rows: readonly RunRow[]): Promise<ReadonlyMap<string, string>> {
  const documents = await db.documents.bulkGet(rows.map(({ documentId }) => documentId || '-'));
  return new Map(documents.flatMap((one) => (one === undefined ? [] : [[one.id, one.number] as const])));
}

/** What a run issued, in the order of its customers. */
export async function documentsOfRun(db: BookDb, rows: readonly RunRow[]): Promise<readonly IssuedDocument[]> {
  const documents = await db.documents.bulkGet(rows.map(({ documentId }) => documentId || '-'));
  return documents.flatMap((one) => one ?? []);
}

/** Groups of customers, by name. */
export function allGroups(db: BookDb): Promise<CustomerGroup[]> {
  return db.customerGroups.orderBy('name').toArray();
}

/** Who belongs to a group now. */
export async function membersOf(db: BookDb, group: CustomerGroup): Promise<CustomerRow[]> {
  if (group.rule === null)
    return (await db.customers.bulkGet([...group.customerIds])).flatMap((one) =>
      one && isInGroup(group, one) ? [one] : [],
    );
  return db.customers.filter((customer) => isInGroup(group, customer)).toArray();
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
export async function reviewRun(
  db: BookDb,
  run: Run,
  rows: readonly RunRow[],
  today: IsoDate,
): Promise<readonly RunReview[]> {
  const [pattern, series, chart] = await Promise.all([
    db.drafts.get(run.id),
    db.series.toArray(),
    db.accounts.toArray(),
  ]);
  if (pattern === undefined) return [];
  const found: RunReview[] = [];
  for (const row of rows) {
    const customer = await db.customers.get(row.customerId);
    if (customer === undefined) continue;
    const dated = { ...pattern, customerId: customer.id, issueDate: run.date, taxPoint: '', delivery: null };
    const setting = await loadSetting(db, dated, customer);
    const draft = draftForCustomer(run, pattern, row, customer, setting, row.id);
    const { taxes, figures, currency } = preview(draft, customer, setting);
    found.push({
      rowId: row.id,
      due: draft.due,
      way: sendingOf(customer).way,
      taxes: taxes.map(({ name }) => name).join(', '),
      total: figures.totals.payable,
      currency,
      finding: askedAbout({ draft, customer, setting, issuing: { series, chart }, say: wordRefusals }, today),
    });
  }
  return found;
}
