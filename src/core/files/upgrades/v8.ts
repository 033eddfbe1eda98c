/* Version 8 to version 9; frozen, see `v1.ts`. The business's account to pay into becomes the first bank account; statements are new. */

interface OldBusiness {
  readonly homeCurrency: string;
  readonly iban: string;
  readonly bic: string;
  readonly local?: { readonly kind: string; readonly code: string; readonly number: string };
}

export interface V8 {
  readonly book: readonly { readonly business: OldBusiness }[];
  readonly accounts: readonly { readonly code: string; readonly role: string }[];
}

const NO_LOCAL = { kind: '', code: '', number: '' };

/** The business without its account, and the account by itself, kept in the ledger where bank money was. */
export function upgradeV8({ book, accounts }: V8) {
  const account = accounts.find(({ role }) => role === 'bank')?.code ?? '';
  return {
    book: book.map((row) => {
      const { iban: _iban, bic: _bic, local: _local, ...business } = row.business;
      return { ...row, business };
    }),
    bankAccounts: book.map(({ business: { homeCurrency, iban, bic, local = NO_LOCAL } }) => ({
      id: 'bank',
      name: 'Bank',
      currency: homeCurrency,
      account,
      iban,
      bic,
      local,
    })),
    bankStatements: [],
    bankLines: [],
    bankRules: [],
    reconciliations: [],
  };
}
