/*
 * Version 1 to version 2. What an upgrade needs of its time is written down here and stays as it was, whatever becomes of
 * the types and constants of today; it may use the kernel alone.
 */

interface OldCode {
  readonly id: string;
  readonly name?: string;
  readonly category?: string;
  readonly exemptionCode?: string;
  readonly taxClass: string;
  readonly legend: string;
  readonly rates: readonly { readonly from: string; readonly percent: string }[];
}

interface OldAccount {
  readonly code: string;
  readonly role: string;
}

interface OldEntry {
  readonly registrationId?: string;
  readonly base: bigint;
  readonly tax: bigint;
}

interface OldReturnRow {
  readonly code: string;
  readonly percent: string;
  readonly base: bigint;
  readonly tax?: bigint;
}

/** Tables of version 1, as far as they are read here; all others stay as they are. */
export interface BookContentV1 {
  readonly book: readonly {
    readonly business: { readonly homeCurrency: string; readonly address: { readonly country: string } };
  }[];
  readonly registrations: readonly { readonly id: string; readonly country: string }[];
  readonly taxCodes: readonly OldCode[];
  readonly customers: readonly { readonly taxNumber: string; readonly address: { readonly country: string } }[];
  readonly items: readonly { readonly unit: string }[];
  readonly accounts: readonly OldAccount[];
  readonly drafts: readonly { readonly lines: readonly { readonly unit: string }[] }[];
  readonly taxEntries: readonly OldEntry[];
  readonly taxPeriods: readonly {
    readonly registrationId: string;
    readonly filed: { readonly figures: { readonly rows: readonly OldReturnRow[] } } | null;
  }[];
}

/** The accounts with a role that version 2 gave each chart that had none for it. */
const ACCOUNTS = [
  { code: '1000', name: 'Bank', type: 'asset', role: 'bank' },
  { code: '1100', name: 'Receivables', type: 'asset', role: 'receivables' },
  { code: '1300', name: 'Tax withheld by customers', type: 'asset', role: 'withholding-claims' },
  { code: '2200', name: 'Output tax', type: 'liability', role: 'output-tax' },
  { code: '2210', name: 'Tax payable', type: 'liability', role: 'tax-payable' },
  { code: '2220', name: 'Output tax not yet due', type: 'liability', role: 'tax-not-yet-due' },
] as const;

const TIMED_UNITS: ReadonlySet<string> = new Set(['HUR', 'DAY', 'WEE', 'MON']);
/** Categories that charged nothing by their nature. */
const UNCHARGED: ReadonlySet<string> = new Set(['Z', 'E', 'AE', 'K', 'G', 'O']);

const supplyOf = (unit: string) => (TIMED_UNITS.has(unit) ? 'service' : 'goods');

/** Each code of version 1 had rates of its own: they become rates of one tax of the home territory. */
function taxesOf(codes: readonly OldCode[], country: string) {
  const id = `${country}-TAX`;
  const classes = codes.map((code) => code.taxClass);
  const leads = (code: OldCode) => code.taxClass !== '' && classes.indexOf(code.taxClass) === codes.indexOf(code);
  const classOf = (code: OldCode) => (leads(code) ? code.taxClass : code.id.toLowerCase());
  const charged = codes.filter((code) => !UNCHARGED.has(code.category ?? 'S'));
  const rates = charged.flatMap((code) =>
    code.rates.map(({ from, percent }) => ({
      taxClass: classOf(code),
      from,
      until: '',
      percent,
      perUnit: '',
      source: '',
    })),
  );
  return {
    tax: { id, jurisdictionId: country, name: 'Tax', rates },
    codes: codes.map((code) => {
      const { id: codeId, name = codeId, category = 'S', exemptionCode = '', legend } = code;
      const none = UNCHARGED.has(category);
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
    rows: codes.filter(leads).map((code) => ({
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

function upgradeCustomer(old: BookContentV1['customers'][number]) {
  const { taxNumber, ...rest } = old;
  const taxNumbers = taxNumber === '' ? [] : [{ country: old.address.country, number: taxNumber, check: null }];
  const kind = taxNumber === '' ? 'consumer' : 'business';
  return { ...rest, kind, language: 'en', taxNumbers, priceListId: '', notLiableIn: [], withholding: [] };
}

const upgradeDraft = (old: BookContentV1['drafts'][number]) => ({
  ...old,
  lines: old.lines.map((line) => ({
    ...line,
    taxClass: 'standard',
    supply: supplyOf(line.unit),
    priceFrom: '',
  })),
  registrationByHand: false,
  delivery: null,
  held: null,
});

const sum = (amounts: readonly bigint[]) => amounts.reduce((all, amount) => all + amount, 0n);

/** Rows of a filed return as version 2 kept them, with their sums. */
function upgradeFigures(rows: readonly OldReturnRow[], territory: string, home: string) {
  const upgraded = rows.map((row) => ({
    ...row,
    jurisdictionId: territory,
    jurisdictionName: territory,
    taxId: '',
    kind: 'due',
    boxBase: '',
    boxTax: '',
    baseOnce: row.base,
    filingCurrency: home,
    filingBase: row.base,
    filingBaseOnce: row.base,
    filingTax: row.tax ?? 0n,
  }));
  const base = sum(upgraded.map((row) => row.baseOnce));
  const tax = sum(upgraded.map((row) => row.filingTax));
  return { rows: upgraded, base, tax, filingBase: base, filingTax: tax, boxes: [] };
}

/**
 * A book of version 1 as one of version 2: rates move from tax codes to a tax of the home territory,
 * classes of codes become rows of the decision table, and what is new gets the value that changes
 * nothing. Issued documents stay as they were sealed. Gives the tables that are written anew.
 */
export function upgradeV1(old: BookContentV1): Readonly<Record<string, readonly object[]>> {
  const home = old.book[0]?.business.homeCurrency;
  if (home === undefined) throw new RangeError('a book without its business can not be brought up to date');
  const country = old.registrations[0]?.country ?? old.book[0]?.business.address.country ?? '';
  const { tax, codes, rows } = taxesOf(old.taxCodes, country);
  const territoryOf = (id: string | undefined) => old.registrations.find((r) => r.id === id)?.country ?? country;
  const territories = [...new Set([country, ...old.registrations.map((r) => r.country)])];
  const accounts: readonly OldAccount[] = [
    ...old.accounts,
    ...ACCOUNTS.filter(({ code, role }) => !old.accounts.some((a) => a.code === code || a.role === role)),
  ];
  const account = (role: string) => accounts.find((a) => a.role === role)?.code ?? '';
  return {
    jurisdictions: territories.map((code) => ({ id: code, name: code, kind: 'country', code, parentId: '' })),
    taxes: [tax],
    taxCodes: codes,
    decisionTables: [{ id: 'table', rows }],
    accounts,
    registrations: old.registrations.map((r) => ({
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
    })),
    customers: old.customers.map(upgradeCustomer),
    items: old.items.map((item) => ({ ...item, priceMode: 'net', supply: supplyOf(item.unit) })),
    drafts: old.drafts.map(upgradeDraft),
    taxEntries: old.taxEntries.map((entry) => ({
      ...entry,
      jurisdictionId: territoryOf(entry.registrationId),
      jurisdictionName: territoryOf(entry.registrationId),
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
    })),
    taxPeriods: old.taxPeriods.map((period) => {
      const { filed, registrationId } = period;
      if (filed === null) return period;
      return {
        ...period,
        filed: { ...filed, figures: upgradeFigures(filed.figures.rows, territoryOf(registrationId), home) },
      };
    }),
  };
}
