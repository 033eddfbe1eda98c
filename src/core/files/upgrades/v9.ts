/* Version 9 to version 10; frozen, see `v1.ts`. What other books feed into returns is kept, and years are closed. */

interface OldAccount {
  readonly code: string;
  readonly name: string;
  readonly type: string;
  readonly role: string;
}

export interface V9 {
  readonly accounts: readonly OldAccount[];
}

/** The chart with an account of retained earnings, under its own code or the next free one. */
export function upgradeV9({ accounts }: V9) {
  const codes = new Set(accounts.map(({ code }) => code));
  let code = 3800;
  while (codes.has(String(code))) code++;
  const retained = { code: String(code), name: 'Retained earnings', type: 'equity', role: 'retained' };
  return { accounts: [...accounts, retained], returnBoxes: [], yearClosings: [] };
}
