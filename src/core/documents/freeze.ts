import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import type { Reason } from '@/core/tax/determine';
import { isActive, type Registration } from '@/core/tax/registration';
import { type Content, type ContentLine, figuresOf } from './content';
import { type Draft, type DraftLine, writtenLines } from './draft';
import { type DraftTaxes, draftTaxes } from './draftTaxes';
import { type DraftDates, datesOf, lineTrail, lineVerdict } from './lineTax';
import { calcLineOf, lineRefusals } from './readLine';
import { freezeBuyer, freezeSeller, registrationFor, type Setting } from './setting';
import { withholdingOn } from './withhold';

function headerRefusals(draft: Draft, dates: DraftDates, customer: Customer | null): Refusal[] {
  const refusals: Refusal[] = [];
  if (customer === null) refusals.push({ code: 'missing', path: 'customerId', expected: 'Choose the customer.' });
  if (dates.issueDate === null)
    refusals.push({ code: 'invalid', path: 'issueDate', expected: 'Give the issue date.', found: draft.issueDate });
  if (dates.taxPoint === null)
    refusals.push({
      code: 'invalid',
      path: 'taxPoint',
      expected: 'Give the tax point as a day.',
      found: draft.taxPoint,
    });
  if (dates.dueDate === null)
    refusals.push({
      code: 'invalid',
      path: 'due',
      expected: 'Give the due date as a day or as terms such as 30d.',
      found: draft.due,
    });
  else if (dates.issueDate !== null && dates.dueDate < dates.issueDate)
    refusals.push({
      code: 'invalid',
      path: 'due',
      expected: 'The due date can not be before the issue date.',
      found: dates.dueDate,
    });
  return refusals;
}

/** What keeps a line's tax from being frozen, or null. */
function taxRefusal(
  draft: Draft,
  line: DraftLine,
  index: number,
  customer: Customer,
  setting: Setting,
  known: DraftTaxes,
): Refusal | null {
  const path = `lines[${index}].taxCode`;
  const problem = known.unresolved.get(line.taxCode);
  if (problem !== undefined) return { code: 'unknown', path, expected: problem, found: line.taxCode };
  if (line.taxByHand) return null;
  const { registrationId } = lineVerdict(draft, line, customer, setting);
  if (registrationId === '' || registrationId === draft.registrationId) return null;
  const nameOf = (id: string) => setting.setup.registrations.find((r) => r.id === id)?.name ?? id;
  return {
    code: 'check-failed',
    path,
    expected: `This line is reported under ${nameOf(registrationId)}, the document under ${nameOf(draft.registrationId)}: put it on a document of its own.`,
  };
}

function changedRefusals(known: DraftTaxes): Refusal[] {
  return known.changed.map(({ held, now }) => ({
    code: 'rate-changed',
    path: 'held',
    expected: `${now.percent} %`,
    found: `${held.name}, ${held.percent} %`,
  }));
}

function filingRate(registration: Registration, setting: Setting): Content['filing'] | Refusal | null {
  const { filingCurrency } = registration;
  if (filingCurrency === setting.business.homeCurrency) return null;
  const rate = setting.rateOf(filingCurrency);
  return rate === null
    ? {
        code: 'missing',
        path: 'taxPoint',
        expected: `${registration.name} is filed in ${filingCurrency}, and no exchange rate is known on or before the tax point: give it in Setup, Exchange rates.`,
      }
    : { currency: filingCurrency, rate };
}

/** Trails that several lines share are kept once. */
class Trails {
  readonly list: (readonly Reason[])[] = [];
  private readonly at = new Map<string, number>();

  place(key: string, make: () => readonly Reason[]): number {
    const known = this.at.get(key);
    if (known !== undefined) return known;
    this.at.set(key, this.list.length);
    return this.list.push(make()) - 1;
  }
}

/**
 * A draft as the content of an invoice with this number, or everything that is still missing, each
 * at its field.
 */
export function freezeInvoice(
  draft: Draft,
  number: string,
  customer: Customer | null,
  setting: Setting,
): Result<Content> {
  const dates = datesOf(draft);
  const currency = setting.business.homeCurrency;
  const written = writtenLines(draft);
  const registration = registrationFor(setting, draft.registrationId);
  const refusals = headerRefusals(draft, dates, customer);
  if (registration === undefined)
    refusals.push({
      code: 'missing',
      path: '',
      expected: 'Set up a registration first: every document belongs to one.',
    });
  if (written.length === 0) refusals.push({ code: 'missing', path: 'lines', expected: 'Write at least one line.' });
  for (const { line, index } of written)
    for (const refusal of lineRefusals(line, index, currency)) {
      // A missing tax says why the table decided nothing, rather than only that it is missing.
      const why = refusal.path.endsWith('.taxCode') ? lineVerdict(draft, line, customer, setting).problem : '';
      refusals.push(why === '' ? refusal : { ...refusal, expected: why });
    }
  const { issueDate, taxPoint, dueDate } = dates;
  if (issueDate === null || taxPoint === null || dueDate === null || customer === null || registration === undefined)
    return refuse(...refusals);
  if (!isActive(registration, taxPoint))
    refusals.push({
      code: 'invalid',
      path: 'taxPoint',
      expected: `${registration.name} is not in force on the tax point: choose another day or registration.`,
      found: taxPoint,
    });

  const known = draftTaxes(draft, customer, setting);
  refusals.push(...changedRefusals(known));
  const filing = filingRate(registration, setting);
  if (filing !== null && filing !== undefined && 'path' in filing) refusals.push(filing);
  const lines: ContentLine[] = [];
  const trails = new Trails();
  for (const { line, index } of written) {
    const figures = calcLineOf(line, currency);
    if (figures === null) continue;
    const wrong = taxRefusal(draft, line, index, customer, setting, known);
    if (wrong !== null) refusals.push(wrong);
    lines.push({
      id: line.id,
      description: line.description.trim(),
      quantity: figures.quantity,
      unit: line.unit,
      unitPrice: figures.unitPrice,
      ...(figures.discount && { discount: figures.discount }),
      tax: line.taxCode,
      taxByHand: line.taxByHand,
      account: line.account,
      ...(line.priceFrom !== '' && { priceFrom: line.priceFrom }),
      trailOf: trails.place(`${line.supply}|${line.taxClass}`, () => lineTrail(draft, line, customer, setting)),
    });
  }
  if (refusals.length > 0) return refuse(...refusals);
  const content: Content = {
    kind: 'invoice',
    number,
    registrationId: registration.id,
    customerId: customer.id,
    issueDate,
    taxPoint,
    dueDate,
    currency,
    priceMode: draft.priceMode,
    seller: freezeSeller(setting.business, registration),
    buyer: freezeBuyer(customer),
    ...(draft.delivery !== null && { delivery: draft.delivery }),
    buyerReference: draft.buyerReference.trim(),
    orderNumber: draft.orderNumber.trim(),
    note: draft.note.trim(),
    rounding: registration.rounding,
    ...(registration.basis === 'on-payment' && { basis: registration.basis }),
    ...(filing !== null && filing !== undefined && 'currency' in filing && { filing }),
    taxes: known.taxes,
    lines,
    trails: trails.list,
  };
  const withholding = withholdingOn(customer, setting, taxPoint, figuresOf(content));
  return accept(withholding.length === 0 ? content : { ...content, withholding });
}
