import type { Decision, Moment } from '@/core/book/changes';
import { changesInOrder, type RowChanges } from '@/core/book/changesInOrder';
import type { Content } from '@/core/documents/content';
import type { DocumentLink } from '@/core/documents/issued';
import { nextNumber, type Series } from '@/core/documents/series';
import { freezeBuyer, freezeSeller } from '@/core/documents/setting';
import { isIsoDate } from '@/core/kernel/date';
import { decimal, readTypedDecimal } from '@/core/kernel/decimal';
import { readMoney } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import { changesOf, plainBeside, writeDocument } from './writeDocument';

/** A debt that was there when the book was moved in. */
export interface OpeningInput {
  readonly customerId: string;
  /** ISO dates of the old document. */
  readonly date: string;
  readonly due: string;
  /** Its number in the old books. */
  readonly number: string;
  /** Home currency, tax inside, as typed. */
  readonly amount: string;
}

export interface OpeningMaterial {
  readonly business: Business;
  readonly customer: Customer | undefined;
  readonly registration: Registration;
  readonly series: Series;
  readonly chart: readonly Account[];
}

const NOT_TAXED = {
  code: 'opening',
  name: 'Reported before this book',
  category: 'O',
  percent: decimal('0'),
  legend: '',
  exemptionCode: '',
  components: [],
} as const;

/**
 * Takes in an open item of the old books: it stands against opening balances, is settled and aged like
 * an invoice, and touches no tax, which was reported where it was issued.
 */
export function addOpening(input: OpeningInput, material: OpeningMaterial, moment: Moment): Decision<DocumentLink> {
  const { business, customer, registration, series, chart } = material;
  const { date, due } = input;
  const refusals: Refusal[] = [];
  const read = readTypedDecimal(input.amount);
  const amount = read === null ? null : readMoney(read, business.homeCurrency);
  if (customer === undefined) refusals.push({ code: 'missing', path: 'customerId', wanted: 'choose-customer' });
  if (!isIsoDate(date)) refusals.push({ code: 'invalid', path: 'date', wanted: 'give-day-of-old-document' });
  if (!isIsoDate(due) || due < date) refusals.push({ code: 'invalid', path: 'due', wanted: 'give-due-day' });
  if (read === null || amount === null || amount <= 0n)
    refusals.push({
      code: 'invalid',
      path: 'amount',
      wanted: 'give-open-amount',
      found: input.amount,
    });
  if (input.number.trim() === '') refusals.push({ code: 'missing', path: 'number', wanted: 'give-old-number' });
  if (customer === undefined || !isIsoDate(date) || !isIsoDate(due) || read === null || refusals.length > 0)
    return refuse(...refusals);
  const content: Content = {
    kind: 'opening',
    number: nextNumber(series, date),
    registrationId: registration.id,
    customerId: customer.id,
    issueDate: date,
    taxPoint: date,
    dueDate: due,
    currency: business.homeCurrency,
    priceMode: 'net',
    seller: freezeSeller(business, registration),
    buyer: freezeBuyer(customer),
    buyerReference: input.number.trim(),
    orderNumber: '',
    note: '',
    taxes: [{ ...NOT_TAXED, since: date }],
    lines: [
      {
        id: 'opening',
        description: `Open from the old books: ${input.number.trim()}`,
        quantity: decimal('1'),
        unit: 'C62',
        unitPrice: read,
        tax: NOT_TAXED.code,
        taxByHand: true,
        account: accountFor(chart, 'opening'),
      },
    ],
  };
  const written = writeDocument(content, registration, series, chart, plainBeside(moment.newId()), moment);
  if (!written.ok) return written;
  const { document } = written.value;
  return accept({
    value: { id: document.id, number: document.number },
    changes: {
      ...changesOf(written.value),
      audit: { subject: document.number, about: [document.id, customer.id], after: { open: document.open } },
    },
  });
}

export interface OpeningsMaterial extends Omit<OpeningMaterial, 'customer'> {
  readonly customers: ReadonlyMap<string, Customer>;
  /** Opening invoices that are there, as `customerId number`. */
  readonly known: ReadonlySet<string>;
}

/**
 * Takes in opening invoices in their order, all or none; a refusal's path begins with its place, counted from 0. One that
 * is there already, by customer and number, is refused.
 */
export function addOpenings(
  inputs: readonly OpeningInput[],
  { customers, known, ...material }: OpeningsMaterial,
  moment: Moment,
): Decision<readonly DocumentLink[]> {
  const refusals: Refusal[] = [];
  const steps: RowChanges[] = [];
  const links: DocumentLink[] = [];
  let { series } = material;
  for (const [i, input] of inputs.entries()) {
    const number = input.number.trim();
    if (known.has(`${input.customerId} ${number}`)) {
      refusals.push({ code: 'duplicate', path: `${i}.number`, found: number });
      continue;
    }
    const customer = customers.get(input.customerId);
    const added = addOpening(input, { ...material, customer, series }, moment);
    if (!added.ok) {
      refusals.push(...added.refusals.map((refusal) => ({ ...refusal, path: `${i}.${refusal.path}` })));
      continue;
    }
    const { changes, value } = added.value;
    steps.push(changes);
    links.push(value);
    series = changes.put?.series?.[0] ?? series;
  }
  if (refusals.length > 0) return refuse(...refusals);
  return accept({
    value: links,
    changes: {
      ...changesInOrder(steps),
      audit: { subject: `${links.length} opening invoices`, about: links.map(({ id }) => id) },
    },
  });
}
