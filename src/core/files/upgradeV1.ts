import type { BookContent } from '@/core/decisions/changes';
import type { Draft } from '@/core/documents/draft';
import type { Item } from '@/core/documents/item';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { NOTHING } from '@/core/kernel/money';
import { type Account, FIRST_CHART } from '@/core/ledger/account';
import type { Customer } from '@/core/parties/customer';
import { returnOf, type TaxBalance, type TaxPeriod } from '@/core/periods/return';
import type { TaxEntry } from '@/core/periods/taxEntry';
import type { DecisionRow } from '@/core/tax/decisionTable';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import type { Registration } from '@/core/tax/registration';
import type { Tax } from '@/core/tax/tax';
import { chargesNothing, type TaxCode } from '@/core/tax/taxCode';

/** A row of a book of version 1; only what has changed since is named. */
type Old<T, Gone = unknown> = Partial<T> & Gone & { readonly id: string };

type OldCode = Old<
  Pick<TaxCode, 'name' | 'category' | 'exemptionCode'>,
  {
    readonly taxClass: string;
    readonly legend: string;
    readonly rates: readonly { readonly from: IsoDate; readonly percent: Decimal }[];
  }
>;

/** Tables of version 1, as far as they are read here; all others stay as they are. */
export interface BookContentV1 {
  readonly book: BookContent['book'];
  readonly registrations: readonly (Old<Registration> & { readonly country: string; readonly name: string })[];
  readonly taxCodes: readonly OldCode[];
  readonly customers: readonly Old<Customer, { readonly taxNumber: string; readonly address: Customer['address'] }>[];
  readonly items: readonly Old<Item, { readonly unit: string }>[];
  readonly accounts: readonly Account[];
  readonly drafts: readonly Old<Draft, { readonly lines: Draft['lines'] }>[];
  readonly taxEntries: readonly (Old<TaxEntry> & Pick<TaxEntry, 'base' | 'tax'>)[];
  readonly taxPeriods: readonly TaxPeriod[];
}

/** The tables that the upgrade writes anew. */
export type Upgraded = Pick<
  BookContent,
  | 'registrations'
  | 'jurisdictions'
  | 'taxes'
  | 'taxCodes'
  | 'decisionTables'
  | 'customers'
  | 'items'
  | 'accounts'
  | 'drafts'
  | 'taxEntries'
  | 'taxPeriods'
>;

const TIMED_UNITS: ReadonlySet<string> = new Set(['HUR', 'DAY', 'WEE', 'MON']);

const supplyOf = (unit: string) => (TIMED_UNITS.has(unit) ? ('service' as const) : ('goods' as const));

/** Each code of version 1 had rates of its own: they become rates of one tax of the home territory. */
function taxesOf(codes: readonly OldCode[], country: string): { tax: Tax; codes: TaxCode[]; rows: DecisionRow[] } {
  const id = `${country}-TAX`;
  const classes = codes.map((code) => code.taxClass);
  const classOf = (code: OldCode) =>
    code.taxClass !== '' && classes.indexOf(code.taxClass) === codes.indexOf(code)
      ? code.taxClass
      : code.id.toLowerCase();
  const charged = codes.filter((code) => !chargesNothing(code.category ?? 'S'));
  const tax: Tax = {
    id,
    jurisdictionId: country,
    name: 'Tax',
    rates: charged.flatMap((code) =>
      code.rates.map(({ from, percent }) => ({
        taxClass: classOf(code),
        from,
        until: '' as const,
        percent,
        perUnit: '' as const,
        source: '',
      })),
    ),
  };
  return {
    tax,
    codes: codes.map((code): TaxCode => {
      const { id: codeId, name = codeId, category = 'S', exemptionCode = '', legend } = code;
      const none = chargesNothing(category);
      return {
        id: codeId,
        name,
        category,
        exemptionCode,
        legends: legend === '' ? [] : [{ language: 'en', text: legend }],
        components: none ? [] : [{ taxId: id, taxClass: classOf(code), family: '', compound: false }],
        boxBase: '',
        boxTax: '',
      };
    }),
    rows: codes
      .filter((code) => code.taxClass !== '' && classes.indexOf(code.taxClass) === codes.indexOf(code))
      .map((code) => ({
        id: `class-${code.id}`,
        name: `Class ${code.taxClass}`,
        registeredIn: [],
        supply: [],
        taxClass: [code.taxClass],
        customer: [],
        number: [],
        shipFrom: [],
        shipTo: [],
        from: '',
        until: '',
        result: { kind: 'code', code: code.id },
        source: '',
      })),
  };
}

const upgradeCustomer = (old: BookContentV1['customers'][number]): BookContent['customers'][number] => {
  const { taxNumber, ...rest } = old;
  const taxNumbers = taxNumber === '' ? [] : [{ country: old.address.country, number: taxNumber, check: null }];
  const kind = taxNumber === '' ? 'consumer' : 'business';
  const added = { kind, language: 'en', taxNumbers, priceListId: '', notLiableIn: [], withholding: [] };
  return { ...rest, ...added } as unknown as BookContent['customers'][number];
};

const upgradeDraft = (old: BookContentV1['drafts'][number]): Draft => {
  const lines = old.lines.map((line) => ({
    ...line,
    taxClass: 'standard',
    supply: supplyOf(line.unit),
    priceFrom: '',
  }));
  return { ...old, lines, registrationByHand: false, delivery: null, held: null } as Draft;
};

/**
 * A book of version 1 as one of version 2: rates move from tax codes to a tax of the home territory,
 * classes of codes become rows of the decision table, and what is new gets the value that changes
 * nothing. Issued documents stay as they were sealed.
 */
export function upgradeV1(old: BookContentV1): Upgraded {
  const home = old.book[0]?.business.homeCurrency;
  if (home === undefined) throw new RangeError('a book without its business can not be brought up to date');
  const country = old.registrations[0]?.country ?? old.book[0]?.business.address.country ?? '';
  const { tax, codes, rows } = taxesOf(old.taxCodes, country);
  const jurisdictionOf = (id: string | undefined) => old.registrations.find((r) => r.id === id)?.country ?? country;
  const jurisdictions: Jurisdiction[] = [...new Set([country, ...old.registrations.map((r) => r.country)])].map(
    (code) => ({ id: code, name: code, kind: 'country', code, parentId: '' }),
  );
  const accounts = [
    ...old.accounts,
    ...FIRST_CHART.filter(
      ({ code, role }) => role !== '' && !old.accounts.some((a) => a.code === code || a.role === role),
    ),
  ];
  const account = (role: string) => accounts.find((a) => a.role === role)?.code ?? '';
  const entryOf = (entry: BookContentV1['taxEntries'][number]): TaxEntry =>
    ({
      ...entry,
      jurisdictionId: jurisdictionOf(entry.registrationId),
      jurisdictionName: jurisdictionOf(entry.registrationId),
      taxId: '',
      part: 0,
      kind: 'due',
      receiptId: '',
      certificate: '',
      boxBase: '',
      boxTax: '',
      filingCurrency: home,
      filingBase: entry.base,
      filingTax: entry.tax,
    }) as TaxEntry;
  const rowOf = (row: TaxBalance, registrationId: string): TaxBalance => ({
    ...row,
    jurisdictionId: jurisdictionOf(registrationId),
    jurisdictionName: jurisdictionOf(registrationId),
    taxId: '',
    kind: 'due',
    boxBase: '',
    boxTax: '',
    baseOnce: row.base,
    filingCurrency: home,
    filingBase: row.base,
    filingBaseOnce: row.base,
    filingTax: row.tax ?? NOTHING,
  });
  return {
    jurisdictions,
    taxes: [tax],
    taxCodes: codes,
    decisionTables: [{ id: 'table', rows }],
    accounts,
    registrations: old.registrations.map(
      (r) =>
        ({
          ...r,
          jurisdictionId: r.country,
          from: '',
          until: '',
          filingCurrency: home,
          rounding: { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' },
          accounts: {
            output: account('output-tax'),
            notYetDue: account('tax-not-yet-due'),
            payable: account('tax-payable'),
          },
        }) as Registration,
    ),
    customers: old.customers.map(upgradeCustomer),
    items: old.items.map(
      (item) => ({ ...item, priceMode: 'net', supply: supplyOf(item.unit) }) as BookContent['items'][number],
    ),
    drafts: old.drafts.map(upgradeDraft),
    taxEntries: old.taxEntries.map(entryOf),
    taxPeriods: old.taxPeriods.map((period) =>
      period.filed === null
        ? period
        : {
            ...period,
            filed: {
              ...period.filed,
              figures: returnOf(period.filed.figures.rows.map((row) => rowOf(row, period.registrationId))),
            },
          },
    ),
  };
}
