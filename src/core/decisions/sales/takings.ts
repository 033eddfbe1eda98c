import type { Decision, Moment } from '@/core/book/changes';
import type { Content, ContentLine } from '@/core/documents/content';
import type { DocumentLink } from '@/core/documents/issued';
import { resolveKey } from '@/core/documents/lineTax';
import { nextNumber, type Series } from '@/core/documents/series';
import { freezeSeller, registrationFor, type Setting } from '@/core/documents/setting';
import { isIsoDate } from '@/core/kernel/date';
import { decimal, readTypedDecimal } from '@/core/kernel/decimal';
import { readMoney } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import { isActive } from '@/core/tax/registration';
import type { ResolvedTax } from '@/core/tax/resolve';
import { codesUnder } from '@/core/tax/taxSetup';
import { changesOf, plainBeside, writeDocument } from './writeDocument';

/** A day's till, by tax code. */
export interface TakingsInput {
  readonly registrationId: string;
  /** ISO date. */
  readonly date: string;
  readonly paidBy: PaymentMethod;
  /** Tax inside; as typed. */
  readonly rows: readonly { readonly taxCode: string; readonly amount: string; readonly account: string }[];
  readonly note: string;
}

export interface TakingsMaterial {
  readonly setting: Setting;
  readonly series: Series;
  readonly chart: readonly Account[];
}

/**
 * Records what a till took on a day, without items: tax entries and a posting to the bank account, but
 * no invoice to anyone.
 */
export function recordTakings(
  input: TakingsInput,
  { setting, series, chart }: TakingsMaterial,
  moment: Moment,
): Decision<DocumentLink> {
  const { business } = setting;
  const { date } = input;
  const registration = registrationFor(setting, input.registrationId);
  if (registration === undefined) return refuse({ code: 'not-found', path: 'registrationId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-day-of-till', found: date });
  const refusals: Refusal[] = [];
  if (date > moment.today) refusals.push({ code: 'invalid', path: 'date', wanted: 'till-after-its-day', found: date });
  if (!isActive(registration, date))
    refusals.push({ code: 'not-in-force', path: 'date', registration: registration.name, day: date });
  const taxes = new Map<string, ResolvedTax>();
  const local = new Set(codesUnder(registration, setting.setup).map(({ id }) => id));
  const lines = input.rows.flatMap(({ taxCode, amount, account }, i): readonly ContentLine[] => {
    if (amount.trim() === '') return [];
    const read = readTypedDecimal(amount);
    const tax = resolveKey(taxCode, date, null, setting);
    if (read === null || readMoney(read, business.homeCurrency) === null) {
      refusals.push({ code: 'invalid', path: `rows[${i}].amount`, wanted: 'give-amount', found: amount });
      return [];
    }
    if (!local.has(taxCode)) {
      refusals.push({
        code: 'invalid',
        path: `rows[${i}].taxCode`,
        wanted: { what: 'code-of-territory', registration: registration.name, code: taxCode },
      });
      return [];
    }
    if ('problem' in tax) {
      refusals.push({ code: 'undecided', path: `rows[${i}].taxCode`, why: tax.problem });
      return [];
    }
    taxes.set(tax.code, tax);
    return [
      {
        id: `till-${i + 1}`,
        description: `Till, ${tax.name}`,
        quantity: decimal('1'),
        unit: 'C62',
        unitPrice: read,
        tax: taxCode,
        taxByHand: true,
        account,
      },
    ];
  });
  if (lines.length === 0 && refusals.length === 0)
    refusals.push({
      code: 'missing',
      path: 'rows[0].amount',
      wanted: 'give-takings',
    });
  if (refusals.length > 0) return refuse(...refusals);
  const content: Content = {
    kind: 'takings',
    number: nextNumber(series, date),
    registrationId: registration.id,
    customerId: '',
    issueDate: date,
    taxPoint: date,
    dueDate: date,
    currency: business.homeCurrency,
    priceMode: 'gross',
    seller: freezeSeller(business, registration),
    buyer: {
      name: 'Counter sales',
      address: { street: '', city: '', region: '', postalCode: '', country: business.address.country },
      email: '',
      taxNumber: '',
      endpoint: { scheme: '', id: '' },
    },
    buyerReference: '',
    orderNumber: '',
    note: input.note.trim(),
    paidBy: input.paidBy,
    rounding: { ...registration.rounding, cashStep: '' },
    taxes: [...taxes.values()],
    lines,
  };
  const written = writeDocument(content, registration, series, chart, plainBeside(moment.newId()), moment);
  if (!written.ok) return written;
  const { document } = written.value;
  return accept({
    value: { id: document.id, number: document.number },
    changes: {
      ...changesOf(written.value),
      audit: { subject: document.number, about: [document.id], after: { taken: document.figures.totals.gross } },
    },
  });
}
