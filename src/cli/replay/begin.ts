import type { Moment } from '@/core/book/changes';
import { exchangeRateId } from '@/core/currency/exchangeRate';
import { currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { type Decimal, decimal } from '@/core/kernel/decimal';
import type { Result } from '@/core/kernel/result';
import type { Business } from '@/core/parties/business';
import { blankCustomer } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import { chargesNothing, needsReason, type TaxCode } from '@/core/tax/taxCode';
import { sampleNumber } from '@/core/tax/taxNumber';
import { type Action, perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { begin, changeCustomer } from '@/store/setup/actions/setup';
import { keepExchangeRate, keepRegistration, keepWithholdingType } from '@/store/setup/actions/taxSetup';
import type { Scenario } from './scenario';

/* A book begins as Setup would begin it; what a scenario does not say is made up. */

const ROUNDING = { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' } as const;
const NO_ACCOUNTS = { output: '', notYetDue: '', payable: '' };
const EVER = isoDate('1990-01-01');

function businessOf({ home, registrations: [first] }: Scenario): Business {
  return {
    name: 'Corran Point Instruments Ltd (sample)',
    address: {
      street: 'Dock Road',
      city: 'Galway',
      region: '',
      postalCode: 'H91 X0X0',
      country: first?.jurisdiction ?? 'IE',
    },
    legalId: '000000',
    email: '',
    phone: '',
    creditorId: '',
    endpoint: { scheme: '', id: '' },
    homeCurrency: currency(home),
    styleId: '',
  };
}

function registrationOf(one: Scenario['registrations'][number], home: string): Registration {
  return {
    id: one.id,
    name: one.id,
    authority: 'Authority (sample)',
    country: one.jurisdiction,
    jurisdictionId: one.jurisdiction,
    number: sampleNumber(one.jurisdiction),
    from: '',
    until: '',
    frequency: one.frequency,
    basis: one.basis,
    badDebtRelief: true,
    filingCurrency: currency(home),
    rounding: ROUNDING,
    accounts: NO_ACCOUNTS,
    keptFrom: one.from,
    filedUntil: '',
  };
}

const taxIdOf = (code: string): string => `TAX-${code}`;

function codeOf({ id, category }: Scenario['codes'][number]): TaxCode {
  const charges = !chargesNothing(category);
  return {
    id,
    name: id,
    category,
    components: charges ? [{ taxId: taxIdOf(id), taxClass: '', family: '', compound: false }] : [],
    legends: needsReason(category) ? [{ language: 'en', text: 'No tax is charged (sample)' }] : [],
    exemptionCode: '',
    boxBase: '',
    boxTax: '',
  } as TaxCode;
}

const rateOf = (percent: Decimal) => ({
  taxClass: '',
  from: EVER,
  until: '' as const,
  percent,
  perUnit: '' as const,
  source: '',
});

/** Begins the book of a scenario in an empty database; the refusals of the first thing that is not taken. */
export async function beginScenario(
  db: BookDb,
  scenario: Scenario,
  momentOn: (day: IsoDate) => Moment,
): Promise<Result<unknown>> {
  const { home, registrations, codes, customers, withholdingTypes = [], rates = [] } = scenario;
  const [first, ...others] = registrations.map((one) => registrationOf(one, home));
  if (first === undefined) throw new RangeError('a scenario without a registration was read');
  const act = <I, V>(action: Action<I, V>, input: I) => perform(db, action, input, momentOn(first.keptFrom));
  const territory = first.jurisdictionId;
  const begun = await act(begin, {
    business: businessOf(scenario),
    registration: first,
    jurisdictions: [...new Set(registrations.map(({ jurisdiction }) => jurisdiction))].map((id) => ({
      id,
      name: id,
      kind: 'country' as const,
      code: id,
      parentId: '',
    })),
    taxes: codes.flatMap(({ id, category, rate }) =>
      chargesNothing(category)
        ? []
        : [{ id: taxIdOf(id), jurisdictionId: territory, name: 'VAT', rates: [rateOf(decimal(rate))] }],
    ),
    codes: codes.map(codeOf),
    rows: [],
  });
  if (!begun.ok) return begun;
  for (const value of others) {
    const kept = await act(keepRegistration, { value, isNew: true });
    if (!kept.ok) return kept;
  }
  for (const { id, base, rate, when, certificate } of withholdingTypes) {
    const value = {
      id,
      name: id,
      base,
      rates: [{ from: EVER, percent: decimal(rate) }],
      currency: currency(home),
      thresholdDocument: decimal('0'),
      thresholdYear: decimal('0'),
      when,
      certificate,
      source: '',
    };
    const kept = await act(keepWithholdingType, { value, isNew: true });
    if (!kept.ok) return kept;
  }
  // Parents stand before those under them, in whatever order they are given.
  const parentsFirst = [...customers].sort((a, b) => Number(a.parent !== undefined) - Number(b.parent !== undefined));
  for (const { id, name = id, country = territory, parent = '', withholding = [] } of parentsFirst) {
    const address = { street: 'Quay 1', city: 'Harbour', region: '', postalCode: '', country };
    const kept = await act(changeCustomer, {
      ...blankCustomer(id, name, country),
      address,
      parentId: parent,
      withholding,
    });
    if (!kept.ok) return kept;
  }
  for (const { currency: code, date, perHome } of rates) {
    const value = { id: exchangeRateId(code, date), currency: currency(code), date, perHome, source: 'scenario' };
    const kept = await act(keepExchangeRate, { value, isNew: true });
    if (!kept.ok) return kept;
  }
  return begun;
}
