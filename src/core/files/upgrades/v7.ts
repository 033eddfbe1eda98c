/* Version 7 to version 8; frozen, see `v1.ts`. Revaluations, deferred revenue and payments to authorities are new. */

interface OldAccount {
  readonly code: string;
  readonly name: string;
  readonly type: string;
  readonly role: string;
}

export interface V7 {
  readonly accounts: readonly OldAccount[];
}

/** Accounts with roles that are new. */
const ACCOUNTS: readonly OldAccount[] = [
  { code: '2300', name: 'Deferred income', type: 'liability', role: 'deferred-income' },
  { code: '7925', name: 'Exchange differences, unrealised', type: 'expense', role: 'exchange-unrealised' },
];

/** The chart with an account for each role that is new, under its own code or the next free one. */
export function upgradeV7({ accounts }: V7) {
  const codes = new Set(accounts.map(({ code }) => code));
  const added = ACCOUNTS.map((account) => {
    let code = Number(account.code);
    while (codes.has(String(code))) code++;
    codes.add(String(code));
    return { ...account, code: String(code) };
  });
  return { accounts: [...accounts, ...added], reopenedFilings: [], taxPayments: [], revaluations: [], deferrals: [] };
}
