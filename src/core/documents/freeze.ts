import { isIsoDate } from '@/core/kernel/date';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { compactIban } from '@/core/parties/iban';
import { readTerms } from '@/core/parties/terms';
import { isActive } from '@/core/tax/registration';
import { checkPackFor } from './checks';
import { type Content, type DirectDebit, figuresOf } from './content';
import { type Draft, writtenLines } from './draft';
import { filingRate, homeRateOf, isRefusal } from './draftRate';
import { type DraftTaxes, draftTaxes } from './draftTaxes';
import { freezeLines, freezeOverrides } from './freezeLines';
import { DRAFT_KINDS, traitsOfDraft } from './kinds';
import { type DraftDates, datesOf, lineVerdict } from './lineTax';
import { payLinkOf } from './payLink';
import { adjustmentRefusals, currencyOf, lineRefusals } from './readLine';
import { freezeBuyer, freezeSeller, paidInto, registrationFor, roundingIn, type Setting } from './setting';
import { thresholdRefusals, withholdingOn } from './withhold';

function headerRefusals(draft: Draft, dates: DraftDates, customer: Customer | null): Refusal[] {
  const refusals: Refusal[] = [];
  if (customer === null) refusals.push({ code: 'missing', path: 'customerId', wanted: 'choose-customer' });
  if (dates.issueDate === null)
    refusals.push({ code: 'invalid', path: 'issueDate', wanted: 'give-issue-date', found: draft.issueDate });
  if (dates.taxPoint === null)
    refusals.push({
      code: 'invalid',
      path: 'taxPoint',
      wanted: 'give-tax-point',
      found: draft.taxPoint,
    });
  if (dates.dueDate === null)
    refusals.push({
      code: 'invalid',
      path: 'due',
      wanted: traitsOfDraft(draft.kind).posts ? 'give-due-date' : 'say-how-long-it-holds',
      found: draft.due,
    });
  else if (dates.issueDate !== null && dates.dueDate < dates.issueDate)
    refusals.push({
      code: 'invalid',
      path: 'due',
      wanted: 'due-date-not-before-issue',
      found: dates.dueDate,
    });
  const { supplyFrom, accountingDate } = draft;
  if (supplyFrom !== '' && (!isIsoDate(supplyFrom) || (dates.taxPoint !== null && supplyFrom > dates.taxPoint)))
    refusals.push({
      code: 'invalid',
      path: 'supplyFrom',
      wanted: 'give-first-day-of-supply',
      found: supplyFrom,
    });
  if (accountingDate !== '' && !isIsoDate(accountingDate))
    refusals.push({
      code: 'invalid',
      path: 'accountingDate',
      wanted: 'give-accounting-date',
      found: accountingDate,
    });
  draft.lines.forEach(({ supplied }, i) => {
    if (supplied !== '' && !isIsoDate(supplied))
      refusals.push({
        code: 'invalid',
        path: `lines[${i}].supplied`,
        wanted: 'give-day-of-supply',
        found: supplied,
      });
  });
  return refusals;
}

function changedRefusals(known: DraftTaxes): Refusal[] {
  return known.changed.map(({ held, now }) => ({
    code: 'rate-changed',
    path: 'held',
    tax: held.name,
    held: `${held.percent} %`,
    now: `${now.percent} %`,
  }));
}

/** How an invoice is collected from a customer who has given a mandate. */
function debitOf({ mandate }: Customer, { business }: Setting): DirectDebit {
  const { reference, iban } = mandate;
  return { reference: reference.trim(), iban: compactIban(iban), creditorId: business.creditorId.trim() };
}

/** What a draft says beside its lines, as far as it says anything. */
function headerParts(draft: Draft): Partial<Content> {
  const text = (value: string) => value.trim();
  const { supplyFrom } = draft;
  return {
    ...(draft.delivery !== null && { delivery: draft.delivery }),
    ...(text(draft.carrier) !== '' && { carrier: text(draft.carrier) }),
    ...(text(draft.tracking) !== '' && { tracking: text(draft.tracking) }),
    ...(text(draft.subject) !== '' && { subject: text(draft.subject) }),
    ...(text(draft.salesperson) !== '' && { salesperson: text(draft.salesperson) }),
    ...(text(draft.conditions) !== '' && { conditions: text(draft.conditions) }),
    ...(isIsoDate(supplyFrom) && { supplyFrom }),
    ...(DRAFT_KINDS[draft.kind].paidAtOnce && { paidBy: draft.paidBy }),
    ...(draft.origin?.how === 'stage' && {
      stage: {
        documentId: draft.origin.documentId,
        number: draft.origin.number,
        words: draft.origin.words,
        by: draft.origin.by,
      },
    }),
  };
}

/**
 * A draft as the content of the document that it becomes, with this number, or everything that is
 * still missing, each at its field.
 */
export function freezeDraft(
  draft: Draft,
  number: string,
  customer: Customer | null,
  setting: Setting,
): Result<Content> {
  const dates = datesOf(draft);
  const currency = currencyOf(draft, setting.business.homeCurrency);
  const written = writtenLines(draft);
  const registration = registrationFor(setting, draft.registrationId);
  const refusals = headerRefusals(draft, dates, customer);
  if (registration === undefined)
    refusals.push({
      code: 'missing',
      path: '',
      wanted: 'set-up-registration',
    });
  if (written.length === 0) refusals.push({ code: 'missing', path: 'lines', wanted: 'write-a-line' });
  for (const { line, index } of written)
    for (const refusal of lineRefusals(line, index, currency)) {
      // A missing tax says why the table decided nothing, rather than only that it is missing.
      const why = refusal.path.endsWith('.taxCode') ? lineVerdict(draft, line, customer, setting).problem : '';
      refusals.push(why === '' ? refusal : { code: 'undecided', path: refusal.path, why });
    }
  draft.adjustments.forEach((adjustment, index) => {
    refusals.push(...adjustmentRefusals(adjustment, index, currency));
  });
  const { issueDate, taxPoint, dueDate } = dates;
  const terms = issueDate === null ? null : readTerms(issueDate, draft.due);
  if (
    issueDate === null ||
    taxPoint === null ||
    dueDate === null ||
    terms === null ||
    customer === null ||
    registration === undefined
  )
    return refuse(...refusals);
  if (!isActive(registration, taxPoint))
    refusals.push({
      code: 'not-in-force',
      path: 'taxPoint',
      registration: registration.name,
      day: taxPoint,
    });

  const known = draftTaxes(draft, customer, setting);
  refusals.push(...changedRefusals(known));
  const home = homeRateOf(draft, setting);
  if (isRefusal(home)) refusals.push(home);
  const filing = isRefusal(home) ? undefined : filingRate(registration, currency, home, setting);
  if (isRefusal(filing)) refusals.push(filing);
  if (traitsOfDraft(draft.kind).posts)
    refusals.push(...thresholdRefusals(customer, setting, taxPoint, currency, isRefusal(home) ? undefined : home));
  const { lines, adjustments, trails } = freezeLines(draft, customer, setting, known, refusals);
  const overrides = freezeOverrides(draft, known.taxes, currency, refusals);
  if (refusals.length > 0 || isRefusal(home) || isRefusal(filing)) return refuse(...refusals);
  const { becomes, posts } = traitsOfDraft(draft.kind);
  const content: Content = {
    kind: becomes,
    number,
    registrationId: registration.id,
    customerId: customer.id,
    issueDate,
    taxPoint,
    dueDate,
    ...(terms.instalments.length > 0 && { instalments: terms.instalments }),
    ...(terms.settlement !== null && { settlement: terms.settlement }),
    currency,
    ...(home !== undefined && { home }),
    priceMode: draft.priceMode,
    seller: freezeSeller(setting.business, registration, paidInto(draft, customer, setting)),
    buyer: freezeBuyer(customer, draft.contact.trim()),
    ...headerParts(draft),
    ...(draft.advance === true && draft.kind === 'invoice' && { advance: true }),
    ...(draft.kind === 'invoice' && customer.mandate.reference !== '' && { debit: debitOf(customer, setting) }),
    buyerReference: draft.buyerReference.trim(),
    orderNumber: draft.orderNumber.trim(),
    note: draft.note.trim(),
    rounding: roundingIn(registration, currency, draft, setting),
    checks: checkPackFor(registration.country, taxPoint).id,
    ...(registration.basis === 'on-payment' && posts && { basis: registration.basis }),
    ...(filing !== undefined && { filing }),
    taxes: known.taxes,
    lines,
    ...(adjustments.length > 0 && { adjustments }),
    ...(overrides.length > 0 && { overrides }),
    trails,
  };
  const figures = figuresOf(content);
  const withholding = posts ? withholdingOn(customer, setting, taxPoint, figures, content.home) : [];
  const payLink = payLinkOf(content, figures, setting.business);
  return accept({
    ...content,
    ...(payLink !== '' && { payLink }),
    ...(withholding.length > 0 && { withholding }),
  });
}
