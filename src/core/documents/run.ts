import * as yup from 'yup';
import { isCountry } from '@/core/kernel/country';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { dateText, neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { Customer } from '@/core/parties/customer';
import { CUSTOMER_KINDS, type CustomerKind } from '@/core/tax/decisionTable';
import { takeCustomer } from './determineLine';
import { type Draft, isBlank } from './draft';
import type { Setting } from './setting';

/** Which customers belong to a group by themselves: those that all of it fits. */
export interface GroupRule {
  /** ISO 3166-1 alpha-2; empty for any. */
  readonly country: string;
  /** Empty for any. */
  readonly kind: CustomerKind | '';
  /** A part of the name; empty for any. */
  readonly text: string;
}

/** Customers that are billed together: those that were chosen, and those that the rule finds. */
export interface CustomerGroup {
  readonly id: string;
  readonly name: string;
  readonly customerIds: readonly string[];
  /** Null where nobody belongs to it by a rule. */
  readonly rule: GroupRule | null;
}

export const customerGroupSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-a-name', 80),
  customerIds: yup.array().of(yup.string().defined()).defined(),
  rule: yup
    .object({
      country: yup
        .string()
        .defined()
        .test('country', wanted('choose-country'), (v) => v === '' || isCountry(v)),
      kind: yup
        .string()
        .oneOf(['', ...CUSTOMER_KINDS])
        .defined(),
      text: yup.string().max(80).defined(),
    })
    .nullable()
    .defined(),
});

/** Whether a customer belongs to a group now; one that is archived or merged belongs to none. */
export function isInGroup({ customerIds, rule }: CustomerGroup, customer: Customer): boolean {
  if (customer.archived === true || customer.mergedInto !== '') return false;
  if (customerIds.includes(customer.id)) return true;
  if (rule === null || (rule.country === '' && rule.kind === '' && rule.text.trim() === '')) return false;
  return (
    (rule.country === '' || customer.address.country === rule.country) &&
    (rule.kind === '' || customer.kind === rule.kind) &&
    customer.name.toLowerCase().includes(rule.text.trim().toLowerCase())
  );
}

/** One content for many customers. What it says is a draft of the same id, kept apart from drafts that are issued. */
export interface Run {
  readonly id: string;
  readonly name: string;
  /** Issue date of its documents. */
  readonly date: IsoDate;
  /** Instant. */
  readonly at: string;
  readonly operator: string;
  /** The recurring document that made it, whose days its texts name; absent for none. */
  readonly recurringId?: string;
}

export const runSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-a-name', 80),
  date: dateText('give-issue-date'),
  at: yup.string().defined(),
  operator: yup.string().defined(),
  recurringId: yup.string().optional(),
});

export const RUN_STATES = ['planned', 'waits', 'draft', 'issued'] as const;

/** What came of one customer: `planned` before, `waits` where a person must look at its draft. */
export type RunState = (typeof RUN_STATES)[number];

/** One customer of a run. */
export interface RunRow {
  /** `run id|customer id`: a customer stands in a run once. */
  readonly id: string;
  readonly runId: string;
  readonly customerId: string;
  readonly customerName: string;
  /** Left out for now. */
  readonly left: boolean;
  /** Of the first line, as typed; empty for what the content says. */
  readonly quantity: string;
  readonly price: string;
  /** Id of the draft, and of the document that it becomes; empty before. */
  readonly documentId: string;
  readonly state: RunState;
  /** Why it waits; empty for nothing. */
  readonly why: string;
}

export function runRowId(runId: string, customerId: string): string {
  return `${runId}|${customerId}`;
}

/** A customer as it is taken into a run. */
export function newRunRow(runId: string, { id, name }: Pick<Customer, 'id' | 'name'>): RunRow {
  return {
    id: runRowId(runId, id),
    runId,
    customerId: id,
    customerName: name,
    left: false,
    quantity: '',
    price: '',
    documentId: '',
    state: 'planned',
    why: '',
  };
}

/** What the content comes to for one customer: its terms, taxes and own figures, as if it had been typed for it alone. */
export function draftForCustomer(
  { date }: Pick<Run, 'date'>,
  pattern: Draft,
  { quantity, price }: Pick<RunRow, 'quantity' | 'price'>,
  customer: Customer,
  setting: Setting,
  id: string,
): Draft {
  const { runId: _, ...content } = pattern;
  const first = content.lines.find((line) => !isBlank(line));
  const lines = content.lines.map((line) =>
    line === first
      ? { ...line, ...(quantity !== '' && { quantity }), ...(price !== '' && { price, priceFrom: '' }) }
      : line,
  );
  const own: Draft = {
    ...content,
    id,
    familyId: id,
    revision: 0,
    issueDate: date,
    taxPoint: isIsoDate(content.taxPoint) ? content.taxPoint : '',
    contact: '',
    delivery: null,
    held: null,
    lines,
  };
  return takeCustomer(own, customer, setting);
}

/** Figures for customers as they are pasted: name or id, quantity, price. Rows that name nobody of the run are given back. */
export function pastedFigures(
  rows: readonly RunRow[],
  cells: readonly (readonly string[])[],
): { readonly changed: readonly RunRow[]; readonly unknown: readonly string[] } {
  const byName = new Map(
    rows.flatMap((row) => [
      [row.customerName.toLowerCase(), row] as const,
      [row.customerId.toLowerCase(), row] as const,
    ]),
  );
  const changed = new Map<string, RunRow>();
  const unknown: string[] = [];
  for (const [named = '', quantity = '', price = ''] of cells) {
    const row = byName.get(named.trim().toLowerCase());
    if (row === undefined) unknown.push(named.trim());
    else changed.set(row.id, { ...row, quantity: quantity.trim(), price: price.trim() });
  }
  return { changed: [...changed.values()], unknown };
}
