import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { offsetFrom } from '@/core/parties/terms';
import { determineCode } from '@/core/tax/determine';
import { rateOn } from '@/core/tax/taxCode';
import type { Content, ContentLine, FrozenTax } from './content';
import { type Draft, type DraftLine, isBlank } from './draft';
import type { Item } from './item';
import { calcLineOf, lineRefusals } from './readLine';
import { freezeBuyer, freezeSeller, type Setting } from './setting';

/** The days of a draft once read; null where the text is not a day. */
export interface DraftDates {
  readonly issueDate: IsoDate | null;
  readonly taxPoint: IsoDate | null;
  readonly dueDate: IsoDate | null;
}

export function datesOf(draft: Draft): DraftDates {
  const issueDate = isIsoDate(draft.issueDate) ? draft.issueDate : null;
  const taxPoint = draft.taxPoint === '' ? issueDate : isIsoDate(draft.taxPoint) ? draft.taxPoint : null;
  const dueDate = isIsoDate(draft.due) ? draft.due : issueDate === null ? null : offsetFrom(issueDate, draft.due);
  return { issueDate, taxPoint, dueDate };
}

/** The lines that say something, with their place in the draft. */
export function writtenLines(draft: Draft): readonly { line: DraftLine; index: number }[] {
  return draft.lines.map((line, index) => ({ line, index })).filter(({ line }) => !isBlank(line));
}

/** The codes that a draft's lines use, with the rates of a day. Unknown or unborn codes are left out. */
export function taxesOn(draft: Draft, setting: Setting, day: IsoDate): FrozenTax[] {
  const used = [...new Set(writtenLines(draft).map(({ line }) => line.taxCode))];
  return used.flatMap((id) => {
    const code = setting.codes.find((c) => c.id === id);
    const rate = code === undefined ? null : rateOn(code, day);
    if (code === undefined || rate === null) return [];
    const { name, category, legend, exemptionCode } = code;
    return [{ code: id, name, category, legend, exemptionCode, percent: rate.percent, since: rate.from }];
  });
}

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

/**
 * A draft as the content of an invoice with this number, or everything that is still missing, each
 * at its field. `items` are those that the lines name; they only serve the trail of the tax code.
 */
export function freezeInvoice(
  draft: Draft,
  number: string,
  customer: Customer | null,
  items: readonly Item[],
  setting: Setting,
): Result<Content> {
  const dates = datesOf(draft);
  const currency = setting.business.homeCurrency;
  const written = writtenLines(draft);
  const refusals = headerRefusals(draft, dates, customer);
  if (written.length === 0) refusals.push({ code: 'missing', path: 'lines', expected: 'Write at least one line.' });
  for (const { line, index } of written) refusals.push(...lineRefusals(line, index, currency));
  const { issueDate, taxPoint, dueDate } = dates;
  if (issueDate === null || taxPoint === null || dueDate === null || customer === null) return refuse(...refusals);

  const taxes = taxesOn(draft, setting, taxPoint);
  const lines: ContentLine[] = [];
  for (const { line, index } of written) {
    const figures = calcLineOf(line, currency);
    if (figures === null) continue;
    if (!taxes.some((tax) => tax.code === line.taxCode)) {
      refusals.push({
        code: 'unknown',
        path: `lines[${index}].taxCode`,
        expected: `This code has no rate on ${taxPoint}: choose another, or give it a rate in Setup.`,
        found: line.taxCode,
      });
      continue;
    }
    const item = items.find((i) => i.id === line.itemId);
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
      trail: determineCode(setting.codes, customer, item?.taxClass ?? '').trail,
    });
  }
  if (refusals.length > 0) return refuse(...refusals);
  return accept({
    kind: 'invoice',
    number,
    registrationId: setting.registration.id,
    customerId: customer.id,
    issueDate,
    taxPoint,
    dueDate,
    currency,
    priceMode: draft.priceMode,
    seller: freezeSeller(setting.business, setting.registration),
    buyer: freezeBuyer(customer),
    buyerReference: draft.buyerReference.trim(),
    orderNumber: draft.orderNumber.trim(),
    note: draft.note.trim(),
    taxes,
    lines,
  });
}
