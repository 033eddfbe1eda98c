import type { Decision, Moment } from '@/core/book/changes';
import type { Book } from '@/core/book/rows';
import { FIRST_SERIES } from '@/core/documents/series';
import { CODES } from '@/core/einvoice/codes';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { accountFor, FIRST_CHART } from '@/core/ledger/account';
import { type BankAccount, blankBankAccount } from '@/core/parties/bankAccount';
import { type Business, businessSchema } from '@/core/parties/business';
import { spanOf } from '@/core/returns/calendar';
import type { DecisionRow } from '@/core/tax/decisionTable';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import { type Place, placeKeys } from '@/core/tax/place';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import type { Tax } from '@/core/tax/tax';
import type { TaxCode } from '@/core/tax/taxCode';
import type { WithholdingType } from '@/core/tax/withholding';

const under = (path: string, refusals: readonly Refusal[]): Refusal[] =>
  refusals.map((refusal) => ({ ...refusal, path: `${path}.${refusal.path}` }));

/** What a new book begins with. Its registration gets the accounts of the first chart. */
export interface Beginning {
  readonly business: Business;
  readonly registration: Registration;
  readonly jurisdictions: readonly Jurisdiction[];
  readonly taxes: readonly Tax[];
  readonly codes: readonly TaxCode[];
  readonly rows: readonly DecisionRow[];
  readonly places?: readonly Place[];
  readonly withholdingTypes?: readonly WithholdingType[];
  /** The first account with a bank; one in home currency that nothing is known of, where none is given. */
  readonly bankAccount?: BankAccount;
}

/** Begins an empty book: business, its registration, first tax set-up, chart of accounts and number series. */
export function beginBook(beginning: Beginning, moment: Moment): Decision<Book> {
  const { business, registration, jurisdictions, taxes, codes, rows, places = [], withholdingTypes = [] } = beginning;
  const checkedBusiness = validated<Business>(businessSchema, business);
  const checkedRegistration = validated<Registration>(registrationSchema, registration);
  const refusals = [
    ...(checkedBusiness.ok ? [] : under('business', checkedBusiness.refusals)),
    ...(checkedRegistration.ok ? [] : under('registration', checkedRegistration.refusals)),
  ];
  if (refusals.length > 0) return refuse(...refusals);
  const book: Book = { id: 'book', business, begunAt: moment.now };
  const bankAccount =
    beginning.bankAccount ?? blankBankAccount('bank', 'Bank', business.homeCurrency, accountFor(FIRST_CHART, 'bank'));
  const keptFrom = spanOf(registration.frequency, registration.keptFrom).start;
  const accounts = {
    output: accountFor(FIRST_CHART, 'output-tax'),
    notYetDue: accountFor(FIRST_CHART, 'tax-not-yet-due'),
    payable: accountFor(FIRST_CHART, 'tax-payable'),
  };
  return accept({
    value: book,
    changes: {
      add: {
        book: [book],
        registrations: [{ ...registration, accounts, keptFrom, filedUntil: '' }],
        jurisdictions,
        taxes,
        taxCodes: codes,
        places: places.map((place) => ({ ...place, keys: placeKeys(place) })),
        withholdingTypes,
        decisionTables: [{ id: 'table', rows }],
        accounts: FIRST_CHART,
        bankAccounts: [bankAccount],
        series: FIRST_SERIES,
      },
      audit: { subject: business.name },
    },
  });
}

/** Codes of own units that Recommendation 20 does not have. */
function unitRefusals({ units = [] }: Business): readonly Refusal[] {
  return units.flatMap(({ code }, i) =>
    CODES.units.has(code)
      ? []
      : [{ code: 'unknown', path: `units[${i}].code`, wanted: 'give-unit-code', found: code } as const],
  );
}

export function saveBusiness(business: Business, book: Book): Decision<Book> {
  const checked = validated<Business>(businessSchema, business);
  if (!checked.ok) return checked;
  const unknown = unitRefusals(business);
  if (unknown.length > 0) return refuse(...unknown);
  // Amounts already written are in the home currency; another one would make them lies.
  if (business.homeCurrency !== book.business.homeCurrency)
    return refuse({ code: 'in-use', path: 'homeCurrency', keep: book.business.homeCurrency });
  const saved: Book = { ...book, business };
  return accept({
    value: saved,
    changes: { put: { book: [saved] }, audit: { subject: business.name, before: book.business, after: business } },
  });
}
