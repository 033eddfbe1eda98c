import { type Content, figuresOf } from '@/core/documents/content';
import { type Draft, isBlank } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { traitsOfDraft } from '@/core/documents/kinds';
import { lineVerdict } from '@/core/documents/lineTax';
import { readLine } from '@/core/documents/readLine';
import { registrationFor, type Setting } from '@/core/documents/setting';
import { exponentOf } from '@/core/kernel/currency';
import { daysBetween, type IsoDate, writeDate } from '@/core/kernel/date';
import { isAmbiguousIn, ratioOf, tenTo } from '@/core/kernel/decimal';
import { type Minor, total } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import type { Customer } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { territoryOf } from '@/core/tax/jurisdiction';

/** Days beyond which a date is asked about. */
const LONG_AHEAD = 31;
const LONG_AGO = 92;
const YEAR = 366;
/** An exchange rate of more days before the tax point is asked about. */
const OLD_RATE = 31;

type Asked = Omit<Finding, 'source'>;

const should = (rule: string, field: string, message: string): Asked => ({ rule, severity: 'should', field, message });

/** Dates without sense: far from today, far from each other, or from before the book. */
function dateFindings({ issueDate, taxPoint, dueDate }: Content, keptFrom: IsoDate, today: IsoDate): readonly Asked[] {
  const ahead = daysBetween(today, issueDate);
  const found: Asked[] = [];
  if (issueDate < keptFrom)
    found.push({
      rule: 'DATE-BOOK',
      severity: 'must',
      field: 'issueDate',
      message: `The issue date lies before the first day of this book, ${writeDate(keptFrom)}: enter what was open then as an opening invoice.`,
    });
  if (ahead > LONG_AHEAD || ahead < -LONG_AGO)
    found.push(
      should(
        'DATE-ISSUE',
        'issueDate',
        `The issue date ${writeDate(issueDate)} is ${Math.abs(ahead)} days ${ahead > 0 ? 'ahead' : 'ago'}: is it right?`,
      ),
    );
  const apart = daysBetween(issueDate, taxPoint);
  if (Math.abs(apart) > YEAR)
    found.push(
      should(
        'DATE-TAX-POINT',
        'taxPoint',
        `The tax point ${writeDate(taxPoint)} is ${Math.abs(apart)} days from the issue date: is it right?`,
      ),
    );
  if (daysBetween(issueDate, dueDate) > YEAR)
    found.push(
      should(
        'DATE-DUE',
        'due',
        `The due date ${writeDate(dueDate)} is more than a year after the issue date: is it right?`,
      ),
    );
  return found;
}

/** Codes chosen by hand that the decision table would not give, or that charge the tax of another country. */
function handFindings(draft: Draft, content: Content, customer: Customer | null, setting: Setting): readonly Asked[] {
  const { jurisdiction } = setting.setup;
  const registration = registrationFor(setting, content.registrationId);
  const nameOf = (code: string) => content.taxes.find((tax) => tax.code === code)?.name ?? code;
  const at = (one: Draft['lines'][number] | Draft['adjustments'][number], field: string): readonly Asked[] => {
    // An advance goes off by what it was charged at.
    if (!one.taxByHand || ('takesOff' in one && one.takesOff !== undefined)) return [];
    const found: Asked[] = [];
    const { key, rowId } = lineVerdict(draft, one, customer, setting);
    const row = setting.setup.rows.find(({ id }) => id === rowId);
    if (key !== '' && key !== one.taxCode)
      found.push(
        should(
          'TAX-BY-HAND',
          field,
          `${nameOf(one.taxCode)} was chosen manually; the decision table gives ${key} here${row === undefined ? '' : `, by its row “${row.name}”`}.`,
        ),
      );
    const abroad = content.taxes
      .find((tax) => tax.code === one.taxCode)
      ?.components?.find((c) => territoryOf(jurisdiction, c.jurisdictionId).country !== registration?.country);
    if (abroad !== undefined && registration !== undefined)
      found.push(
        should(
          'TAX-ABROAD',
          field,
          `${nameOf(one.taxCode)} charges a tax of ${abroad.jurisdictionName}, but the document is reported under ${registration.name}.`,
        ),
      );
    return found;
  };
  return [
    ...draft.lines.flatMap((line, i) => at(line, `lines[${i}].taxCode`)),
    ...draft.adjustments.flatMap((adjustment, i) =>
      adjustment.spread ? [] : at(adjustment, `adjustments[${i}].taxCode`),
    ),
  ];
}

const taxIn = (figures: CalcResult, tax: string, family: string): Minor =>
  total(
    figures.groups.flatMap((group) =>
      group.tax === tax ? group.components.flatMap((c) => (c.family === family ? [c.amount] : [])) : [],
    ),
  );

/** A typed tax is there to mend what rounds elsewhere, not to charge another one. */
function overrideFindings(content: Content, draft: Draft): readonly Asked[] {
  const { overrides = [], currency, ...rest } = content;
  if (overrides.length === 0) return [];
  const typed = figuresOf(content);
  const computed = figuresOf({ ...rest, currency });
  const unit = tenTo(exponentOf(currency));
  return overrides.flatMap(({ tax, family }): readonly Asked[] => {
    const [is, was] = [taxIn(typed, tax, family), taxIn(computed, tax, family)];
    const by = is > was ? is - was : was - is;
    if (by < unit) return [];
    const beyond = by > (was < 0n ? -was : was) / 2n + unit;
    const index = draft.overrides.findIndex((one) => one.tax === tax && one.family === family);
    return [
      {
        rule: 'TAX-TYPED',
        severity: beyond ? 'must' : 'should',
        field: `overrides[${index}].amount`,
        message: `The tax was typed as ${showMoney(is, currency)} ${currency}, but the lines come to ${showMoney(was, currency)}: ${beyond ? 'choose another tax code instead' : 'is it right?'}`,
      },
    ];
  });
}

/** Exchange rates that are older than a month. */
function rateFindings({ home, taxPoint, filing, currency }: Content, setting: Setting): readonly Asked[] {
  const old = (of: string, on: IsoDate, field: string): readonly Asked[] => {
    const days = daysBetween(on, taxPoint);
    const message = `The exchange rate of ${of} is ${days} days old, of ${writeDate(on)}: type the rate of the date, or add it in Setup.`;
    return days > OLD_RATE ? [should('RATE-OLD', field, message)] : [];
  };
  const filed = filing === undefined || filing.currency === currency ? null : setting.rateOf(filing.currency);
  return [
    ...(home === undefined ? [] : old(currency, home.on, 'perHome')),
    ...(filed === null || filing === undefined ? [] : old(filing.currency, filed.date, 'taxPoint')),
  ];
}

/** Figures that may be read in two ways where the business is at home, and quantities below zero. */
function figureFindings(draft: Draft, { currency }: Content, { business }: Setting): readonly Asked[] {
  return draft.lines.flatMap((line, i): readonly Asked[] => {
    if (isBlank(line)) return [];
    const { quantity, unitPrice } = readLine(line, currency);
    const typed = [
      ['quantity', line.quantity, quantity],
      ['price', line.priceFrom === '' ? line.price : '', unitPrice],
    ] as const;
    const twofold = typed.flatMap(([field, text, read]) =>
      read !== null && isAmbiguousIn(business.address.country, text)
        ? [should('FIGURE-READ', `lines[${i}].${field}`, `“${text.trim()}” was read as ${read}: is it right?`)]
        : [],
    );
    const below = quantity !== null && ratioOf(quantity).n < 0n && line.takesOff === undefined;
    return below
      ? [
          ...twofold,
          should(
            'QUANTITY-BELOW',
            `lines[${i}].quantity`,
            `Line ${i + 1} has a quantity below zero: to take back what was invoiced, write a credit note.`,
          ),
        ]
      : twofold;
  });
}

/** What of the world a look at a draft needs. */
export interface Known {
  readonly today: IsoDate;
  /** Number of another document for the same customer with the same order number; empty where there is none. */
  readonly orderUsed: string;
}

/**
 * What is unusual on a draft against its set-up and today: dates without sense, taxes chosen or typed
 * by hand, figures that may be read in two ways, an order that was invoiced before, old exchange rates, a public
 * customer without an e-invoice address.
 */
export function draftFindings(
  draft: Draft,
  content: Content,
  customer: Customer | null,
  setting: Setting,
  { today, orderUsed }: Known,
): readonly Finding[] {
  if (!traitsOfDraft(draft.kind).posts) return [];
  const keptFrom = registrationFor(setting, content.registrationId)?.keptFrom ?? content.issueDate;
  const meant = customer?.kind === 'government' && customer.endpoint.id === '' && draft.kind === 'invoice';
  const found = [
    ...dateFindings(content, keptFrom, today),
    ...handFindings(draft, content, customer, setting),
    ...overrideFindings(content, draft),
    ...figureFindings(draft, content, setting),
    ...rateFindings(content, setting),
    ...(orderUsed === ''
      ? []
      : [
          should(
            'ORDER-USED',
            'orderNumber',
            `The order number ${content.orderNumber} stands on ${orderUsed} too: was it invoiced already?`,
          ),
        ]),
    ...(meant
      ? [
          should(
            'E-INVOICE-ADDRESS',
            'customer.endpoint.id',
            'Public customers usually take e-invoices only: give their e-invoice address, or issue it on paper.',
          ),
        ]
      : []),
  ];
  return found.map((finding) => ({ ...finding, source: 'Able Ledger' }));
}
