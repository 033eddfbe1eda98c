import type { Decision } from '@/core/book/changes';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { type Account, accountFor, freeCode } from '@/core/ledger/account';
import { spanOf } from '@/core/returns/calendar';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import type { TaxRecords } from '@/core/tax/taxSetup';

export interface RegistrationMaterial {
  readonly before: Registration | undefined;
  readonly isNew: boolean;
  readonly records: Pick<TaxRecords, 'registrations' | 'jurisdictions'>;
  readonly chart: readonly Account[];
  /** Periods or documents rest on it. */
  readonly used: boolean;
}

/** Accounts that a registration lacks are made for it. */
function withAccounts(registration: Registration, chart: readonly Account[]) {
  const made: Account[] = [];
  const make = (words: string): string => {
    const code = freeCode([...chart, ...made], 2230, 10);
    made.push({ code, name: `${words}, ${registration.name}`, type: 'liability', role: '' });
    return code;
  };
  const { accounts } = registration;
  return {
    accounts: {
      output: accounts.output || make('Output tax'),
      notYetDue: accounts.notYetDue || accountFor(chart, 'tax-not-yet-due'),
      payable: accounts.payable || make('Tax payable'),
    },
    made,
  };
}

/** Keeps a registration. The periods in use keep their frequency, their first day and their accounts. */
export function saveRegistration(registration: Registration, material: RegistrationMaterial): Decision<Registration> {
  const { before, isNew, records, chart, used } = material;
  const checked = validated<Registration>(registrationSchema, registration);
  if (!checked.ok) return checked;
  const refusals: Refusal[] = [];
  if (isNew && before !== undefined) refusals.push({ code: 'duplicate', path: 'id', found: registration.id });
  if (!records.jurisdictions.some((j) => j.id === registration.jurisdictionId))
    refusals.push({ code: 'unknown', path: 'jurisdictionId', wanted: 'choose-territory' });
  const { accounts, made } = withAccounts(registration, chart);
  for (const [field, code] of Object.entries(accounts))
    if (![...chart, ...made].some((account) => account.code === code))
      refusals.push({ code: 'unknown', path: `accounts.${field}`, wanted: 'choose-account', found: code });
  if (records.registrations.some((r) => r.id !== registration.id && r.accounts.output === accounts.output))
    refusals.push({
      code: 'invalid',
      path: 'accounts.output',
      wanted: 'output-account-of-its-own',
    });
  const keptFrom = spanOf(registration.frequency, registration.keptFrom).start;
  const inUse = (path: string, keep: string) => refusals.push({ code: 'in-use', path, keep });
  if (before !== undefined && used) {
    if (registration.frequency !== before.frequency) inUse('frequency', before.frequency);
    if (keptFrom !== before.keptFrom) inUse('keptFrom', before.keptFrom);
    if (registration.filingCurrency !== before.filingCurrency) inUse('filingCurrency', before.filingCurrency);
    if (registration.jurisdictionId !== before.jurisdictionId) inUse('jurisdictionId', before.jurisdictionId);
    if (registration.basis !== before.basis) inUse('basis', before.basis);
    if (accounts.output !== before.accounts.output) inUse('accounts.output', before.accounts.output);
    if (accounts.notYetDue !== before.accounts.notYetDue) inUse('accounts.notYetDue', before.accounts.notYetDue);
  }
  if (refusals.length > 0) return refuse(...refusals);
  const saved: Registration = { ...registration, accounts, keptFrom, filedUntil: before?.filedUntil ?? '' };
  return accept({
    value: saved,
    changes: {
      ...(made.length > 0 && { add: { accounts: made } }),
      put: { registrations: [saved] },
      audit: { subject: saved.name, ...(before && { before }), after: saved },
    },
  });
}
